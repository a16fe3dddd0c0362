import { CalculationError } from '../errors.ts'

export type QuantityKind =
  | 'mass'
  | 'power'
  | 'torque'
  | 'powerToMass'
  | 'pressure'
  | 'temperature'
  | 'length'
  | 'volume'
  | 'fuelDensity'
  | 'share'
  | 'engineSpeed'
  | 'speed'
  | 'springRate'
  | 'force'
  | 'ratio'
  | 'massFlow'
  | 'volumeFlow'
  | 'current'
  | 'fuelUse'
  | 'injectorFlow'
  | 'pistonSpeed'
  | 'duration'

interface Unit {
  readonly symbol: string
  /** SI = (shown + offset) × factor; volume is kept in litres and fuel density in kg/L, as the records name them. */
  readonly factor: number
  readonly offset?: number
  readonly aliases: readonly string[]
}

const LB_KG = 0.45359237 // exact, international yard and pound agreement 1959
const HP_W = 745.6998715822702 // 550 ft·lbf/s from the exact foot, pound and g = 9.80665 m/s² (NIST SP 811)
const PS_W = 735.49875 // 75 kgf·m/s, exact
const LBF_N = 4.4482216152605 // exact: the pound times standard gravity
const LBFT_NM = 1.3558179483314003 // exact product, NIST SP 811

/**
 * Units by kind; the first of each kind is its SI (or record) unit.
 * Source of the factors: SI Brochure 9th ed., NIST SP 811 (exact definitions).
 */
