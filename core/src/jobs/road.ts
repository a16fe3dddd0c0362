import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import type { LogBias } from '../stats/log-bias.ts'
import { drawLeft } from './begun.ts'
import {
  alwaysFree,
  copyFree,
  DAY_H,
  type FreeTime,
  firstHours,
  firstStretch,
  type Piece,
  type RoadHand,
  type SessionStarts,
  sessionsOf,
  take,
} from './free-time.ts'
import type { Optimism } from './optimism.ts'

export interface RoadJob {
  readonly id: string
  readonly name: string
  readonly kind: 'work' | 'wait'
  /** Hours of work, days of a wait; more than nothing. */
  readonly guess: number
  /** Hours worked, days waited so far. */
  readonly spent: number
  /** Place of its stage. */
  readonly stage: number
  /** Empty: whoever ends it first; several: all of them together. */
  readonly handIds: readonly string[]
  /** What one job at a time can have: "lift"; a wait may hold the car. */
  readonly holds: string | null
  readonly afterIds: readonly string[]
  readonly partIds: readonly string[]
  /** Day from today that it cannot begin before. */
  readonly notBeforeDay: number | null
  readonly isOptional: boolean
  readonly needsCar: boolean
  /** Can be done where the car is when it has left. */
  readonly isAway: boolean
}

/** A part that some job needs and that is not here. */
export interface RoadPart {
  readonly id: string
  readonly name: string
  /** Days from order to arrival, as guessed. */
  readonly leadDays: number
  /** How many days ago it was ordered; less than none: it is to be, in so many days; null: nobody said, as if today. */
  readonly orderedDaysAgo: number | null
}

/** All that stands between today and the events: jobs in the order they are listed, hands, parts on the way. */
export interface Road {
  /** Today's, Monday 0. */
  readonly weekday: number
  readonly starts: SessionStarts
  readonly hands: readonly RoadHand[]
  readonly jobs: readonly RoadJob[]
  readonly parts: readonly RoadPart[]
  readonly optimism: Optimism
  /** Days when the car is on its way to an event or there, both counted in. */
  readonly gone: readonly { readonly fromDay: number; readonly toDay: number }[]
}

/** Where one job lies. */
export interface Laid {
  readonly id: string
  readonly handIds: readonly string[]
  /** What was to be laid: hours, or days of a wait. */
  readonly length: number
  readonly startH: number
  readonly endH: number
  readonly pieces: readonly Piece[]
}

/** How far ahead hands have hours, in days. */
export const HORIZON_DAYS = 730

/** A car for a wait that holds it, as against any other thing. */
const CAR = 'car'

/** The jobs in the order they are laid: again and again the first whose forerunners are all taken. Rejects a ring, by names. */
export function orderOf(jobs: readonly RoadJob[]): number[] {
  const position = new Map(jobs.map(({ id }, i) => [id, i]))
  const byStage = jobs.map((_, i) => i).sort((a, b) => (jobs[a] as RoadJob).stage - (jobs[b] as RoadJob).stage || a - b)
  const taken = new Set<string>()
  const order: number[] = []
  const left = [...byStage]
  while (left.length > 0) {
    const next = left.findIndex((i) => (jobs[i] as RoadJob).afterIds.every((id) => taken.has(id) || !position.has(id)))
    if (next < 0) throw ringOf(left.map((i) => jobs[i] as RoadJob))
    const [at] = left.splice(next, 1) as [number]
    order.push(at)
    taken.add((jobs[at] as RoadJob).id)
  }
  return order
}

/** The jobs of a ring among those that cannot be taken. */
function ringOf(stuck: readonly RoadJob[]): CalculationError {
  const byId = new Map(stuck.map((job) => [job.id, job]))
  const path: RoadJob[] = []
  let at = stuck[0] as RoadJob
  while (!path.includes(at)) {
    path.push(at)
    at = byId.get(at.afterIds.find((id) => byId.has(id)) ?? '') as RoadJob
  }
  const ring = path.slice(path.indexOf(at)).map(({ name }) => name)
  const words = ring.length === 1 ? `${ring[0]} waits for itself` : `${ring.slice(0, -1).join(', ')} and ${ring.at(-1)} wait for each other`
  return new CalculationError('inconsistent', 'afterIds', `${words}. Take one out.`)
}

/** A road made ready for many passes. */
export interface ReadyRoad {
  readonly road: Road
  readonly order: readonly number[]
  readonly sessions: ReadonlyMap<string, FreeTime>
  readonly gone: readonly Piece[]
}

