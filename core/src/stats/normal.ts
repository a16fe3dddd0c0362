import { requireFinite, requireWithin } from '../errors.ts'
import { regularisedGammaP, regularisedGammaQ } from './incomplete-gamma.ts'

/**
 * Cumulative normal distribution Φ(z) = ½ + ½ sign(z) P(½, z²/2).
 * Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1 and 6.5 (from memory).
 * @example normalCdf(1.959963984540054) // 0.975
 */
export function normalCdf(z: number): number {
  requireFinite(z, 'z')
  const half = (z * z) / 2
  return z >= 0 ? 0.5 + 0.5 * regularisedGammaP(0.5, half) : 0.5 * regularisedGammaQ(0.5, half)
}

/** Density of the normal distribution. */
export const normalDensity = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)

/**
 * The inverse of normalCdf: the rational start of Abramowitz and Stegun 26.2.23 (from memory), then Halley's steps to the last bits. Valid for 1e-15 ≤ p ≤ 1 − 1e-15;
 * rejects the rest.
 * @example normalQuantile(0.975) // 1.959963984540054
 */
export function normalQuantile(probability: number): number {
  requireWithin(probability, 1e-15, 1 - 1e-15, 'probability')
  if (probability > 0.5) return -normalQuantile(1 - probability)
  const t = Math.sqrt(-2 * Math.log(probability))
  let z = (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308))) - t
  for (let i = 0; i < 4; i++) {
    const off = (normalCdf(z) - probability) / normalDensity(z)
    const step = off / (1 + (z * off) / 2)
    z -= step
    if (Math.abs(step) < 1e-9) break
  }
  return z
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
