import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  bestLaps,
  type DriftDays,
  LAP_KINDS,
  type LapKind,
  PAD_WORDS,
  type RoomLap,
  type RoomTrackSession,
  type TrackRoom,
  treadAgainst,
  WHEEL_KEYS,
} from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { LogUse } from '../../../shared/log-use.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { numberText, useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { CornerCards } from './corner-cards.tsx'
import { DriftSummary } from './drift-summary.tsx'
import { LapsFigure } from './laps-figure.tsx'
import { LiveLogger } from './live-logger.tsx'
import { LogLaps } from './log-laps.tsx'
import { PaddockLine } from './paddock-line.tsx'
import { Stopwatch } from './stopwatch.tsx'

/** Treads outside the temperatures that the session's tyres work between. */
function treadsOff(record: RoomTrackSession['record'], tyres: TrackRoom['tyres']): string[] {
  return WHEEL_KEYS.flatMap((wheel) => {
    const id = wheel === 'LF' || wheel === 'RF' ? record.frontTyresPartId : record.rearTyresPartId
    const window = tyres.find((tyre) => tyre.id === id)?.windowK
    const treadK = record.corners?.[wheel]?.treadK
    const off = window && treadK ? treadAgainst(treadK, window) : null
    return off ? [`The tread of the ${PAD_WORDS[wheel]} was ${off.byK.toFixed(0)} K ${off.side} what its tyre works in.`] : []
  })
}

/** First whether anything is wrong, before any time. */
export function firstLook({ record, laps, runs }: RoomTrackSession, tyres: TrackRoom['tyres'] = []): string[] {
  const unread = record.corners ? Object.values(record.corners).filter((corner) => corner?.hotPa == null).length : 4
  return [
    ...(record.logger === 'nothing' ? ['The logger recorded nothing.'] : record.logger === 'partly' ? ['The logger recorded in part.'] : []),
    ...(record.kind === 'laps' && laps.length === 0 ? ['No lap is on record yet.'] : []),
    ...(record.kind === 'laps' && laps.length > 0 && !laps.some(({ isClean }) => isClean) ? ['No lap is clean: it says nothing of the car.'] : []),
    ...(record.kind === 'runs' && runs.length === 0 ? ['No run is on record yet.'] : []),
    ...(record.kind !== 'runs' && unread > 0
      ? [`${unread === 4 ? 'No' : `${4 - unread} of 4`} hot ${unread === 3 ? 'pressure was' : 'pressures were'} read.`]
      : []),
    ...treadsOff(record, tyres),
    ...(record.ease !== null && record.ease <= 2 ? ['The driver was not at ease in the car: its laps may be the driver’s.'] : []),
  ]
}

