import type { RecordsAnswer } from '@bold-ballast/contract'
import { type CoolerBeside, decisionOfCoolers, formatChance } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, readFailure } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert } from '../../../ui/states.tsx'
import { coolersTable } from '../tables.ts'
import { MOUNT_WORDS, otherCoolerForm } from './cooling-form.ts'

type Plan = RecordsAnswer['coolingPlans'][number]

/** Another core as a form; the plan is written as a whole. */
function OtherPanel({ records, plan, index, onClose }: { records: RecordsAnswer; plan: Plan; index: number | null; onClose: () => void }) {
  const { units } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const form = useMemo(() => otherCoolerForm(records), [records])
  const other = index === null ? null : (plan.others[index] ?? null)
  const write = (others: readonly unknown[]) =>
    patch({ buildId: records.build.id, resource: 'cooling-plans', id: plan.id, body: { version: plan.version, others } as never }).unwrap()
  return (
    <Panel title={other ? 'Alter this core' : 'Another core to compare'} onClose={onClose}>
      <RecordForm
        key={plan.version}
        draftKey={`${records.build.id}.cooler.${plan.id}.${index ?? 'new'}`}
        fields={form.specs()}
        defaults={form.defaults(other, units)}
        submitLabel={other ? 'Save the core' : 'Put it beside'}
        toBody={(read) => {
          const body = form.body(read)
          return { others: other ? plan.others.map((each, i) => (i === index ? body : each)) : [...plan.others, body] }
        }}
        send={(body) => write((body as { others: readonly unknown[] }).others)}
        onDone={onClose}
      />
      {other && (
        <p className="mt-3">
          <button type="button" className="word-link" onClick={() => void write(plan.others.filter((_, i) => i !== index)).then(onClose)}>
            Take this core away
          </button>
        </p>
      )}
    </Panel>
  )
}

/** Cores and places side by side: where each settles, what it weighs, what it does to the front share, what it costs; opened as a decision. */
export function SideBySide({
  records,
  coolers,
  plan,
  stopK,
  stageId,
}: {
  records: RecordsAnswer
  coolers: readonly CoolerBeside[]
  plan: Plan | null
  stopK: number
  stageId: string
}) {
  const { text, units } = useQuantities()
  const navigate = useNavigate()
  const [open, setOpen] = useState<{ readonly index: number | null } | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const [create, { isLoading }] = api.useCreateRecordMutation()
  if (!plan) return null
  const currency = records.build.money?.currency ?? ''
  const decide = async () => {
    const id = crypto.randomUUID()
    const body = { id, ...decisionOfCoolers(coolers, { stageId, stopK, unit: units.temperature }) }
    const answer = await create({ buildId: records.build.id, resource: 'decisions', body: body as never })
    if (answer.error) return setFailure(readFailure(answer.error).message)
    const stage = records.stages.find((each) => each.id === stageId)
    void navigate(`/builds/${records.build.id}/jobs?tab=decisions&decision=${id}${stage ? `&stage=${stageId}` : ''}`)
  }
  return (
    <section>
      <h2 className="mb-1">Cores and places side by side</h2>
      {failure && <Alert>{failure}</Alert>}
      {coolers.length > 1 && (
        <ScrollBox label="Cores and places side by side">
          <table className="w-full border-collapse">
            <thead>
              <tr>
                <th className="text-left">Core</th>
                <th className="pl-3 text-left">Sits in the</th>
                <th className="pl-3 text-right">Settles, hot day</th>
                <th className="pl-3 text-right">Under its limit</th>
                <th className="pl-3 text-right">With its fluid</th>
                <th className="pl-3 text-right">Front share</th>
                <th className="pl-3 text-right">Cost</th>
              </tr>
            </thead>
            <tbody>
              {coolers.map(({ name, index, mount, hot, chanceUnder, refused, massKg, frontShare, cost }) => (
                <tr key={index ?? 'planned'} className="border-t border-line align-baseline">
                  <td className="py-1">
                    {index === null ? (
                      <b>{name}, planned</b>
                    ) : (
                      <button type="button" className="word-link text-left" onClick={() => setOpen({ index })}>
                        {name}
                      </button>
                    )}
                    {refused && <span className="block text-wait">{refused}</span>}
                  </td>
                  <td className="py-1 pl-3">{MOUNT_WORDS[mount]}</td>
                  <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">
                    {hot ? `${text('temperature', hot.settledK, { decimals: 0 })} ± ${hot.sdK.toFixed(0)}` : '–'}
                  </td>
                  <td className={`py-1 pl-3 text-right whitespace-nowrap ${chanceUnder !== null && chanceUnder < 0.5 ? 'font-semibold text-danger' : ''}`}>
                    {chanceUnder === null ? '–' : formatChance(chanceUnder)}
                  </td>
                  <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">
                    {massKg === null ? 'not weighed' : text('mass', massKg, { decimals: 1 })}
                  </td>
                  <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">
                    {frontShare === null ? '–' : text('share', frontShare, { decimals: 2 })}
                  </td>
                  <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">{cost === null ? '–' : `${cost.toFixed(0)} ${currency}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
      {coolers.length < 2 && (
        <p className="text-quiet">
          Put another core or another place beside it: where it settles, what it weighs with its fluid, what it does to the front share.
        </p>
      )}
      <p className="no-print mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="word-link" onClick={() => setOpen({ index: null })}>
          Put another beside it
        </button>
        {coolers.length > 1 && (
          <>
            <button type="button" className="word-link" disabled={isLoading} onClick={() => void decide()}>
              Open as a decision
            </button>
            <CsvButton name={`${records.build.name} cores`} table={() => coolersTable(coolers)} />
          </>
        )}
      </p>
      {open && <OtherPanel records={records} plan={plan} index={open.index} onClose={() => setOpen(null)} />}
    </section>
  )
}
