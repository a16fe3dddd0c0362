import type { TrackRoom } from '@bold-ballast/core'
import { type Corner, type DriverStretch, type Lap, trackShape } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'
import { HELD_WORDS, type HeldBy, type LapPiece, lapPieces, secondsHeld } from './lap-pieces.ts'

type Track = TrackRoom['tracks'][number]
const STEP_M = 2
const BAND = 15
const MARGIN = 62

/** How each stretch is drawn: width, colour and pattern say the same, so that none is needed to read it. */
export const HELD_STROKES: Readonly<Record<HeldBy, { readonly stroke: string; readonly strokeWidth: number; readonly strokeDasharray?: string }>> = {
  tyres: { stroke: 'var(--pine)', strokeWidth: 9 },
  engine: { stroke: 'var(--ink)', strokeWidth: 2.5 },
  brakes: { stroke: 'var(--planned)', strokeWidth: 9, strokeDasharray: '2.5 2.5' },
}

/** A frame around the band, so that it is seen with any of what lies on it. */
const DRIVER_STROKE = { stroke: 'var(--wait)', strokeWidth: BAND + 8, strokeDasharray: '6 3' } as const

/** A logged lap's stretches that its driver alone held, and which lap it was. */
export interface DriverHeldLap {
  readonly words: string
  readonly stretches: readonly DriverStretch[]
}

/** A track in the plane, turned so that it lies wide, scaled to a width. */
function useDrawn(track: Track, width: number) {
  return useMemo(() => {
    const shape = trackShape(track, STEP_M)
    const places = [...shape.x].map((x, i) => [x, shape.y[i] ?? 0] as const)
    // Of the angles of a half turn the one at which it is widest against its height.
    const turned = (angle: number) => places.map(([x, y]) => [x * Math.cos(angle) - y * Math.sin(angle), x * Math.sin(angle) + y * Math.cos(angle)] as const)
    const box = (list: readonly (readonly [number, number])[]) => {
      const [xs, ys] = [list.map(([x]) => x), list.map(([, y]) => y)]
      const [left, right, low, high] = [
        xs.reduce((a, b) => Math.min(a, b)),
        xs.reduce((a, b) => Math.max(a, b)),
        ys.reduce((a, b) => Math.min(a, b)),
        ys.reduce((a, b) => Math.max(a, b)),
      ]
      return { left, right, low, high, wide: right - left, tall: high - low }
    }
    const angles = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 24)
    const best = angles.reduce(
      (found, angle) => {
        const { wide, tall } = box(turned(angle))
        return wide / Math.max(tall, 1) > found.ratio ? { angle, ratio: wide / Math.max(tall, 1) } : found
      },
      { angle: 0, ratio: 0 },
    )
    const list = turned(track.bearingRad ?? best.angle)
    const { left, high, wide, tall } = box(list)
    const scale = Math.min((width - 2 * MARGIN) / Math.max(wide, 1), 250 / Math.max(tall, 1))
    const shift = (width - 2 * MARGIN - wide * scale) / 2
    const points = list.map(([x, y]) => [MARGIN + shift + (x - left) * scale, MARGIN * 0.55 + (high - y) * scale] as const)
    return { points, atM: shape.atM, height: tall * scale + 1.1 * MARGIN, lengthM: shape.lengthM }
  }, [track, width])
}

type Drawn = ReturnType<typeof useDrawn>

const indexAt = ({ atM }: Drawn, m: number) => {
  let [low, high] = [0, atM.length - 1]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if ((atM[middle] ?? 0) <= m) low = middle
    else high = middle
  }
  return low
}

function pathOf(drawn: Drawn, fromM: number, toM: number): string {
  const [from, to] = [indexAt(drawn, fromM), Math.min(drawn.points.length - 1, indexAt(drawn, toM) + 1)]
  return drawn.points
    .slice(from, to + 1)
    .map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('')
}

/** Where a corner's words stand: on its outer side. */
function labelAt(drawn: Drawn, { atM, curvaturePerM }: Corner): { x: number; y: number; anchor: 'start' | 'middle' | 'end' } {
  const i = indexAt(drawn, atM)
  const [before, after] = [drawn.points[Math.max(0, i - 2)], drawn.points[Math.min(drawn.points.length - 1, i + 2)]]
  const [x, y] = drawn.points[i] ?? [0, 0]
  const [dx, dy] = [(after?.[0] ?? 0) - (before?.[0] ?? 0), (after?.[1] ?? 0) - (before?.[1] ?? 0)]
  const length = Math.hypot(dx, dy) || 1
  // The picture's y runs down: of a left-hander the outer side is to the right of the way.
  const side = curvaturePerM > 0 ? 1 : -1
  const [nx, ny] = [(-dy / length) * side, (dx / length) * side]
  const anchor = nx > 0.4 ? 'start' : nx < -0.4 ? 'end' : 'middle'
  return { x: x + nx * 17, y: y + ny * 19 + 4, anchor }
}

