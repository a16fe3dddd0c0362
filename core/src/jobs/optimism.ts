import { requirePositive } from '../errors.ts'
import { assumedBias, type LogBias, learnLogBias } from '../stats/log-bias.ts'

/** What guesses are made of, each learned apart: hours of work, days of waiting, days until a part comes, money. */
export const OPTIMISM_KINDS = ['work', 'wait', 'arrival', 'money'] as const
export type OptimismKind = (typeof OPTIMISM_KINDS)[number]

/** How guesses run until five are known (assumed, no source): work takes half as long again, and a strip guessed at one day a week of evenings. */
export const USUAL_OPTIMISM: Readonly<Record<OptimismKind, LogBias>> = {
  work: assumedBias(0.4, 0.45),
  wait: assumedBias(0.25, 0.4),
  arrival: assumedBias(0.15, 0.35),
  money: assumedBias(0.1, 0.2),
}

/** A guess and what came of it, both in hours, days or money. */
export interface RealPair {
  readonly guess: number
  readonly real: number
}

/** What guesses came to, kind by kind. */
export type RealPairs = Readonly<Record<OptimismKind, readonly RealPair[]>>

/**
 * Pairs of several builds as one.
 * @example joinedPairs([]).work // []
 */
export const joinedPairs = (all: readonly RealPairs[]): RealPairs =>
  Object.fromEntries(OPTIMISM_KINDS.map((kind) => [kind, all.flatMap((pairs) => pairs[kind])])) as unknown as RealPairs

export type Optimism = Readonly<Record<OptimismKind, LogBias>>

/**
 * How guesses of one kind run: mu, s of ln(real/guess), v = s²/n; fewer than five pairs: the usual one. Rejects guesses and realities of zero or less.
 * @example learnOptimism('work', []).mu // 0.4
 */
export function learnOptimism(kind: OptimismKind, pairs: readonly RealPair[]): LogBias {
  const logs = pairs.map(({ guess, real }, i) => Math.log(requirePositive(real, `pairs.${i}.real`) / requirePositive(guess, `pairs.${i}.guess`)))
  return learnLogBias(logs, USUAL_OPTIMISM[kind])
}

/**
 * How many times its guess a thing comes to: the middle of it, its mean, and what 8 in 10 lie between.
 * @example optimismFactors(USUAL_OPTIMISM.arrival).median.toFixed(3) // '1.162'
 */
export function optimismFactors({ mu, s, v }: LogBias): { readonly median: number; readonly mean: number; readonly low: number; readonly high: number } {
  const half = 1.2815515655446004 * Math.sqrt(s ** 2 + v)
  return { median: Math.exp(mu), mean: Math.exp(mu + s ** 2 / 2 + v / 2), low: Math.exp(mu - half), high: Math.exp(mu + half) }
}
