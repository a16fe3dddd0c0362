import { requirePositive, requireWithin } from '../errors.ts'
import { logGamma } from './incomplete-gamma.ts'
import { bisect } from './normal.ts'

/** Regularised incomplete beta function, by Lentz's continued fraction (Abramowitz and Stegun 26.5.8, from memory). */
function regularisedBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  if (x > (a + 1) / (a + b + 2)) return 1 - regularisedBeta(1 - x, b, a)
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a
  let c = 1
  let d = 1 / (1 - ((a + b) * x) / (a + 1))
  let h = d
  for (let m = 1; m < 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
    d = 1 / (1 + even * d)
    c = 1 + even / c
    h *= d * c
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1))
    d = 1 / (1 + odd * d)
    c = 1 + odd / c
    const delta = d * c
    h *= delta
    if (Math.abs(delta - 1) < 1e-16) break
  }
  return front * h
}

/** Cumulative Student's t distribution with the given degrees of freedom. */
export function studentTCdf(t: number, degreesOfFreedom: number): number {
  requirePositive(degreesOfFreedom, 'degreesOfFreedom')
  const tail = 0.5 * regularisedBeta(degreesOfFreedom / (degreesOfFreedom + t * t), degreesOfFreedom / 2, 0.5)
  return t > 0 ? 1 - tail : tail
}

/**
 * The quantile of Student's t, by bisection on its cumulative distribution. Valid for 0 < p < 1.
 * @example studentTQuantile(0.975, 5) // 2.570582
 */
export function studentTQuantile(probability: number, degreesOfFreedom: number): number {
  requireWithin(probability, 1e-9, 1 - 1e-9, 'probability')
  return bisect((t) => studentTCdf(t, degreesOfFreedom) - probability, -1e4, 1e4)
}
