import { mean, sampleSd } from './moments.ts'

/** Lognormal model of how guesses run: r = ln(real/guess) has mean `mu`, spread `s`; `v` is the variance of `mu` itself. */
export interface LogBias {
  readonly mu: number
  readonly s: number
  readonly v: number
  readonly pairCount: number
  /** True while there are fewer than five pairs and the stated default is used. */
  readonly isDefault: boolean
}

/** How many pairs it takes to learn of. */
export const PAIRS_NEEDED = 5

/** A starting value that nobody learned: its own doubt is that of three pairs. */
export const assumedBias = (mu: number, s: number): LogBias => ({ mu, s, v: s ** 2 / 3, pairCount: 0, isDefault: true })

/**
 * Learns how guesses run of ln(real/guess): mu their mean, s their sample spread, v = s²/n. Fewer than five: `whenFew` with their count.
 * Source: log-normal estimation error, closed form.
 */
export function learnLogBias(logs: readonly number[], whenFew: LogBias): LogBias {
  if (logs.length < PAIRS_NEEDED) return { ...whenFew, pairCount: logs.length }
  const s = sampleSd(logs)
  return { mu: mean(logs), s, v: s ** 2 / logs.length, pairCount: logs.length, isDefault: false }
}

/** A sum: its mean and variance. */
export interface Sum {
  readonly mean: number
  readonly variance: number
}

/**
 * The sum of guesses that share the doubt in how guesses run: m_i = g_i exp(mu + s²/2 + v/2), cov_ij = m_i m_j (exp(v + s² [i = j]) − 1).
 * Source: sum of log-normals with a common term, closed form.
 * @example guessSum([100], { mu: 0, s: 0, v: 0, pairCount: 0, isDefault: true }).mean // 100
 */
export function guessSum(guesses: readonly number[], { mu, s, v }: LogBias): Sum {
  const factor = Math.exp(mu + s ** 2 / 2 + v / 2)
  const mean = guesses.reduce((sum, guess) => sum + guess * factor, 0)
  const own = guesses.reduce((sum, guess) => sum + (guess * factor) ** 2, 0) * (Math.expm1(v + s ** 2) - Math.expm1(v))
  return { mean, variance: own + mean ** 2 * Math.expm1(v) }
}
