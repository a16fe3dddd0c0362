import { itemAt } from '../item-at.ts'
import { DAY_H } from './free-time.ts'
import { type Laid, type Lengths, layRoad, lengthsAt, type Otherwise, type ReadyRoad, type Road, readyH } from './road.ts'
import { seededNormals } from './seeded.ts'

/** How many draws a chance is counted in. */
export const DRAW_COUNT = 400

/**
 * What everything on the road takes, draw by draw: each kind, job and part has draws of its own that hang on nothing but its id.
 * @example drawLengths(ROAD, 4).length // 4
 */
export function drawLengths(road: Road, count: number = DRAW_COUNT): Lengths[] {
  const kinds = { work: seededNormals('kind work', count), wait: seededNormals('kind wait', count), arrival: seededNormals('kind arrival', count) }
  const own = new Map([...road.jobs, ...road.parts].map(({ id }) => [id, seededNormals(id, count)]))
  return Array.from({ length: count }, (_, i) =>
    lengthsAt(road, { kind: (kind) => itemAt(kinds[kind], i), own: (id) => itemAt(own.get(id) as Float64Array, i) }),
  )
}

/** A day of the event, and the stage that is to be ready for it. */
export interface Deadline {
  readonly stage: number
  /** 00:00 of this day from today. */
  readonly day: number
}

/** When one stage is ready with all before it. */
export interface StageReady {
  readonly stage: number
  readonly medianH: number
  /** The day from today that half of all draws are ready by, and 8 in 10; infinite where they never are. */
  readonly halfDay: number
  readonly eightDay: number
  /** Of being ready by the deadline; null: there is none. */
  readonly chance: number | null
}

/** What one job comes to. */
export interface JobAhead {
  readonly laid: Laid
  readonly halfDay: number
  readonly eightDay: number
}

export interface RoadAhead {
  readonly jobs: readonly JobAhead[]
  readonly stages: readonly StageReady[]
}

const ascending = (a: number, b: number) => a - b
const share = (sorted: readonly number[], of: number): number => itemAt(sorted, Math.min(sorted.length - 1, Math.ceil(of * sorted.length) - 1))
const dayOf = (hours: number): number => Math.floor(hours / DAY_H)

/**
 * The whole road ahead: its middle, and over all draws the day that half and 8 in 10 of them are done by, and the chance of each deadline.
 * `tick` is told of each pass that is made, and may throw to end it.
 * Source: Monte Carlo with handed-in draws.
 * @example lookAhead(READY, drawLengths(ROAD), { deadlines: [{ stage: 3, day: 26 }] }).stages[0].halfDay // 24
 */
export function lookAhead(
  ready: ReadyRoad,
  draws: readonly Lengths[],
  { deadlines, otherwise = {}, tick }: { readonly deadlines: readonly Deadline[]; readonly otherwise?: Otherwise; readonly tick?: () => void },
): RoadAhead {
  const { road } = ready
  const median = layRoad(ready, lengthsAt(road), otherwise)
  const ends = road.jobs.map(() => [] as number[])
  const places = [...new Set([...road.jobs.map(({ stage }) => stage), ...deadlines.map(({ stage }) => stage)])].sort(ascending)
  const readies = places.map(() => [] as number[])
  for (const lengths of draws) {
    const laid = layRoad(ready, lengths, otherwise)
    laid.forEach(({ endH }, i) => {
      itemAt(ends, i).push(endH)
    })
    places.forEach((stage, i) => {
      itemAt(readies, i).push(readyH(road, laid, stage))
    })
    tick?.()
  }
  return {
    jobs: median.map((laid, i) => {
      const sorted = itemAt(ends, i).sort(ascending)
      return { laid, halfDay: dayOf(share(sorted, 0.5)), eightDay: dayOf(share(sorted, 0.8)) }
    }),
    stages: places.map((stage, i): StageReady => {
      const sorted = itemAt(readies, i).sort(ascending)
      const deadline = deadlines.find((entry) => entry.stage === stage)
      const inTime = deadline && sorted.filter((hours) => hours <= deadline.day * DAY_H).length
      return {
        stage,
        medianH: readyH(road, median, stage),
        halfDay: dayOf(share(sorted, 0.5)),
        eightDay: dayOf(share(sorted, 0.8)),
        chance: inTime === undefined ? null : inTime / sorted.length,
      }
    }),
  }
}

/** The chance of one deadline alone, for those who try many roads. */
export function chanceBy(ready: ReadyRoad, draws: readonly Lengths[], { stage, day }: Deadline, otherwise: Otherwise = {}): number {
  let inTime = 0
  for (const lengths of draws) if (readyH(ready.road, layRoad(ready, lengths, otherwise), stage) <= day * DAY_H) inTime++
  return inTime / draws.length
}
