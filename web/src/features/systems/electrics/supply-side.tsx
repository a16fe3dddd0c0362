import type { RecordsAnswer } from '@bold-ballast/contract'
import type { ElectricsView } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution } from '../../../ui/states.tsx'

const signed = (amps: number) => `${amps > 0 ? '+' : amps < 0 ? '−' : ''}${Math.abs(amps).toFixed(1)} A`

/** What feeds it, how long the battery lasts, what the loom weighs, what the main switch leaves on. */
export function SupplySide({ records, view, stageId, editSupply }: { records: RecordsAnswer; view: ElectricsView; stageId: string; editSupply: () => void }) {
  const { text } = useQuantities()
  const { supply, loom, outsideKill, totalA, box } = view
  const [said, setSaid] = useState<string | null>(null)
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const isInLedger = records.changes.some(({ name, stageId: own, state }) => own === stageId && state !== 'dropped' && /^loom\b/i.test(name))
  const toLedger = async () => {
    if (!loom) return
    const value = { massKg: loom.massKg, sdKg: loom.sdKg, proof: 'catalogue', at: new Date().toISOString() }
    const body = { id: crypto.randomUUID(), stageId, kind: 'on', name: 'Loom, as reckoned', values: [value] }
    const answer = await create({ buildId: records.build.id, resource: 'changes', body })
    setSaid(answer.error ? readFailure(answer.error).message : `Loom, ${text('mass', loom.massKg)}: a line of this stage’s ledger.`)
  }
  return (
    <aside className="grid content-start gap-4 min-[1100px]:border-l min-[1100px]:border-line min-[1100px]:pl-4">
      {said && <Alert>{said}</Alert>}
      <section>
        <h2 className="mb-1">Alternator and battery</h2>
        {supply ? (
          <>
            <p className={`text-3xl leading-none font-black ${supply.hotA < 0 ? 'text-danger' : ''}`}>{signed(supply.hotA)}</p>
            <p>
              left when hot, ± {supply.sdA.toFixed(1)}; <b className={supply.idleA < 0 ? 'text-wait' : ''}>{signed(supply.idleA)}</b> at idle
            </p>
            <p className="mt-1 text-quiet">
              Draws {supply.meanA.toFixed(1)} A in the mean, {text('power', supply.shaftW, { decimals: 1 })} off the belt; {supply.batteryMinutes.toFixed(0)}{' '}
              min on the battery alone.
            </p>
          </>
        ) : (
          <p className="text-quiet">{records.build.supply ? 'Nothing draws yet.' : 'Nobody entered alternator and battery.'}</p>
        )}
        <button type="button" className="word-link" onClick={editSupply}>
          {records.build.supply ? 'Alter them' : 'Enter them'}
        </button>
      </section>
      {box?.totalA != null && (
        <p className={totalA > box.totalA ? 'font-semibold text-danger' : 'text-quiet'}>
          {totalA.toFixed(0)} A through the box in the mean, {box.totalA} at the most.
        </p>
      )}
      {loom && (
        <section>
          <h2 className="mb-1">Loom</h2>
          <p>
            {text('mass', loom.massKg, { sd: loom.sdKg })} ± {text('mass', loom.sdKg, { decimals: 2 })}
            {loom.missing > 0 && <span className="text-wait"> without {loom.missing} of no known wire</span>}
          </p>
          {!isInLedger && (
            <button type="button" className="word-link" disabled={isLoading} onClick={() => void toLedger()}>
              Make it a line of the ledger
            </button>
          )}
        </section>
      )}
      <section>
        <h2 className="mb-1">Main switch</h2>
        <p>{outsideKill.length === 0 ? 'Cuts every circuit.' : <b className="text-wait">Leaves on: {outsideKill.map(({ name }) => name).join(', ')}.</b>}</p>
        <p className="text-[13px] text-quiet">It must also stop an engine whose alternator would keep it alive: look at scrutineering.</p>
      </section>
      <Caution>Batteries: tools off the terminals, the earth off first, the event’s rules for the switch.</Caution>
    </aside>
  )
}
