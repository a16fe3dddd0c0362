import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import type { FuelProperties } from './fuels.ts'

/** 1 g/kWh in kg/J. */
export const GRAM_PER_KWH = 1 / 3.6e9

/** Usual fuel per energy at full power, g/kWh, by how the engine breathes and what it burns (common practice, no source); E85 with 85 % of ethanol. */
export const USUAL_BSFC_G_PER_KWH = {
  petrolNaturallyAspirated: [255, 335],
  petrolBoosted: [335, 395],
  e85NaturallyAspirated: [383, 456],
  e85Boosted: [456, 547],
  methanolNaturallyAspirated: [547, 669],
  methanolBoosted: [669, 791],
} as const

/** What is a share of each gram of fuel that becomes work cannot be more than this in a spark-ignition engine. */
const BEST_EFFICIENCY = 0.45

export interface AirAndFuel {
  readonly fuelKgPerS: number
  readonly airKgPerS: number
  readonly brakeEfficiency: number
}

/**
 * Fuel and air for a power: ṁ_f = b P, ṁ_a = λ AFR_st ṁ_f; brake efficiency 1/(b LHV).
 * Source: definitions; b and λ are common practice, no source. Rejects b outside 150 to 1 200 g/kWh, λ outside 0.6 to 1.3, an efficiency over 0.45.
 * @example airAndFuel({ powerW: 300e3, bsfcKgPerJ: 330 / 3.6e9, lambda: 0.82, fuel: PETROL }).airKgPerS // 0.331485
 */
export function airAndFuel(input: { powerW: number; bsfcKgPerJ: number; lambda: number; fuel: FuelProperties }): AirAndFuel {
  const { powerW, bsfcKgPerJ, lambda, fuel } = input
  requirePositive(powerW, 'powerW')
  requirePositive(bsfcKgPerJ, 'bsfcKgPerJ')
  requireWithin(lambda, 0.6, 1.3, 'lambda')
  const grams = bsfcKgPerJ / GRAM_PER_KWH
  if (grams < 150 || grams > 1200)
    throw new CalculationError('out-of-range', 'bsfcKgPerJ', `A fuel use of ${grams.toFixed(0)} g/kWh cannot be; it lies from 150 to 1 200. Check its unit.`)
  const brakeEfficiency = 1 / (bsfcKgPerJ * fuel.heatingValueJPerKg)
  if (brakeEfficiency > BEST_EFFICIENCY)
    throw new CalculationError(
      'inconsistent',
      'bsfcKgPerJ',
      `That would turn ${(brakeEfficiency * 100).toFixed(0)} % of the fuel into work; spark ignition stays under 45 %. Use more fuel per power.`,
    )
  const fuelKgPerS = bsfcKgPerJ * powerW
  return { fuelKgPerS, airKgPerS: lambda * fuel.stoichiometricRatio * fuelKgPerS, brakeEfficiency }
}
