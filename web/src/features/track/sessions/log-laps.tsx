import type { RoomTrackSession, TrackRoom } from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker } from '../use-lap.ts'

const MOST_BYTES = 60e6
/** What was typed and what was logged differ by more than a hand can, s (common practice, no source). */
const HAND_S = 0.3

interface Found {
  readonly name: string
  readonly laps: readonly { readonly fromS: number; readonly lapS: number }[]
  readonly told: string
  readonly problems: readonly string[]
}

/** Laps of a session that were typed, held against those of a log in their order: the first that a hand cannot have missed by. */
export function firstDisagreement(
  typed: readonly number[],
  logged: readonly number[],
): { readonly lap: number; readonly typedS: number; readonly loggedS: number } | null {
  const at = typed.findIndex((lapS, i) => logged[i] !== undefined && Math.abs(lapS - logged[i]) > HAND_S)
  return at < 0 ? null : { lap: at + 1, typedS: typed[at] as number, loggedS: logged[at] as number }
}

async function readFile(file: File, track: TrackRoom['tracks'][number]): Promise<Found | string> {
  if (file.size > MOST_BYTES) return `The file is over ${MOST_BYTES / 1e6} MB. Export one session of it, or fewer channels.`
  const text = await file.text()
  if (text.includes('\u0000')) return 'The file is a logger’s own binary. Export it as CSV.'
  const thread = beginTrackWorker()
  try {
    const found = await (wrap<TrackWorker>(thread) as Remote<TrackWorker>).log(text, { origin: track.origin, bearingRad: track.bearingRad })
    return 'refused' in found ? found.refused : { name: file.name, ...found }
  } finally {
    thread.terminate()
  }
}

/** Laps out of a logger's CSV: read in a worker, looked at first, stored in the session where it has none. */
export function LogLaps({ buildId, session, track }: { buildId: string; session: RoomTrackSession; track: TrackRoom['tracks'][number] }) {
  const { text } = useQuantities()
  const [found, setFound] = useState<Found | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const open = async (file: File | undefined) => {
    if (!file) return
    const read = await readFile(file, track)
    setFailure(typeof read === 'string' ? read : null)
    setFound(typeof read === 'string' ? null : read)
  }
  const store = async () => {
    if (!found) return
    const { record } = session
    const logger = found.problems.length > 0 ? 'partly' : 'recorded'
    const answer = await write({
      buildId,
      batchId,
      writes: [
        ...found.laps.map((lap, position) => ({
          kind: 'create' as const,
          resource: 'laps' as const,
          body: { id: crypto.randomUUID(), trackSessionId: record.id, position, lapS: lap.lapS, kind: 'clean' },
        })),
        { kind: 'update' as const, resource: 'track-sessions' as const, id: record.id, body: { version: record.version, logger, timing: 'gps' } },
      ],
    })
    if (answer.error) return setFailure(`${readFailure(answer.error).message} The file is still open.`)
    setBatchId(crypto.randomUUID())
    setFound(null)
  }
  const disagrees =
    found &&
    firstDisagreement(
      session.laps.map(({ lapS }) => lapS),
      found.laps.map(({ lapS }) => lapS),
    )
  return (
    <section aria-label="Laps out of a log" className="no-print mt-4">
      <label className="flex flex-wrap items-center gap-3">
        <span className="font-semibold">Laps out of a log</span>
        <input type="file" accept=".csv,.txt,text/csv,text/plain" onChange={(event) => void open(event.target.files?.[0])} />
      </label>
      {failure && <Alert className="mt-1">{failure}</Alert>}
      {found && (
        <div role="status" className="mt-1">
          <p>
            {found.name}: {found.told}. <strong>{found.laps.length === 1 ? 'One lap' : `${found.laps.length} laps`}</strong>:{' '}
            <span className="tabular-nums">{found.laps.map(({ lapS }) => text('lapTime', lapS, { decimals: 2 })).join(' · ')}</span>
          </p>
          {found.problems.length > 0 && <p className="border-l-4 border-wait pl-3">First look: {found.problems.join(' ')}</p>}
          {session.laps.length === 0 ? (
            <button type="button" className="button mt-1" disabled={isLoading} onClick={() => void store()}>
              Store {found.laps.length === 1 ? 'this lap' : `these ${found.laps.length} laps`}
            </button>
          ) : (
            <p className="text-wait">
              The session has {session.laps.length} laps already
              {disagrees
                ? `; lap ${disagrees.lap} was typed ${text('lapTime', disagrees.typedS, { decimals: 2 })} and logged ${text('lapTime', disagrees.loggedS, { decimals: 2 })}: another start, or another session?`
                : ' and they agree with the log.'}{' '}
              Delete them first to take those of the log.
            </p>
          )}
        </div>
      )}
      <p className="mt-1 text-xs text-quiet">CSV with a time and positions or a lap number, by their headings. Samples are not kept: laps are.</p>
    </section>
  )
}
