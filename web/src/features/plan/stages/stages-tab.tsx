import type { StoredRecords } from '@bold-ballast/contract'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useBuild } from '../../../data/use-build.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { MovedGoals } from './moved-goals.tsx'
import { stageBody, stageDefaults, stageFieldSpecs } from './stage-form.ts'

/** Stages in their order: added, changed, moved, deleted. */
export function StagesTab({ records, buildId }: { records: StoredRecords; buildId: string }) {
  const { board } = useBuild()
  const { units, text } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const [reorder] = api.useReorderStagesMutation()
  const removal = useRemoval(buildId, 'stages')
  const [editing, setEditing] = useState<string | null>(null)
  const [failure, setFailure] = useState('')
  /** The stage that was the last one until another was added. */
  const [lastBefore, setLastBefore] = useState<string | null>(null)
  const edited = records.stages.find((stage) => stage.id === editing)
  const move = async (from: number, to: number) => {
    const order = [...records.stages]
    const [taken] = order.splice(from, 1)
    if (!taken) return
    order.splice(to, 0, taken)
    const answer = await reorder({ buildId, stages: order.map(({ id, version }) => ({ id, version })) })
    setFailure(answer.error ? readFailure(answer.error).message : '')
  }
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_340px]">
      <div>
        {removal.notice}
        {lastBefore && <MovedGoals records={records} buildId={buildId} lastBefore={lastBefore} onDone={() => setLastBefore(null)} />}
        {failure && <Alert className="my-2">{failure}</Alert>}
        <ol>
          {records.stages.map((stage, at) => (
            <li key={stage.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line py-2.5">
              <span className="w-6 font-bold">{at}</span>
              <span className="min-w-[160px] flex-1">
                <span className="text-[16px] font-semibold">{stage.name}</span>
                {stage.note && <span className="block text-xs text-quiet">{stage.note}</span>}
                {stage.geometry && (
                  <span className="block text-xs text-quiet">
                    wheelbase {text('length', stage.geometry.wheelbaseM)}, tracks {text('length', stage.geometry.trackFrontM)} and{' '}
                    {text('length', stage.geometry.trackRearM)} from here on
                  </span>
                )}
              </span>
              <span className="w-[110px] text-quiet">{stage.date ? <time dateTime={stage.date}>{dayText(stage.date)}</time> : 'no date'}</span>
              <span className="w-[80px] text-quiet">
                {board?.stages[at]?.state}
                {board?.stages[at]?.isDateOutOfOrder && <span className="block text-xs text-wait">date out of order</span>}
              </span>
              <span className="flex items-baseline gap-3">
                <button type="button" className="button" aria-label={`Move ${stage.name} earlier`} disabled={at < 2} onClick={() => void move(at, at - 1)}>
                  ↑
                </button>
                <button
                  type="button"
                  className="button"
                  aria-label={`Move ${stage.name} later`}
                  disabled={at === 0 || at === records.stages.length - 1}
                  onClick={() => void move(at, at + 1)}
                >
                  ↓
                </button>
                <button type="button" className="word-link" onClick={() => setEditing(stage.id)} aria-label={`Change ${stage.name}`}>
                  Change
                </button>
                <button type="button" className="word-link" disabled={at === 0} onClick={() => void removal.take(stage)} aria-label={`Delete ${stage.name}`}>
                  Delete
                </button>
              </span>
            </li>
          ))}
        </ol>
      </div>
      <section>
        <h2 className="mb-2">Add a stage</h2>
        <RecordForm
          key={records.stages.length}
          draftKey={`${buildId}.stage`}
          fields={stageFieldSpecs}
          defaults={{}}
          submitLabel="Add the stage"
          toBody={(read, id) => ({ id, position: Math.max(...records.stages.map((stage) => stage.position)) + 1, ...stageBody(read) })}
          send={(body) => create({ buildId, resource: 'stages', body }).unwrap()}
          onDone={() => setLastBefore(records.stages.at(-1)?.id ?? null)}
        />
      </section>
      {edited && (
        <Panel title={`Stage ${edited.position}`} onClose={() => setEditing(null)}>
          <RecordForm
            draftKey={`stage.${edited.id}.${edited.version}`}
            fields={stageFieldSpecs}
            defaults={stageDefaults(edited, units)}
            submitLabel="Store the stage"
            toBody={(read) => ({ ...stageBody(read), version: edited.version })}
            send={(body) => patch({ buildId, resource: 'stages', id: edited.id, body }).unwrap()}
            onDone={() => setEditing(null)}
          />
        </Panel>
      )}
    </div>
  )
}
