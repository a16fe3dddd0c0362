import type { RecordsAnswer } from '@bold-ballast/contract'
import { useMemo, useState } from 'react'
import { api } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { useSender } from '../../../data/use-sender.ts'
import { SettingSelect } from '../../../shared/fields/setting-select.tsx'
import type { LivePull } from '../../../shared/use-stream.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { livePullFile, mostPowerW } from './live-file.ts'

/** Which record a live pull became, by its own id; the last ones are remembered in this browser. */
const STORED_KEY = 'bold-ballast.kept-pulls'
const MOST_REMEMBERED = 100
type Kept = readonly (readonly [pullId: string, recordId: string])[]

/** The pulls that were read, each put into a session like one from a file: read, checked and stored the same way, and once. */
export function KeepPulls({ records, pulls, newSession }: { records: RecordsAnswer; pulls: readonly LivePull[]; newSession: () => void }) {
  const { text } = useQuantities()
  const [sessionId, setSessionId] = useState('')
  const [settingId, setSettingId] = useState('')
  const [kept, setKept] = useState<Kept>(() => readStored<Kept>(STORED_KEY, []))
  const [sending, setSending] = useState<string | null>(null)
  const [importPulls] = api.useImportPullsMutation()
  const sender = useSender()
  const sessions = useMemo(() => [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at)), [records.sessions])
  const chosen = sessions.find(({ id }) => id === sessionId) ?? sessions[0]
  const setting = chosen?.settings.find(({ id }) => id === settingId) ?? chosen?.settings.at(-1)
  const isStored = ({ pullId }: LivePull) => {
    const recordId = kept.find(([id]) => id === pullId)?.[1]
    return records.pulls.some(({ id }) => id === recordId)
  }
  const store = async ({ pullId, samples }: LivePull) => {
    if (!chosen) return
    setSending(pullId)
    // The pull's own id: sent twice, from this page or another, it is stored once.
    const file = livePullFile(samples)
    const made = await sender.send(() =>
      importPulls({ buildId: records.build.id, sessionId: chosen.id, importId: pullId, file, ...(setting ? { settingId: setting.id } : {}) }).unwrap(),
    )
    setSending(null)
    const recordId = made?.[0]?.id
    if (typeof recordId !== 'string') return
    const next = [...kept.filter(([id]) => id !== pullId), [pullId, recordId] as const].slice(-MOST_REMEMBERED)
    setKept(next)
    writeStored(STORED_KEY, next)
  }
  return (
    <section>
      <h2 className="mb-1">Keep these pulls</h2>
      {sessions.length > 0 && (
        <label className="mb-2 block">
          <span className="mb-1 block">In the session</span>
          <select value={chosen?.id} onChange={(event) => setSessionId(event.target.value)} className="w-full">
            {sessions.map((session) => (
              <option key={session.id} value={session.id}>
                {session.dynoName}, {dayText(session.at)}
              </option>
            ))}
          </select>
        </label>
      )}
      {chosen && <SettingSelect settings={chosen.settings} value={setting?.id ?? ''} onPick={setSettingId} label="On the setting" />}
      {pulls.length === 0 ? (
        <p className="mb-2 text-quiet">A pull that has ended stands here, and can be put into a session.</p>
      ) : (
        <ul className="mb-2">
          {[...pulls].reverse().map((pull) => {
            const number = pull.samples[0]?.pull
            return (
              <li key={pull.pullId} className="flex items-baseline gap-2 border-b border-line py-1">
                <span className="min-w-0 flex-1">
                  Pull {number}
                  <span className="block text-xs text-quiet">
                    {pull.samples.length} samples, most {text('power', mostPowerW(pull.samples), { decimals: 1 })}
                  </span>
                </span>
                {isStored(pull) ? (
                  <span className="text-quiet">stored</span>
                ) : (
                  <button
                    type="button"
                    className="button"
                    aria-label={`Store pull ${number} of ${pull.samples.length} samples`}
                    disabled={!chosen || sender.state.status === 'sending' || sender.state.status === 'waiting'}
                    onClick={() => void store(pull)}
                  >
                    {sending === pull.pullId ? 'Storing …' : 'Store'}
                  </button>
                )}
              </li>
            )
          })}
        </ul>
      )}
      <button type="button" className="word-link" onClick={newSession}>
        New session with this air
      </button>
      {sender.state.status === 'waiting' && <p role="status">{sender.state.message}</p>}
      {sender.state.status === 'failed' && <Alert className="mt-2">{sender.state.failure.message} The pull is still here.</Alert>}
    </section>
  )
}
