import { alongTrace, cornersOf, fromSi, gapByClock, type RoomTrackSession, type TrackRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { axisStep, ticksWithin } from '../../../ui/drawing/axis-step.ts'
import { FigureFrame, LevelLines } from '../../../ui/drawing/figure-frame.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { bestLogged, type LaidLap, loggedLaps, useLaidLap } from '../use-lap-log.ts'
import { cornerTable } from './corner-table.ts'

const STEP_M = 5
const LEFT = 46
const RIGHT = 14
const TOP = 18
const SPEED_HIGH = 190
const GAP_TOP = TOP + SPEED_HIGH + 34
const GAP_HIGH = 92
const HIGH = GAP_TOP + GAP_HIGH + 26

const pathOf = (x: (at: number) => number, y: (value: number) => number, at: readonly number[], values: readonly number[]) =>
  values.map((value, i) => `${i === 0 ? 'M' : 'L'}${x(at[i] as number).toFixed(1)} ${y(value).toFixed(1)}`).join('')

/** The lap that the address names, else the best clean one. */
const pickedLap = (session: RoomTrackSession, id: string) => loggedLaps(session).find(({ lap }) => lap.id === id) ?? bestLogged(session)

/** A lap of the session to pick by number: those that stand in a log. */
function LapSelect({ label, session, value, set }: { label: string; session: RoomTrackSession; value: string; set: (id: string) => void }) {
  const { text } = useQuantities()
  return (
    <label className="flex items-center gap-2">
      <strong>{label}</strong>
      <select value={value} onChange={(event) => set(event.target.value)}>
        {loggedLaps(session).map(({ lap }) => (
          <option key={lap.id} value={lap.id}>
            lap {lap.position + 1}, {text('lapTime', lap.lapS, { decimals: 2 })}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Speed of two laps along the track, and by how much B is behind A; corners are named above. */
function TraceFigure({ a, b, track, width }: { a: LaidLap; b: LaidLap; track: TrackRoom['tracks'][number]; width: number }) {
  const { units } = useQuantities()
  const { lengthM } = a
  const made = useMemo(() => {
    const at = Array.from({ length: Math.floor(lengthM / STEP_M) + 1 }, (_, i) => i * STEP_M)
    const speed = ({ trace, of }: LaidLap) => alongTrace(trace, of('speed') ?? of('wheelSpeed') ?? [], at)
    const side = ({ trace, lapS }: LaidLap) => ({ atM: trace.atM, timeS: trace.timeS, lapS })
    return { at, speedA: speed(a), speedB: speed(b), gap: gapByClock(side(a), side(b), lengthM, at) }
  }, [a, b, lengthM])
  const { at, speedA, speedB, gap } = made
  const x = (s: number) => LEFT + (s / lengthM) * (width - LEFT - RIGHT)
  const most = Math.max(...speedA, ...speedB)
  const least = Math.min(...speedA, ...speedB)
  const y = (mps: number) => TOP + SPEED_HIGH - ((mps - 0.9 * least) / (most - 0.9 * least)) * SPEED_HIGH
  const widest = Math.max(0.1, ...gap.map(Math.abs)) * 1.1
  const g = (seconds: number) => GAP_TOP + GAP_HIGH / 2 - (seconds / widest) * (GAP_HIGH / 2)
  const perMps = fromSi('speed', 1, units.speed)
  const shownMost = most * perMps
  const step = axisStep(shownMost - 0.9 * least * perMps, 4)
  const ticks = ticksWithin(0.9 * least * perMps, shownMost, step)
  const gapStep = axisStep(2 * widest, 3)
  const corners = useMemo(() => cornersOf(track, track.marks), [track])
  const end = gap.at(-1) ?? 0
  return (
    <FigureFrame
      width={width}
      height={HIGH}
      label={`Speed of both laps along ${lengthM.toFixed(0)} m of track, and how far B is behind A: at the end ${end.toFixed(2)} s`}
    >
      {corners.map(({ name, fromM, toM }) => (
        <g key={`${name} ${fromM}`}>
          <rect x={x(fromM)} width={Math.max(1, x(toM) - x(fromM))} y={TOP} height={GAP_TOP + GAP_HIGH - TOP} fill="var(--wash)" />
          <text x={(x(fromM) + x(toM)) / 2} y={12} textAnchor="middle" fill="var(--quiet)">
            {name}
          </text>
        </g>
      ))}
      <LevelLines ticks={ticks} y={(tick) => y(tick / perMps)} left={LEFT} right={width - RIGHT} words={(tick) => tick} />
      <text x={LEFT - 6} y={TOP - 6} textAnchor="end" fill="var(--quiet)">
        {units.speed}
      </text>
      <path d={pathOf(x, y, at, speedA)} fill="none" stroke="var(--planned)" strokeWidth={2} strokeDasharray="5 3" />
      <path d={pathOf(x, y, at, speedB)} fill="none" stroke="var(--pine)" strokeWidth={2} />
      <line x1={LEFT} x2={width - RIGHT} y1={g(0)} y2={g(0)} stroke="var(--ink)" />
      {[-gapStep, gapStep].map((tick) => (
        <text key={tick} x={LEFT - 6} y={g(tick) + 4} textAnchor="end" fill="var(--quiet)">
          {tick > 0 ? '+' : '−'}
          {Math.abs(tick)} s
        </text>
      ))}
      <path d={pathOf(x, g, at, gap)} fill="none" stroke="var(--ink)" strokeWidth={2} />
      <text x={width - RIGHT} y={GAP_TOP - 6} textAnchor="end" fill="var(--quiet)">
        line over 0: B is behind
      </text>
      {Array.from({ length: Math.floor(lengthM / 500) + 1 }, (_, i) => 500 * i).map((metre) => (
        <text key={metre} x={x(metre)} y={HIGH - 8} textAnchor="middle" fill="var(--quiet)">
          {metre}
          {metre === 0 ? ' m' : ''}
        </text>
      ))}
    </FigureFrame>
  )
}

/** A loss with its sign; what rounds to nothing has none. */
const lostWords = (lostS: number) => (Math.abs(lostS) < 0.005 ? '0.00' : `${lostS < 0 ? '−' : '+'}${Math.abs(lostS).toFixed(2)}`)

/** Least speeds of both laps corner by corner, and what each costs or gives. */
function Corners({ a, b, track }: { a: LaidLap; b: LaidLap; track: TrackRoom['tracks'][number] }) {
  const { format, units } = useQuantities()
  const rows = useMemo(() => cornerTable(a, b, cornersOf(track, track.marks)), [a, b, track])
  const most = Math.max(0.02, ...rows.map(({ lostS }) => Math.abs(lostS)))
  return (
    <table className="mt-2 w-full max-w-[640px]">
      <caption className="sr-only">Corners: least speed of A and of B, and what B loses until the next</caption>
      <thead>
        <tr className="text-xs text-quiet">
          <th className="text-left font-normal">corner</th>
          <th className="pl-3 text-right font-normal">A least, {units.speed}</th>
          <th className="pl-3 text-right font-normal">B least</th>
          <th className="pl-3 text-right font-normal">B loses, s</th>
          <th className="w-[180px]" />
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, leastA, leastB, lostS }) => (
          <tr key={name} className="border-t border-line">
            <td className="py-0.5 font-semibold">{name}</td>
            <td className="pl-3 text-right tabular-nums">{format('speed', leastA, { decimals: 1 }).number}</td>
            <td className="pl-3 text-right tabular-nums">{format('speed', leastB, { decimals: 1 }).number}</td>
            <td className="pl-3 text-right font-semibold tabular-nums">{lostWords(lostS)}</td>
            <td>
              <svg width={170} height={14} aria-hidden="true" className="ml-2 block">
                <line x1={85} x2={85} y1={0} y2={14} stroke="var(--edge)" />
                <rect
                  x={lostS < 0 ? 85 + (lostS / most) * 80 : 85}
                  width={(Math.abs(lostS) / most) * 80}
                  y={3}
                  height={8}
                  fill={lostS < 0 ? 'var(--pine)' : 'var(--wait)'}
                />
              </svg>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Two laps out of logs along the track, where each loses and gains; the best clean ones unless others are picked. */
export function Traces({
  buildId,
  a,
  b,
  track,
  width,
}: {
  buildId: string
  a: RoomTrackSession
  b: RoomTrackSession
  track: TrackRoom['tracks'][number]
  width: number
}) {
  const address = useAddress()
  const [lapA, lapB] = [address.get('lapA'), address.get('lapB')]
  const ofA = useMemo(() => pickedLap(a, lapA), [a, lapA])
  const ofB = useMemo(() => pickedLap(b, lapB), [b, lapB])
  const [laidA, laidB] = [useLaidLap(buildId, ofA, track), useLaidLap(buildId, ofB, track)]
  if (!ofA || !ofB)
    return (
      <p className="mt-4 text-quiet">
        Speed along the track and the gap stand here once {!ofA && !ofB ? 'both sessions have' : `session ${ofA ? 'B' : 'A'} has`} a log with clean laps: drop
        it in Sessions.
      </p>
    )
  const failure = [laidA, laidB].find((laid) => typeof laid === 'string')
  return (
    <section aria-label="Two laps along the track" className="mt-6">
      <h2 className="flex flex-wrap items-center gap-x-5 gap-y-1">
        Where B gains and loses
        <span className="flex flex-wrap gap-4 text-sm font-normal">
          <LapSelect label="A, dashed" session={a} value={ofA.lap.id} set={(id) => address.set({ lapA: id })} />
          <LapSelect label="B" session={b} value={ofB.lap.id} set={(id) => address.set({ lapB: id })} />
        </span>
      </h2>
      {failure ? <p className="border-l-4 border-wait pl-3">{failure}</p> : null}
      {laidA === null || laidB === null ? failure ? null : <p role="status">Reading both laps …</p> : null}
      {laidA && laidB && typeof laidA !== 'string' && typeof laidB !== 'string' && (
        <>
          <ScrollBox label="Speed and gap along the track">
            <TraceFigure a={laidA} b={laidB} track={track} width={Math.max(560, width)} />
          </ScrollBox>
          <Corners a={laidA} b={laidB} track={track} />
          <p className="mt-1 text-xs text-quiet">
            {laidA.trace.by === 'positions' && laidB.trace.by === 'positions'
              ? 'Places by the receiver’s positions on the track.'
              : 'Places by speed alone, scaled to the track’s length: within some metres. One lap of each: not how sure a difference is, but where it lies.'}
          </p>
        </>
      )}
    </section>
  )
}
