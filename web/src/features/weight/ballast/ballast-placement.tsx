import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import type { BallastPlacement } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { OBJECTIVE_UNITS } from './ballast-words.ts'

/** One placement: plates by place, what the car is then, and what each mount must hold. */
export function Placement({
  title,
  placement,
  records,
  stageId,
  objective,
  canStore,
}: {
  title: string
  placement: BallastPlacement
  records: RecordsAnswer
  stageId: string
  objective: keyof typeof OBJECTIVE_UNITS
  canStore: boolean
}) {
  const { text } = useQuantities()
  const [write, writing] = api.useBatchMutation()
  const [done, setDone] = useState('')
  const used = placement.sites.filter(({ massKg }) => massKg > 0)
  const siteOf = (id: string) => records.sites.find((site) => site.id === id)
  const store = async () => {
    const writes = used.flatMap(({ id, plates }) =>
      plates.map(({ massKg, count }): BatchWrite => {
        const site = siteOf(id)
        const values = [{ massKg, sdKg: null, proof: 'catalogue', typed: null, at: new Date().toISOString() }]
        const body = {
          id: crypto.randomUUID(),
          stageId,
          kind: 'on',
          name: `ballast plate, ${site?.name}`,
          count,
          zone: site?.name ?? null,
          place: site?.place ?? null,
          values,
          state: 'planned',
        }
        return { kind: 'create', resource: 'changes', body }
      }),
    )
    const answer = await write({ buildId: records.build.id, batchId: crypto.randomUUID(), writes })
    setDone(answer.error ? readFailure(answer.error).message : 'They stand in the ledger as planned lines.')
  }
  const objectiveText =
    objective === 'nearestShares' || objective === 'leastMass' ? text('mass', placement.objective, { decimals: 2 }) : placement.objective.toFixed(2)
  return (
    <section className="mt-4">
      <h3 className="text-[15px] font-bold">{title}</h3>
      <table className="mt-1 w-full max-w-[680px] border-collapse">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">Place</th>
            <th className="p-1.5">Plates</th>
            <th className="p-1.5 text-right">Mass</th>
            <th className="p-1.5 text-right">Its mount must hold</th>
          </tr>
        </thead>
        <tbody>
          {used.length === 0 && (
            <tr>
              <td className="p-1.5" colSpan={4}>
                No ballast at all.
              </td>
            </tr>
          )}
          {used.map(({ id, plates, massKg, mountLoadN }) => (
            <tr key={id} className="border-b border-line">
              <td className="p-1.5">{siteOf(id)?.name}</td>
              <td className="p-1.5 font-semibold">{plates.map((plate) => `${plate.count} × ${text('mass', plate.massKg)}`).join(', ')}</td>
              <td className="p-1.5 text-right text-[16px] font-bold">{text('mass', massKg)}</td>
              <td className="p-1.5 text-right">{mountLoadN === null ? 'no load factor stated' : text('force', mountLoadN)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1">
        Car <strong>{text('mass', placement.totalKg)}</strong>, front <strong>{text('share', placement.frontShare, { decimals: 2 })}</strong>, left{' '}
        <strong>{text('share', placement.leftShare, { decimals: 2 })}</strong>
        {placement.crossShareRfLr !== null && (
          <>
            , cross RF + LR <strong>{text('share', placement.crossShareRfLr, { decimals: 2 })}</strong>
          </>
        )}
        {placement.centreHeightM !== null && `, centre ${text('length', placement.centreHeightM)} up`}; {objectiveText} {OBJECTIVE_UNITS[objective]}.
      </p>
      {canStore && used.length > 0 && (
        <p className="mt-2 flex items-center gap-3">
          <button type="button" className="button" onClick={() => void store()} disabled={writing.isLoading || done !== ''}>
            Put the plates into the ledger
          </button>
          <span role="status">{done}</span>
        </p>
      )}
    </section>
  )
}
