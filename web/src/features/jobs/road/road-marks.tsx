import type { JobsRoom, Piece } from '@bold-ballast/core'
import type { RoadView } from '../jobs.worker.ts'
import { letterOf } from '../letters.ts'
import { roadDay } from '../road-words.ts'

/** Room for the names to the left of the lanes. */
export const NAMES_PX = 62
const DAY_H = 24

/** Where days lie on the drawing. */
export interface Scale {
  readonly x: (day: number) => number
  /** The first day that is drawn. */
  readonly first: number
  readonly dayPx: number
  readonly days: number
}

/** Waits run by day and night: thin, under the hands. */
export function Waits({ room, view, scale, y }: { room: JobsRoom; view: RoadView; scale: Scale; y: number }) {
  const waits = view.jobs
    .map(({ laid }, i) => ({ piece: laid.pieces[0] as Piece | undefined, i }))
    .filter(({ i, piece }) => room.road.jobs[i]?.kind === 'wait' && piece)
  return (
    <g>
      <text x={0} y={y + 4} fill="var(--quiet)">
        waits
      </text>
      {waits.map(({ piece, i }) => {
        const [from, to] = [scale.x((piece as Piece).fromH / DAY_H), scale.x(Math.min(scale.days, (piece as Piece).toH / DAY_H))]
        return (
          <g key={room.road.jobs[i]?.id}>
            <line x1={from} x2={to} y1={y} y2={y} stroke="var(--planned)" strokeWidth="4" strokeDasharray="3 1.5" />
            <text x={from - 4} y={y + 4} textAnchor="end" fontSize="11" fontWeight="700" fill="var(--ink)">
              {letterOf(i)}
            </text>
          </g>
        )
      })}
    </g>
  )
}

/** From the day half of all draws are ready by to the day of 8 in 10. */
export function ReadyBar({ room, view, scale, y, wall }: { room: JobsRoom; view: RoadView; scale: Scale; y: number; wall: number | null }) {
  const ready = view.ready
  if (!ready || !Number.isFinite(ready.halfDay)) return null
  const [half, eight] = [
    scale.x(Math.min(scale.days, ready.halfDay + 0.5)),
    scale.x(Math.min(scale.days, Number.isFinite(ready.eightDay) ? ready.eightDay + 0.5 : scale.days)),
  ]
  // Words that would run through the wall end before it.
  const edge = wall !== null && wall > half - 180 && wall < half + 4 ? wall - 6 : half - 5
  const isLeft = edge > NAMES_PX + 170
  return (
    <g>
      <text x={0} y={y + 4} fill="var(--quiet)">
        ready
      </text>
      <line x1={half} x2={eight} y1={y} y2={y} stroke="var(--planned)" strokeWidth="8" strokeDasharray="5 1.5" />
      {[half, eight].map((x, i) => (
        <line key={i === 0 ? 'half' : 'eight'} x1={x} x2={x} y1={y - 8} y2={y + 8} stroke="var(--ink)" strokeWidth="2.5" />
      ))}
      <text x={isLeft ? edge : eight + 5} y={y + 4} textAnchor={isLeft ? 'end' : 'start'} fill="var(--ink)">
        half of all draws by <tspan fontWeight="700">{roadDay(room.today, ready.halfDay)}</tspan>
        {isLeft ? '' : `, 8 in 10 by ${roadDay(room.today, ready.eightDay)}`}
      </text>
      {isLeft && (
        <text x={Math.min(eight + 5, scale.x(scale.days) - 92)} y={y + 18} fill="var(--ink)">
          8 in 10 by <tspan fontWeight="700">{roadDay(room.today, ready.eightDay)}</tspan>
        </text>
      )}
    </g>
  )
}

/** Days that parts come: a flag for each, open where it is not ordered, or was moved by what is asked. */
export function Flags({
  room,
  scale,
  arrivals,
  late,
  foot,
}: {
  room: JobsRoom
  scale: Scale
  arrivals: readonly number[]
  late: { readonly id: string; readonly days: number } | null
  foot: number
}) {
  const flags = room.road.parts.map((part, i) => ({ part, day: arrivals[i] ?? 0 })).sort((a, b) => a.day - b.day)
  const rows: number[] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY]
  return (
    <g fontSize="11">
      {flags.map(({ part, day }) => {
        const isMoved = late?.id === part.id
        const isOrdered = part.orderedDaysAgo !== null && part.orderedDaysAgo >= 0
        const x = scale.x(Math.min(scale.days, day))
        const words = `${part.name.length > 18 ? `${part.name.slice(0, 17)}…` : part.name}, ${roadDay(room.today, day)}`
        const wide = words.length * 6 + 14
        const row = (rows[0] as number) <= x ? 0 : (rows[1] as number) <= x ? 1 : 0
        rows[row] = x + wide
        const y = 9 + row * 13
        const isEnd = x + wide > scale.x(scale.days)
        return (
          <g key={part.id}>
            <line x1={x} x2={x} y1={y} y2={foot} stroke="var(--wait)" strokeDasharray="2 2" />
            <path d={`M${x} ${y - 8} h8 l-2 3 l2 3 h-8 z`} fill={!isOrdered || isMoved ? 'none' : 'var(--wait)'} stroke="var(--wait)" />
            <text x={isEnd ? x - 4 : x + 12} y={y} textAnchor={isEnd ? 'end' : 'start'} fill="var(--wait)" fontWeight={isMoved ? 700 : 600}>
              {words}
              {isOrdered ? '' : ', not ordered'}
            </text>
          </g>
        )
      })}
    </g>
  )
}
