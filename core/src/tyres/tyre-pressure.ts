import { CalculationError, requireWithin } from '../errors.ts'

/** Standard air, Pa: what stands where nobody read a barometer. */
export const STANDARD_AIR_PA = 101_325

function requirePressure(gaugePa: number, kelvin: number, ambientPa: number, field: string): void {
  if (!(gaugePa > 0 && gaugePa <= 1_000_000))
    throw new CalculationError('out-of-range', field, `${field} is ${gaugePa} Pa; it must lie over zero and up to 10 bar, as the gauge shows it.`)
  if (!(kelvin > 233 && kelvin < 500)) throw new CalculationError('out-of-range', `${field}K`, `The temperature is ${kelvin} K; it must lie from 234 to 499 K.`)
  requireWithin(ambientPa, 50_000, 110_000, 'ambientPa')
}

/**
 * Pressure of the gas in a tyre at another temperature, as a gauge shows it, Pa: (p₂ + a)/T₂ = (p₁ + a)/T₁. Dry gas in a volume that stays; moist air rises
 * 2 to 10 % more. Source: H.7. Rejects no pressure, temperatures to 233 K, air outside 500 to 1,100 hPa.
 * @example tyrePressurePa({ gaugePa: 160_000, fromK: 291.15, toK: 358.15, ambientPa: 101_325 }) // 220136.6
 */
export function tyrePressurePa({
  gaugePa,
  fromK,
  toK,
  ambientPa = STANDARD_AIR_PA,
}: {
  gaugePa: number
  fromK: number
  toK: number
  ambientPa?: number
}): number {
  requirePressure(gaugePa, fromK, ambientPa, 'gaugePa')
  requirePressure(gaugePa, toK, ambientPa, 'gaugePa')
  return ((gaugePa + ambientPa) * toK) / fromK - ambientPa
}

/** A tyre before and after it was driven: gauges, and how warm it was when cold. */
export interface PressurePair {
  readonly coldPa: number
  readonly coldK: number
  readonly hotPa: number
  readonly ambientPa?: number
}

/**
 * How warm the gas in a tyre became, K, from its own pressures: T_c (p_h + a)/(p_c + a). Not the temperature of its surface. Source: H.7.
 * Rejects what is no pressure, and a hot one under the cold.
 * @example hotGasK({ coldPa: 155_000, coldK: 289.15, hotPa: 198_000, ambientPa: 100_800 }) // 337.756
 */
export function hotGasK({ coldPa, coldK, hotPa, ambientPa = STANDARD_AIR_PA }: PressurePair): number {
  requirePressure(coldPa, coldK, ambientPa, 'coldPa')
  requirePressure(hotPa, coldK, ambientPa, 'hotPa')
  if (hotPa < coldPa) throw new CalculationError('inconsistent', 'hotPa', 'The hot pressure is under the cold one: it was bled, or the two were swapped.')
  return (coldK * (hotPa + ambientPa)) / (coldPa + ambientPa)
}

export const COLD_SCHOOLS = ['sameRise', 'sameHot'] as const
/** What a tyre does on a colder or warmer day: its gas warms up by as much, or comes to the same warmth. */
export type ColdSchool = (typeof COLD_SCHOOLS)[number]
export const COLD_SCHOOL_WORDS: Record<ColdSchool, string> = { sameRise: 'warms up by as much', sameHot: 'comes to the same warmth' }

/**
 * The cold pressure that comes to a wanted hot one, Pa, by this tyre's own pair and a school. Source: H.7, the room's page.
 * Rejects what `hotGasK` rejects, and a wanted pressure that would need less than nothing cold.
 * @example coldForHotPa({ pair: { coldPa: 155_000, coldK: 289.15, hotPa: 198_000, ambientPa: 100_800 }, wantedHotPa: 195_000, coldK: 282.15, ambientPa: 100_800, school: 'sameRise' }) // 151530.8
 */
export function coldForHotPa({
  pair,
  wantedHotPa,
  coldK,
  ambientPa = STANDARD_AIR_PA,
  school,
}: {
  pair: PressurePair
  wantedHotPa: number
  coldK: number
  ambientPa?: number
  school: ColdSchool
}): number {
  const hot = hotGasK(pair)
  requirePressure(wantedHotPa, coldK, ambientPa, 'wantedHotPa')
  const gasK = school === 'sameHot' ? hot : coldK + hot - pair.coldK
  const cold = ((wantedHotPa + ambientPa) * coldK) / gasK - ambientPa
  if (!(cold > 0)) throw new CalculationError('implausible', 'wantedHotPa', 'It would have to be empty when cold. Check the pair it is worked out from.')
  return cold
}
