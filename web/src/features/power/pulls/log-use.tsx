import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, parseNumber } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { usePreferences } from '../../../data/store.ts'
import { Alert } from '../../../ui/states.tsx'

/** The use that a session was to the fitted parts that live so long: logged for all of them at once. */
export function LogUse({ records, session }: { records: RecordsAnswer; session: RecordsAnswer['sessions'][number] }) {
  const { decimalMark } = usePreferences()
  const [write, { isLoading }] = api.useBatchMutation()
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [hours, setHours] = useState('1')
  const [failure, setFailure] = useState<string | null>(null)
  const buildId = records.build.id
  const living = records.parts.filter((part) => part.life !== null && part.status === 'fitted')
  const logged = records.partUses.filter(({ sessionId }) => sessionId === session.id)
  const open = living.filter(({ id }) => !logged.some(({ partId }) => partId === id))
  if (living.length === 0) return null
  const store = async () => {
    const amount = attempt(() => parseNumber(hours, decimalMark, 'Hours at the dyno'))
    if (amount instanceof CalculationError) return setFailure(amount.message)
    if (!(amount > 0 && amount <= 48)) return setFailure('Type the hours at the dyno as a number, such as 1.5.')
    const writes = open.map((part) => ({
      kind: 'create' as const,
      resource: 'part-uses' as const,
      // A visit is one event, and one day of use.
      body: { id: crypto.randomUUID(), partId: part.id, sessionId: session.id, at: session.at, amount: part.life?.unit === 'hours' ? amount : 1, note: null },
    }))
    const answer = await write({ buildId, batchId, writes })
    // What is logged later, such as of a part that is fitted then, is another batch.
    if (!answer.error) setBatchId(crypto.randomUUID())
    setFailure(answer.error ? `${readFailure(answer.error).message} Nothing was stored.` : null)
  }
  return (
    <section className="mt-5 border-t border-line pt-3">
      <h3 className="font-semibold">What it used up</h3>
      {open.length === 0 ? (
        <p className="text-quiet">Logged for all {living.length} fitted parts that have a life.</p>
      ) : (
        <>
          <p className="mb-2 text-quiet">
            {open.map(({ name }) => name).join(', ')}: one day or one event each, and for parts that live by hours the time at the dyno.
          </p>
          <div className="flex flex-wrap items-end gap-3">
            <label>
              <span className="mb-1 block">Hours at the dyno</span>
              <input value={hours} onChange={(event) => setHours(event.target.value)} className="w-[90px]" />
            </label>
            <button type="button" className="button" disabled={isLoading} onClick={() => void store()}>
              Log the use of {open.length} {open.length === 1 ? 'part' : 'parts'}
            </button>
          </div>
        </>
      )}
      {failure && <Alert className="mt-2">{failure}</Alert>}
    </section>
  )
}
