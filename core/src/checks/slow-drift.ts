import { itemAt } from '../item-at.ts'
import { mean } from '../stats/moments.ts'
import { studentTQuantile } from '../stats/student-t.ts'

/** One standard value as it was read after so much use: hot oil pressure at one speed, pump current at one duty. */
export interface UsedReading {
  readonly use: number
  readonly value: number
}

/** How a standard value drifts with use. */
export interface SlowDrift {
  /** Of the value for one of use, between these 19 times in 20. */
  readonly perUse: number
  readonly fromPerUse: number
  readonly toPerUse: number
  /** What the line says now. */
  readonly now: number
  /** The limit that it runs towards, and after how much more use it is there; null: none lies that way. */
  readonly limit: number | null
  readonly useLeft: number | null
}

/** Fewer say nothing of a drift. */
const FEWEST = 5
/** No further ahead than twice as far as it was read. */
const MOST_AHEAD = 2

/**
 * Whether a standard value drifts with use, by least squares, told where the interval of 19 in 20 leaves out nought; with the limit it runs towards. Null with
 * fewer than five readings, with no use between them, where it does not drift for sure, and where no limit is reached within twice the use that was read.
 * Source: least squares and Student's t.
 * @example slowDrift([0, 1, 2, 3, 4].map((use) => ({ use, value: 5 - 0.1 * use })), { low: 4.25, high: null }).useLeft // 3.5
 */
export function slowDrift(readings: readonly UsedReading[], { low, high }: { readonly low: number | null; readonly high: number | null }): SlowDrift | null {
  const n = readings.length
  if (n < FEWEST) return null
  const [middleUse, middle] = [mean(readings.map(({ use }) => use)), mean(readings.map(({ value }) => value))]
  const squares = readings.reduce((sum, { use }) => sum + (use - middleUse) ** 2, 0)
  if (squares === 0) return null
  const perUse = readings.reduce((sum, { use, value }) => sum + (use - middleUse) * (value - middle), 0) / squares
  const left = readings.reduce((sum, { use, value }) => sum + (value - middle - perUse * (use - middleUse)) ** 2, 0)
  const wide = studentTQuantile(0.975, n - 2) * Math.sqrt(left / (n - 2) / squares)
  if (Math.abs(perUse) <= wide || perUse === 0) return null
  const uses = readings.map(({ use }) => use).sort((a, b) => a - b)
  const [first, last] = [itemAt(uses, 0), itemAt(uses, n - 1)]
  const now = middle + perUse * (last - middleUse)
  const limit = perUse < 0 ? low : high
  const useLeft = limit === null ? null : (limit - now) / perUse
  if (useLeft !== null && (useLeft < 0 || useLeft > MOST_AHEAD * (last - first))) return null
  return { perUse, fromPerUse: perUse - wide, toPerUse: perUse + wide, now, limit, useLeft }
}
