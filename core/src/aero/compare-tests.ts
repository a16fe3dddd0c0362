import { CalculationError } from '../errors.ts'
import { mean, quadrature, sampleSd } from '../stats/moments.ts'
import { studentTCdf, studentTQuantile } from '../stats/student-t.ts'

export interface TestComparison {
  readonly difference: number
  readonly low: number
  readonly high: number
  readonly pValue: number
  readonly verdict: 'real' | 'within noise'
}

/**
 * Spread of the difference of two tests, with all that each is unsure of; any unit.
 * @example differenceSd(0.03, 0.04) // 0.05
 */
export const differenceSd = (beforeSd: number, afterSd: number): number => quadrature(beforeSd, afterSd)

/**
 * Two tests by what their pairs gave, any unit: difference of the means with its 95 % range by unequal spreads, and whether it is real. Source: Welch 1947
 * (from memory). Refuses (`out-of-range`) under two pairs a test, or pairs that all agree to the last digit.
 * @example compareTests([0.742, 0.75, 0.738], [0.77, 0.781, 0.765]).verdict // 'real'
 */
export function compareTests(before: readonly number[], after: readonly number[]): TestComparison {
  if (before.length < 2 || after.length < 2)
    throw new CalculationError('out-of-range', 'before', 'Too few: two pairs before and two after are the least that tells a difference from noise.')
  const [v1, v2] = [sampleSd(before) ** 2 / before.length, sampleSd(after) ** 2 / after.length]
  const sd = Math.sqrt(v1 + v2)
  if (!(sd > 0)) throw new CalculationError('out-of-range', 'before', 'All pairs of a test agree to the last digit: they are copies. Give runs of their own.')
  const freedom = (v1 + v2) ** 2 / (v1 ** 2 / (before.length - 1) + v2 ** 2 / (after.length - 1))
  const difference = mean(after) - mean(before)
  const reach = studentTQuantile(0.975, freedom) * sd
  return {
    difference,
    low: difference - reach,
    high: difference + reach,
    pValue: 2 * (1 - studentTCdf(Math.abs(difference) / sd, freedom)),
    verdict: Math.abs(difference) > reach ? 'real' : 'within noise',
  }
}
