import { type JobsRoom, sessionsOf } from '@bold-ballast/core'
import { FigureFrame } from '../../../ui/drawing/figure-frame.tsx'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { RoadView } from '../jobs.worker.ts'
import { letterOf } from '../letters.ts'
import { roadDay } from '../road-words.ts'
import { Flags, NAMES_PX, ReadyBar, type Scale, Waits } from './road-marks.tsx'

const LANE_PX = 52
const CELL_PX = 40
const TOP_PX = 34
const LEAST_WIDTH_PX = 640
/** A day is drawn no wider and no narrower than this. */
const MOST_DAY_PX = 24
const DAY_H = 24
/** Days of hours that a drawing shows at the most. */
const MOST_DAYS = 150

/** An empty time before the first job is left out from here on. */
const LONG_EMPTY_DAYS = 14

/** The first day that is drawn: today, or shortly before anything happens. */
function firstDay(view: RoadView, arrivals: readonly number[]): number {
  const starts = [...view.jobs.map(({ laid }) => laid.startH / DAY_H).filter(Number.isFinite), ...arrivals]
  const soonest = Math.floor(Math.min(...starts))
  return soonest > LONG_EMPTY_DAYS ? soonest - 2 : 0
}

/** Up to which day it is drawn: past the deadline, the last job and the day 8 in 10 draws are ready by. */
function daysOf(view: RoadView, deadlineDay: number | null): number {
  const ends = view.jobs.map(({ laid }) => laid.endH / DAY_H).filter(Number.isFinite)
  const ready = view.ready && Number.isFinite(view.ready.eightDay) ? view.ready.eightDay + 3 : 0
  return Math.max(14, Math.ceil(Math.max(...ends, 0)) + 2, (deadlineDay ?? 0) + 8, ready)
}

/** A piece of a job in a session: as high as its hours, its letter in it where there is room. */
function JobPiece({
  x,
  width,
  y,
  height,
  letter,
  isInk,
  title,
}: {
  x: number
  width: number
  y: number
  height: number
  letter: string
  isInk: boolean
  title: string
}) {
  return (
    <g>
      <title>{title}</title>
      <rect x={x} y={y} width={width} height={height} fill={isInk ? 'var(--ink)' : 'var(--wash)'} stroke="var(--sheet)" strokeWidth="0.5" />
      {height >= 11 && width >= 9 && (
        <text x={x + width / 2} y={y + height / 2 + 4} textAnchor="middle" fontWeight="700" fontSize="11" fill={isInk ? 'var(--sheet)' : 'var(--ink)'}>
          {letter}
        </text>
      )}
    </g>
  )
}

interface LaneProps {
  readonly room: JobsRoom
  readonly view: RoadView
  readonly scale: Scale
  readonly onLine: ReadonlySet<string>
  readonly mostH: number
}

/** One hand's sessions, each as high as its hours, with the jobs that lie in it from the bottom up. */
function HandLane({ room, view, scale, onLine, mostH, at }: LaneProps & { readonly at: number }) {
  const hand = room.road.hands[at] as JobsRoom['road']['hands'][number]
  const base = TOP_PX + (at + 1) * LANE_PX
  const sessions = sessionsOf({ hand, weekday: room.road.weekday, starts: room.road.starts, days: scale.days })
  const mine = view.jobs.map(({ laid }, i) => ({ laid, i })).filter(({ laid }) => laid.handIds.includes(hand.id))
  const width = Math.max(2.5, scale.dayPx - 3)
  return (
    <g>
      <text x={0} y={base - 14} fontWeight="700" fill="var(--ink)" fontSize="13">
        {hand.name.length > 9 ? `${hand.name.slice(0, 8)}…` : hand.name}
      </text>
      <line x1={NAMES_PX} x2={scale.x(scale.days)} y1={base} y2={base} stroke="var(--line)" />
      {sessions.from.map((from, s) => {
        if (from < scale.first * DAY_H) return null
        const to = sessions.to[s] as number
        const x = scale.x(Math.floor(from / DAY_H)) + 1.5
        const height = ((to - from) / mostH) * CELL_PX
        const pieces = mine.flatMap(({ laid, i }) =>
          laid.pieces.filter((piece) => piece.fromH < to && piece.toH > from).map((piece) => ({ piece, i, id: laid.id })),
        )
        const px = (hours: number) => (hours / mostH) * CELL_PX
        return (
          <g key={from}>
            <rect x={x} y={base - height} width={width} height={height} fill="none" stroke="var(--edge)" strokeWidth="0.75" />
            {pieces.map(({ piece, i, id }) => (
              <JobPiece
                key={`${id} ${piece.fromH}`}
                x={x}
                width={width}
                y={base - px(piece.toH - from)}
                height={px(piece.toH - piece.fromH)}
                letter={letterOf(i)}
                isInk={onLine.has(id)}
                title={`${room.road.jobs[i]?.name}, ${(piece.toH - piece.fromH).toFixed(1)} h on ${roadDay(room.today, Math.floor(piece.fromH / DAY_H))}`}
              />
            ))}
          </g>
        )
      })}
      {hand.away.map(({ fromDay, toDay }) => {
        const [from, to] = [Math.max(scale.first, fromDay), Math.min(scale.days, toDay + 1)]
        return to > from ? (
          <text key={fromDay} x={scale.x((from + to) / 2)} y={base - 4} textAnchor="middle" fontSize="10" fill="var(--quiet)">
            away
          </text>
        ) : null
      })}
    </g>
  )
}

