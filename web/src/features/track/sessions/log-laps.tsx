import type { LogColumns, LogPreview } from '@bold-ballast/contract'
import type { LogColumnMapping, RoomLog, RoomTrackSession, TrackRoom } from '@bold-ballast/core'
import { useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useSender } from '../../../data/use-sender.ts'
import { ColumnTable } from '../../../shared/column-table.tsx'
import { LOG_COLUMN_ROLES } from '../../../shared/log-roles.ts'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { firstDisagreement } from './log-and-typed.ts'

const MOST_BYTES = 250 * 1024 * 1024

/** What was read of a chosen file before anything of it is stored. */
interface Chosen {
  readonly file: File
  readonly importId: string
  readonly logId: string
  readonly preview: LogPreview | null
}

/** The name that a logger is remembered by: of the last file of the build. */
const lastLogger = (room: TrackRoom): string => room.sessions.flatMap(({ logs }) => logs).at(-1)?.loggerName ?? room.loggers[0]?.loggerName ?? 'logger'

function LogRow({ buildId, log }: { buildId: string; log: RoomLog }) {
  const { take, notice } = useRemoval(buildId, 'track-logs')
  const { text } = useQuantities()
  return (
    <li className="border-t border-line py-1.5">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <strong>{log.fileName}</strong>
        <span className="text-quiet">
          {log.loggerName}, {log.channels.length} channels, {text('duration', log.durationS, { decimals: 1 })}
        </span>
        <button type="button" className="word-link text-sm" onClick={() => void take(log)}>
          Delete<span className="sr-only"> {log.fileName}</span>
        </button>
      </p>
      <p className="text-xs text-quiet">{log.channels.map(({ name, count }) => (count === 0 ? `${name} (empty)` : name)).join(' · ')}</p>
      {log.problems.length > 0 && <p className="border-l-4 border-wait pl-3">First look: {log.problems.join(' ')}</p>}
      {notice}
    </li>
  )
}

