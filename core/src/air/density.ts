import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { saturationPressurePa } from './saturation-pressure.ts'

/** Specific gas constants, J/(kg K): dry air (ISO 2533) and water vapour (IAPWS). */
export const GAS_CONSTANT_DRY_AIR = 287.05287
const GAS_CONSTANT_VAPOUR = 461.495

export interface AirRecord {
  /** Absolute station pressure, not reduced to sea level. */
  readonly pressurePa: number
  readonly temperatureK: number
  readonly relativeHumidity: number
}

/** Vapour pressure e = RH e_s and the dry rest of the total pressure. Rejects RH outside 0 to 1 and vapour above the total. */
export function dryPressure(air: AirRecord): { vapourPressurePa: number; dryPressurePa: number } {
  requirePositive(air.pressurePa, 'pressurePa')
  requireWithin(air.relativeHumidity, 0, 1, 'relativeHumidity')
  const vapourPressurePa = air.relativeHumidity * saturationPressurePa(air.temperatureK)
  const dryPressurePa = air.pressurePa - vapourPressurePa
  if (dryPressurePa <= 0) {
    throw new CalculationError(
      'inconsistent',
      'pressurePa',
      'The vapour alone has more pressure than the air given. Check pressure and its unit (pascal, absolute).',
    )
  }
  return { vapourPressurePa, dryPressurePa }
}

/**
 * Density of moist air: ρ = (p − e)/(287.05287 T) + e/(461.495 T), kg/m³.
 * Source: ideal-gas mixture. Valid within 0.1 % for −30 to 60 °C and 50 to 110 kPa.
 */
export function airDensity(air: AirRecord): { densityKgM3: number; vapourPressurePa: number; dryPressurePa: number } {
  const { vapourPressurePa, dryPressurePa } = dryPressure(air)
  const densityKgM3 = dryPressurePa / (GAS_CONSTANT_DRY_AIR * air.temperatureK) + vapourPressurePa / (GAS_CONSTANT_VAPOUR * air.temperatureK)
  return { densityKgM3, vapourPressurePa, dryPressurePa }
}

/** Where the record leaves the range the density formula holds in. */
export function airRangeWarnings(air: AirRecord): string[] {
  const warnings: string[] = []
  if (air.temperatureK < 243.15 || air.temperatureK > 333.15) warnings.push('The temperature lies outside −30 to 60 °C, where this formula is good to 0.1 %.')
  if (air.pressurePa < 50_000 || air.pressurePa > 110_000) warnings.push('The pressure lies outside 50 to 110 kPa, where this formula is good to 0.1 %.')
  return warnings
}
