import { CalculationError } from '../../errors.ts'
import type { Change } from '../../records/weight-kinds.ts'
import { type Car, openCar, stageIndex } from '../../stages/car.ts'
import { lineMass } from '../../stages/line-mass.ts'
import { massOf, massOrProblem } from './mass-at-stage.ts'

export interface TooMuchOff {
  readonly changeId: string
  readonly message: string
}

const massKg = (change: Change) => lineMass(change).massKg
const kg = (value: number) => `${Number(value.toFixed(1))} kg`

const comesOff = ({ kind, state }: Change) => kind === 'off' && state !== 'dropped'
const totalKg = (lines: readonly Change[]) => lines.filter(comesOff).reduce((sum, change) => sum + massKg(change), 0)
/** The lightest that the car is at any stage; infinite where nobody weighed it. */
const lightestKg = (car: Car) => Math.min(...car.stages.map((_, position) => massOf(car, position)?.value ?? Number.POSITIVE_INFINITY))

/**
 * How much of the lightest car of all stages the lines take off, as a share; 0 of a car nobody weighed. Source: ratio.
 * @example offShare(CAR, []) // 0
 */
export const offShare = (car: Car, lines: readonly Change[]): number => totalKg(lines) / lightestKg(car)

/**
 * Why lines cannot be as they would become: one that comes off is heavier than the car one stage before, or with all of them less than nothing is left of
 * the car; null where they can. A car nobody weighed refuses nothing. `lines` stand in place of those with their ids, or are new. Source: sums.
 * @example whyTooMuchOff(CAR, [{ ...EXAMPLE.changes[0], values: [{ ...EXAMPLE.changes[0].values[0], massKg: 5000 }] }]).changeId // 'bench'
 */
export function whyTooMuchOff(car: Car, lines: readonly Change[]): TooMuchOff | null {
  const offs = lines.filter(comesOff)
  for (const change of offs) {
    const before = massOf(car, stageIndex(car, change.stageId) - 1)
    if (before && massKg(change) >= before.value)
      return {
        changeId: change.id,
        message: `${change.name} would take ${kg(massKg(change))} off a car of ${kg(before.value)}. Check the number, the pieces and the unit.`,
      }
  }
  const [heaviest] = [...offs].sort((a, b) => massKg(b) - massKg(a))
  // Far from nothing there is nothing to work out.
  if (!heaviest || offShare(car, lines) < 0.5) return null
  const ids = new Set(lines.map(({ id }) => id))
  const next = openCar({ ...car.records, changes: [...car.records.changes.filter(({ id }) => !ids.has(id)), ...lines] })
  const emptied = car.stages.findIndex(
    (_, position) => massOrProblem(next, position) instanceof CalculationError && !(massOrProblem(car, position) instanceof CalculationError),
  )
  if (emptied < 0) return null
  const stage = car.stages[emptied]
  return {
    changeId: heaviest.id,
    message: `With this, more would come off than the car weighs at stage ${emptied} ${stage?.name}. Check the numbers, the pieces and the units.`,
  }
}