/** Logs of a session: a file looked at first, then stored whole with its laps; which column is what is remembered by the logger's name. */
export function LogLaps({ buildId, session, room }: { buildId: string; session: RoomTrackSession; room: TrackRoom }) {
  const [loggerName, setLoggerName] = useState(() => lastLogger(room))
  const remembered = room.loggers.find((logger) => logger.loggerName.toLowerCase() === loggerName.trim().toLowerCase())
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const [columns, setColumns] = useState<LogColumns | null>(null)
  const [told, setTold] = useState<readonly LogColumnMapping[] | null>(null)
  const [refusal, setRefusal] = useState<string | null>(null)
  const [isReading, setIsReading] = useState(false)
  const turn = useRef(0)
  const sender = useSender()
  const [preview] = api.usePreviewLogMutation()
  const [readColumns] = api.useLogColumnsMutation()
  const [importLog] = api.useImportLogMutation()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const mapping = told ?? remembered?.columns ?? []
  const wish = (of: Chosen, by: readonly LogColumnMapping[]) => ({
    buildId,
    sessionId: session.record.id,
    importId: of.importId,
    logId: of.logId,
    file: of.file,
    loggerName: loggerName.trim() || 'logger',
    mapping: by,
  })
  const look = async (of: Chosen, by: readonly LogColumnMapping[]) => {
    const own = ++turn.current
    setChosen(of)
    setRefusal(null)
    setIsReading(true)
    const [seen, found] = [await readColumns(wish(of, by)), await preview(wish(of, by))]
    if (own !== turn.current) return
    setIsReading(false)
    setColumns(seen.data ?? null)
    if (found.data) setChosen({ ...of, preview: found.data })
    else setRefusal(readFailure(found.error).message)
  }
  const open = (file: File | undefined) => {
    if (!file) return
    setChosen(null)
    if (file.size > MOST_BYTES) return setRefusal('The file is larger than 250 MB. Export one session of it, or fewer channels.')
    void look({ file, importId: crypto.randomUUID(), logId: crypto.randomUUID(), preview: null }, mapping)
  }
  const change = (next: LogColumnMapping[]) => {
    setTold(next)
    if (chosen) void look({ ...chosen, preview: null }, next)
  }
  // What was said is of the logger of that name: it holds for its next file too, and for no other's.
  const rename = (next: string) => {
    setLoggerName(next)
    setTold(null)
  }
  const remember = async () => {
    if (!told) return
    const body = { loggerName: loggerName.trim() || 'logger', columns: told }
    if (remembered) await patch({ buildId, resource: 'logger-mappings', id: remembered.id, body: { ...body, version: remembered.version } })
    else await create({ buildId, resource: 'logger-mappings', body: { id: crypto.randomUUID(), ...body } })
  }
  const store = async () => {
    if (!chosen || !(await sender.send(() => importLog(wish(chosen, mapping)).unwrap()))) return
    await remember()
    setChosen(null)
    setColumns(null)
  }
  const shown = columns?.columns.map((column) => mapping.find(({ heading }) => heading === column.heading) ?? column) ?? []
  return (
    <section aria-label="Logs of the session" className="no-print mt-4">
      <h3 className="mb-1">Logs</h3>
      {session.logs.length > 0 && (
        <ul className="mb-2">
          {session.logs.map((log) => (
            <LogRow key={log.id} buildId={buildId} log={log} />
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex flex-wrap items-center gap-2">
          <span>A log as CSV</span>
          <input type="file" accept=".csv,.txt,.tsv,text/csv,text/plain" onChange={(event) => open(event.target.files?.[0])} />
        </label>
        <label className="flex items-center gap-2">
          <span>of the logger</span>
          <input value={loggerName} onChange={(event) => rename(event.target.value)} className="w-[130px]" maxLength={120} />
        </label>
      </div>
      {isReading && <p role="status">Reading …</p>}
      {refusal && <Alert className="mt-1">{refusal}</Alert>}
      {shown.length > 0 && (
        <details className="mt-2" open={refusal !== null || told !== null}>
          <summary className="min-h-6 cursor-pointer font-semibold">Which column is what</summary>
          <ColumnTable columns={shown} firstRows={columns?.firstRows ?? []} change={change} roles={LOG_COLUMN_ROLES} />
          <p className="text-xs text-quiet">What you say here is remembered for the logger of this name.</p>
        </details>
      )}
      {chosen?.preview && <Preview preview={chosen.preview} session={session} store={() => void store()} isBusy={sender.state.status === 'sending'} />}
      {sender.state.status === 'waiting' && <p role="status">{sender.state.message}</p>}
      {sender.state.status === 'failed' && <Alert>{sender.state.failure.message} The file is still open.</Alert>}
      <p className="mt-1 text-xs text-quiet">A time, with positions, a speed or a lap number; up to 250 MB. Every sample is kept, for Compare and Proof.</p>
    </section>
  )
}

/** A log as it was read: first what is wrong, then its laps, then the button. */
function Preview({ preview, session, store, isBusy }: { preview: LogPreview; session: RoomTrackSession; store: () => void; isBusy: boolean }) {
  const { text } = useQuantities()
  const { told, problems, laps, noLaps } = preview
  const disagrees = firstDisagreement(
    session.laps.map(({ lapS }) => lapS),
    laps.map(({ lapS }) => lapS),
  )
  const lap = (lapS: number) => text('lapTime', lapS, { decimals: 2 })
  return (
    <div role="status" className="mt-1">
      {problems.length > 0 && <p className="border-l-4 border-wait pl-3">First look: {problems.join(' ')}</p>}
      <p>
        {told}.{' '}
        {laps.length > 0 ? (
          <>
            <strong>{laps.length === 1 ? 'One lap' : `${laps.length} laps`}</strong>:{' '}
            <span className="tabular-nums">{laps.map(({ lapS }) => lap(lapS)).join(' · ')}</span>
          </>
        ) : (
          noLaps
        )}
      </p>
      {session.laps.length > 0 && laps.length > 0 && (
        <p className="text-wait">
          The session has {session.laps.length} laps already
          {disagrees
            ? `; lap ${disagrees.lap} was typed ${lap(disagrees.typedS)} and logged ${lap(disagrees.loggedS)}: another start, or another session?`
            : ' and they agree with the log.'}{' '}
          They stay; to take those of the log, delete them first.
        </p>
      )}
      <button type="button" className="button button-strong mt-1" disabled={isBusy} onClick={store}>
        {laps.length > 0 && session.laps.length === 0 ? `Store it with ${laps.length === 1 ? 'this lap' : `these ${laps.length} laps`}` : 'Store the log'}
      </button>
    </div>
  )
}