/** Labels whose words would lie over each other say their name alone. */
function roomyLabels(drawn: Drawn, corners: readonly Corner[]) {
  const placed = corners.map((corner) => {
    const at = labelAt(drawn, corner)
    const width = 8 * corner.name.length + 32
    const left = at.anchor === 'start' ? at.x : at.anchor === 'end' ? at.x - width : at.x - width / 2
    return { ...at, left, right: left + width }
  })
  return placed.map((one, i) => ({
    ...one,
    isRoomy: placed.every((other, j) => i === j || Math.abs(one.y - other.y) > 15 || one.right < other.left || other.right < one.left),
  }))
}

/** The track with what holds the car at each place: width, pattern and colour say it; corners with the least speed in them. */
export function TrackMap({
  track,
  lap,
  corners,
  speeds,
  picked,
  pick,
  width,
  range,
  driver = null,
}: {
  track: Track
  lap: Lap | null
  corners: readonly Corner[]
  speeds: readonly number[]
  picked: string
  pick: (name: string) => void
  width: number
  /** Stretch that is looked at, m. */
  range: { readonly fromM: number; readonly toM: number } | null
  /** Where a logged lap was held by its driver alone. */
  driver?: DriverHeldLap | null
}) {
  const { format } = useQuantities()
  const drawn = useDrawn(track, width)
  const pieces = useMemo(() => (lap ? lapPieces(lap) : []), [lap])
  const held = lap ? secondsHeld(lap) : null
  const labels = useMemo(() => roomyLabels(drawn, corners), [drawn, corners])
  const whole = pathOf(drawn, 0, drawn.lengthM)
  const [start, next] = [drawn.points[0], drawn.points[3]]
  const heading = start && next ? (Math.atan2(next[1] - start[1], next[0] - start[0]) * 180) / Math.PI : 0
  const words = held
    ? `${track.name}: tyres hold the car for ${held.tyres.toFixed(1)} s, the engine ${held.engine.toFixed(1)} s, the brakes ${held.brakes.toFixed(1)} s`
    : track.name
  return (
    <div>
      <svg width={width} height={drawn.height} viewBox={`0 0 ${width} ${drawn.height}`} className="block text-[13px]" role="img" aria-label={words}>
        {driver?.stretches.map(({ fromM, toM }) => (
          <path key={`driver ${fromM}`} d={pathOf(drawn, fromM, toM)} fill="none" {...DRIVER_STROKE} />
        ))}
        <path d={`${whole}${track.isClosed ? 'Z' : ''}`} fill="none" stroke="var(--line)" strokeWidth={BAND} strokeLinejoin="round" />
        {pieces.map((piece: LapPiece) => (
          <path key={piece.fromM} d={pathOf(drawn, piece.fromM, piece.toM)} fill="none" {...HELD_STROKES[piece.by]} />
        ))}
        {range && <path d={pathOf(drawn, range.fromM, range.toM)} fill="none" stroke="var(--wait)" strokeWidth={BAND + 4} strokeOpacity={0.35} />}
        {start && (
          <g transform={`translate(${start[0]} ${start[1]}) rotate(${heading})`}>
            <line y1={-13} y2={13} stroke="var(--ink)" strokeWidth={3} />
            <path d="M8 -18h16m-5 -4l5 4l-5 4" fill="none" stroke="var(--ink)" strokeWidth={1.6} />
          </g>
        )}
        {corners.map((corner, i) => {
          const at = labels[i] as (typeof labels)[number]
          const speed = at.isRoomy ? speeds[i] : undefined
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: the same corner is picked in the strip below, by keyboard.
            <text
              key={`${corner.name} ${corner.atM}`}
              x={at.x}
              y={at.y}
              textAnchor={at.anchor}
              onClick={() => pick(picked === corner.name ? '' : corner.name)}
              className="cursor-pointer tabular-nums"
              fill={picked === corner.name ? 'var(--wait)' : 'var(--ink)'}
            >
              <tspan fontWeight={700}>{corner.name}</tspan>
              {speed !== undefined && Number.isFinite(speed) && (
                <tspan dx={4} fill="var(--quiet)">
                  {format('speed', speed, { decimals: 0 }).number}
                </tspan>
              )}
            </text>
          )
        })}
      </svg>
      {held && (
        <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1" aria-label="What holds the car back">
          {(['tyres', 'engine', 'brakes'] as const).map((by) => (
            <li key={by} className="flex items-center gap-2">
              <svg width={30} height={12} aria-hidden="true">
                <line x1={1} x2={29} y1={6} y2={6} {...HELD_STROKES[by]} />
              </svg>
              {HELD_WORDS[by]} <strong className="tabular-nums">{held[by].toFixed(1)}</strong> s
            </li>
          ))}
          {driver && (
            <li className="flex items-center gap-2">
              <svg width={30} height={24} aria-hidden="true">
                <line x1={1} x2={29} y1={12} y2={12} {...DRIVER_STROKE} />
                <line x1={1} x2={29} y1={12} y2={12} stroke="var(--line)" strokeWidth={BAND} />
              </svg>
              driver holds it, {driver.words}{' '}
              <strong className="tabular-nums">{driver.stretches.reduce((sum, { seconds }) => sum + seconds, 0).toFixed(1)}</strong> s
            </li>
          )}
        </ul>
      )}
    </div>
  )
}
