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
    speed: 'km/h',
    springRate: 'N/mm',
    force: 'N',
    ratio: '',
    massFlow: 'kg/s',
    volumeFlow: 'L/h',
    current: 'A',
    fuelUse: 'g/kWh',
    injectorFlow: 'cm³/min',
    pistonSpeed: 'm/s',
    duration: 'min',
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
    speed: 'mph',
    springRate: 'lb/in',
    force: 'lbf',
    ratio: '',
    massFlow: 'lb/min',
    volumeFlow: 'US gal/h',
    current: 'A',
    fuelUse: 'lb/hp·h',
    injectorFlow: 'cm³/min',
    pistonSpeed: 'ft/min',
    duration: 'min',
  },
}

export interface UnitChoice {
  readonly kind: QuantityKind
  readonly word: string
  readonly symbols: readonly string[]
}

/** Quantities whose unit a person may pick alone, beside the set, and what they may pick. */
export const UNIT_CHOICES: readonly UnitChoice[] = [
  { kind: 'mass', word: 'Mass', symbols: ['kg', 'lb'] },
  { kind: 'power', word: 'Power', symbols: ['kW', 'hp', 'PS'] },
  { kind: 'torque', word: 'Torque', symbols: ['N·m', 'lb·ft'] },
  { kind: 'powerToMass', word: 'Power to weight', symbols: ['W/kg', 'hp/t', 'PS/t', 'hp/1000 lb'] },
  { kind: 'pressure', word: 'Pressure', symbols: ['kPa', 'psi', 'bar'] },
  { kind: 'speed', word: 'Speed', symbols: ['km/h', 'mph'] },
  { kind: 'temperature', word: 'Temperature', symbols: ['°C', '°F'] },
  { kind: 'length', word: 'Length', symbols: ['mm', 'in'] },
  { kind: 'volume', word: 'Volume', symbols: ['L', 'US gal'] },
  { kind: 'massFlow', word: 'Air flow', symbols: ['kg/s', 'g/s', 'lb/min'] },
  { kind: 'volumeFlow', word: 'Fuel flow', symbols: ['L/h', 'cm³/min', 'US gal/h'] },
  { kind: 'springRate', word: 'Spring rate', symbols: ['N/mm', 'kgf/mm', 'lb/in'] },
  { kind: 'force', word: 'Force', symbols: ['N', 'kN', 'lbf'] },
]

/** The set with single quantities replaced; a symbol that is not offered is left out. */
export function chooseUnits(set: UnitSetName, own: Partial<Record<QuantityKind, string>>): Record<QuantityKind, string> {
  const picked = UNIT_CHOICES.flatMap(({ kind, symbols }) => (symbols.includes(own[kind] ?? '') ? [[kind, own[kind]]] : []))
  return { ...UNIT_SETS[set], ...Object.fromEntries(picked) }
}
