import type { StoredRecords } from '@bold-ballast/contract'
import { METRIC_INFO } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'

interface Props {
  readonly records: StoredRecords
  readonly buildId: string
  /** The stage that was the last one before another was added. */
  readonly lastBefore: string
  readonly onDone: () => void
}

/** After a stage was added: goals that are due at the last stage have moved to it, which a person may not have meant. */
export function MovedGoals({ records, buildId, lastBefore, onDone }: Props) {
  const { text } = useQuantities()
  const [patch, { isLoading }] = api.usePatchRecordMutation()
  const before = records.stages.find(({ id }) => id === lastBefore)
  const now = records.stages.at(-1)
  const moved = records.targets.filter(({ dueStageId }) => dueStageId === null)
  if (!before || !now || now.id === before.id || moved.length === 0) return null
  const keep = async () => {
    for (const target of moved) await patch({ buildId, resource: 'targets', id: target.id, body: { version: target.version, dueStageId: before.id } })
    onDone()
  }
  const goals = moved.map(({ metric, value }) => `${METRIC_INFO[metric].word.toLowerCase()} ${text(METRIC_INFO[metric].kind, value, { isGoal: true })}`)
  return (
    <div role="status" className="my-2 border-l-4 border-wait pl-3">
      <p>
        Due at the last stage: {goals.join(', ')}. That was {before.position} {before.name}; it is now {now.position} {now.name}.
      </p>
      <p className="mt-1 flex flex-wrap gap-3">
        <button type="button" className="button" disabled={isLoading} onClick={() => void keep()}>
          Keep at {before.position} {before.name}
        </button>
        <button type="button" className="button" onClick={onDone}>
          Move to {now.position} {now.name}
        </button>
      </p>
    </div>
  )
}
