import type { RecordsAnswer } from '@bold-ballast/contract'
import { enqueue } from '../../data/outbox-sender.ts'
import type { StoredCheck } from './tab-props.ts'

/** What mending takes where nobody said, h: a guess to begin with. */
const USUAL_H = 1

/** The open job of a check; undefined without one. */
export const jobOf = (records: Pick<RecordsAnswer, 'tasks'>, checkId: string) =>
  records.tasks.find((task) => task.checkId === checkId && (task.state === 'planned' || task.state === 'underway'))

/** A check as a job of a stage, behind those that are there; null where an open job is of it. */
export function jobBody(
  records: Pick<RecordsAnswer, 'tasks'>,
  check: Pick<StoredCheck, 'id' | 'name'>,
  stageId: string,
  note: string | null,
  id: string,
): Record<string, unknown> | null {
  if (jobOf(records, check.id)) return null
  const position = 1 + Math.max(0, ...records.tasks.filter((task) => task.stageId === stageId).map((task) => task.position))
  return { id, stageId, position, name: `Put right: ${check.name}`, kind: 'work', guessH: USUAL_H, checkId: check.id, note }
}

/** Makes the job, kept in the browser until the server has it; answers what to say. */
export function makeJob(records: RecordsAnswer, check: StoredCheck, stageId: string, note: string | null): string {
  const body = jobBody(records, check, stageId, note, crypto.randomUUID())
  if (!body) return `${check.name} has an open job already.`
  enqueue({ buildId: records.build.id, kind: 'create', resource: 'tasks', recordId: body.id as string, body, words: `job: ${check.name}` })
  return `${check.name} is a job now: it stands on the road to the event, one hour guessed.`
}
