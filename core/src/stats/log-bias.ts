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
