import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import { isOnItsWay, type ReadJobLine, workedHours } from '@bold-ballast/core'
import type { StoredTask } from '../tab-props.ts'

type Body = Record<string, unknown>

const update = (resource: BatchWrite['resource'], record: { readonly id: string; readonly version: number }, fields: Body): BatchWrite =>
  ({ kind: 'update', resource, id: record.id, body: { version: record.version, ...fields } }) as BatchWrite

/** The place behind all jobs of a stage. */
const placeBehind = (tasks: readonly StoredTask[], stageId: string): number =>
  Math.max(0, ...tasks.filter((task) => task.stageId === stageId).map(({ position }) => position)) + 1

/** What a typed line writes: a new job, or the day a part comes or came. */
export function lineWrites(read: ReadJobLine, records: RecordsAnswer, pickedStageId: string, today: string, id: string): BatchWrite[] {
  if (read.is === 'arrival') {
    const part = records.parts.find((each) => each.id === read.partId)
    if (!part) return []
    if (read.on <= today) return [update('parts', part, { cameOn: read.on })]
    // What was promised now stands before what was guessed once.
    return [update('parts', part, part.orderedOn ? { promisedOn: read.on, leadDays: null } : { promisedOn: read.on })]
  }
  const { name, kind, amount, whoIds, holds, partIds, afterIds, notBefore, isOptional, stage } = read
  const stageId = stage === null ? pickedStageId : (records.stages.find(({ position }) => position === stage)?.id ?? pickedStageId)
  const guess = kind === 'work' ? { guessH: amount, guessDays: null } : { guessH: null, guessDays: amount }
  const body = { id, stageId, position: placeBehind(records.tasks, stageId), name, kind, ...guess, whoIds, holds, partIds, afterIds, notBefore, isOptional }
  return [{ kind: 'create', resource: 'tasks', body } as BatchWrite]
}

/** Hours on a job: a line more in what was worked; of one that names one hand they are his. */
export function hoursWrites(task: StoredTask, hours: number, handId: string | null, today: string): BatchWrite[] {
  const who = handId ?? (task.whoIds.length === 1 ? (task.whoIds[0] ?? null) : null)
  return [update('tasks', task, { worked: [...task.worked, { on: today, handId: who, hours }], ...(task.state === 'planned' ? { state: 'underway' } : {}) })]
}

/** A wait that began today. */
export const beganWrites = (task: StoredTask, today: string): BatchWrite[] => [update('tasks', task, { begunOn: today, state: 'underway' })]

/** Hours in so far with one more entry, or less, so that they come to a whole. */
function workedTo(task: StoredTask, hours: number, today: string): StoredTask['worked'] {
  const open = hours - workedHours(task)
  if (Math.abs(open) < 0.01) return task.worked
  // Someone who says less than was logged corrects the whole of it.
  return open > 0 ? [...task.worked, ...inDays(open, today)] : inDays(hours, today)
}

/** A day has 24 hours: what is more goes into further entries. */
function inDays(hours: number, on: string): StoredTask['worked'] {
  const entries = Math.ceil(hours / 24)
  return Array.from({ length: entries }, () => ({ on, handId: null, hours: hours / entries }))
}

/** A job is done: the job with what it took, its lines, and its parts in the car; one batch, one thing to take back. */
export function doneWrites(task: StoredTask, amount: number, records: RecordsAnswer, today: string): BatchWrite[] {
  const lines = records.changes.filter(({ id, state }) => task.changeIds.includes(id) && state === 'planned')
  const parts = records.parts.filter((part) => task.partIds.includes(part.id) && (isOnItsWay(part) || part.status === 'here'))
  const real = task.kind === 'work' ? { worked: workedTo(task, amount, today) } : { realDays: amount }
  return [
    update('tasks', task, { state: 'done', ...real }),
    ...lines.map((line) => update('changes', line, { state: 'done' })),
    ...parts.map((part) => update('parts', part, { fittedOn: today, status: 'fitted', ...(part.cameOn || !part.orderedOn ? {} : { cameOn: today }) })),
  ]
}

/**
 * A job one place up or down among the open ones of its stage. Two typed in one breath may stand at one place: from there on each stands behind the one
 * before, and only those whose place changes are written.
 */
export function moveWrites(task: StoredTask, open: readonly StoredTask[], by: 1 | -1): BatchWrite[] {
  const own = open.filter(({ stageId }) => stageId === task.stageId)
  const at = own.findIndex(({ id }) => id === task.id)
  const other = own[at + by]
  if (!other) return []
  const order = own.with(at, other).with(at + by, task)
  let before = Number.NEGATIVE_INFINITY
  return order.flatMap((each, i) => {
    before = Math.max((own[i] as StoredTask).position, before + 1)
    return each.position === before ? [] : [update('tasks', each, { position: before })]
  })
}
