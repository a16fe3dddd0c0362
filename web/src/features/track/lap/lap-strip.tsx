import { type Corner, fromSi, type Lap } from '@bold-ballast/core'
import { useMemo } from 'react'
import { axisStep } from '../../../ui/drawing/axis-step.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { lapPieces } from './lap-pieces.ts'

const LEFT = 46
const TOP = 8
const SPEED = 128
const BAR = 26
const NAMES = 22
const AXIS = 24

/** When a lap passes a place, s. */
function timeAt(lap: Lap, m: number): number {
  const i = lap.cells.findIndex(({ atM, lengthM }) => atM + lengthM >= m)
  const cell = lap.cells[i]
  if (!cell) return lap.lapS
  const [from, to] = [lap.timeS[i] ?? 0, lap.timeS[i + 1] ?? 0]
  return from + ((to - from) * (m - cell.atM)) / cell.lengthM
}

/** A lap laid out by its seconds: speed above, what holds the car below, in which corner. */
export function LapStrip({
  lap,
  corners,
  picked,
  pick,
  width,
}: {
  lap: Lap
  corners: readonly Corner[]
  picked: string
  pick: (name: string) => void
  width: number
}) {
  const { units } = useQuantities()
  const pieces = useMemo(() => lapPieces(lap), [lap])
  const inner = width - LEFT - 8
  const x = (s: number) => LEFT + (s / lap.lapS) * inner
  const shown = (mps: number) => fromSi('speed', mps, units.speed)
  const top = shown(lap.fastestMps) * 1.06
  const y = (mps: number) => TOP + SPEED * (1 - shown(mps) / top)
  const step = axisStep(top, 5)
  const ticks = Array.from({ length: Math.floor(top / step) }, (_, i) => (i + 1) * step)
  const seconds = axisStep(lap.lapS, 6)
  // A point a pixel is as much as can be seen.
  const every = Math.max(1, Math.floor(lap.speedMps.length / 700))
  const points: string[] = []
  for (let i = 0; i < lap.speedMps.length; i += every) points.push(`${x(lap.timeS[i] ?? 0).toFixed(1)},${y(lap.speedMps[i] ?? 0).toFixed(1)}`)
  const bar = TOP + SPEED + 12
  const height = bar + BAR + NAMES + AXIS
  const spans = corners.map((corner) => ({ corner, from: timeAt(lap, corner.fromM), to: timeAt(lap, corner.toM) }))
  return (
    <div className="relative" style={{ height }}>
      <svg
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        className="absolute inset-0 block text-[12px] tabular-nums"
        role="img"
        aria-label={`The lap by its seconds: from ${shown(lap.slowestMps).toFixed(0)} to ${shown(lap.fastestMps).toFixed(0)} ${units.speed}, ${lap.upshifts} upshifts`}
      >
        {spans
          .filter(({ corner }) => corner.name === picked)
          .map(({ corner, from, to }) => (
            <rect key={corner.atM} x={x(from)} width={Math.max(2, x(to) - x(from))} y={0} height={bar + BAR} fill="var(--picked)" />
          ))}
        {ticks.map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={width - 8} y1={TOP + SPEED * (1 - tick / top)} y2={TOP + SPEED * (1 - tick / top)} stroke="var(--line)" />
            <text x={LEFT - 6} y={TOP + SPEED * (1 - tick / top) + 4} textAnchor="end" fill="var(--quiet)">
              {tick}
            </text>
          </g>
        ))}
        <polyline points={points.join(' ')} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        {pieces.map((piece) => {
          const [from, to] = [x(piece.fromS), x(piece.toS)]
          const { by } = piece
          const length = piece.toS - piece.fromS
          return (
            <g key={piece.fromM}>
              {by === 'tyres' && <rect x={from} y={bar} width={Math.max(1, to - from)} height={BAR} fill="var(--pine)" />}
              {by === 'engine' && (
                <rect
                  x={from + 0.75}
                  y={bar + 0.75}
                  width={Math.max(1, to - from - 1.5)}
                  height={BAR - 1.5}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
              )}
              {by === 'brakes' && (
                <line x1={from} x2={to} y1={bar + BAR / 2} y2={bar + BAR / 2} stroke="var(--planned)" strokeWidth={BAR} strokeDasharray="2.5 2.5" />
              )}
              {by !== 'brakes' && to - from > 30 && (
                <text x={(from + to) / 2} y={bar + 17} textAnchor="middle" fontWeight={600} fill={by === 'tyres' ? 'var(--sheet)' : 'var(--ink)'}>
                  {length.toFixed(1)}
                </text>
              )}
            </g>
          )
        })}
        {spans.map(({ corner, from, to }) => (
          // biome-ignore lint/a11y/noStaticElementInteractions: the same is picked by the list of corners above it.
          <text
            key={`${corner.name} ${corner.atM}`}
            x={x((from + to) / 2)}
            y={bar + BAR + 16}
            textAnchor="middle"
            fontWeight={600}
            fill={picked === corner.name ? 'var(--wait)' : 'var(--ink)'}
            onClick={() => pick(picked === corner.name ? '' : corner.name)}
            className="cursor-pointer"
          >
            {corner.name}
          </text>
        ))}
        {Array.from({ length: Math.floor(lap.lapS / seconds) + 1 }, (_, i) => i * seconds).map((tick) => (
          <text key={tick} x={x(tick)} y={height - 6} textAnchor={tick === 0 ? 'start' : 'middle'} fill="var(--quiet)">
            {tick}
            {tick === 0 ? ' s' : ''}
          </text>
        ))}
      </svg>
    </div>
  )
}
