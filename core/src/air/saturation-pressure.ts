import { requireWithin } from '../errors.ts'

// IAPWS-IF97 region 4 coefficients n1 to n10 (IAPWS R7-97, table 34).
const N = [
  1167.0521452767, -724213.16703206, -17.073846940092, 12020.82470247, -3232555.0322333, 14.91510861353, -4823.2657361591, 405113.40542057, -0.23855557567849,
  650.17534844798,
] as const

/**
 * Saturation vapour pressure over water, Pa. Source: IAPWS-IF97 region 4, equation 30.
 * Valid from 233.15 K (extrapolated below 273.15 K, over supercooled water) to 373.15 K; rejects what lies outside.
 * @example saturationPressurePa(300) // 3536.58941
 */
export function saturationPressurePa(temperatureK: number): number {
  requireWithin(temperatureK, 233.15, 373.15, 'temperatureK')
  const theta = temperatureK + N[8] / (temperatureK - N[9])
  const a = theta ** 2 + N[0] * theta + N[1]
  const b = N[2] * theta ** 2 + N[3] * theta + N[4]
  const c = N[5] * theta ** 2 + N[6] * theta + N[7]
  return 1e6 * ((2 * c) / (-b + Math.sqrt(b * b - 4 * a * c))) ** 4
}
