import { itemAt } from '../item-at.ts'
import type { Motion } from './motion.ts'
import { run } from './run.ts'

/** What leaving a gear too early or too late costs, s, until the next gear's end. */
export interface ShiftCost {
  readonly gear: number
  readonly leaveRpm: number
  /** Where the next gear begins after the shift, without the time that it takes. */
  readonly landsRpm: number
  readonly earlyS: number
  /** Null: the gear ends before. */
  readonly lateS: number | null
}

/**
 * What leaving each gear so many rpm early or late costs until the next gear's end. The best speed costs nothing; where a gear is left at its end there is no late.
 * rpm over 0 and up to 3000. Source: two runs from one speed.
 * @example shiftCosts(MOTION, LEAVE, 250)[2].lateS // 0.0222
 */
export function shiftCosts(motion: Motion, leaveRpm: readonly number[], byRpm: number): ShiftCost[] {
  return leaveRpm.map((leave, i): ShiftCost => {
    const [gear, next] = [itemAt(motion.gears, i), itemAt(motion.gears, i + 1)]
    const early = Math.max(leave - byRpm, motion.speedRpm(gear, Math.max(gear.firstMps, next.firstMps)))
    const fromMps = motion.speedMps(gear, early)
    const time = (rpm: number) => {
      const tried = leaveRpm.map((each, other) => (other === i ? rpm : other > i ? motion.car.topRpm : each))
      return run({ motion, leaveRpm: tried, fromMps, fromGear: gear.number, toMps: next.topMps }).at(-1)?.to.timeS ?? 0
    }
    const best = time(leave)
    return {
      gear: gear.number,
      leaveRpm: leave,
      landsRpm: (leave * next.ratio) / gear.ratio,
      earlyS: time(early) - best,
      lateS: leave + byRpm <= motion.car.topRpm ? time(leave + byRpm) - best : null,
    }
  })
}
