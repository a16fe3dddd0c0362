import { CalculationError, requireFinite, requirePositive } from '../errors.ts'
import { fromSi } from '../units/units.ts'

export interface PowerToWeight {
  readonly wattPerKg: number
  readonly wattPerKgSd: number
  readonly hpPerTonne: number
  readonly kgPerKilowatt: number
  readonly lbPerHp: number
}

/**
 * Power to weight in the ways people quote it; relative spreads add in quadrature.
 * Source: definitions. Rejects power or mass of zero or less, and a driver at least as heavy as the car.
 */
export function powerToWeight(input: {
  powerW: number
  powerSdW?: number | undefined
  massKg: number
  massSdKg?: number | undefined
  /** Taken off the mass first, where a class book quotes it without. */
  driverKg?: number | undefined
}): PowerToWeight {
  const { powerW, powerSdW = 0, massKg, massSdKg = 0, driverKg = 0 } = input
  requirePositive(powerW, 'powerW')
  requirePositive(massKg, 'massKg')
  requireFinite(driverKg, 'driverKg')
  const mass = massKg - driverKg
  if (mass <= 0) throw new CalculationError('out-of-range', 'driverKg', `The driver (${driverKg} kg) is at least as heavy as the whole (${massKg} kg).`)
  const wattPerKg = powerW / mass
  return {
    wattPerKg,
    wattPerKgSd: wattPerKg * Math.hypot(powerSdW / powerW, massSdKg / mass),
    hpPerTonne: fromSi('power', powerW, 'hp') / (mass / 1000),
    kgPerKilowatt: mass / (powerW / 1000),
    lbPerHp: fromSi('mass', mass, 'lb') / fromSi('power', powerW, 'hp'),
  }
}
