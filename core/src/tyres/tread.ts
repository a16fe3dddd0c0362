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
