import { CalculationError } from '../errors.ts'

export const TREAD_SCHOOLS = ['probe', 'surface'] as const
/** How a tread was read: a needle in the rubber, or a beam on its surface. The two differ by tens of kelvin and are never mixed. */
export type TreadSchool = (typeof TREAD_SCHOOLS)[number]

/** A tyre leans inward: its inner edge is warmer by this much when camber suits (common practice, no source). */
export const INNER_OVER_OUTER_K = { least: 5, most: 15 } as const
/** A middle this far from the mean of both edges speaks of pressure (common practice, no source). */
const MIDDLE_K = 5

export interface TreadReading {
  /** Inner edge less outer, K. */
  readonly innerOverOuterK: number
  /** Middle less the mean of both edges, K. */
  readonly middleOverEdgesK: number
  readonly camber: 'more' | 'suits' | 'less'
  readonly pressure: 'high' | 'suits' | 'low'
}

/**
 * What three temperatures across a tread say, inner edge first: camber by the edges, pressure by the middle. Both are hints: track and driving colour them.
 * Source: common practice. Valid from 240 to 500 K. Rejects others.
 * @example readTread([344.15, 347.15, 351.15]).camber // 'more'
 */
export function readTread(treadK: readonly [number, number, number]): TreadReading {
  treadK.forEach((kelvin, i) => {
    if (!(kelvin >= 240 && kelvin <= 500))
      throw new CalculationError(
        'out-of-range',
        `treadK.${i}`,
        `The ${['inner edge', 'middle', 'outer edge'][i]} is ${kelvin} K; it must lie from 240 to 500 K.`,
      )
  })
  const [inner, middle, outer] = treadK
  const innerOverOuterK = inner - outer
  const middleOverEdgesK = middle - (inner + outer) / 2
  return {
    innerOverOuterK,
    middleOverEdgesK,
    camber: innerOverOuterK < INNER_OVER_OUTER_K.least ? 'more' : innerOverOuterK > INNER_OVER_OUTER_K.most ? 'less' : 'suits',
    pressure: middleOverEdgesK > MIDDLE_K ? 'high' : middleOverEdgesK < -MIDDLE_K ? 'low' : 'suits',
  }
}

/**
 * Where a tread stood against the temperatures its tyre works between: by the mean of its three; null within them.
 * @example treadAgainst([330, 332, 334], { least: 343, most: 373 }) // { side: 'under', byK: 11 }
 */
export function treadAgainst(
  treadK: readonly [number, number, number],
  { least, most }: { readonly least: number; readonly most: number },
): { readonly side: 'under' | 'over'; readonly byK: number } | null {
  const mean = (treadK[0] + treadK[1] + treadK[2]) / 3
  if (mean < least) return { side: 'under', byK: least - mean }
  return mean > most ? { side: 'over', byK: mean - most } : null
}
