import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

/** Air that holds as much oxygen as a kilogram of nitrous oxide, kg: 0.36351 kg of oxygen (molar masses, closed form) over its 23.14 % by mass in air. */
export const AIR_OF_NITROUS = 1.571

export interface Nitrous {
  readonly addedPowerW: number
  /** Fuel that has to come with it. */
  readonly fuelKgPerS: number
  /** Nitrous over fuel, by mass. */
  readonly nitrousToFuel: number
}

/**
 * Power that a flow of nitrous oxide adds with its fuel: ṁ_f = 1.571 ṁ/(λ AFR), P = ṁ_f/b. Source: oxygen balance, closed form. Left out: what its evaporation
 * cools, the heat of its decay (82 kJ/mol, from memory), and the bottle's falling pressure. Rejects flows and b of zero or less, λ outside 0.6 to 1.3.
 * @example nitrousPower({ nitrousKgPerS: 0.05, lambda: 0.85, stoichiometricRatio: 14.7, bsfcKgPerJ: 335 / 3.6e9 }).addedPowerW // 67556.6
 */
export function nitrousPower(input: { nitrousKgPerS: number; lambda: number; stoichiometricRatio: number; bsfcKgPerJ: number }): Nitrous {
  const { nitrousKgPerS, lambda, stoichiometricRatio, bsfcKgPerJ } = input
  requirePositive(nitrousKgPerS, 'nitrousKgPerS')
  requirePositive(stoichiometricRatio, 'stoichiometricRatio')
  requirePositive(bsfcKgPerJ, 'bsfcKgPerJ')
  requireWithin(lambda, 0.6, 1.3, 'lambda')
  const fuelKgPerS = (AIR_OF_NITROUS * nitrousKgPerS) / (lambda * stoichiometricRatio)
  return { addedPowerW: fuelKgPerS / bsfcKgPerJ, fuelKgPerS, nitrousToFuel: nitrousKgPerS / fuelKgPerS }
}

/**
 * How long a bottle lasts and how much it loses in a time, at a flow. Source: continuity; the falling pressure of the bottle is left out. Rejects a flow of nothing.
 * @example bottleTime({ bottleKg: 4.5, nitrousKgPerS: 0.05 }) // 90
 */
export function bottleTime({ bottleKg, nitrousKgPerS }: { bottleKg: number; nitrousKgPerS: number }): number {
  requirePositive(nitrousKgPerS, 'nitrousKgPerS')
  if (!(bottleKg >= 0)) throw new CalculationError('out-of-range', 'bottleKg', 'A bottle holds nothing or more. Give what is in it.')
  return bottleKg / nitrousKgPerS
}