export const UNITS: Record<QuantityKind, readonly Unit[]> = {
  mass: [
    { symbol: 'kg', factor: 1, aliases: ['kgs', 'kilo', 'kilos'] },
    { symbol: 'g', factor: 0.001, aliases: ['gram', 'grams'] },
    { symbol: 'lb', factor: LB_KG, aliases: ['lbs', 'pound', 'pounds'] },
    { symbol: 'oz', factor: LB_KG / 16, aliases: ['ounce', 'ounces'] },
  ],
  power: [
    { symbol: 'W', factor: 1, aliases: ['watt', 'watts'] },
    { symbol: 'kW', factor: 1000, aliases: ['kilowatt'] },
    { symbol: 'hp', factor: HP_W, aliases: ['bhp', 'whp', 'horsepower'] },
    { symbol: 'PS', factor: PS_W, aliases: ['cv', 'metrichp'] },
  ],
  torque: [
    { symbol: 'N·m', factor: 1, aliases: ['nm', 'n*m', 'n.m', 'n-m', 'newtonmetre'] },
    { symbol: 'lb·ft', factor: LBFT_NM, aliases: ['lbft', 'lb-ft', 'lb.ft', 'ftlb', 'ft-lb', 'ft·lb', 'ftlbs', 'lbf·ft', 'lbfft', 'lb*ft', 'lb_ft', 'ft_lb'] },
    { symbol: 'kgf·m', factor: 9.80665, aliases: ['kgfm', 'kgm', 'kg·m', 'mkp'] },
  ],
  powerToMass: [
    { symbol: 'W/kg', factor: 1, aliases: ['kw/t', 'kw/tonne'] },
    { symbol: 'hp/1000 lb', factor: HP_W / (1000 * LB_KG), aliases: ['hp/1000lb'] },
    { symbol: 'hp/t', factor: HP_W / 1000, aliases: ['hp/tonne', 'bhp/t'] },
    { symbol: 'PS/t', factor: PS_W / 1000, aliases: ['ps/tonne'] },
  ],
  pressure: [
    { symbol: 'Pa', factor: 1, aliases: [] },
    { symbol: 'kPa', factor: 1000, aliases: [] },
    { symbol: 'hPa', factor: 100, aliases: ['mbar', 'mb'] },
    { symbol: 'bar', factor: 1e5, aliases: [] },
    { symbol: 'psi', factor: 6894.757293168361, aliases: [] },
    { symbol: 'inHg', factor: 3386.38864, aliases: [] },
  ],
  temperature: [
    { symbol: 'K', factor: 1, aliases: ['kelvin'] },
    { symbol: '°C', factor: 1, offset: 273.15, aliases: ['c', 'degc', 'celsius'] },
    { symbol: '°F', factor: 5 / 9, offset: 459.67, aliases: ['f', 'degf', 'fahrenheit'] },
  ],
  length: [
    { symbol: 'm', factor: 1, aliases: ['metre', 'metres'] },
    { symbol: 'mm', factor: 0.001, aliases: [] },
    { symbol: 'cm', factor: 0.01, aliases: [] },
    { symbol: 'in', factor: 0.0254, aliases: ['inch', 'inches', '"'] },
    { symbol: 'ft', factor: 0.3048, aliases: ['foot', 'feet'] },
  ],
  volume: [
    { symbol: 'L', factor: 1, aliases: ['litre', 'litres', 'liter', 'liters'] },
    { symbol: 'US gal', factor: 3.785411784, aliases: ['usgal', 'gal'] },
    { symbol: 'cm³', factor: 0.001, aliases: ['cc', 'cm3', 'ccm', 'ml'] },
  ],
  fuelDensity: [
    { symbol: 'kg/L', factor: 1, aliases: [] },
    { symbol: 'lb/US gal', factor: LB_KG / 3.785411784, aliases: ['lb/gal'] },
  ],
  share: [
    { symbol: '', factor: 1, aliases: [] },
    { symbol: '%', factor: 0.01, aliases: ['percent'] },
  ],
  engineSpeed: [{ symbol: 'rpm', factor: 1, aliases: ['1/min', 'min-1', 'r/min', 'u/min', 'revs'] }],
  speed: [
    { symbol: 'm/s', factor: 1, aliases: ['mps'] },
    { symbol: 'km/h', factor: 1 / 3.6, aliases: ['kmh', 'kph'] },
    { symbol: 'mph', factor: 0.44704, aliases: ['mi/h'] },
  ],
  springRate: [
    { symbol: 'N/m', factor: 1, aliases: [] },
    { symbol: 'N/mm', factor: 1000, aliases: ['kn/m'] },
    { symbol: 'kgf/mm', factor: 9806.65, aliases: ['kg/mm'] },
    { symbol: 'lb/in', factor: LBF_N / 0.0254, aliases: ['lbf/in', 'lbs/in'] },
  ],
  force: [
    { symbol: 'N', factor: 1, aliases: ['newton'] },
    { symbol: 'kN', factor: 1000, aliases: [] },
    { symbol: 'lbf', factor: LBF_N, aliases: ['lb', 'lbs'] },
  ],
  ratio: [
    { symbol: '', factor: 1, aliases: ['x', '×'] },
    { symbol: '%', factor: 0.01, aliases: ['percent'] },
  ],
  massFlow: [
    { symbol: 'kg/s', factor: 1, aliases: [] },
    { symbol: 'g/s', factor: 0.001, aliases: [] },
    { symbol: 'kg/h', factor: 1 / 3600, aliases: [] },
    { symbol: 'lb/min', factor: LB_KG / 60, aliases: ['lbs/min', 'ppm'] },
  ],
  volumeFlow: [
    { symbol: 'm³/s', factor: 1, aliases: ['m3/s'] },
    { symbol: 'L/h', factor: 1 / 3.6e6, aliases: ['lph', 'l/hr'] },
    { symbol: 'L/min', factor: 1 / 60_000, aliases: ['lpm'] },
    { symbol: 'cm³/min', factor: 1e-6 / 60, aliases: ['cc/min', 'ccm', 'cm3/min', 'ml/min', 'cc'] },
    { symbol: 'US gal/h', factor: 3.785411784e-3 / 3600, aliases: ['usgal/h', 'gph', 'gal/h'] },
  ],
  injectorFlow: [
    { symbol: 'm³/s', factor: 1, aliases: ['m3/s'] },
    { symbol: 'cm³/min', factor: 1e-6 / 60, aliases: ['cc/min', 'ccm', 'cm3/min', 'ml/min', 'cc'] },
    { symbol: 'L/h', factor: 1 / 3.6e6, aliases: ['lph', 'l/hr'] },
  ],
  pistonSpeed: [
    { symbol: 'm/s', factor: 1, aliases: ['mps'] },
    { symbol: 'ft/min', factor: 0.3048 / 60, aliases: ['fpm'] },
  ],
  current: [{ symbol: 'A', factor: 1, aliases: ['amp', 'amps', 'ampere'] }],
  fuelUse: [
    { symbol: 'kg/J', factor: 1, aliases: [] },
    { symbol: 'g/kWh', factor: 1 / 3.6e9, aliases: ['g/kw·h', 'g/kw-h'] },
    { symbol: 'lb/hp·h', factor: LB_KG / (HP_W * 3600), aliases: ['lb/hph', 'lb/hp-h', 'lb/hp/h', 'lb/(hp·h)'] },
  ],
  duration: [
    { symbol: 's', factor: 1, aliases: ['sec', 'second', 'seconds'] },
    { symbol: 'ms', factor: 0.001, aliases: [] },
    { symbol: 'min', factor: 60, aliases: ['minute', 'minutes'] },
    { symbol: 'h', factor: 3600, aliases: ['hr', 'hour', 'hours'] },
  ],
}

