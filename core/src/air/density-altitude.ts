import { CalculationError, requirePositive } from '../errors.ts'
import { type AirRecord, airDensity } from './density.ts'

/** Sea level of the standard atmosphere (ISO 2533, from memory). */
const DENSITY_KG_M3 = 1.225
const TEMPERATURE_K = 288.15
const LAPSE_K_PER_M = 0.0065
const EXPONENT = 4.25588
/** Where the troposphere ends (ISO 2533, from memory). */
const DENSITY_AT_11_KM = 0.3639

/**
 * The altitude at which the standard atmosphere is as thin as a given density: h = (T0/L) (1 − (ρ/1.225)^(1/4.25588)), m.
 * Source: inverse of the standard atmosphere's density law (ISO 2533, from memory). Valid to 11 km. Rejects a density of zero or less, and one of above 11 km.
 * @example densityAltitudeM(1.225) // 0
 */
export function densityAltitudeM(densityKgM3: number): number {
  requirePositive(densityKgM3, 'densityKgM3')
  if (densityKgM3 < DENSITY_AT_11_KM)
    throw new CalculationError(
      'out-of-range',
      'pressurePa',
      'Air as thin as this lies above 11 km, where the law no longer holds. Check pressure and temperature.',
    )
  return (TEMPERATURE_K / LAPSE_K_PER_M) * (1 - (densityKgM3 / DENSITY_KG_M3) ** (1 / EXPONENT))
}

/** Density altitude by both schools: of the moist air that is there, and as aviation counts it, with dry air. */
export function densityAltitude(air: AirRecord): { moistM: number; dryAirM: number; densityKgM3: number } {
  const { densityKgM3 } = airDensity(air)
  const dry = airDensity({ ...air, relativeHumidity: 0 }).densityKgM3
  return { moistM: densityAltitudeM(densityKgM3), dryAirM: densityAltitudeM(dry), densityKgM3 }
}