/**
 * A road made ready for many passes. Rejects jobs that wait for each other, and hands that are not on the road.
 * @example readyRoad(ROAD).order // [0, 1, 2, 3, 4, 5]
 */
export function readyRoad(road: Road): ReadyRoad {
  const sessions = new Map(road.hands.map((hand) => [hand.id, sessionsOf({ hand, weekday: road.weekday, starts: road.starts, days: HORIZON_DAYS })]))
  for (const { name, handIds } of road.jobs)
    if (handIds.some((id) => !sessions.has(id)))
      throw new CalculationError('unknown', 'handIds', `${name} names a hand that is not in this build. Give it to another or to anyone.`)
  const gone = road.gone.map(({ fromDay, toDay }) => ({ fromH: fromDay * DAY_H, toH: (toDay + 1) * DAY_H }))
  return { road, order: orderOf(road.jobs), sessions, gone }
}

/** How long jobs and deliveries come out: normals shared by a kind, and of each thing's own. All nothing is the middle. */
export interface Draw {
  readonly kind: (kind: 'work' | 'wait' | 'arrival') => number
  readonly own: (id: string) => number
}
export const MEDIAN_DRAW: Draw = { kind: () => 0, own: () => 0 }

/** How long everything on a road is at one draw, in the order of its jobs and parts. */
export interface Lengths {
  /** Hours of work, days of waits, that are left. */
  readonly jobs: readonly number[]
  /** Whole days from today that parts are here. */
  readonly arrivalDays: readonly number[]
}

/** What is otherwise in a pass: the road again with a part or a job later, or a job longer. */
export interface Otherwise {
  /** Whole days that parts come later, by id. */
  readonly partLaterDays?: ReadonlyMap<string, number>
  /** Whole days that a job cannot begin before, by id. */
  readonly notBeforeDay?: ReadonlyMap<string, number>
  /** Hours more of a job, days more of a wait. */
  readonly longer?: ReadonlyMap<string, number>
}

/**
 * The whole day a part is here: 0 today, of those that were ordered the days that are left of its lead, else all of them; rounded up.
 * @example arrivalDay({ id: 'p', name: 'drives', leadDays: 10, orderedDaysAgo: 7 }, USUAL_OPTIMISM.arrival, MEDIAN_DRAW) // 6
 */
export function arrivalDay(part: RoadPart, bias: LogBias, draw: Draw): number {
  const ago = part.orderedDaysAgo ?? 0
  const left = drawLeft({ guess: part.leadDays, spent: Math.max(0, ago), bias, zKind: draw.kind('arrival'), zOwn: draw.own(part.id) })
  return Math.max(0, -ago) + Math.ceil(left - 1e-9)
}

/**
 * How long everything is at a draw; of the middle where none is given. Rejects guesses of nothing.
 * @example lengthsAt(ROAD).arrivalDays // [6, 8]
 */
export const lengthsAt = ({ jobs, parts, optimism }: Road, draw: Draw = MEDIAN_DRAW): Lengths => ({
  jobs: jobs.map(({ id, kind, guess, spent }) => drawLeft({ guess, spent, bias: optimism[kind], zKind: draw.kind(kind), zOwn: draw.own(id) })),
  arrivalDays: parts.map((part) => arrivalDay(part, optimism.arrival, draw)),
})

/** What stands free in a pass. */
interface Yard {
  readonly hands: ReadonlyMap<string, FreeTime>
  readonly things: Map<string, FreeTime>
  /** Free of waits that hold the car, and of days it is gone. */
  readonly car: FreeTime
  /** The same, and free of work on it. */
  readonly quiet: FreeTime
}

function openYard({ sessions, gone }: ReadyRoad): Yard {
  const [car, quiet] = [alwaysFree(), alwaysFree()]
  for (const piece of gone) {
    take(car, piece)
    take(quiet, piece)
  }
  return { hands: new Map([...sessions].map(([id, free]) => [id, copyFree(free)])), things: new Map(), car, quiet }
}

function thingOf({ things }: Yard, name: string): FreeTime {
  const key = name.toLowerCase()
  const found = things.get(key) ?? alwaysFree()
  things.set(key, found)
  return found
}

const never = (job: RoadJob, length: number, startH: number): Laid => ({
  id: job.id,
  handIds: job.handIds,
  length,
  startH,
  endH: Number.POSITIVE_INFINITY,
  pieces: [],
})

