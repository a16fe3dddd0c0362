import { itemAt } from '../item-at.ts'
import { gapByClock, type LapTrace } from './lap-trace.ts'

/** A lap of a log along its track, with its speeds. */
export interface TracedLap extends Pick<LapTrace, 'atM' | 'timeS'> {
  readonly lapS: number
  readonly speedMps: ArrayLike<number>
}

/** One corner of two laps. */
export interface CornerSides {
  readonly name: string
  readonly leastA: number
  readonly leastB: number
  /** What B loses from where this corner begins to where the next does, s. */
  readonly lostS: number
}

const leastIn = ({ atM, speedMps }: TracedLap, fromM: number, toM: number): number => {
  let least = Number.POSITIVE_INFINITY
  for (let i = 0; i < atM.length; i++) if (itemAt(atM, i) >= fromM && itemAt(atM, i) <= toM) least = Math.min(least, itemAt(speedMps, i))
  return least
}

/**
 * Corner by corner of two laps: least speeds, and what B loses from its begin to that of the next; the last one's runs to the line, the first one's begins
 * there, so that all of them make the difference of the laps.
 * @example cornerSides({ atM: [0, 50, 100], timeS: [0, 2, 4], lapS: 4, speedMps: [25, 20, 25] }, { atM: [0, 50, 100], timeS: [0, 3, 5], lapS: 5, speedMps: [25, 15, 25] }, 100, [{ name: '1', fromM: 40, toM: 60 }])[0].lostS // 1
 */
export function cornerSides(
  a: TracedLap,
  b: TracedLap,
  lengthM: number,
  corners: readonly { readonly name: string; readonly fromM: number; readonly toM: number }[],
): readonly CornerSides[] {
  const begins = corners.map(({ fromM }, i) => (i === 0 ? 0 : fromM))
  const gap = gapByClock(a, b, lengthM, [...begins, lengthM])
  return corners.map(({ name, fromM, toM }, i) => ({
    name,
    leastA: leastIn(a, fromM, toM),
    leastB: leastIn(b, fromM, toM),
    lostS: itemAt(gap, i + 1) - itemAt(gap, i),
  }))
}
