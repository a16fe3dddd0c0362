import type { Box, Change, MassValue } from '../../records/weight-kinds.ts'
import { scaleSdKg } from '../../stages/line-mass.ts'
import { boxDifferenceKg } from './entry-line.ts'

/** What a growing box reads with all that went in so far. */
export interface BoxState {
  readonly lastKg: number
  readonly count: number
}

/**
 * The last reading of a box and how many parts are in it.
 * @example boxState({ id: 'crate', emptyKg: 1.2 }, []) // { lastKg: 1.2, count: 0 }
 */
export function boxState(box: Pick<Box, 'id' | 'emptyKg'>, changes: readonly Pick<Change, 'values'>[]): BoxState {
  let last = { position: 0, readingKg: box.emptyKg }
  for (const { values } of changes) for (const value of values) if (value.box?.boxId === box.id && value.box.position > last.position) last = value.box
  return { lastKg: last.readingKg, count: last.position }
}

/**
 * The mass of a part that went into a box, as the difference of two readings, per piece: r(i) − r(i − 1), spread √2 of one reading's.
 * Kept in whole milligrams. Refuses a reading that did not grow.
 * @example boxValue({ id: 'crate', instrument: null, readingSdKg: 0.05, lastKg: 1.2, count: 0 }, { readingKg: 3.4, count: 1, typed: '3.4', at: '2026-03-01T10:00:00Z' }).massKg // 2.2
 */
export function boxValue(
  box: Pick<Box, 'id' | 'instrument' | 'readingSdKg'> & BoxState,
  reading: { readonly readingKg: number; readonly count: number; readonly typed: string; readonly at: string },
): MassValue {
  const difference = boxDifferenceKg(reading.readingKg, box.lastKg)
  const readingSdKg = box.readingSdKg ?? scaleSdKg(reading.readingKg)
  return {
    massKg: Math.round((difference / reading.count) * 1e6) / 1e6,
    sdKg: (readingSdKg * Math.SQRT2) / reading.count,
    proof: 'measured',
    typed: `box at ${reading.typed}`,
    at: reading.at,
    instrument: box.instrument,
    box: { boxId: box.id, position: box.count + 1, readingKg: reading.readingKg, readingSdKg },
  }
}
