import { itemAt } from '../item-at.ts'

/**
 * How often each value of the rank sum statistic U comes up among all ways to deal n1 + n2 different numbers to two sides: n1 n2 + 1 counts that add up to
 * C(n1 + n2, n1). Source: the recurrence of Mann and Whitney (from memory).
 * @example rankSumCounts(2, 2) // [1, 1, 2, 1, 1]
 */
export function rankSumCounts(n1: number, n2: number): readonly number[] {
  // Ways to make each sum of n1 parts, none over n2: one factor (1 − x^(n2+i))/(1 − x^i) after another.
  const counts = new Float64Array(n1 * n2 + 1)
  counts[0] = 1
  for (let i = 1; i <= n1; i++) {
    const [up, down] = [n2 + i, i]
    for (let u = counts.length - 1; u >= up; u--) counts[u] = itemAt(counts, u) - itemAt(counts, u - up)
    for (let u = down; u < counts.length; u++) counts[u] = itemAt(counts, u) + itemAt(counts, u - down)
  }
  return [...counts]
}

/** Of so many pairs the exact distribution is counted; beyond it the normal one is as good. */
export const MOST_EXACT_PAIRS = 2500

/**
 * The largest k for which P(U ≤ k − 1) is at most a tail, 0 where there is none: the k-th pairwise difference from either end bounds the shift.
 * @example rankBound(6, 6, 0.025) // 6
 */
export function rankBound(n1: number, n2: number, tail: number): number {
  if (n1 * n2 > MOST_EXACT_PAIRS) {
    const spread = Math.sqrt((n1 * n2 * (n1 + n2 + 1)) / 12)
    // 1.96 of the normal distribution's own; the exact count differs from it by less than one here.
    return Math.max(0, Math.floor((n1 * n2) / 2 - 1.959964 * spread))
  }
  const counts = rankSumCounts(n1, n2)
  const all = counts.reduce((sum, count) => sum + count, 0)
  let [sum, k] = [0, 0]
  for (const count of counts) {
    sum += count
    if (sum / all > tail) break
    k++
  }
  return k
}
