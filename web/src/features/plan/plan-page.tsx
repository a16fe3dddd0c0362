import type { StoredRecords } from '@bold-ballast/contract'
import { METRIC_INFO, type Metric } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../api/api.ts'
import { useBuild } from '../../app/use-build.ts'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { typedText, useQuantities } from '../../ui/quantity.ts'
import { RecordForm } from '../../ui/record-form.tsx'
import { useRemoval } from '../../ui/removal.tsx'
import { Empty } from '../../ui/states.tsx'
import { Tabs, useTab } from '../../ui/tabs.tsx'
import { dayText, SENSE_WORDS } from '../../ui/words.ts'
import { expectationBody, expectationFieldSpecs, goalBody, goalFieldSpecs, stageBody, stageFieldSpecs } from './plan-forms.ts'

const TABS = ['stages', 'goals', 'expectations'] as const
const WORDS = { stages: 'Stages', goals: 'Targets and limits', expectations: 'Expected power' }

/** Stages, targets, limits and what a stage should give. */
export function PlanPage() {
  const { records, board, buildId } = useBuild()
  const [tab, open] = useTab(TABS)
  if (!records || !board) return null
  const open1 = board.stages.filter((stage) => stage.state === 'planned').length
  const late = board.stages.filter((stage) => stage.isLate).length
  return (
    <>
      <title>{`${records.build.name}: Plan · Bold Ballast`}</title>
      <h1 className="mb-3">
        {records.stages.length} stages, {open1} still planned{late > 0 ? `, ${late} late` : ''}
      </h1>
      <Tabs names={TABS} words={WORDS} tab={tab} open={open} />
      {tab === 'stages' && <StagesTab records={records} buildId={buildId} />}
      {tab === 'goals' && <GoalsTab records={records} buildId={buildId} />}
      {tab === 'expectations' && <ExpectationsTab records={records} buildId={buildId} />}
    </>
  )
}

interface TabProps {
  readonly records: StoredRecords
  readonly buildId: string
}