/** The road to the event: a lane for each hand, the jobs laid into its sessions, waits, parts on their way, the event as a wall. */
export function RoadFigure({
  room,
  view,
  arrivals,
  onLine,
  deadline,
  late,
}: {
  room: JobsRoom
  view: RoadView
  arrivals: readonly number[]
  onLine: ReadonlySet<string>
  deadline: JobsRoom['deadlines'][number] | null
  late: { readonly id: string; readonly days: number } | null
}) {
  const [box, measured] = useWidth<HTMLDivElement>(720)
  const width = Math.max(LEAST_WIDTH_PX, measured)
  const first = firstDay(view, arrivals)
  const days = Math.min(first + MOST_DAYS, daysOf(view, deadline?.day ?? null))
  const dayPx = Math.min(MOST_DAY_PX, (width - NAMES_PX - 6) / (days - first))
  const scale: Scale = { x: (day) => NAMES_PX + (day - first) * dayPx, first, dayPx, days }
  const { hands, weekday } = room.road
  const foot = TOP_PX + hands.length * LANE_PX
  const height = foot + 72
  const mostH = Math.max(1, ...hands.flatMap(({ hoursByWeekday }) => hoursByWeekday))
  const mondays = Array.from({ length: days - first }, (_, i) => first + i).filter((day) => (weekday + day) % 7 === 0)
  const step = Math.ceil(72 / (7 * dayPx))
  const wall = deadline && deadline.day >= 0 && deadline.day <= days ? scale.x(deadline.day) : null
  return (
    <div ref={box}>
      <ScrollBox label="The road to the event">
        <FigureFrame
          width={width}
          height={height}
          label={`Jobs laid into the hours of ${hands.map(({ name }) => name).join(', ')}; the table below tells each of them.`}
        >
          {mondays.map((day, i) => (
            <g key={day}>
              <line x1={scale.x(day)} x2={scale.x(day)} y1={TOP_PX} y2={foot + 52} stroke="var(--line)" />
              {i % step === 0 && (
                <text x={scale.x(day) + 3} y={height - 4} fill="var(--quiet)">
                  Mon {roadDay(room.today, day)}
                </text>
              )}
            </g>
          ))}
          {wall !== null && (
            <>
              <defs>
                <pattern id="after-event" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
                  <line x1="0" y1="0" x2="0" y2="7" stroke="var(--line)" strokeWidth="1.5" />
                </pattern>
              </defs>
              <rect x={wall} y={TOP_PX} width={Math.max(0, scale.x(days) - wall)} height={foot + 50 - TOP_PX} fill="url(#after-event)" />
            </>
          )}
          <Flags room={room} scale={scale} arrivals={arrivals} late={late} foot={foot} />
          {hands.map(({ id }, at) => (
            <HandLane key={id} room={room} view={view} scale={scale} onLine={onLine} mostH={mostH} at={at} />
          ))}
          <Waits room={room} view={view} scale={scale} y={foot + 14} />
          <ReadyBar room={room} view={view} scale={scale} y={foot + 36} wall={wall} />
          {wall !== null && deadline && (
            <>
              <line x1={wall} x2={wall} y1={4} y2={foot + 52} stroke="var(--ink)" strokeWidth="3" />
              <text x={wall > width - 170 ? wall - 6 : wall + 6} y={12} textAnchor={wall > width - 170 ? 'end' : 'start'} fontWeight="700" fill="var(--ink)">
                {deadline.name ?? `stage ${deadline.stage} is due`}
              </text>
              <text x={wall > width - 170 ? wall - 6 : wall + 6} y={25} textAnchor={wall > width - 170 ? 'end' : 'start'} fill="var(--quiet)" fontSize="11">
                {roadDay(room.today, deadline.day)}, car of stage {deadline.stage}
              </text>
            </>
          )}
        </FigureFrame>
      </ScrollBox>
    </div>
  )
}
