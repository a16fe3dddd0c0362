import { CalculationError, requirePositive } from '../errors.ts'
import { normalQuantile } from './normal.ts'

export const LAP_TEST_SCHOOLS = ['means', 'ranks'] as const
/** By which test laps are held beside each other: by their means, or by ranks, which asks for a twentieth more and fears no odd lap. */
export type LapTestSchool = (typeof LAP_TEST_SCHOOLS)[number]
/** What a rank test loses against one of means where laps scatter normally: 3/π. */
const RANK_EFFICIENCY = 3 / Math.PI

/** Both kinds of mistake: 1 in 20 to see what is not there, 1 in 5 to miss what is. */
const Z_BOTH = () => normalQuantile(0.975) + normalQuantile(0.8)

export interface LapsNeeded {
  /** On each side. */
  readonly lapsASide: number
}

/**
 * Laps on each side that show a difference 4 times in 5 at the usual 1 in 20: 2 ((z_α + z_β) s/Δ)², times π/3 by ranks, rounded up.
 * Source: H.10. Rejects a spread or a difference of zero.
 * @example lapsNeeded({ sdS: 0.25, differenceS: 0.15, school: 'means' }).lapsASide // 44
 */
export function lapsNeeded({ sdS, differenceS, school }: { sdS: number; differenceS: number; school: LapTestSchool }): LapsNeeded {
  requirePositive(sdS, 'sdS')
  if (!(Math.abs(differenceS) > 0)) throw new CalculationError('out-of-range', 'differenceS', 'No number of laps shows a difference of nothing.')
  const laps = 2 * ((Z_BOTH() * sdS) / differenceS) ** 2
  return { lapsASide: Math.ceil((school === 'ranks' ? laps / RANK_EFFICIENCY : laps) - 1e-9) }
}

/**
 * The smallest difference that so many laps on each side show 4 times in 5, s. Source: H.10. Rejects fewer than two laps.
 * @example smallestDifferenceS({ sdS: 0.25, lapsASide: 8, school: 'means' }) // 0.3502
 */
export function smallestDifferenceS({ sdS, lapsASide, school }: { sdS: number; lapsASide: number; school: LapTestSchool }): number {
  requirePositive(sdS, 'sdS')
  if (!(lapsASide >= 2)) throw new CalculationError('out-of-range', 'lapsASide', `lapsASide is ${lapsASide}; two laps a side are the least.`)
  const found = Z_BOTH() * sdS * Math.sqrt(2 / lapsASide)
  return school === 'ranks' ? found / Math.sqrt(RANK_EFFICIENCY) : found
}
