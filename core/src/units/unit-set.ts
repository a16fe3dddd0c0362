import type { QuantityKind } from './units.ts'

export type UnitSetName = 'metric' | 'imperial'

/** Which unit each kind is shown in, and read in when none is typed. */
export const UNIT_SETS: Record<UnitSetName, Record<QuantityKind, string>> = {
  metric: {
    mass: 'kg',
    power: 'kW',
    torque: 'N·m',
    powerToMass: 'W/kg',
    pressure: 'kPa',
    temperature: '°C',
    length: 'mm',
    volume: 'L',
    fuelDensity: 'kg/L',
    share: '%',
    engineSpeed: 'rpm',
    ratio: '',
  },
  imperial: {
    mass: 'lb',
    power: 'hp',
    torque: 'lb·ft',
    powerToMass: 'hp/1000 lb',
    pressure: 'psi',
    temperature: '°F',
    length: 'in',
    volume: 'US gal',
    fuelDensity: 'lb/US gal',
    share: '%',
    engineSpeed: 'rpm',
    ratio: '',
  },
}
