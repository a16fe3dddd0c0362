import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, parseNumber, type Ran, sessionUses } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../data/api.ts'
import { usePreferences } from '../data/store.ts'
import { Alert } from '../ui/states.tsx'

/** The use that a spell at the dyno or on track was to the fitted parts that live so long: logged for all of them at once, each in the unit of its life. */
export function LogUse({
  records,
  of,
  ran,
  where,
}: {
  records: RecordsAnswer
  of: { readonly sessionId: string } | { readonly trackSessionId: string }
  ran: Omit<Ran, 'hours'> & { readonly hours: string }
  where: string
}) {
  const { decimalMark } = usePreferences()
  const [write, { isLoading }] = api.useBatchMutation()
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [hours, setHours] = useState(ran.hours)
  const [failure, setFailure] = useState<string | null>(null)
  const buildId = records.build.id
  const logged = records.partUses.filter((use) => ('sessionId' in of ? use.sessionId === of.sessionId : use.trackSessionId === of.trackSessionId))
  const read = attempt(() => parseNumber(hours, decimalMark, `Hours ${where}`))
  // What cannot be read yet still shows which parts it is about.
  const typed = read instanceof CalculationError ? 1 : read
  const open = sessionUses(records, { ...ran, hours: typed }, logged)
  const living = records.parts.filter((part) => part.life !== null && part.status === 'fitted')
  if (living.length === 0) return null
  const store = async () => {
    if (read instanceof CalculationError) return setFailure(read.message)
    if (!(read >= 0 && read <= 48)) return setFailure(`Type the hours ${where} as a number, such as 1.5.`)
    const writes = open.map(({ part, amount }) => ({
      kind: 'create' as const,
      resource: 'part-uses' as const,
      body: { id: crypto.randomUUID(), partId: part.id, ...of, at: ran.at, amount, note: null },
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
        <p className="text-quiet">
          {logged.length > 0
            ? `Logged for ${logged.length === living.length ? 'all ' : ''}${logged.length} fitted parts that have a life.`
            : 'Nothing that was not logged for this day already.'}
        </p>
      ) : (
        <>
          <p className="mb-2 text-quiet">
            {open.map(({ part, unit, amount }) => `${part.name} ${Number(amount.toFixed(2))} ${amount === 1 ? unit.slice(0, -1) : unit}`).join(', ')}.
          </p>
          <div className="flex flex-wrap items-end gap-3">
            <label>
              <span className="mb-1 block">Hours {where}</span>
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
