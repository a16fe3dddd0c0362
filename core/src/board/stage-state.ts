import type { MeasurementWork } from '../stages/define-metric.ts'
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
 * and that the stage touches was made after its last change, and gave its number). A measurement that was entered touches its base; what else does is
 * declared with the measurement.
 */
export function stageState(values: StageValues, position: number, today: string): StageState {
  const { car } = values
  const stage = car.stages[position]
  const lines = car.linesByStage[position] ?? []
  const targeted = new Set(values.targets.flatMap((target) => values.info(target.metric).provedBy))
  const bases = MEASUREMENTS.map(({ key }) => {
    const work = PROOFS[key] as MeasurementWork
    return { key, work, isEntered: stage !== undefined && work.isEnteredAt(car, stage.id) }
  })
  const touched = bases.filter(({ work, isEntered }) => (position === 0 && work.asksAsBought !== false) || isEntered || work.touches(car, position))
  const targetedHere = touched.filter(({ key }) => targeted.has(key))
  const asked = targetedHere.length > 0 ? targetedHere : touched
  const proven = asked.filter(({ work }) => work.isMeasuredAt(car, position)).length
  const measuredHere = bases.some(({ isEntered }) => isEntered)
  const done = lines.filter((line) => line.change.state === 'done').length
  const hasStarted = done > 0 || measuredHere
  const isBuilt = hasStarted && done === lines.length
  const state = !hasStarted ? 'planned' : !isBuilt ? 'underway' : proven > 0 && proven === asked.length ? 'proven' : 'built'
  const earlierDate = car.stages.slice(0, position).findLast((entry) => entry.date !== null)?.date ?? null
  const date = stage?.date ?? null
  return {
    state,
    toProve: asked.length,
    proven,
    isDateOutOfOrder: date !== null && earlierDate !== null && date < earlierDate,
    isLate: date !== null && date < today && (state === 'planned' || state === 'underway'),
  }
}
