import type { RecordsAnswer } from '@bold-ballast/contract'
import { controlTrack, METRIC_INFO, type Metric } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { rowWord } from '../../../shared/board/row-word.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { typedText, useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { SENSE_WORDS } from '../../../ui/words.ts'
import { goalBody, goalFieldSpecs } from './goal-form.ts'

/** Targets and limits. */
export function GoalsTab({ records, buildId }: { records: RecordsAnswer; buildId: string }) {
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
  const usualTrack = controlTrack({ records })
  const trackName = (trackId: string | null | undefined) => (records.tracks.find(({ id }) => id === trackId) ?? usualTrack)?.name
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
                  <span className="min-w-[120px] flex-1 font-semibold">
                    {rowWord({ metric: record.metric, place: record.metric === 'lapTime' ? (trackName(record.trackId) ?? null) : null })}
                  </span>
                  <span className="text-[16px]">
                    <strong>{text(kind, record.value, { isGoal: true })}</strong> {SENSE_WORDS[record.sense]}{' '}
                    {'highValue' in record && record.highValue !== null && <strong>{text(kind, record.highValue, { isGoal: true })}</strong>}
                    {record.driverName && <span className="text-quiet"> with {record.driverName} in</span>}
                  </span>
                  <span className="w-[200px] text-quiet">
                    {'dueStageId' in record
                      ? `by ${stageName(record.dueStageId)}`
                      : `from ${stageName(record.fromStageId)} ${record.untilStageId === null ? 'on' : `until ${stageName(record.untilStageId)}`}`}
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
          fields={goalFieldSpecs(records)}
          defaults={{ goal: 'target', metric: 'massReady', sense: 'atMost', stage: '', source: 'classRule', until: '', track: usualTrack?.id ?? '' }}
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
            fields={goalFieldSpecs(records).filter((field) => field.name !== 'goal')}
            defaults={{
              goal: edited.resource === 'targets' ? 'target' : 'limit',
              metric: edited.record.metric,
              sense: edited.record.sense,
              value: typedText(METRIC_INFO[edited.record.metric].kind, edited.record.value, unitOf(edited.record.metric)),
              highValue:
                'highValue' in edited.record && edited.record.highValue !== null
                  ? typedText(METRIC_INFO[edited.record.metric].kind, edited.record.highValue, unitOf(edited.record.metric))
                  : '',
              driver: edited.record.driverName ?? '',
              track: edited.record.trackId ?? usualTrack?.id ?? '',
              stage: ('dueStageId' in edited.record ? edited.record.dueStageId : edited.record.fromStageId) ?? '',
              source: 'source' in edited.record ? edited.record.source : 'classRule',
              until: ('untilStageId' in edited.record ? edited.record.untilStageId : null) ?? '',
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
