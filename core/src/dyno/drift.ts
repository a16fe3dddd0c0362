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
  /** The chance of an S as far from nothing in pulls that do not drift, exact; null where two pulls are equal, or over 60. */
  readonly mannKendallP: number | null
  readonly isDrifting: boolean
}

const SIGNIFICANCE = 0.05
const FEWEST_PULLS = 4

const MOST_FOR_EXACT = 60

/**
 * Chance of |S| or more among all orders of n pulls, each as likely: S = n(n − 1)/2 − 2 inversions, and the count of orders with so many inversions grows
 * pull by pull (closed form).
 */
function exactChance(values: readonly number[], s: number): number | null {
  const n = values.length
  if (n > MOST_FOR_EXACT || new Set(values).size < n) return null
  let shares = [1]
  for (let size = 2; size <= n; size++) {
    const next = new Array<number>(shares.length + size - 1).fill(0)
    for (const [at, share] of shares.entries()) for (let more = 0; more < size; more++) next[at + more] = itemAt(next, at + more) + share / size
    shares = next
  }
  const pairs = (n * (n - 1)) / 2
  return Math.min(
    1,
    shares.reduce((sum, share, inversions) => (Math.abs(pairs - 2 * inversions) >= Math.abs(s) ? sum + share : sum), 0),
  )
}

/**
 * Whether successive pulls drift, as with heat soak: a straight line on the pull's number, t = b/SE(b) with n − 2 degrees of freedom, two-sided.
 * Source: least squares, closed form; Mann and Kendall's S and its exact chance beside it for few pulls. Rejects fewer than four pulls.
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
  return { slopePerPull, slopeSd, pValue, mannKendallS, mannKendallP: exactChance(values, mannKendallS), isDrifting: pValue < SIGNIFICANCE }
}
