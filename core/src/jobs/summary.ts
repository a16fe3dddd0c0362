import { type Deadline, drawLengths, lookAhead } from './draws.ts'
import { findHelps, type Helped } from './helps.ts'
import { type Road, readyRoad } from './road.ts'
import { findSlack } from './slips.ts'

/** A road, and the days its stages are wanted on. */
export interface RoadAsked {
  readonly road: Road
  readonly deadlines: readonly Deadline[]
}

/** What Board and rail tell of a road. Days from today; null: never. */
export interface RoadSummary {
  readonly stages: readonly { readonly stage: number; readonly halfDay: number | null; readonly eightDay: number | null; readonly chance: number | null }[]
  /** What helps most where the next deadline would sooner be missed than met. */
  readonly help: Pick<Helped, 'move' | 'chance'> | null
  /** By which day parts that nobody ordered have to be, at the latest. */
  readonly orderBy: readonly { readonly partId: string; readonly day: number }[]
}

/** More likely missed than met. */
const EVEN = 0.5

const finite = (day: number): number | null => (Number.isFinite(day) ? day : null)

/**
 * A road in short: when each stage is ready and how likely in time, what helps where that is under one in two, and what has to be ordered by when.
 * Rejects what `readyRoad` rejects.
 * @example summariseRoad({ road: ROAD, deadlines: [{ stage: 3, day: 26 }] }).stages.length // 1
 */
export function summariseRoad({ road, deadlines }: RoadAsked): RoadSummary {
  const ready = readyRoad(road)
  const { stages } = lookAhead(ready, drawLengths(road), { deadlines })
  const last = Math.max(0, ...road.jobs.map(({ stage }) => stage))
  const slack = new Map(findSlack({ ready, stage: last }).parts.map(({ id, mayBeLateDays }) => [id, mayBeLateDays]))
  const next = [...deadlines].sort((a, b) => a.day - b.day).find(({ stage, day }) => day >= 0 && road.jobs.some((job) => job.stage <= stage))
  const chance = stages.find(({ stage }) => stage === next?.stage)?.chance ?? 1
  const [help] = next && chance < EVEN ? findHelps(road, next).best : []
  return {
    stages: stages.map(({ stage, halfDay, eightDay, chance: own }) => ({ stage, halfDay: finite(halfDay), eightDay: finite(eightDay), chance: own })),
    help: help && help.chance > chance ? { move: help.move, chance: help.chance } : null,
    orderBy: road.parts.flatMap(({ id, orderedDaysAgo }) =>
      orderedDaysAgo === null || orderedDaysAgo < 0 ? [{ partId: id, day: Math.max(0, -(orderedDaysAgo ?? 0)) + (slack.get(id) ?? 0) }] : [],
    ),
  }
}
