import { PROOFS } from './metric-values.ts'
import { MEASUREMENTS } from './metrics.ts'
import type { StageValues } from './stage-values.ts'

export type StageStateWord = 'planned' | 'underway' | 'built' | 'proven'

export interface StageState {
  readonly state: StageStateWord
  /** Of the measurements that this stage's targets rest on, how many there are and how many are made. */
  readonly toProve: number
  readonly proven: number
  readonly isDateOutOfOrder: boolean
  readonly isLate: boolean
}

/**
 * State of a stage: planned (nothing done), underway, built (each change done or dropped), proven (built, and each measurement its targets rest on
 * and that the stage touches was made after its last change). What touches a base is declared with its measurement.
 */
export function stageState(values: StageValues, position: number, today: string): StageState {
  const { car } = values
  const stage = car.stages[position]
  const lines = car.linesByStage[position] ?? []
  const targeted = new Set(values.targets.flatMap((target) => values.info(target.metric).provedBy))
  const asked = MEASUREMENTS.filter(({ key }) => targeted.size === 0 || targeted.has(key)).flatMap(({ key }) => PROOFS[key] ?? [])
  const touched = asked.filter((base) => position === 0 || base.touches(car, position))
  const proven = touched.filter((base) => base.isMeasuredAt(car, position)).length
  const measuredHere = Object.values(PROOFS).some((base) => stage && base.isEnteredAt(car, stage.id))
  const done = lines.filter((line) => line.change.state === 'done').length
  const hasStarted = done > 0 || measuredHere
  const isBuilt = hasStarted && done === lines.length
  const state = !hasStarted ? 'planned' : !isBuilt ? 'underway' : proven === touched.length ? 'proven' : 'built'
  const earlierDate = car.stages.slice(0, position).findLast((entry) => entry.date !== null)?.date ?? null
  const date = stage?.date ?? null
  return {
    state,
    toProve: touched.length,
    proven,
    isDateOutOfOrder: date !== null && earlierDate !== null && date < earlierDate,
    isLate: date !== null && date < today && (state === 'planned' || state === 'underway'),
  }
}