function StagesTab({ records, buildId }: TabProps) {
  const { board } = useBuild()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const [reorder] = api.useReorderStagesMutation()
  const removal = useRemoval(buildId, 'stages')
  const [editing, setEditing] = useState<string | null>(null)
  const [failure, setFailure] = useState('')
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
        {failure && (
          <p role="alert" className="my-2 border-l-4 border-danger py-1 pl-3">
            {failure}
          </p>
        )}
        <ol>
          {records.stages.map((stage, at) => (
            <li key={stage.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line py-2.5">
              <span className="w-6 font-bold">{at}</span>
              <span className="min-w-[160px] flex-1">
                <span className="text-[16px] font-semibold">{stage.name}</span>
                {stage.note && <span className="block text-xs text-quiet">{stage.note}</span>}
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
          onDone={() => {}}
        />
      </section>
      {edited && (
        <Panel title={`Stage ${edited.position}`} onClose={() => setEditing(null)}>
          <RecordForm
            draftKey={`stage.${edited.id}.${edited.version}`}
            fields={stageFieldSpecs}
            defaults={{ name: edited.name, date: edited.date ?? '', note: edited.note ?? '' }}
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

function GoalsTab({ records, buildId }: TabProps) {
  const { units, text } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const targets = useRemoval(buildId, 'targets')
  const limits = useRemoval(buildId, 'limits')
  const [editing, setEditing] = useState<{ resource: 'targets' | 'limits'; id: string } | null>(null)
  const stageName = (id: string | null) => {
    const stage = id === null ? records.stages.at(-1) : records.stages.find((entry) => entry.id === id)
    return stage ? `${stage.position} ${stage.name}` : 'the last stage'
  }
  const rows = [
    ...records.targets.map((record) => ({ resource: 'targets' as const, record })),
    ...records.limits.map((record) => ({ resource: 'limits' as const, record })),
  ]
  const edited = rows.find((row) => row.record.id === editing?.id)
  const unitOf = (metric: Metric) => units[METRIC_INFO[metric].kind]
  const resourceOf = (body: Record<string, unknown>) => ('source' in body ? 'limits' : 'targets') as 'limits' | 'targets'
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_380px]">
      <div>
        {targets.notice}
        {limits.notice}
        {rows.length === 0 ? (
          <Empty
            title="No target yet"
            why="A target is a number you promise yourself by a stage; a limit is one the class, a part or you set. The Board judges both."
          />
        ) : (
          <ul>
            {rows.map(({ resource, record }) => {
              const { kind, word } = METRIC_INFO[record.metric]
              return (
                <li key={record.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line py-2.5">
                  <span className="w-[52px] text-quiet">{resource === 'targets' ? 'target' : 'limit'}</span>
                  <span className="min-w-[120px] flex-1 font-semibold">{word}</span>
                  <span className="text-[16px]">
                    <strong>{text(kind, record.value, { isGoal: true })}</strong> {SENSE_WORDS[record.sense]}{' '}
                    {'highValue' in record && record.highValue !== null && <strong>{text(kind, record.highValue, { isGoal: true })}</strong>}
                  </span>
                  <span className="w-[200px] text-quiet">
                    {'dueStageId' in record ? `by ${stageName(record.dueStageId)}` : `from ${stageName(record.fromStageId)} on`}
                  </span>
                  <span className="flex items-baseline gap-3">
                    <button
                      type="button"
                      className="word-link"
                      onClick={() => setEditing({ resource, id: record.id })}
                      aria-label={`Change the ${word.toLowerCase()} ${resource.slice(0, -1)}`}
                    >
                      Change
                    </button>
                    <button
                      type="button"
                      className="word-link"
                      onClick={() => void (resource === 'targets' ? targets : limits).take(record)}
                      aria-label={`Delete the ${word.toLowerCase()} ${resource.slice(0, -1)}`}
                    >
                      Delete
                    </button>
                  </span>
                </li>
              )
            })}
          </ul>
        )}
      </div>
      <section>
        <h2 className="mb-2">Add a target or a limit</h2>
        <RecordForm
          key={rows.length}
          draftKey={`${buildId}.goal`}
          fields={goalFieldSpecs(records.stages)}
          defaults={{ goal: 'target', metric: 'massReady', sense: 'atMost', stage: '', source: 'classRule' }}
          submitLabel="Add it"
          toBody={(read, id) => ({ id, ...goalBody(read) })}
          send={(body) => create({ buildId, resource: resourceOf(body), body }).unwrap()}
          onDone={() => {}}
        />
      </section>
      {edited && (
        <Panel title={`Change the ${edited.resource.slice(0, -1)}`} onClose={() => setEditing(null)}>
          <RecordForm
            draftKey={`goal.${edited.record.id}.${edited.record.version}`}
            fields={goalFieldSpecs(records.stages).filter((field) => field.name !== 'goal')}
            defaults={{
              goal: edited.resource === 'targets' ? 'target' : 'limit',
              metric: edited.record.metric,
              sense: edited.record.sense,
              value: typedText(METRIC_INFO[edited.record.metric].kind, edited.record.value, unitOf(edited.record.metric)),
              highValue:
                'highValue' in edited.record && edited.record.highValue !== null
                  ? typedText(METRIC_INFO[edited.record.metric].kind, edited.record.highValue, unitOf(edited.record.metric))
                  : '',
              stage: ('dueStageId' in edited.record ? edited.record.dueStageId : edited.record.fromStageId) ?? '',
              source: 'source' in edited.record ? edited.record.source : 'classRule',
            }}
            submitLabel="Store it"
            toBody={(read) => ({ ...goalBody(read), version: edited.record.version })}
            send={(body) => patch({ buildId, resource: edited.resource, id: edited.record.id, body }).unwrap()}
            onDone={() => setEditing(null)}
          />
        </Panel>
      )}
    </div>
  )
}

function ExpectationsTab({ records, buildId }: TabProps) {
  const [create] = api.useCreateRecordMutation()
  const removal = useRemoval(buildId, 'expectations')
  const { position, stages } = useBuild()
  const stageOf = (id: string) => records.stages.find((stage) => stage.id === id)
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_380px]">
      <div>
        {removal.notice}
        {records.expectations.length === 0 ? (
          <Empty
            title="Nothing expected yet"
            why="Power cannot be summed from parts. Say what a stage should reach or add, and how you know; the dyno replaces it later, and the old expectation stays."
          />
        ) : (
          <ul>
            {records.expectations.map((entry) => (
              <li key={entry.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2.5">
                <span className="min-w-[160px] flex-1 font-semibold">
                  {stageOf(entry.stageId)?.position} {stageOf(entry.stageId)?.name}
                </span>
                <span className="text-quiet">{{ to: 'to reach', by: 'to change by', times: 'to be multiplied by' }[entry.mode]}</span>
                <span className="text-[16px] font-bold">
                  <Figure
                    kind={entry.mode === 'times' ? 'ratio' : 'power'}
                    value={entry.value}
                    sd={entry.sd ?? undefined}
                    sign={entry.mode === 'by'}
                    showSpread
                    proof={entry.proof}
                  />
                </span>
                <button
                  type="button"
                  className="word-link"
                  onClick={() => void removal.take(entry)}
                  aria-label={`Delete the expectation of stage ${stageOf(entry.stageId)?.position}`}
                >
                  Delete
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <section>
        <h2 className="mb-2">Say what a stage should give</h2>
        <RecordForm
          key={records.expectations.length}
          draftKey={`${buildId}.expectation`}
          fields={expectationFieldSpecs(records.stages)}
          defaults={{ stage: stages[position]?.id ?? '', mode: 'to', proof: 'guess' }}
          submitLabel="Add the expectation"
          toBody={(read, id) => ({ id, ...expectationBody(read) })}
          send={(body) => create({ buildId, resource: 'expectations', body }).unwrap()}
          onDone={() => {}}
        />
      </section>
    </div>
  )
}
