import type { GarageEntry, StoredBuild } from '@bold-ballast/contract'
import { arrivedCell, type Board, makeBoard } from '@bold-ballast/core'
import type { OpenBuild } from './open-builds.ts'

const NOTHING = {
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
} as const

/** A build that nothing can be worked out of; it stays in the Garage with the reason. */
export const brokenEntry = (build: StoredBuild, problem: string): GarageEntry => ({ ...NOTHING, build, problem })

/** A build that is being worked out for the first time. */
export const awaitedEntry = (build: StoredBuild): GarageEntry => ({ ...NOTHING, build, problem: null, isWaiting: true })

/** What the Garage says of a build on a day. */
export function garageEntry({ stored, car, broken }: OpenBuild, today: string): GarageEntry {
  const board = makeBoard(car(), today)
  const isBuilt = (state: string) => state === 'built' || state === 'proven'
  const reached = board.stages.findLast((stage) => isBuilt(stage.state)) ?? board.stages.find((stage) => stage.state === 'underway')
  const cell = (metric: Board['rows'][number]['metric']) => arrivedCell(board.rows.find((row) => row.metric === metric)?.cells[reached?.position ?? 0])
  const count = (word: string) => board.rows.filter((row) => row.goal.kind === 'limit' && row.goal.verdict?.word === word).length
  return {
    ...(board.isWaiting ? { isWaiting: true } : {}),
    build: stored.build,
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
    problem: broken.length === 0 ? null : `${broken.length === 1 ? 'One record is' : `${broken.length} records are`} broken and left out.`,
  }
}
