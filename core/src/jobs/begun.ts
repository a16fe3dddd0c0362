import { requirePositive } from '../errors.ts'
import type { LogBias } from '../stats/log-bias.ts'
import { normalCdf, normalQuantile } from '../stats/normal.ts'

/** What is left of something: its mean and spread, in the unit it was guessed in. */
export interface Left {
  readonly mean: number
  readonly sd: number
}

/** How long it is, at one draw: `zKind` is shared by all of its kind, `zOwn` is its own. */
interface Drawn {
  readonly guess: number
  readonly spent: number
  readonly bias: LogBias
  readonly zKind: number
  readonly zOwn: number
}

/** Under this much of the distribution left, what is left of it is told by its density alone. */
const TAIL = 6

/**
 * What is left of a job or a wait at one draw: g exp(mu + √v zKind + s zOwn); where so much was spent already, of those that take longer than that:
 * T = exp(m + s Φ⁻¹(p + Φ(zOwn)(1 − p))), p = Φ((ln w − m)/s), less w. More than nothing, whatever was spent.
 * Source: truncated log-normal, closed form. Rejects a guess of zero or less.
 * @example drawLeft({ guess: 10, spent: 0, bias: USUAL_OPTIMISM.arrival, zKind: 0, zOwn: 0 }).toFixed(3) // '11.618'
 */
export function drawLeft({ guess, spent, bias, zKind, zOwn }: Drawn): number {
  const m = Math.log(requirePositive(guess, 'guess')) + bias.mu + Math.sqrt(bias.v) * zKind
  if (!(spent > 0)) return Math.exp(m + bias.s * zOwn)
  // Counted from the far end, so that little is left exactly: 1 − p = Φ(−a), and the share over the draw is Φ(−zOwn) of it.
  const a = (Math.log(spent) - m) / bias.s
  if (a > TAIL) return farLeft(spent, a, bias.s, normalCdf(-zOwn))
  const over = Math.max(1e-15, normalCdf(-a) * normalCdf(-zOwn))
  return Math.max(0, Math.exp(m - bias.s * normalQuantile(Math.min(over, 1 - 1e-15))) - spent)
}

/** Far over its guess the logarithm runs out exponentially, at the rate a + 1/a: of u left over, w (u^(−s/(a + 1/a)) − 1). Source: Mills' ratio. */
const farLeft = (spent: number, a: number, s: number, over: number): number => spent * Math.expm1((-s * Math.log(Math.max(over, 1e-15))) / (a + 1 / a))

/**
 * Φ(a)/Φ(b), as exact where both are next to nothing. Source: Mills' ratio by continued fraction beyond 6.
 */
function cdfRatio(a: number, b: number): number {
  if (a > -TAIL || b > -TAIL) return normalCdf(a) / normalCdf(b)
  return (Math.exp((b * b - a * a) / 2) * millsRatio(-a)) / millsRatio(-b)
}

/** (1 − Φ(x))/φ(x) for large x, by Laplace's continued fraction. */
function millsRatio(x: number): number {
  let below = x
  for (let i = 60; i > 0; i--) below = x + i / below
  return 1 / below
}

/**
 * Mean and spread of what is left of a guess of which `spent` is done: T log-normal(m = ln g + mu, σ² = s² + v) given T > w, less w.
 * E[T] = e^(m + σ²/2) Φ((m + σ² − ln w)/σ)/Φ((m − ln w)/σ), the second moment with 2m + 2σ² and 2σ².
 * Source: truncated log-normal, closed form. Rejects a guess of zero or less.
 * @example leftOf(6, 0, USUAL_OPTIMISM.work).mean.toFixed(3) // '10.245'
 */
export function leftOf(guess: number, spent: number, { mu, s, v }: LogBias): Left {
  const m = Math.log(requirePositive(guess, 'guess')) + mu
  const sigma = Math.sqrt(s ** 2 + v)
  const [first, second] = [Math.exp(m + sigma ** 2 / 2), Math.exp(2 * m + 2 * sigma ** 2)]
  if (!(spent > 0)) return { mean: first, sd: Math.sqrt(second - first ** 2) }
  const a = (m - Math.log(spent)) / sigma
  const mean = first * cdfRatio(a + sigma, a)
  return { mean: mean - spent, sd: Math.sqrt(Math.max(0, second * cdfRatio(a + 2 * sigma, a) - mean ** 2)) }
}
