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
import { Panel } from '../../../ui/dialog.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { numberText, useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { dayText, timeText } from '../../../ui/words.ts'
import type { TrackTabProps } from '../tab-props.ts'
import { CornerCards } from './corner-cards.tsx'
import { DriftSummary } from './drift-summary.tsx'
import { LapsFigure } from './laps-figure.tsx'
import { LiveLogger } from './live-logger.tsx'
import { LogLaps } from './log-laps.tsx'
import { PaddockLine } from './paddock-line.tsx'
import { SESSION_KIND_WORDS } from './session-form.ts'
import { SessionPanel } from './session-panel.tsx'
import { Stopwatch } from './stopwatch.tsx'
import { TrackPlanView } from './track-plan.tsx'

/** Sessions of the build, the latest first; picking one opens it beside. */
function SessionList({ sessions, picked, pick }: { sessions: readonly RoomTrackSession[]; picked: string; pick: (id: string) => void }) {
  const { text } = useQuantities()
  return (
    <ol aria-label="Sessions" className="max-h-[560px] overflow-y-auto">
      {[...sessions].reverse().map(({ record, trackName, position, value, laps, runs, whyNot }) => (
        <li key={record.id} className="border-t border-line">
          <button
            type="button"
            aria-pressed={record.id === picked}
            onClick={() => pick(record.id)}
            className={`w-full px-2 py-1.5 text-left ${record.id === picked ? 'bg-wash' : ''} ${whyNot === null || record.kind === 'runs' ? '' : 'text-quiet'}`}
          >
            <span className="flex items-baseline justify-between gap-3">
              <strong>{record.aim ?? SESSION_KIND_WORDS[record.kind]}</strong>
              <span className="shrink-0 font-semibold tabular-nums">
                {value ? text('lapTime', value.lapS, { decimals: 2 }) : runs.length > 0 ? `${runs.length} runs` : laps.length > 0 ? `${laps.length} laps` : ''}
              </span>
            </span>
            <span className="block text-xs text-quiet">
              {timeText(record.at)}, {trackName}, stage {position}
              {record.driver ? `, ${record.driver}` : ''}
            </span>
          </button>
        </li>
      ))}
    </ol>
  )
}

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

function SessionDetail({
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

/** What was driven: sessions with their laps or runs, the four corners, what was said; one line takes the paddock. */
export function SessionsTab({ records, room, stageId, position, driven }: TrackTabProps) {
  const address = useAddress()
  const [isEditing, setIsEditing] = useAsked('session')
  const [isAsked] = useAsked('paddock')
  const { sessions } = room
  const picked = sessions.find(({ record }) => record.id === address.get('a')) ?? sessions.at(-1)
  const buildId = records.build.id
  const edit = (id: string) => {
    address.set({ edit: id })
    setIsEditing(true)
  }
  // The session that was just stored is the one the paddock speaks of.
  const done = (id: string) => {
    address.set({ a: id, edit: '' })
    setIsEditing(false)
  }
  const form = isEditing && (
    <Panel title={address.get('edit') ? 'A session on track' : 'A new session on track'} onClose={() => setIsEditing(false)}>
      <SessionPanel records={records} room={room} stageId={stageId} id={address.get('edit')} onDone={done} />
    </Panel>
  )
  if (room.tracks.length === 0)
    return <Empty title="No track to drive on" why="Draw or import the track first, in the tab Tracks; sessions are kept by the track they were driven on." />
  return (
    <>
      {sessions.length === 0 || !picked ? (
        <Empty title="No session yet" why="Eight keys a lap, or the stopwatch by Space. Pressures, what was turned and what the driver said go into one line.">
          <button type="button" className="button button-strong" onClick={() => edit('')}>
            New session
          </button>
        </Empty>
      ) : (
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,330px)_minmax(0,1fr)]">
          <div className="min-w-0">
            <button type="button" className="button mb-2" onClick={() => edit('')}>
              New session
            </button>
            <SessionList sessions={sessions} picked={picked.record.id} pick={(id) => address.set({ a: id })} />
            <TrackPlanView records={records} room={room} stageId={stageId} position={position} lapS={driven?.stage?.lapS ?? null} />
          </div>
          <SessionDetail
            records={records}
            key={picked.record.id}
            buildId={buildId}
            session={picked}
            room={room}
            whole={room.drift}
            edit={() => edit(picked.record.id)}
            isAsked={isAsked}
          />
        </div>
      )}
      {sessions.length === 0 && <TrackPlanView records={records} room={room} stageId={stageId} position={position} lapS={driven?.stage?.lapS ?? null} />}
      <Caution className="mt-5 text-xs">Only on a closed track, by its event’s rules. Brakes, tyres and exhaust are hot when the car comes in.</Caution>
      {form}
    </>
  )
}
