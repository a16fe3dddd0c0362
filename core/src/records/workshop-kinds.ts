import { z } from '../zod.ts'
import { day, id, name, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'

const money = z.number().nonnegative().max(1e8).nullable().default(null)
const ids = z.array(id).max(100).default([])

const spansForward: RecordRule = (next) => {
  for (const [i, { from, to }] of (next.away as readonly { from: string; to: string }[]).entries())
    if (to < from) throw new RecordRefusal(`away.${i}.to`, 'This time away ends before it begins. Swap the two days.')
  return next
}

const plural = (count: number) => (count === 1 ? '1 open job is' : `${count} open jobs are`)

/** Somebody who works on the car, with the hours of his weeks. */
export const handKind = defineRecord({
  list: 'hands',
  word: 'a hand',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name'],
  rules: [spansForward],
  neverGoes: async (hand, { live }) => {
    const open = (await live('tasks', {})).filter(
      ({ state, whoIds }) => state !== 'done' && state !== 'dropped' && (whoIds as string[]).includes(hand.id as string),
    )
    return open.length > 0 ? `${plural(open.length)} ${hand.name}'s. Give ${open.length === 1 ? 'it' : 'them'} to another or to anyone.` : null
  },
  fields: {
    id,
    name: z.string().trim().min(1).max(60),
    /** Monday first. */
    hoursByWeekday: z.array(z.number().min(0).max(16)).length(7),
    /** Both days counted in. */
    away: z
      .array(z.strictObject({ from: day, to: day }))
      .max(400)
      .default([]),
  },
})
export type Hand = RecordOfKind<typeof handKind>

export const EVENT_KINDS = ['hire', 'trackDay', 'competition', 'scrutineering', 'other'] as const

const leavesBefore: RecordRule = (next) => {
  if (next.leavesOn && (next.leavesOn as string) > (next.startsOn as string))
    throw new RecordRefusal('leavesOn', 'The car would leave after the event begins. One day is wrong.')
  return next
}

/** Days in the calendar that the car is wanted for. */
export const eventKind = defineRecord({
  list: 'events',
  word: 'an event',
  isBatchable: true,
  nameFrom: ['name'],
  refs: { stageId: { to: 'stages', whenGone: 'forgets' }, trackId: { to: 'tracks', whenGone: 'forgets' } },
  rules: [leavesBefore],
  fields: {
    id,
    name,
    kind: z.enum(EVENT_KINDS).default('trackDay'),
    startsOn: day,
    days: z.int().min(1).max(30).default(1),
    /** The car it is for; null: the car as it is. */
    stageId: id.nullable().default(null),
    trackId: id.nullable().default(null),
    /** Track time that is booked. */
    bookedS: z.number().positive().max(1e6).nullable().default(null),
    /** On track on a day of it (common practice, no source). */
    hoursPerDay: z.number().positive().max(24).default(1.5),
    /** The day the car is loaded or shipped, where that is before it. */
    leavesOn: day.nullable().default(null),
    cost: money,
    paid: money,
  },
})
export type WorkshopEvent = RecordOfKind<typeof eventKind>

export const TASK_STATES = ['planned', 'underway', 'done', 'dropped'] as const
export const TASK_KINDS = ['work', 'wait'] as const

/** Work is guessed in hours, a wait in days; what is done has a time. */
const isGuessedInItsUnit: RecordRule = (next, { now }) => {
  if (next.kind === 'work' && next.guessH === null) throw new RecordRefusal('guessH', 'Say how many hours it takes; a guess will do.')
  if (next.kind === 'wait' && next.guessDays === null) throw new RecordRefusal('guessDays', 'Say how many days it takes; a guess will do.')
  const empty = next.kind === 'work' ? { guessDays: null, realDays: null } : { guessH: null, whoIds: [] }
  return { ...next, ...empty, doneAt: next.state === 'done' ? (next.doneAt ?? now) : null }
}

/** The way from one job to another along what each comes after; null where there is none. */
function wayTo(goal: string, from: readonly string[], after: ReadonlyMap<string, readonly string[]>, seen: Set<string>): string[] | null {
  for (const id of from) {
    if (id === goal) return [id]
    if (seen.has(id)) continue
    seen.add(id)
    const way = wayTo(goal, after.get(id) ?? [], after, seen)
    if (way) return [id, ...way]
  }
  return null
}

const closesNoRing: RecordRule = async (next, { live }) => {
  const afterIds = next.afterIds as readonly string[]
  if (afterIds.length === 0) return next
  const others = (await live('tasks', {})).filter(({ id: other }) => other !== next.id)
  const way = wayTo(next.id as string, afterIds, new Map(others.map((task) => [task.id as string, task.afterIds as string[]])), new Set())
  if (!way) return next
  const names = [next.name, ...way.slice(0, -1).map((other) => others.find((task) => task.id === other)?.name ?? '?')]
  const words = names.length === 1 ? `${names[0]} waits for itself` : `${names.slice(0, -1).join(', ')} and ${names.at(-1)} wait for each other`
  throw new RecordRefusal('afterIds', `${words}. Take one out.`)
}

/** What has to be done before the car stands at a stage: hours of work, or days of waiting. */
export const taskKind = defineRecord({
  list: 'tasks',
  word: 'a job',
  isBatchable: true,
  nameFrom: ['name'],
  refs: {
    stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has jobs. Move or delete them first.' } },
    checkId: { to: 'checks', whenGone: 'forgets' },
  },
  rules: [isGuessedInItsUnit, closesNoRing],
  mostInFile: 5000,
  fields: {
    id,
    stageId: id,
    /** Place in the list of its stage; the middle of two stands between them. */
    position: z.number().min(-1e9).max(1e9),
    name,
    kind: z.enum(TASK_KINDS).default('work'),
    guessH: z.number().min(0.05).max(2000).nullable().default(null),
    guessDays: z.number().min(0.05).max(400).nullable().default(null),
    /** Empty: whoever is done first; several: all of them together, each for the whole of it. */
    whoIds: ids,
    /** What one job at a time can have. */
    holds: z.string().trim().min(1).max(40).nullable().default(null),
    afterIds: ids,
    /** Parts it cannot begin without. */
    partIds: ids,
    /** Ledger lines that are done when it is. */
    changeIds: ids,
    /** The check that was bad. */
    checkId: id.nullable().default(null),
    notBefore: day.nullable().default(null),
    isOptional: z.boolean().default(false),
    /** It is work on the car itself, and not on a bench. */
    needsCar: z.boolean().default(true),
    /** It can be done where the car is when it has left for an event. */
    isAway: z.boolean().default(false),
    worked: z
      .array(z.strictObject({ on: day, handId: id.nullable().default(null), hours: z.number().positive().max(24) }))
      .max(500)
      .default([]),
    /** The day a wait began. */
    begunOn: day.nullable().default(null),
    realDays: z.number().positive().max(2000).nullable().default(null),
    cost: money,
    paid: money,
    state: z.enum(TASK_STATES).default('planned'),
    doneAt: z.iso.datetime({ offset: true }).nullable().default(null),
    /** Whether its guess and what came of it teach; no where its scope changed. */
    teaches: z.boolean().default(true),
    note,
  },
})
export type Task = RecordOfKind<typeof taskKind>

/** One line that was learned the hard way, shown when such a job is typed. */
export const lessonKind = defineRecord({
  list: 'lessons',
  word: 'a lesson',
  isBatchable: true,
  nameFrom: ['text'],
  fields: {
    id,
    text: z.string().trim().min(1).max(300),
    /** The kind of part, job or round it is about: shown wherever these words stand. */
    about: z.string().trim().min(1).max(60),
    /** Shown in every build of the garage. */
    isShared: z.boolean().default(false),
  },
})
export type Lesson = RecordOfKind<typeof lessonKind>
