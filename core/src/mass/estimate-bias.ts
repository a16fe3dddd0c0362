import { CalculationError, requirePositive } from '../errors.ts'
import { assumedBias, type LogBias, learnLogBias } from '../stats/log-bias.ts'
import { studentTQuantile } from '../stats/student-t.ts'

export interface GuessPair {
  readonly guessKg: number
  readonly measuredKg: number
}

export type GuessBias = LogBias

/** Starting values until five pairs exist: guesses run 3 % light, 15 % spread (common practice, no source). */
export const DEFAULT_BIAS: GuessBias = assumedBias(0.03, 0.15)

/** What comes off is guessed with the part in the hand, and runs neither light nor heavy until it is known (common practice, no source). */
export const DEFAULT_OFF_BIAS: GuessBias = { ...DEFAULT_BIAS, mu: 0 }

/** How guesses run, learned apart: of what comes off, and of what goes on with the pieces that go back. */
export interface GuessBiases {
  readonly off: GuessBias
  readonly on: GuessBias
}
export type GuessSide = keyof GuessBiases

/**
 * Learns by how much guesses run light or heavy from pairs of a guess and its later measurement.
 * mu = mean ln(measured/guess), s its sample spread, v = s²/n. Fewer than five pairs: `whenFew` with their count.
 * Source: log-normal estimation error, closed form. Rejects masses of zero or less.
 */
export function estimateBias(pairs: readonly GuessPair[], whenFew: GuessBias = DEFAULT_BIAS): GuessBias {
  const logs = pairs.map((pair, i) => {
    requirePositive(pair.guessKg, `pairs[${i}].guessKg`)
    requirePositive(pair.measuredKg, `pairs[${i}].measuredKg`)
    return Math.log(pair.measuredKg / pair.guessKg)
  })
  return learnLogBias(logs, whenFew)
}

/**
 * Learns both sides, each of its own pairs.
 * @example estimateBiases({ on: [], off: [] }).off.mu // 0
 */
export const estimateBiases = (pairs: Readonly<Record<GuessSide, readonly GuessPair[]>>): GuessBiases => ({
  off: estimateBias(pairs.off, DEFAULT_OFF_BIAS),
  on: estimateBias(pairs.on),
})

/** The quantile of a new part guessed at `guessKg`: E exp(mu + t s √(1 + 1/n)), with Student's t for a learned bias. Rejects a guess of zero or less, and a bias that was not learned. */
export function predictQuantileKg(guessKg: number, bias: GuessBias, probability: number): number {
  requirePositive(guessKg, 'guessKg')
  if (bias.isDefault) throw new CalculationError('missing', 'pairs', 'A prediction interval needs at least five pairs of guess and measurement.')
  const t = studentTQuantile(probability, bias.pairCount - 1)
  return guessKg * Math.exp(bias.mu + t * bias.s * Math.sqrt(1 + 1 / bias.pairCount))
}

/** Where the ratio of measured to guessed itself lies, 8 times in 10: exp(mu ± t √v), with Student's t for a learned bias. */
export function ratioInterval(bias: GuessBias): { low: number; high: number } {
  const half = studentTQuantile(0.9, bias.isDefault ? 2 : bias.pairCount - 1) * Math.sqrt(bias.v)
  return { low: Math.exp(bias.mu - half), high: Math.exp(bias.mu + half) }
}

/** The relative spread a person typed for a guess, as the log-space spread of the same relative size. */
export const logSpread = (relativeSd: number): number => Math.sqrt(Math.log(1 + relativeSd ** 2))

/** Mean of a guess corrected for the bias: E exp(mu + s²/2 + v/2). `s` may be the guess's own typed spread. */
export const correctedGuessKg = (guessKg: number, bias: GuessBias, s: number = bias.s): number => guessKg * Math.exp(bias.mu + s ** 2 / 2 + bias.v / 2)
