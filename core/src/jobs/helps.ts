import { itemAt } from '../item-at.ts'
import { chanceBy, type Deadline, drawLengths } from './draws.ts'
import type { RoadHand } from './free-time.ts'
import { layRoad, lengthsAt, type Otherwise, type Road, type RoadJob, readyH, readyRoad } from './road.ts'

/** Something that can be changed so that the car is ready sooner. */
export type Move =
  | { readonly kind: 'session'; readonly handIds: readonly string[]; readonly weekday: number; readonly hours: number }
  | { readonly kind: 'fewerHands'; readonly jobId: string; readonly handId: string }
  | { readonly kind: 'leaveOut'; readonly jobId: string }
  | { readonly kind: 'partSooner'; readonly partId: string }
  | { readonly kind: 'earlier'; readonly jobId: string; readonly beforeId: string }

export interface Helped {
  readonly move: Move
  readonly chance: number
  /** The middle of the ready time with it, in hours from 00:00 of today. */
  readonly medianH: number
}

const WEEKDAYS = 7
const SUNDAY = 6
/** A session more: so long on a day at the weekend, and so long on an evening (assumed). */
const WEEKEND_SESSION_H = 4
const EVENING_SESSION_H = 3
/** How many of the moves in the list are tried with all draws: those that bring the middle most. */
const MOVES_IN_LIST = 4
/** How many are told. */
const TOLD = 5
/** How far up a job is moved, step by step. */
const PLACES_UP = 3
/** A part that comes sooner comes by so much. */
const DAYS_SOONER = 7

/** The day a hand has no hours yet: Sunday, else Saturday, else the last evening of the week that is free; null: every day is taken. */
function freeWeekday(hands: readonly RoadHand[]): number | null {
  for (let day = SUNDAY; day >= 0; day--) if (hands.every(({ hoursByWeekday }) => !((hoursByWeekday[day] ?? 0) > 0))) return day
  return null
}

function sessionMoves({ hands, jobs }: Road): Move[] {
  const crews = new Map<string, readonly string[]>(hands.map(({ id }) => [id, [id]]))
  for (const { handIds } of jobs) if (handIds.length > 1) crews.set([...handIds].sort().join(' '), [...handIds].sort())
  return [...crews.values()].flatMap((handIds): Move[] => {
    const weekday = freeWeekday(hands.filter(({ id }) => handIds.includes(id)))
    return weekday === null ? [] : [{ kind: 'session', handIds, weekday, hours: weekday >= WEEKDAYS - 2 ? WEEKEND_SESSION_H : EVENING_SESSION_H }]
  })
}

/** A road with one thing otherwise; a part that comes sooner is no part of it. */
function movedRoad(road: Road, move: Move): Road {
  const { hands, jobs } = road
  if (move.kind === 'session') {
    const more = (hours: readonly number[]) => Array.from({ length: WEEKDAYS }, (_, day) => (hours[day] ?? 0) + (day === move.weekday ? move.hours : 0))
    return { ...road, hands: hands.map((hand) => (move.handIds.includes(hand.id) ? { ...hand, hoursByWeekday: more(hand.hoursByWeekday) } : hand)) }
  }
  if (move.kind === 'leaveOut') return { ...road, jobs: jobs.filter(({ id }) => id !== move.jobId) }
  if (move.kind === 'fewerHands') {
    const without = (job: RoadJob) => ({ ...job, handIds: job.handIds.filter((id) => id !== move.handId) })
    return { ...road, jobs: jobs.map((job) => (job.id === move.jobId ? without(job) : job)) }
  }
  if (move.kind === 'partSooner') return road
  const moved = jobs.find(({ id }) => id === move.jobId)
  return { ...road, jobs: jobs.flatMap((job) => (job.id === move.jobId ? [] : job.id === move.beforeId && moved ? [moved, job] : [job])) }
}

const otherwiseOf = (move: Move): Otherwise => (move.kind === 'partSooner' ? { partLaterDays: new Map([[move.partId, -DAYS_SOONER]]) } : {})

/** The middle of the ready time of a road with one thing otherwise. */
function medianWith(road: Road, move: Move, stage: number): number {
  const moved = movedRoad(road, move)
  return readyH(moved, layRoad(readyRoad(moved), lengthsAt(moved), otherwiseOf(move)), stage)
}

/** Where a job can go in the list: to the front of its stage, or up by one to three. */
function placesAbove(jobs: readonly RoadJob[], from: number): RoadJob[] {
  const { stage } = itemAt(jobs, from)
  const above = jobs.slice(0, from).filter((job) => job.stage === stage)
  return [...new Set([...above.slice(-PLACES_UP), ...above.slice(0, 1)])]
}

/** Jobs moved up in the list: those that bring the middle of the ready time most. */
function listMoves(road: Road, stage: number): Move[] {
  const nowH = readyH(road, layRoad(readyRoad(road), lengthsAt(road)), stage)
  return road.jobs
    .flatMap((job, from) => (job.stage > stage ? [] : placesAbove(road.jobs, from).map(({ id }): Move => ({ kind: 'earlier', jobId: job.id, beforeId: id }))))
    .map((move) => ({ move, medianH: medianWith(road, move, stage) }))
    .filter(({ medianH }) => medianH < nowH - 1e-6)
    .sort((a, b) => a.medianH - b.medianH)
    .slice(0, MOVES_IN_LIST)
    .map(({ move }) => move)
}

/**
 * What can be tried: a session more a week for each hand and each crew that shares a job, a joint job with one hand less, an optional job left out, a part
 * that is on its way a week sooner, a job moved up in the list. Of the jobs up to a stage.
 */
export function movesOf(road: Road, stage: number): Move[] {
  const jobs = road.jobs.filter((job) => job.stage <= stage)
  const needed = new Set(jobs.flatMap(({ partIds }) => partIds))
  return [
    ...sessionMoves(road),
    ...jobs.flatMap(({ id, handIds }) => (handIds.length > 1 ? handIds.map((handId): Move => ({ kind: 'fewerHands', jobId: id, handId })) : [])),
    ...jobs.filter(({ isOptional }) => isOptional).map(({ id }): Move => ({ kind: 'leaveOut', jobId: id })),
    ...road.parts.filter(({ id }) => needed.has(id)).map(({ id }): Move => ({ kind: 'partSooner', partId: id })),
    ...listMoves(road, stage),
  ]
}

/**
 * The moves that gain most chance by a deadline, each tried by running the road with it; those that lose are told too, where fewer gain.
 * `tick` is told the share that is done, and may throw to end it. Rejects what `readyRoad` rejects.
 * @example findHelps(ROAD, { stage: 3, day: 26 }, { count: 20 }).best.length // 5
 */
export function findHelps(
  road: Road,
  deadline: Deadline,
  { count, tick }: { readonly count?: number; readonly tick?: (share: number) => void } = {},
): { readonly chance: number; readonly tried: number; readonly best: readonly Helped[] } {
  const moves = movesOf(road, deadline.stage)
  const chance = chanceBy(readyRoad(road), drawLengths(road, count), deadline)
  const helped = moves.map((move, i): Helped => {
    const moved = movedRoad(road, move)
    const found = {
      move,
      chance: chanceBy(readyRoad(moved), drawLengths(moved, count), deadline, otherwiseOf(move)),
      medianH: medianWith(road, move, deadline.stage),
    }
    tick?.((i + 1) / moves.length)
    return found
  })
  return { chance, tried: moves.length, best: helped.sort((a, b) => b.chance - a.chance || a.medianH - b.medianH).slice(0, TOLD) }
}