const fold = (text: string) => text.trim().toLowerCase().replace(/\s+/g, '').replace(/[·∙•]/g, '')

/** The unit of a kind by its symbol or a usual spelling; undefined when nobody knows it. Case decides only where it must. */
export function findUnit(kind: QuantityKind, text: string): Unit | undefined {
  const exact = UNITS[kind].find((unit) => unit.symbol === text.trim())
  if (exact) return exact
  const folded = fold(text)
  return UNITS[kind].find((unit) => fold(unit.symbol) === folded || unit.aliases.some((alias) => fold(alias) === folded))
}

function requireUnit(kind: QuantityKind, symbol: string): Unit {
  const unit = findUnit(kind, symbol)
  if (unit) return unit
  const known = UNITS[kind].map((entry) => entry.symbol || 'none').join(', ')
  throw new CalculationError('unknown-unit', 'unit', `"${symbol}" is not a unit of ${kind} known here. Use one of: ${known}.`)
}

/**
 * A number in a named unit turned into the record unit of its kind (SI; litres; kg/L).
 * @example toSi('mass', 41, 'lb') // 18.59728717
 */
export const toSi = (kind: QuantityKind, value: number, symbol: string): number => siReader(kind, symbol)(value)

/** toSi for many numbers of one unit: the unit is looked up once. */
export function siReader(kind: QuantityKind, symbol: string): (value: number) => number {
  const { factor, offset = 0 } = requireUnit(kind, symbol)
  return (value) => (value + offset) * factor
}

/** Volumes are read in litres; engines are reckoned in cubic metres. */
export const m3FromLitres = (litres: number): number => litres / 1000
export const litresFromM3 = (m3: number): number => m3 * 1000

/** The inverse of toSi. */
export function fromSi(kind: QuantityKind, value: number, symbol: string): number {
  const unit = requireUnit(kind, symbol)
  return value / unit.factor - (unit.offset ?? 0)
}

/** A spread (a difference, so without the offset of temperatures) in the named unit. */
export function spreadFromSi(kind: QuantityKind, value: number, symbol: string): number {
  return value / requireUnit(kind, symbol).factor
}

/** A spread in the named unit turned into the record unit. */
export function spreadToSi(kind: QuantityKind, value: number, symbol: string): number {
  return value * requireUnit(kind, symbol).factor
}
