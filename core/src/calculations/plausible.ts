import { CalculationError } from '../errors.ts'

/** A unit that a number may have been typed in by mistake, with what brings it to the one that is asked for. */
interface Slip {
  readonly unit: string
  readonly toSi: (value: number) => number
}

/** Fields of one kind: their names, the unit they are asked for in, what is plausible (common practice, no source), and the usual slips. */
interface Plausible {
  readonly names: RegExp
  readonly unit: string
  readonly low: number
  readonly high: number
  readonly slips: readonly Slip[]
}

const times = (unit: string, factor: number): Slip => ({ unit, toSi: (value) => value * factor })
const MM = times('mm', 0.001)
const CM = times('cm', 0.01)
const IN = times('in', 0.0254)
const LENGTHS = [MM, CM, IN]

const KINDS: readonly Plausible[] = [
  {
    names: /^temperatureK$|TemperatureK$/,
    unit: 'K',
    low: 200,
    high: 1500,
    slips: [
      { unit: '°C', toSi: (value) => value + 273.15 },
      { unit: '°F', toSi: (value) => (value - 32) / 1.8 + 273.15 },
    ],
  },
  {
    names: /^pressurePa$|(ambient|manifold|inlet|outlet)PressurePa$/i,
    unit: 'Pa',
    low: 10_000,
    high: 1e7,
    slips: [times('kPa', 1000), times('bar', 1e5), times('psi', 6894.757)],
  },
  { names: /^powerW$|PowerW$/, unit: 'W', low: 2000, high: 3e6, slips: [times('kW', 1000), times('hp', 745.6999)] },
  { names: /^wheelbaseM$/, unit: 'm', low: 1, high: 5, slips: LENGTHS },
  { names: /^track(Front|Rear)?M$/, unit: 'm', low: 0.8, high: 2.5, slips: LENGTHS },
  { names: /^(bore|stroke)M$/, unit: 'm', low: 0.03, high: 0.2, slips: LENGTHS },
  { names: /^rodM$/, unit: 'm', low: 0.05, high: 0.4, slips: LENGTHS },
  { names: /^radius(Front|Rear)?M$/, unit: 'm', low: 0.15, high: 0.6, slips: LENGTHS },
  { names: /^(lift|padHeight|threadPitch)M$/, unit: 'm', low: 0.0005, high: 1.5, slips: LENGTHS },
  { names: /^displacementM3$/, unit: 'm³', low: 5e-5, high: 0.02, slips: [times('L', 0.001), times('cm³', 1e-6)] },
]

const plain = (value: number) => String(Number(value.toPrecision(6)))
/** A number as its unit would have it, for the eye: kelvin in degrees beside it. */
const seen = (value: number, unit: string) => (unit === 'K' ? `${plain(value)} K is ${plain(value - 273.15)} °C` : `${plain(value)} ${unit} is hardly meant`)

/** Why a number is likelier in another unit than the one it is asked for; null where it is plausible, or no slip explains it. */
function slipOf(name: string, value: number): string | null {
  const kind = KINDS.find(({ names }) => names.test(name))
  if (!kind || (value >= kind.low && value <= kind.high) || !(value > 0)) return null
  const slip = kind.slips.find(({ toSi }) => toSi(value) >= kind.low && toSi(value) <= kind.high)
  return slip ? `${seen(value, kind.unit)}; ${plain(value)} ${slip.unit} is ${plain(slip.toSi(value))} ${kind.unit}` : null
}

/**
 * Refuses numbers that are likelier a slip of the unit, such as 25 for a temperature in kelvin, with what they probably mean. Errors: `implausible`.
 * @example requirePlausible({ temperatureK: 25 }) // throws implausible
 */
export function requirePlausible(input: unknown, path = ''): void {
  if (input === null || typeof input !== 'object') return
  for (const [key, value] of Object.entries(input)) {
    const field = path ? `${path}.${key}` : key
    const slip = typeof value === 'number' ? slipOf(key, value) : null
    if (slip) throw new CalculationError('implausible', field, `${slip}. Send the one that is meant; with "asMeant": true this number is taken as it stands.`)
    requirePlausible(value, field)
  }
}