/** A wait runs by day and night; one that holds a thing runs when that is free for all of it. */
function layWait(yard: Yard, job: RoadJob, fromH: number, length: number): Laid {
  const hours = length * DAY_H
  const isCar = job.holds?.toLowerCase() === CAR
  const held = job.holds === null ? null : isCar ? yard.quiet : thingOf(yard, job.holds)
  const piece = held ? firstStretch(held, fromH, hours) : { fromH, toH: fromH + hours }
  if (!piece) return never(job, length, fromH)
  if (held) take(held, piece)
  if (isCar) take(yard.car, piece)
  return { id: job.id, handIds: [], length, startH: piece.fromH, endH: piece.toH, pieces: [piece] }
}

/** Work lies in what is free of all its hands and of what it holds; of nobody's, the hand that ends it first has it. */
function layWork(yard: Yard, hands: readonly RoadHand[], job: RoadJob, fromH: number, length: number): Laid {
  const thing = job.holds === null ? [] : [thingOf(yard, job.holds)]
  const onCar = job.needsCar && !job.isAway
  const around = onCar ? [...thing, yard.car] : thing
  const crews = job.handIds.length > 0 ? [job.handIds] : hands.map(({ id }) => [id])
  let best: { readonly crew: readonly string[]; readonly pieces: readonly Piece[]; readonly endH: number } | null = null
  for (const crew of crews) {
    const pieces = firstHours([...crew.map((id) => yard.hands.get(id) as FreeTime), ...around], fromH, length)
    const endH = pieces?.at(-1)?.toH
    if (pieces && endH !== undefined && (!best || endH < best.endH)) best = { crew, pieces, endH }
  }
  if (!best) return never(job, length, fromH)
  for (const piece of best.pieces) {
    for (const id of best.crew) take(yard.hands.get(id) as FreeTime, piece)
    for (const list of thing) take(list, piece)
    if (onCar) take(yard.quiet, piece)
  }
  return { id: job.id, handIds: best.crew, length, startH: (best.pieces[0] as Piece).fromH, endH: best.endH, pieces: best.pieces }
}

/**
 * One pass over the road from 00:00 of today: each job in its turn begins when it may (what it comes after is done, its parts are here, its own day has come),
 * is laid into what is free of its hands and of what it holds, broken off at the end of a session and around what lies there, until its hours are in.
 * So no job moves for one below it that it does not need. A job that never comes to its hours ends at infinity. In the order of the jobs of the road.
 * @example layRoad(READY, lengthsAt(ROAD))[0].startH // 297
 */
export function layRoad(ready: ReadyRoad, lengths: Lengths, otherwise: Otherwise = {}): Laid[] {
  const { road, order } = ready
  const yard = openYard(ready)
  const arrival = new Map(road.parts.map(({ id }, i) => [id, itemAt(lengths.arrivalDays, i) + (otherwise.partLaterDays?.get(id) ?? 0)] as const))
  const endOf = new Map<string, number>()
  const laid: Laid[] = new Array(road.jobs.length)
  for (const i of order) {
    const job = itemAt(road.jobs, i)
    const length = itemAt(lengths.jobs, i) + (otherwise.longer?.get(job.id) ?? 0)
    const fromH = earliestH(job, endOf, arrival, otherwise)
    const found = Number.isFinite(fromH) ? layJob(yard, road.hands, job, fromH, length) : never(job, length, fromH)
    endOf.set(job.id, found.endH)
    laid[i] = found
  }
  return laid
}

/** The latest of today, the ends of what it comes after, the days of its parts and its own day. */
function earliestH(job: RoadJob, endOf: ReadonlyMap<string, number>, arrival: ReadonlyMap<string, number>, otherwise: Otherwise): number {
  let fromH = DAY_H * Math.max(0, job.notBeforeDay ?? 0, otherwise.notBeforeDay?.get(job.id) ?? 0)
  for (const id of job.afterIds) fromH = Math.max(fromH, endOf.get(id) ?? 0)
  for (const id of job.partIds) fromH = Math.max(fromH, DAY_H * (arrival.get(id) ?? 0))
  return fromH
}

const layJob = (yard: Yard, hands: readonly RoadHand[], job: RoadJob, fromH: number, length: number): Laid =>
  job.kind === 'wait' ? layWait(yard, job, fromH, length) : layWork(yard, hands, job, fromH, length)

/**
 * When all of stages 0 to `stage` is done, in hours from 00:00 of today; 0 where nothing is open.
 * @example readyH({ jobs: [] }, [], 2) // 0
 */
export function readyH({ jobs }: Pick<Road, 'jobs'>, laid: readonly { readonly endH: number }[], stage: number): number {
  let last = 0
  for (let i = 0; i < laid.length; i++) if (itemAt(jobs, i).stage <= stage) last = Math.max(last, itemAt(laid, i).endH)
  return last
}
