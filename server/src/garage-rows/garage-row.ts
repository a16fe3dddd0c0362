import type { GarageEntry } from '@bold-ballast/contract'
import {
  arrivedCell,
  type Board,
  type BuildRecords,
  CalculationError,
  type CarOptions,
  makeBoard,
  openCar,
  type RoadAsked,
  type RoadSummary,
  type StageValue,
  WAITING,
} from '@bold-ballast/core'

/** What the Garage says of a build, without the build itself. */
export type GarageRow = Omit<GarageEntry, 'build'>

/** What is known of a build that takes too long to be worked out on the way: late metrics at every stage, and roads by their question. */
export interface LateKnown {
  readonly values: Readonly<Record<string, readonly (StageValue | undefined)[]>>
  readonly roads: readonly { readonly asked: RoadAsked; readonly found: RoadSummary | undefined }[]
}
export const NOTHING_KNOWN: LateKnown = { values: {}, roads: [] }

export interface RowAsked {
  readonly records: BuildRecords
  readonly learns?: Pick<CarOptions, 'garagePairs' | 'garageRealPairs'> | undefined
  readonly day: string
  readonly brokenCount: number
  readonly known: LateKnown
}

export interface RowMade {
  readonly row: GarageRow
  /** What it lacks of what takes long; it says "being worked out" there. */
  readonly lacks: { readonly metrics: readonly string[]; readonly roads: readonly RoadAsked[] }
}

const NOTHING: GarageRow = {
  stageCount: 0,
  reachedPosition: null,
  reachedName: null,
  reachedState: null,
  reachedStageId: null,
  stages: [],
  trail: [],
  mass: null,
  powerToMass: null,
  brokenLimits: 0,
  limitsThatWouldBreak: 0,
  lateStages: 0,
  lateTargets: 0,
  next: null,
  problem: null,
}

/** Of a build that nothing can be worked out of; it stays in the Garage with the reason. */
export const brokenRow = (problem: string): GarageRow => ({ ...NOTHING, problem })

/** Of a build that is being worked out for the first time. */
export const AWAITED_ROW: GarageRow = { ...NOTHING, isWaiting: true }

/** What the Garage says of a build on a day, as far as what takes long is known. */
export function garageRow({ records, learns, day, brokenCount, known }: RowAsked): RowMade {
  const metrics = new Set<string>()
  const roads = new Map<string, RoadAsked>()
  const knownRoads = new Map(known.roads.map(({ asked, found }) => [JSON.stringify(asked), found]))
  const lacks = () => ({ metrics: [...metrics], roads: [...roads.values()] })
  try {
    const car = openCar(records, {
      ...learns,
      later: (metric, position) => {
        const values = known.values[metric]
        if (values) return values[position]
        metrics.add(metric)
        return WAITING
      },
      laterRoad: (asked) => {
        const key = JSON.stringify(asked)
        if (knownRoads.has(key)) return knownRoads.get(key)
        roads.set(key, asked)
        return WAITING
      },
    })
    const problem = brokenCount === 0 ? null : `${brokenCount === 1 ? 'One record is' : `${brokenCount} records are`} broken and left out.`
    return { row: { ...rowOf(makeBoard(car, day)), problem }, lacks: lacks() }
  } catch (error) {
    if (error instanceof CalculationError) return { row: brokenRow(error.message), lacks: { metrics: [], roads: [] } }
    throw error
  }
}

function rowOf(board: Board): Omit<GarageRow, 'problem'> {
  const isBuilt = (state: string) => state === 'built' || state === 'proven'
  const reached = board.stages.findLast((stage) => isBuilt(stage.state)) ?? board.stages.find((stage) => stage.state === 'underway')
  const cell = (metric: Board['rows'][number]['metric']) => arrivedCell(board.rows.find((row) => row.metric === metric)?.cells[reached?.position ?? 0])
  const count = (word: string) => board.rows.filter((row) => row.goal.kind === 'limit' && row.goal.verdict?.word === word).length
  return {
    ...(board.isWaiting ? { isWaiting: true } : {}),
    stageCount: board.stages.length,
    reachedPosition: reached?.position ?? null,
    reachedName: reached?.name ?? null,
    reachedState: reached?.state ?? null,
    reachedStageId: reached?.id ?? null,
    stages: board.stages.map(({ id, name, date, state }) => ({ id, name, date, isDone: isBuilt(state) })),
    trail: board.trail,
    mass: cell('massReady'),
    powerToMass: cell('powerToMass'),
    brokenLimits: count('broken'),
    limitsThatWouldBreak: count('would break'),
    lateStages: board.stages.filter((stage) => stage.isLate).length,
    lateTargets: board.rows.filter((row) => row.goal.kind === 'target' && row.goal.verdict?.isLate).length,
    next: board.next[0] ?? null,
  }
}
