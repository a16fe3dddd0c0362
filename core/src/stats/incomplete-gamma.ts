import { itemAt } from '../item-at.ts'

// Lanczos coefficients, g = 7, n = 9 (published by P. Godfrey; from memory, checked against Γ(n) = (n − 1)! in the tests).
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012,
  9.9843695780195716e-6, 1.5056327351493116e-7,
] as const

/** ln Γ(x) for x > 0. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x)
  const t = x + 6.5
  let sum: number = LANCZOS[0]
  for (let i = 1; i < LANCZOS.length; i++) sum += itemAt(LANCZOS, i) / (x - 1 + i)
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum)
}

const frontOf = (a: number, x: number): number => Math.exp(-x + a * Math.log(x) - logGamma(a))

/** P(a, x) by its series, which converges below a + 1. */
function lowerSeries(a: number, x: number): number {
  let term = 1 / a
  let sum = term
  for (let n = 1; n < 500 && Math.abs(term) > Math.abs(sum) * 1e-17; n++) {
    term *= x / (a + n)
    sum += term
  }
  return sum * frontOf(a, x)
}

/** Q(a, x) by Lentz's continued fraction, which converges above a + 1. */
function upperFraction(a: number, x: number): number {
  let b = x + 1 - a
  let c = 1e300
  let d = 1 / b
  let h = d
  for (let i = 1; i < 500; i++) {
    const an = -i * (i - a)
    b += 2
    d = 1 / (an * d + b)
    c = b + an / c
    const delta = d * c
    h *= delta
    if (Math.abs(delta - 1) < 1e-16) break
  }
  return frontOf(a, x) * h
}

/**
 * Regularised lower incomplete gamma function P(a, x), by its series below a + 1 and by Lentz's continued fraction above.
 * Source: Abramowitz and Stegun 6.5.29 and 6.5.31 (from memory). Valid for a > 0, x ≥ 0.
 */
export function regularisedGammaP(a: number, x: number): number {
  if (x <= 0) return 0
  return x < a + 1 ? lowerSeries(a, x) : 1 - upperFraction(a, x)
}

/** What regularisedGammaP leaves of one, as exact where that is next to nothing. Source and range as there. */
export function regularisedGammaQ(a: number, x: number): number {
  if (x <= 0) return 1
  return x < a + 1 ? 1 - lowerSeries(a, x) : upperFraction(a, x)
}