function LapRow({ buildId, lap }: { buildId: string; lap: RoomLap }) {
  const { format } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const { take, notice } = useRemoval(buildId, 'laps')
  const send = async (body: Record<string, unknown>) => {
    const answer = await patch({ buildId, resource: 'laps', id: lap.id, body: { version: lap.version, ...body } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  const isMoved = Math.abs(lap.correctedS - lap.lapS) > 0.005
  return (
    <tr className={`border-t border-line ${lap.isClean ? '' : 'text-quiet'}`}>
      <td className="py-1 text-right tabular-nums">{lap.position + 1}</td>
      <td className="py-1 text-right font-semibold tabular-nums">{format('lapTime', lap.lapS, { decimals: 2 }).number}</td>
      <td className="py-1 text-right tabular-nums">{isMoved ? format('lapTime', lap.correctedS, { decimals: 2 }).number : ''}</td>
      <td className="py-1 text-right tabular-nums">{lap.sectorS.map((sector) => sector.toFixed(2)).join('  ')}</td>
      <td className="py-1 pl-4">
        <select aria-label={`What lap ${lap.position + 1} was`} value={lap.kind} onChange={(event) => void send({ kind: event.target.value as LapKind })}>
          {LAP_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {kind}
            </option>
          ))}
        </select>
      </td>
      <td className="no-print py-1 pl-3">
        <button type="button" className="word-link" onClick={() => void take(lap)}>
          Delete<span className="sr-only"> lap {lap.position + 1}</span>
        </button>
        {failure && <Alert>{failure}</Alert>}
        {notice}
      </td>
    </tr>
  )
}

/** The facts of a session's laps in a line. */
function LapFacts({ session }: { session: RoomTrackSession }) {
  const { text } = useQuantities()
  const clean = session.laps.filter(({ isClean }) => isClean)
  if (clean.length === 0 || !session.value) return null
  const best = bestLaps(
    clean.map(({ lapS }) => lapS),
    clean.map(({ sectorS }) => sectorS),
  )
  const lap = (value: number) => text('lapTime', value, { decimals: 2 })
  const facts = [
    ['Best', lap(best.bestS)],
    ...(best.rollingS === null ? [] : [['Rolling', lap(best.rollingS)] as const]),
    ...(best.theoreticalS === null ? [] : [['Theoretical, driven by nobody', lap(best.theoreticalS)] as const]),
    ...(best.lapSdS === null ? [] : [['Scatter', `${best.lapSdS.toFixed(2)} s`] as const]),
    ...(best.trendSPerLap !== null && Math.abs(best.trendSPerLap) > 0.02
      ? [[best.trendSPerLap < 0 ? 'Still learning' : 'Falling off', `${Math.abs(best.trendSPerLap).toFixed(2)} s a lap`] as const]
      : []),
  ] as const
  return (
    <dl className="mt-2 flex flex-wrap gap-x-7 gap-y-1">
      {facts.map(([word, value]) => (
        <div key={word}>
          <dt className="text-xs text-quiet">{word}</dt>
          <dd className="text-[18px] font-semibold tabular-nums">{value}</dd>
        </div>
      ))}
    </dl>
  )
}

/** What the session was to the parts of the car: its laps and runs, and the hours that its laps make. */
export function ranOf({ record, laps, runs }: Pick<RoomTrackSession, 'record' | 'laps' | 'runs'>) {
  const hours = laps.reduce((sum, { lapS }) => sum + lapS, 0) / 3600
  const tyrePartIds = [record.frontTyresPartId, record.rearTyresPartId].flatMap((id) => id ?? [])
  return { at: record.at, hours: hours > 0 ? numberText(Number(hours.toFixed(2))) : '0', laps: laps.length, runs: runs.length, tyrePartIds }
}

/** One session: its first look, laps, words, corners and logs, with the line that writes into it. */
export function SessionDetail({
  records,
  buildId,
  session,
  room,
  whole,
  edit,
  isAsked,
}: {
  records: RecordsAnswer
  buildId: string
  session: RoomTrackSession
  room: TrackRoom
  whole: DriftDays | null
  edit: () => void
  isAsked: boolean
}) {
  const [holder, width] = useWidth<HTMLDivElement>(640)
  const { record, laps, runs, whyNot } = session
  const look = firstLook(session, room.tyres)
  return (
    <section aria-label="The session" ref={holder} className="order-first min-w-0 lg:order-none">
      <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3">
        {session.trackName}, {dayText(record.at)}
        <button type="button" className="word-link text-sm font-normal" onClick={edit}>
          Edit it
        </button>
      </h2>
      <PaddockLine key={record.id} buildId={buildId} session={session} sessions={room.sessions} isAsked={isAsked} />
      {look.length > 0 && (
        <div className="mb-2 border-l-4 border-wait pl-3">
          <strong>First look:</strong> {look.join(' ')}
        </div>
      )}
      {whyNot && record.kind !== 'runs' && <p className="mb-2 border-l-4 border-edge pl-3">{whyNot}</p>}
      {laps.length > 0 && (
        <>
          <ScrollBox label="Laps in their order">
            <LapsFigure session={session} width={Math.max(420, width)} />
          </ScrollBox>
          <LapFacts session={session} />
        </>
      )}
      {(record.words || record.turned.length > 0) && (
        <div className="mt-3">
          {record.turned.map(({ what, from, to }) => (
            <p key={`${what} ${to}`}>
              Turned: <strong>{what}</strong> {from ? `from ${from} ` : ''}to {to}
            </p>
          ))}
          {record.words && <p className="whitespace-pre-line">“{record.words}”</p>}
        </div>
      )}
      {runs.length > 0 && <DriftSummary buildId={buildId} session={session} whole={whole} />}
      {record.kind !== 'runs' && <LiveLogger key={`live ${record.id}`} buildId={buildId} session={session} room={room} />}
      {record.kind !== 'runs' && <Stopwatch key={`watch ${record.id}`} buildId={buildId} session={session} />}
      <LogLaps key={`log ${record.id}`} buildId={buildId} session={session} room={room} />
      <CornerCards session={session} />
      <LogUse key={`use ${record.id}`} records={records} of={{ trackSessionId: record.id }} ran={ranOf(session)} where="on track" />
      {laps.length > 0 && (
        <ScrollBox label="Laps of the session" className="mt-4">
          <table className="w-full max-w-[640px]">
            <thead>
              <tr className="text-xs text-quiet">
                <th className="text-right font-normal">lap</th>
                <th className="text-right font-normal">driven</th>
                <th className="text-right font-normal">at the reference’s fuel</th>
                <th className="text-right font-normal">sectors</th>
                <th className="pl-4 text-left font-normal">what it was</th>
                <th className="no-print" />
              </tr>
            </thead>
            <tbody>
              {laps.map((lap) => (
                <LapRow key={lap.id} buildId={buildId} lap={lap} />
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
    </section>
  )
}
