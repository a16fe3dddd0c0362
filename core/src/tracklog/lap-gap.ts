import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** Speed by distance along a lap. */
export interface SpeedTrace {
  readonly atM: ArrayLike<number>
  readonly speedMps: ArrayLike<number>
}

function requireTrace({ atM, speedMps }: SpeedTrace, field: string): void {
  if (atM.length < 2 || atM.length !== speedMps.length) throw new CalculationError('missing', field, `${field} needs two places or more, each with a speed.`)
  for (let i = 0; i < atM.length; i++) {
    if (!(itemAt(speedMps, i) > 0))
      throw new CalculationError(
        'out-of-range',
        `${field}.speedMps.${i}`,
        `${field} stands still at ${itemAt(atM, i).toFixed(0)} m: a gap cannot be told over it.`,
      )
    if (i > 0 && !(itemAt(atM, i) > itemAt(atM, i - 1)))
      throw new CalculationError('inconsistent', `${field}.atM.${i}`, `${field} goes back at ${itemAt(atM, i).toFixed(0)} m.`)
  }
}

/** Slowness 1/v along a trace, straight in time between its places: what dt = 2 ds/(v + v') makes of it. */
function timeAlong({ atM, speedMps }: SpeedTrace): (s: number) => number {
  const time = new Float64Array(atM.length)
  for (let i = 1; i < atM.length; i++) {
    const ds = itemAt(atM, i) - itemAt(atM, i - 1)
    time[i] = itemAt(time, i - 1) + (2 * ds) / (itemAt(speedMps, i) + itemAt(speedMps, i - 1))
  }
  let k = 0
  return (s) => {
    while (k > 0 && itemAt(atM, k) > s) k--
    while (k < atM.length - 2 && itemAt(atM, k + 1) < s) k++
    const [a, b] = [itemAt(speedMps, k), itemAt(speedMps, k + 1)]
    const whole = itemAt(atM, k + 1) - itemAt(atM, k)
    const gone = Math.max(0, Math.min(whole, s - itemAt(atM, k)))
    // Constant acceleration within the piece: v² is straight in distance.
    const v = Math.sqrt(a * a + ((b * b - a * a) * gone) / whole)
    return itemAt(time, k) + (gone === 0 ? 0 : (2 * gone) / (a + v))
  }
}

/**
 * By how much B is behind A along a lap, s: ∫ (1/v_B − 1/v_A) ds, each piece at constant acceleration; over 0 where B has lost. Ends at the difference of both
 * laps, and changes its sign with the sides. Source: the room's page. Rejects a car that stands still, and places that go back.
 * @example lapGap({ atM: [0, 100], speedMps: [20, 20] }, { atM: [0, 100], speedMps: [25, 25] }, [0, 50, 100])[2] // -1
 */
export function lapGap(a: SpeedTrace, b: SpeedTrace, atM: readonly number[]): readonly number[] {
  requireTrace(a, 'a')
  requireTrace(b, 'b')
  const [timeA, timeB] = [timeAlong(a), timeAlong(b)]
  return atM.map((s) => timeB(s) - timeA(s))
}
