import type { RoomTrackSession } from '@bold-ballast/core'
import { useEffect, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'

interface Watch {
  /** When the running lap began, ms since 1970; null: it stands. */
  readonly startedAt: number | null
  readonly lapsMs: readonly number[]
}
const STOPPED: Watch = { startedAt: null, lapsMs: [] }
const SHORTEST_MS = 5000

/** A stopwatch: Space ends a lap and begins the next. Each lap is kept in the browser at once, and stored when the session is in. */
export function Stopwatch({ buildId, session }: { buildId: string; session: RoomTrackSession }) {
  const key = `bold-ballast.watch.${session.record.id}`
  const { format } = useQuantities()
  const [watch, setWatch] = useState<Watch>(() => readStored(key, STOPPED))
  const [now, setNow] = useState(() => Date.now())
  const [failure, setFailure] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const isRunning = watch.startedAt !== null
  useEffect(() => {
    if (!isRunning) return
    const ticking = setInterval(() => setNow(Date.now()), 97)
    return () => clearInterval(ticking)
  }, [isRunning])
  const keep = (next: Watch) => {
    setWatch(next)
    writeStored(key, next.startedAt === null && next.lapsMs.length === 0 ? undefined : next)
  }
  const press = () => {
    const at = Date.now()
    setNow(at)
    if (watch.startedAt === null) return keep({ ...watch, startedAt: at })
    // A key that bounced is no lap.
    if (at - watch.startedAt < SHORTEST_MS) return
    keep({ startedAt: at, lapsMs: [...watch.lapsMs, at - watch.startedAt] })
  }
  const store = async () => {
    const from = Math.max(-1, ...session.laps.map(({ position }) => position)) + 1
    const writes = watch.lapsMs.map((ms, i) => ({
      kind: 'create' as const,
      resource: 'laps' as const,
      body: { id: crypto.randomUUID(), trackSessionId: session.record.id, position: from + i, lapS: ms / 1000, kind: 'clean' },
    }))
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) return setFailure(`${readFailure(answer.error).message} The laps are kept.`)
    setBatchId(crypto.randomUUID())
    setFailure(null)
    keep(STOPPED)
  }
  const clock = (ms: number) => format('lapTime', ms / 1000, { decimals: 1 }).number
  return (
    <section aria-label="Stopwatch" className="no-print mt-4">
      <div className="flex flex-wrap items-center gap-3">
        <button type="button" className="button button-strong min-w-[150px]" onClick={press}>
          {isRunning ? 'Lap' : 'Start the watch'}
        </button>
        <output className="text-[22px] font-bold tabular-nums">{isRunning ? clock(now - (watch.startedAt ?? now)) : ''}</output>
        {isRunning && (
          <button type="button" className="word-link" onClick={() => keep({ ...watch, startedAt: null })}>
            Stop
          </button>
        )}
        {watch.lapsMs.length > 0 && (
          <>
            <span className="text-quiet tabular-nums">{watch.lapsMs.map((ms) => format('lapTime', ms / 1000, { decimals: 2 }).number).join(' · ')}</span>
            <button type="button" className="button" disabled={isLoading} onClick={() => void store()}>
              Store {watch.lapsMs.length === 1 ? 'this lap' : `these ${watch.lapsMs.length} laps`}
            </button>
            <button type="button" className="word-link" onClick={() => keep(STOPPED)}>
              Throw away
            </button>
          </>
        )}
      </div>
      <p className="mt-1 text-xs text-quiet">With the button in focus Space ends a lap. Laps are kept in this browser at once.</p>
      {failure && <Alert>{failure}</Alert>}
    </section>
  )
}
