import { requireFinite, requireWithin } from '../errors.ts'
import { regularisedGammaP } from './incomplete-gamma.ts'

/**
 * Cumulative normal distribution Φ(z) = ½ + ½ sign(z) P(½, z²/2).
 * Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1 and 6.5 (from memory).
 * @example normalCdf(1.959963984540054) // 0.975
 */
export function normalCdf(z: number): number {
  requireFinite(z, 'z')
  const half = 0.5 * regularisedGammaP(0.5, (z * z) / 2)
  return z >= 0 ? 0.5 + half : 0.5 - half
}

/** The inverse of normalCdf, by bisection to the last bits. Valid for 0 < p < 1. */
export function normalQuantile(probability: number): number {
  requireWithin(probability, 1e-15, 1 - 1e-15, 'probability')
  return bisect((z) => normalCdf(z) - probability, -9, 9)
}

/** The root of an increasing function between two bounds; 200 halvings at most. */
export function bisect(increasing: (x: number) => number, low: number, high: number): number {
  let [from, to] = [low, high]
  for (let i = 0; i < 200 && to - from > 1e-15 * Math.max(1, Math.abs(from)); i++) {
    const middle = (from + to) / 2
    if (increasing(middle) < 0) from = middle
    else to = middle
  }
  return (from + to) / 2
}
