import {
  type ABAEffect,
  abaEffect,
  attempt,
  bestLaps,
  CalculationError,
  compareLaps,
  type LapComparison,
  lapsNeeded,
  type RoomTrackSession,
  sectorMedians,
  sidesSpread,
  type TrackRoom,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { axisStep } from '../../../ui/drawing/axis-step.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import { timeText } from '../../../ui/words.ts'
import type { TrackTabProps } from '../tab-props.ts'
import { mayBelongTo } from './belongs.ts'
import { Traces } from './traces.tsx'

const cleanOf = (session: RoomTrackSession) => session.laps.filter(({ isClean }) => isClean).map(({ correctedS }) => correctedS)
const dayOf = (session: RoomTrackSession) => session.record.at.slice(0, 10)

/** Equal laps are one mark. */
const marksOf = (laps: readonly number[]) => [...new Set(laps)]

/** Laps of both sides as marks on one scale, with the difference and its interval below. */
function LapsBeside({ a, b, found, width }: { a: readonly number[]; b: readonly number[]; found: LapComparison; width: number }) {
  const { format } = useQuantities()
  const [low, high] = [Math.min(...a, ...b) - 0.1, Math.max(...a, ...b) + 0.1]
  const x = (lapS: number) => 40 + ((lapS - low) / (high - low)) * (width - 60)
  const step = axisStep(high - low, 6)
  const decimals = step < 0.1 ? 2 : 1
  const ticks = Array.from({ length: 9 }, (_, i) => Math.ceil(low / step) * step + i * step).filter((tick) => tick < high)
  const { intervalS, differenceS } = found
  const most = Math.max(0.2, Math.abs(differenceS), Math.abs(intervalS?.from ?? 0), Math.abs(intervalS?.to ?? 0)) * 1.15
  const d = (seconds: number) => width / 2 + (seconds / most) * (width / 2 - 60)
  const verdict = { real: 'real', noise: 'within noise', tooFew: 'too few laps' }[found.verdict]
  return (
    <svg
      width={width}
      height={190}
      viewBox={`0 0 ${width} 190`}
      className="block text-[12px] tabular-nums"
      role="img"
      aria-label={`${a.length} laps of A, ${b.length} of B; B less A ${differenceS.toFixed(3)} s, ${verdict}`}
    >
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={6} y2={82} stroke="var(--line)" />
          <text x={x(tick)} y={98} textAnchor="middle" fill="var(--quiet)">
            {format('lapTime', tick, { decimals }).number}
          </text>
        </g>
      ))}
      {(
        [
          ['A', a, 26],
          ['B', b, 62],
        ] as const
      ).map(([name, laps, y]) => (
        <g key={name}>
          <text x={14} y={y + 4} fontWeight={700} fill="var(--ink)">
            {name}
          </text>
          {marksOf(laps).map((lapS) => (
            <line key={lapS} x1={x(lapS)} x2={x(lapS)} y1={y - 12} y2={y + 12} stroke={name === 'A' ? 'var(--planned)' : 'var(--pine)'} strokeWidth={3} />
          ))}
        </g>
      ))}
      <line x1={d(0)} x2={d(0)} y1={118} y2={168} stroke="var(--ink)" strokeWidth={2} />
      <text x={d(0)} y={184} textAnchor="middle" fill="var(--quiet)">
        no difference
      </text>
      <text x={40} y={124} fill="var(--quiet)">
        B quicker
      </text>
      <text x={width - 20} y={124} textAnchor="end" fill="var(--quiet)">
        B slower
      </text>
      {intervalS && <line x1={d(intervalS.from)} x2={d(intervalS.to)} y1={142} y2={142} stroke="var(--ink)" strokeWidth={3} />}
      <rect x={d(differenceS) - 6} y={133} width={12} height={18} fill="var(--pine)" />
    </svg>
  )
}

/** A stint before and one behind a session, driven with what it had turned put back: the session between them is B of A-B-A. */
function stintsAround(room: TrackRoom, b: RoomTrackSession): readonly RoomTrackSession[] | null {
  const day = room.sessions.filter((each) => dayOf(each) === dayOf(b) && each.record.trackId === b.record.trackId && cleanOf(each).length > 0)
  const at = day.indexOf(b)
  const [before, after] = [day[at - 1], day[at + 1]]
  const turned = b.record.turned[0]
  const isBack = turned && after?.record.turned.some(({ what, to }) => what.toLowerCase() === turned.what.toLowerCase() && to === turned.from)
  return before && after && isBack ? [before, b, after] : null
}

