import { itemAt } from '../item-at.ts'
import { quadrature } from '../stats/moments.ts'
import type { Quantity } from './quantity.ts'

export interface Measurement {
  readonly value: number
  readonly sd: number
  /** Scale set, scale or dyno; two unnamed ones count as the same instrument. */
  readonly instrument?: string | undefined
}

export interface CombinedMeasurements extends Quantity {
  /** Index of the measurement that agreed with the one that stands, and made it confirmed. */
  readonly agreesWith?: number
  /** Index of the earlier one that disagrees with the one that stands. */
  readonly disagreesWith?: number
}

/**
 * Whether two measurements of one thing agree: |x1 − x2| ≤ 2 √(s1² + s2²), and both spreads small enough to mean
 * something (`largestUsefulSd`, in the unit of the values). Source: common practice, no source.
 */
export function measurementsAgree(a: Measurement, b: Measurement, largestUsefulSd: number): boolean {
  return Math.abs(a.value - b.value) <= 2 * quadrature(a.sd, b.sd) && a.sd <= largestUsefulSd && b.sd <= largestUsefulSd
}

/**
 * Puts independent measurements of one thing together; the first in the list is the one that stands (the latest, or the
 * one a person picked). One that agrees with it makes it confirmed: inverse-variance mean, and the spread of that mean when the
 * instruments differ, else the smaller single spread, because one instrument's own error does not average out. When none
 * agrees the first stands and its spread is at least |x1 − x2|/√2.
 */
export function combineMeasurements(list: readonly [Measurement, ...Measurement[]], largestUsefulSd: (value: number) => number): CombinedMeasurements {
  const first = list[0]
  const limit = largestUsefulSd(first.value)
  for (let i = 1; i < list.length; i++) {
    const other = itemAt(list, i)
    if (!measurementsAgree(first, other, limit)) continue
    const [v1, v2] = [first.sd ** 2, other.sd ** 2]
    const value = v1 + v2 === 0 ? first.value : (first.value * v2 + other.value * v1) / (v1 + v2)
    const sameInstrument = first.instrument === other.instrument
    const sd = sameInstrument || v1 + v2 === 0 ? Math.min(first.sd, other.sd) : Math.sqrt((v1 * v2) / (v1 + v2))
    return { value, sd, proof: 'confirmed', agreesWith: i }
  }
  const second = list[1]
  if (!second) return { value: first.value, sd: first.sd, proof: 'measured' }
  const gap = Math.abs(first.value - second.value)
  if (gap <= 2 * quadrature(first.sd, second.sd)) return { value: first.value, sd: first.sd, proof: 'measured' }
  return { value: first.value, sd: Math.max(first.sd, gap / Math.SQRT2), proof: 'measured', disagreesWith: 1 }
}
