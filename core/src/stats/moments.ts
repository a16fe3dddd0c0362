import { itemAt } from '../item-at.ts'
/** Arithmetic mean of one value or more. */
export const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

/** Sample standard deviation with n − 1; needs two values or more. */
export function sampleSd(values: readonly number[]): number {
  const centre = mean(values)
  return Math.sqrt(values.reduce((sum, value) => sum + (value - centre) ** 2, 0) / (values.length - 1))
}

/** The middle value of an unsorted list of one value or more; the input is not changed. */
export function median(values: readonly number[]): number {
  // A typed array sorts numbers by itself, many times faster than with a comparison.
  const sorted = Float64Array.from(values).sort()
  const middle = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? itemAt(sorted, middle) : (itemAt(sorted, middle - 1) + itemAt(sorted, middle)) / 2
}

/** Root of the sum of squares: how independent spreads add. */
export const quadrature = (...spreads: readonly number[]): number => Math.hypot(...spreads)
