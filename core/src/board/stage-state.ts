import { isMeasured } from '../proof/quantity.ts'
import { stageTouchesPower } from '../rooms/power/power-at-stage.ts'
import { METRIC_INFO, type StageValues } from './stage-values.ts'

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
 * and that the stage touches was made after its last change). A stage touches mass by ledger lines, power by an expectation or a change that touches power.
 */
export function stageState(values: StageValues, position: number, today: string): StageState {
  const { car } = values
  const stage = car.stages[position]
  const lines = car.linesByStage[position] ?? []
  const targeted = new Set(car.records.targets.flatMap((target) => METRIC_INFO[target.metric].provedBy))
  const asked = targeted.size > 0 ? targeted : new Set(['mass', 'power'] as const)
  const touched = (['mass', 'power'] as const).filter(
    (base) => asked.has(base) && (position === 0 || (base === 'mass' ? lines.length > 0 : stageTouchesPower(car, position))),
  )
  const isProven = (base: 'mass' | 'power') => {
    if (base === 'power') return values.power(position)?.isMeasuredHere === true
    const mass = values.mass(position)
    return mass !== undefined && isMeasured(mass.proof) && mass.anchor.kind === 'equal'
  }
  const proven = touched.filter(isProven).length
  const measuredHere = car.records.weighings.some((entry) => entry.stageId === stage?.id) || car.records.sessions.some((entry) => entry.stageId === stage?.id)
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
