import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { mean } from '../stats/moments.ts'
import { studentTCdf } from '../stats/student-t.ts'

export interface Drift {
  readonly slopePerPull: number
  readonly slopeSd: number
  readonly pValue: number
  /** Mann and Kendall's S: pairs that rose less pairs that fell. */
  readonly mannKendallS: number
  readonly isDrifting: boolean
}

const SIGNIFICANCE = 0.05
const FEWEST_PULLS = 4

/**
 * Whether successive pulls drift, as with heat soak: a straight line on the pull's number, t = b/SE(b) with n − 2 degrees of freedom, two-sided.
 * Source: least squares, closed form; Mann and Kendall's S beside it for few pulls. Rejects fewer than four pulls.
 */
export function driftOf(values: readonly number[]): Drift {
  const n = values.length
  if (n < FEWEST_PULLS) throw new CalculationError('missing', 'values', `Drift needs at least ${FEWEST_PULLS} pulls; there are ${n}.`)
  const middle = (n + 1) / 2
  const average = mean(values)
  const spread = values.reduce((sum, _, i) => sum + (i + 1 - middle) ** 2, 0)
  const slopePerPull = values.reduce((sum, value, i) => sum + (i + 1 - middle) * (value - average), 0) / spread
  const residual = values.reduce((sum, value, i) => sum + (value - average - slopePerPull * (i + 1 - middle)) ** 2, 0)
  const slopeSd = Math.sqrt(residual / (n - 2) / spread)
  const pValue = slopeSd === 0 ? (slopePerPull === 0 ? 1 : 0) : 2 * (1 - studentTCdf(Math.abs(slopePerPull) / slopeSd, n - 2))
  let mannKendallS = 0
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) mannKendallS += Math.sign(itemAt(values, j) - itemAt(values, i))
  return { slopePerPull, slopeSd, pValue, mannKendallS, isDrifting: pValue < SIGNIFICANCE }
}
