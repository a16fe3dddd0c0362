import { itemAt } from '../../item-at.ts'
import { openMass } from '../../mass/open-mass.ts'
import type { Car, UsableWeighing } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { knownParts, linesBetween, type OpenLine } from './mass-at-stage.ts'

/** What the scales say beyond what the ledger said, from the weighing before to this one. */
export interface Unexplained {
  readonly weighingId: string
  readonly sinceWeighingId: string
  readonly ledgerSaidKg: number
  readonly massKg: number
  readonly sdKg: number
  readonly isFlagged: boolean
  readonly lines: readonly OpenLine[]
}

/**
 * Ledger said = the weighing before + lines that came in − lines that went out; unexplained = this weighing − that.
 * Spread from both scales and those lines. Flagged when over 2 sd and over max(1 kg, 0.1 % of the car).
 * The first weighing has none, and neither has one that is not usable.
 */
export function unexplainedAt(car: Car, weighingId: string): Unexplained | undefined {
  const at = car.weighings.findIndex((entry) => entry.weighing.id === weighingId)
  return at < 1 ? undefined : unexplainedSinceLast(car, at)
}

const unexplainedSinceLast = rememberByIndex((car, at) => unexplainedBetween(car, itemAt(car.weighings, at - 1), itemAt(car.weighings, at)))

export function unexplainedBetween(car: Car, before: UsableWeighing, after: UsableWeighing): Unexplained {
  const lines = linesBetween(car, before.inCar, (line) => after.inCar.has(line.change.id))
  const open = openMass(knownParts(lines), car.bias)
  const ledgerSaidKg = before.reference.massKg + open.meanKg
  const massKg = after.reference.massKg - ledgerSaidKg
  const sdKg = Math.sqrt(before.reference.sdKg ** 2 + after.reference.sdKg ** 2 + open.varianceKg2)
  const isFlagged = Math.abs(massKg) > 2 * sdKg && Math.abs(massKg) > Math.max(1, 0.001 * after.reference.massKg)
  return { weighingId: after.weighing.id, sinceWeighingId: before.weighing.id, ledgerSaidKg, massKg, sdKg, isFlagged, lines }
}
