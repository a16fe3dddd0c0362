import { daysFrom, weekdayOf } from '../../jobs/days.ts'
import type { Deadline } from '../../jobs/draws.ts'
import type { RoadHand, SessionStarts } from '../../jobs/free-time.ts'
import { joinedPairs, learnOptimism, OPTIMISM_KINDS, type Optimism } from '../../jobs/optimism.ts'
import type { Road, RoadJob, RoadPart } from '../../jobs/road.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { Hand, Task } from '../../records/workshop-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { leadDaysOf, realPairsOf, workedHours } from './real-pairs.ts'

/** When sessions begin where nobody said (common practice, no source). */
export const USUAL_STARTS: SessionStarts = { weekdayH: 19, weekendH: 9 }

/** Whoever works on a build in which nobody is listed: two evenings and a Saturday (assumed). */
export const ASSUMED_HAND: Hand = { id: 'anyone', name: 'One person', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0], away: [] }

/** The latest day the car of a stage is wanted on. */
export interface RoadDeadline extends Deadline {
  readonly on: string
  /** The event it is for; null: the stage's own date. */
  readonly eventId: string | null
  readonly name: string | null
}

export interface RoadOfCar {
  readonly road: Road
  readonly deadlines: readonly RoadDeadline[]
}

/**
 * Jobs that are still to be done, in the order they are listed: by stage, then by place.
 * @example openTasks(EXAMPLE) // []
 */
export function openTasks({ tasks, stages }: Pick<BuildRecords, 'tasks' | 'stages'>): Task[] {
  const stage = new Map(stages.map(({ id, position }) => [id, position]))
  return tasks
    .filter(({ state, stageId }) => (state === 'planned' || state === 'underway') && stage.has(stageId))
    .sort((a, b) => (stage.get(a.stageId) ?? 0) - (stage.get(b.stageId) ?? 0) || a.position - b.position)
}

/**
 * Whether a part is yet to come.
 * @example isOnItsWay({ status: 'ordered', cameOn: null }) // true
 */
export const isOnItsWay = ({ status, cameOn }: Pick<Part, 'status' | 'cameOn'>): boolean => !cameOn && (status === 'wanted' || status === 'ordered')

/** The deadline of a stage: its first coming event, or the day the car leaves for it; else its own date. */
function deadlineOf(records: BuildRecords, stage: BuildRecords['stages'][number], position: number, today: string): RoadDeadline[] {
  const event = comingEvents(records.events, today).find(({ stageId, startsOn }) => stageId === stage.id && startsOn >= today)
  const on = event ? (event.leavesOn ?? event.startsOn) : stage.date
  return on === null || on === undefined ? [] : [{ stage: position, day: daysFrom(today, on), on, eventId: event?.id ?? null, name: event?.name ?? null }]
}

/** How guesses of this build run, and of the others where it learns from them too. */
export function optimismOf(car: Car): Optimism {
  const own = realPairsOf(car.records)
  const pairs = car.garageRealPairs && car.records.build.guessPairsFrom === 'garage' ? joinedPairs([own, car.garageRealPairs]) : own
  return Object.fromEntries(OPTIMISM_KINDS.map((kind) => [kind, learnOptimism(kind, pairs[kind])])) as unknown as Optimism
}

const roadHand = ({ id, name, hoursByWeekday, away }: Hand, today: string): RoadHand => ({
  id,
  name,
  hoursByWeekday,
  away: away.map(({ from, to }) => ({ fromDay: daysFrom(today, from), toDay: daysFrom(today, to) })).filter(({ toDay }) => toDay >= 0),
})

/** A job as the road takes it; what it names and is not there any more it does without. */
function roadJob(task: Task, stage: number, today: string, known: { readonly hands: ReadonlySet<string>; readonly open: ReadonlySet<string> }): RoadJob {
  const isWait = task.kind === 'wait'
  const waited = task.begunOn ? Math.max(0, daysFrom(task.begunOn, today)) : 0
  return {
    id: task.id,
    name: task.name,
    kind: task.kind,
    guess: (isWait ? task.guessDays : task.guessH) ?? 1,
    spent: isWait ? waited : workedHours(task),
    stage,
    handIds: task.whoIds.filter((id) => known.hands.has(id)),
    holds: task.holds,
    afterIds: task.afterIds.filter((id) => known.open.has(id)),
    partIds: task.partIds,
    notBeforeDay: task.notBefore ? daysFrom(today, task.notBefore) : null,
    isOptional: task.isOptional,
    needsCar: task.needsCar,
    isAway: task.isAway,
  }
}

/** A part that open jobs wait for. */
export const roadPart = (part: Part, today: string): RoadPart => ({
  id: part.id,
  name: part.name,
  leadDays: Math.max(0.5, leadDaysOf(part)),
  orderedDaysAgo: part.orderedOn ? daysFrom(part.orderedOn, today) : null,
})

/**
 * The road of a car from a day on: its open jobs in their order, hands with their weeks, parts that jobs wait for, days the car is gone, and the day each
 * stage is wanted on.
 * @example roadOf(CAR, '2027-03-01').road.jobs // []
 */
export function roadOf(car: Car, today: string): RoadOfCar {
  const { records, stages } = car
  const tasks = openTasks(records)
  const hands = records.hands.length > 0 ? records.hands : [ASSUMED_HAND]
  const known = { hands: new Set(hands.map(({ id }) => id)), open: new Set(tasks.map(({ id }) => id)) }
  const needed = new Set(tasks.flatMap(({ partIds }) => partIds))
  const place = new Map(stages.map(({ id }, position) => [id, position]))
  const starts = records.build.sessionStartH
  return {
    road: {
      weekday: weekdayOf(today),
      starts: starts ? { weekdayH: starts.weekday, weekendH: starts.weekend } : USUAL_STARTS,
      hands: hands.map((hand) => roadHand(hand, today)),
      jobs: tasks.map((task) => roadJob(task, place.get(task.stageId) ?? 0, today, known)),
      parts: records.parts.filter((part) => needed.has(part.id) && isOnItsWay(part)).map((part) => roadPart(part, today)),
      optimism: optimismOf(car),
      gone: comingEvents(records.events, today).flatMap(({ leavesOn, startsOn, days }) =>
        leavesOn ? [{ fromDay: Math.max(0, daysFrom(today, leavesOn)), toDay: daysFrom(today, startsOn) + days - 1 }] : [],
      ),
    },
    deadlines: stages.flatMap((stage, position) => deadlineOf(records, stage, position, today)),
  }
}
