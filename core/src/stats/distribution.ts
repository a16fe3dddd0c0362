import { normalCdf, normalQuantile } from './normal.ts'

/** How likely each value is: a normal, or a log-normal that starts at `floor`; mean and sd in the unit of the value. */
export interface Distribution {
  readonly shape: 'normal' | 'lognormal'
  readonly floor: number
  readonly mean: number
  readonly sd: number
}

export const normalDistribution = (mean: number, sd: number): Distribution => ({ shape: 'normal', floor: 0, mean, sd })

function lognormalTerms(distribution: Distribution): { mu: number; sigma: number } {
  const above = distribution.mean - distribution.floor
  const sigma2 = Math.log(1 + (distribution.sd / above) ** 2)
  return { mu: Math.log(above) - sigma2 / 2, sigma: Math.sqrt(sigma2) }
}

/** P(value ≤ limit). A spread of zero gives 0 or 1. */
export function chanceAtMost(distribution: Distribution, limit: number): number {
  const z = (limit - distribution.mean) / distribution.sd
  // A spread of nothing, or so small that the distance is no number of them.
  if (!Number.isFinite(z)) return distribution.mean <= limit ? 1 : 0
  if (distribution.shape === 'normal') return normalCdf(z)
  if (limit <= distribution.floor) return 0
  const { mu, sigma } = lognormalTerms(distribution)
  const own = (Math.log(limit - distribution.floor) - mu) / sigma
  // A mean that rounding put onto its floor has no shape of its own.
  return Number.isFinite(own) ? normalCdf(own) : distribution.mean <= limit ? 1 : 0
}

/** The value that is not passed with the given probability, 0 < p < 1 (rejected by normalQuantile otherwise). */
export function quantileOf(distribution: Distribution, probability: number): number {
  const z = normalQuantile(probability)
  if (distribution.shape === 'normal') return distribution.mean + z * distribution.sd
  const { mu, sigma } = lognormalTerms(distribution)
  return distribution.floor + Math.exp(mu + sigma * z)
}
