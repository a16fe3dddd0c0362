import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { normalCdf } from './normal.ts'
import { MOST_EXACT_PAIRS, rankBound, rankSumCounts } from './rank-sum.ts'

export const LAP_VERDICTS = ['real', 'noise', 'tooFew'] as const
/** Whether laps of two sides truly differ: the interval leaves out zero, or not, or there are too few for any interval. */
export type LapVerdict = (typeof LAP_VERDICTS)[number]

export interface LapComparison {
  /** B less A: the median of all pairwise differences, s. */
  readonly differenceS: number
  /** Null with too few laps. */
  readonly intervalS: { readonly from: number; readonly to: number } | null
  /** Two-sided, of the laps alone: what lies between two outings is not in it. */
  readonly p: number
  readonly isExact: boolean
  readonly verdict: LapVerdict
}

const TAIL = 0.025
const Z = 1.959964

function requireLaps(laps: readonly number[], field: string): void {
  if (laps.length < 1) throw new CalculationError('missing', field, `${field} has no clean lap. Mark a lap clean, or choose another session.`)
  if (laps.length > 2000) throw new CalculationError('out-of-range', field, `${field} has more than 2000 laps. Choose fewer sessions.`)
  laps.forEach((lap, i) => {
    if (!(lap > 0) || !Number.isFinite(lap))
      throw new CalculationError('out-of-range', `${field}.${i}`, `Lap ${i + 1} of ${field} is ${lap} s; it must be more than zero.`)
  })
}

/** U of the second side: pairs in which it is less, ties for half. */
function rankStatistic(a: readonly number[], b: readonly number[]): number {
  let u = 0
  for (const x of a) for (const y of b) u += y < x ? 1 : y === x ? 0.5 : 0
  return u
}

/** Σ (t³ − t) over groups of equal values. */
function tieSum(values: readonly number[]): number {
  const counts = new Map<number, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return [...counts.values()].reduce((sum, t) => sum + t ** 3 - t, 0)
}

function pOf(a: readonly number[], b: readonly number[]): { p: number; isExact: boolean } {
  const [n1, n2, n] = [a.length, b.length, a.length + b.length]
  const u = rankStatistic(a, b)
  const ties = tieSum([...a, ...b])
  if (ties === 0 && n1 * n2 <= MOST_EXACT_PAIRS) {
    const counts = rankSumCounts(n1, n2)
    const all = counts.reduce((sum, count) => sum + count, 0)
    const least = Math.min(u, n1 * n2 - u)
    const tail = counts.slice(0, least + 1).reduce((sum, count) => sum + count, 0) / all
    return { p: Math.min(1, 2 * tail), isExact: true }
  }
  const variance = ((n1 * n2) / 12) * (n + 1 - ties / (n * (n - 1)))
  if (!(variance > 0)) return { p: 1, isExact: false }
  const z = Math.max(0, Math.abs(u - (n1 * n2) / 2) - 0.5) / Math.sqrt(variance)
  return { p: Math.min(1, 2 * (1 - normalCdf(z))), isExact: false }
}

/**
 * Laps of two sides held beside each other: the median of all pairwise differences B − A, with an interval from exact ranks (the k-th difference from either
 * end, the largest k with P(U ≤ k − 1) ≤ 2.5 %), each end widened in quadrature by 1.96 √2 s_b where the sides were driven in different outings. p is exact,
 * with equal laps or over 2,500 pairs normal with correction. Source: the room's page; H.9. Up to 2,000 laps a side. Rejects a side without laps.
 * @example compareLaps({ aS: [82.91, 82.6, 83.05, 82.74], bS: [82.31, 82.52, 82.12, 82.4], betweenSdS: 0 }).verdict // 'real'
 */
export function compareLaps({ aS, bS, betweenSdS }: { aS: readonly number[]; bS: readonly number[]; betweenSdS: number }): LapComparison {
  requireLaps(aS, 'aS')
  requireLaps(bS, 'bS')
  if (!(betweenSdS >= 0)) throw new CalculationError('out-of-range', 'betweenSdS', `betweenSdS is ${betweenSdS}; it must be zero or more.`)
  const differences = new Float64Array(aS.length * bS.length)
  let at = 0
  for (const a of aS) for (const b of bS) differences[at++] = b - a
  differences.sort()
  const count = differences.length
  const middle = (count - 1) / 2
  const differenceS = 0.5 * (itemAt(differences, Math.floor(middle)) + itemAt(differences, Math.ceil(middle)))
  const k = rankBound(aS.length, bS.length, TAIL)
  const { p, isExact } = pOf(aS, bS)
  if (k < 1) return { differenceS, intervalS: null, p, isExact, verdict: 'tooFew' }
  const apart = Z * Math.SQRT2 * betweenSdS
  const from = differenceS - Math.hypot(differenceS - itemAt(differences, k - 1), apart)
  const to = differenceS + Math.hypot(itemAt(differences, count - k) - differenceS, apart)
  return { differenceS, intervalS: { from, to }, p, isExact, verdict: from > 0 || to < 0 ? 'real' : 'noise' }
}
