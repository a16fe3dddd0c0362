import { CalculationError, requireWithin } from '../errors.ts'
import { mean, sampleSd } from '../stats/moments.ts'
import { studentTCdf, studentTQuantile } from '../stats/student-t.ts'

export type CompareVerdict = 'real' | 'within noise' | 'too few pulls'

export interface PullComparison {
  /** Second less first. */
  readonly difference: number
  readonly low: number | null
  readonly high: number | null
  /** The smallest difference that these pulls would show as real. */
  readonly smallestReal: number | null
  readonly pValue: number | null
  readonly degreesOfFreedom: number | null
  readonly verdict: CompareVerdict
}

/** One session differs from the next by so much, relative, beyond what its pulls show (common practice, no source). */
export const BETWEEN_SESSIONS_RELATIVE_SD = 0.01

/**
 * Two sets of pulls, each a number: difference, interval, and whether it is real. Welch: SE = √(s²_A/n_A + s²_B/n_B), ν by Welch and Satterthwaite;
 * real where |Δ| exceeds t SE. Sets of different sessions carry what one session differs from the next, which pull-to-pull spread cannot see.
 * Fewer than two pulls in a set: too few. Source: Welch 1947, closed form. Rejects confidences outside 0.5 to 0.999.
 */
export function comparePulls(input: {
  first: readonly number[]
  second: readonly number[]
  confidence?: number | undefined
  isSameSession?: boolean | undefined
}): PullComparison {
  const { first, second, confidence = 0.95, isSameSession = true } = input
  requireWithin(confidence, 0.5, 0.999, 'confidence')
  if (first.length === 0 || second.length === 0)
    throw new CalculationError('missing', first.length === 0 ? 'first' : 'second', 'A set holds no pull. Pick at least one for each.')
  const difference = mean(second) - mean(first)
  if (first.length < 2 || second.length < 2)
    return { difference, low: null, high: null, smallestReal: null, pValue: null, degreesOfFreedom: null, verdict: 'too few pulls' }
  const parts = [first, second].map((set) => sampleSd(set) ** 2 / set.length) as [number, number]
  const within = parts[0] + parts[1]
  const welch = within === 0 ? first.length + second.length - 2 : within ** 2 / (parts[0] ** 2 / (first.length - 1) + parts[1] ** 2 / (second.length - 1))
  const between = isSameSession ? 0 : 2 * (BETWEEN_SESSIONS_RELATIVE_SD * mean(first)) ** 2
  const standardError = Math.sqrt(within + between)
  const smallestReal = studentTQuantile(1 - (1 - confidence) / 2, welch) * standardError
  const pValue = standardError === 0 ? (difference === 0 ? 1 : 0) : 2 * (1 - studentTCdf(Math.abs(difference) / standardError, welch))
  return {
    difference,
    low: difference - smallestReal,
    high: difference + smallestReal,
    smallestReal,
    pValue,
    degreesOfFreedom: welch,
    verdict: Math.abs(difference) > smallestReal ? 'real' : 'within noise',
  }
}

/**
 * The gain that n pulls a set would find 8 times in 10: (t_{α/2} + t_β) √(2 s²/n + 2 b²), ν = 2n − 2, with b what one session differs from the next; nothing
 * within one. Source: closed form with central t. Rejects fewer than two pulls.
 */
export function smallestGainFound(sd: number, pullCount: number, confidence = 0.95, { power = 0.8, betweenSd = 0 } = {}): number {
  if (!(pullCount >= 2)) throw new CalculationError('out-of-range', 'pullCount', 'A plan needs at least two pulls a set.')
  const freedom = 2 * pullCount - 2
  return (studentTQuantile(1 - (1 - confidence) / 2, freedom) + studentTQuantile(power, freedom)) * Math.sqrt((2 * sd ** 2) / pullCount + 2 * betweenSd ** 2)
}