function SessionSelect({ label, sessions, value, set }: { label: string; sessions: readonly RoomTrackSession[]; value: string; set: (id: string) => void }) {
  return (
    <label className="flex items-center gap-2">
      <strong>{label}</strong>
      <select value={value} onChange={(event) => set(event.target.value)} className="max-w-[330px]">
        {sessions.map(({ record, trackName }) => (
          <option key={record.id} value={record.id}>
            {timeText(record.at)} {record.aim ? record.aim : trackName}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Best, spread and trend of both sides in rows. */
function SidesTable({ a, b }: { a: RoomTrackSession; b: RoomTrackSession }) {
  const { format } = useQuantities()
  const of = (session: RoomTrackSession) => {
    const clean = session.laps.filter(({ isClean }) => isClean)
    return bestLaps(
      clean.map(({ lapS }) => lapS),
      clean.map(({ sectorS }) => sectorS),
    )
  }
  const [x, y] = [of(a), of(b)]
  const lap = (value: number | null) => (value === null ? '' : format('lapTime', value, { decimals: 2 }).number)
  const trend = (value: number | null) => (value === null ? '' : format('lapTime', value, { sign: true, decimals: 2 }).number)
  const sectorsOf = (session: RoomTrackSession) => sectorMedians(session.laps.filter(({ isClean }) => isClean).map(({ sectorS }) => sectorS))
  const [sectorsA, sectorsB] = [sectorsOf(a), sectorsOf(b)]
  const less = (one: number | null | undefined, other: number | null | undefined) =>
    one == null || other == null ? '' : format('lapTime', other - one, { sign: true, decimals: 2 }).number
  const rows: [string, string, string, string][] = [
    ['Best lap', lap(x.bestS), lap(y.bestS), less(x.bestS, y.bestS)],
    ['Rolling best', lap(x.rollingS), lap(y.rollingS), less(x.rollingS, y.rollingS)],
    ['Theoretical, driven by nobody', lap(x.theoreticalS), lap(y.theoreticalS), less(x.theoreticalS, y.theoreticalS)],
    ...(sectorsA ?? sectorsB ?? []).map((_, i): [string, string, string, string] => [
      `Sector ${i + 1}, middle of its laps`,
      lap(sectorsA?.[i] ?? null),
      lap(sectorsB?.[i] ?? null),
      sectorsA?.length === sectorsB?.length ? less(sectorsA?.[i], sectorsB?.[i]) : '',
    ]),
    ['Scatter, s', x.lapSdS?.toFixed(2) ?? '', y.lapSdS?.toFixed(2) ?? '', ''],
    ['Trend, s a lap', trend(x.trendSPerLap), trend(y.trendSPerLap), ''],
  ]
  return (
    <table className="mt-3 w-full max-w-[460px]">
      <thead>
        <tr className="text-xs text-quiet">
          <th />
          <th className="text-right font-normal">A</th>
          <th className="text-right font-normal">B</th>
          <th className="text-right font-normal">B less A, s</th>
        </tr>
      </thead>
      <tbody>
        {rows
          .filter(([, one, other]) => one !== '' || other !== '')
          .map(([word, one, other, difference]) => (
            <tr key={word} className="border-t border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {word}
              </th>
              <td className="py-1 text-right tabular-nums">{one}</td>
              <td className="py-1 text-right tabular-nums">{other}</td>
              <td className="py-1 text-right tabular-nums">{difference}</td>
            </tr>
          ))}
      </tbody>
    </table>
  )
}

/** Whether a session was faster than another: the difference with its interval, what it may belong to, laps that decide it, and A-B-A where a change was put back. */
export function CompareTab({ records, room, track }: TrackTabProps) {
  const address = useAddress()
  const { text, format } = useQuantities()
  const [holder, width] = useWidth<HTMLDivElement>(640)
  const [side, sideWidth] = useWidth<HTMLDivElement>(640)
  const sessions = useMemo(() => room.sessions.filter((session) => session.record.trackId === track?.id && cleanOf(session).length > 0), [room, track])
  const b = sessions.find(({ record }) => record.id === address.get('b')) ?? sessions.at(-1)
  const a = sessions.find(({ record }) => record.id === address.get('a')) ?? sessions[Math.max(0, (b ? sessions.indexOf(b) : 1) - 1)]
  if (!a || !b || a === b)
    return (
      <Empty
        title="Nothing to hold beside each other"
        why="Two sessions with clean laps on this track: the last is held against the one before it, with how sure the difference is."
      />
    )
  const [lapsA, lapsB] = [cleanOf(a), cleanOf(b)]
  const { share, isOwn, betweenSdS, lapSdS: sd } = sidesSpread(a, b)
  const found = compareLaps({ aS: lapsA, bS: lapsB, betweenSdS })
  const belongs = mayBelongTo(a, b, (kind, value) => text(kind, value, { decimals: 0 }))
  const stints = stintsAround(room, b)
  const aba = stints ? attempt(() => abaEffect(stints.map(cleanOf))) : null
  const effect: ABAEffect | null = aba && !(aba instanceof CalculationError) ? aba : null
  const needed = Math.abs(found.differenceS) > 1e-3 && sd > 0 ? lapsNeeded({ sdS: sd, differenceS: found.differenceS, school: 'ranks' }).lapsASide : null
  const signed = (value: number) => `${format('lapTime', value, { sign: true, decimals: 2 }).number} s`
  const head = {
    real: `B is ${found.differenceS < 0 ? 'quicker' : 'slower'} by ${Math.abs(found.differenceS).toFixed(2)} s`,
    noise: 'Within noise',
    tooFew: 'Too few laps to say',
  }[found.verdict]
  return (
    <div ref={holder}>
      <div className="mb-3 flex flex-wrap gap-x-6 gap-y-2">
        <SessionSelect label="A" sessions={sessions} value={a.record.id} set={(id) => address.set({ a: id })} />
        <SessionSelect label="B" sessions={sessions} value={b.record.id} set={(id) => address.set({ b: id })} />
      </div>
      <div className="grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,420px)]">
        <div ref={side} className="min-w-0">
          <h2>{head}</h2>
          <p className="text-quiet">
            B less A {signed(found.differenceS)}
            {found.intervalS ? `, from ${signed(found.intervalS.from)} to ${signed(found.intervalS.to)}` : ''}; {lapsA.length} and {lapsB.length} clean laps
            {found.isExact ? ', exact ranks' : ', ranks with equal laps'}, p {found.p.toFixed(3)} of the laps alone.
          </p>
          <ScrollBox label="Laps of both sessions">
            <LapsBeside a={lapsA} b={lapsB} found={found} width={Math.max(420, Math.min(sideWidth, 760))} />
          </ScrollBox>
          <p className="text-xs text-quiet">
            Widened by what lies between two outings of {dayOf(a) === dayOf(b) ? 'one day' : 'different days'}, {text('share', share, { decimals: 2 })} of a lap
            {isOwn ? ', as three sessions or more of an unchanged car say' : ', the usual until three sessions of an unchanged car say it'}. Fuel brought to the
            reference.
          </p>
          <SidesTable a={a} b={b} />
        </div>
        <div className="min-w-0">
          <h2 className="mb-1">What it may belong to</h2>
          {belongs.length === 0 ? (
            <p className="text-quiet">Nothing on record differs: car, tyres, driver and day are the same.</p>
          ) : (
            <>
              <ul>
                {belongs.map((words) => (
                  <li key={words} className="border-t border-line py-1">
                    {words}
                  </li>
                ))}
              </ul>
              {belongs.length > 1 && found.verdict === 'real' && <p className="mt-1 text-wait">More than one thing differs: real, of no one thing.</p>}
            </>
          )}
          {needed !== null && (
            <p className="mt-3">
              A difference of {Math.abs(found.differenceS).toFixed(2)} s takes <strong>{needed > 200 ? 'over 200' : needed} clean laps a side</strong> to be
              seen 4 times in 5.
            </p>
          )}
          <section className="mt-5">
            <h2 className="mb-1">Put in, taken out, put in again</h2>
            {effect && stints ? (
              <>
                <p>
                  {stints[1]?.record.turned[0]?.what} {stints[1]?.record.turned[0]?.to}: <strong>{signed(effect.effectS)}</strong> ±{' '}
                  {effect.standardErrorS.toFixed(2)}, from {signed(effect.intervalS.from)} to {signed(effect.intervalS.to)}.
                </p>
                <p className="text-quiet">
                  {effect.intervalS.from > 0 || effect.intervalS.to < 0 ? 'It leaves out zero: the change does that.' : 'Zero lies within: not shown.'} Drift of
                  the day taken out, {signed(effect.driftSPerLap)} a lap; {effect.degreesOfFreedom} degrees of freedom.
                </p>
              </>
            ) : (
              <p className="text-quiet">
                Drive as it is, turn one thing, drive, turn it back and drive again, four laps each: what tyres and driver do meanwhile falls out. Sessions
                whose turned thing is put back in the next are read so by themselves.
              </p>
            )}
          </section>
        </div>
      </div>
      {track && <Traces buildId={records.build.id} a={a} b={b} track={track} width={width} />}
    </div>
  )
}
