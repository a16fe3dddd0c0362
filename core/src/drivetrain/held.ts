import { itemAt } from '../item-at.ts'
import type { Motion } from './motion.ts'

/** What holds a car back over a range of speeds: the tyres, the engine, a shift, or the end of the top gear. */
export interface Held {
  readonly fromMps: number
  readonly toMps: number
  readonly by: 'tyres' | 'engine' | 'shift' | 'revs'
  /** Counted from 1. */
  readonly gear: number
}

const STEPS = 60

/**
 * What holds a car that accelerates through its gears, from rest to a speed: ranges that follow each other without a gap. A shift takes the speed it is
 * made at and the little that is lost in it; past the top gear's end the revs hold it.
 * @example heldAlong(MOTION, LEAVE, 60).at(0).by // 'tyres'
 */
export function heldAlong(motion: Motion, leaveRpm: readonly number[], toMps: number): Held[] {
  const held: Held[] = []
  const add = (next: Held) => {
    const last = held.at(-1)
    if (next.toMps <= next.fromMps) return
    if (last && last.by === next.by && last.gear === next.gear) held[held.length - 1] = { ...last, toMps: next.toMps }
    else held.push(next)
  }
  let at = 0
  for (const gear of motion.gears) {
    const isLast = gear.number === motion.gears.length
    const leave = isLast ? gear.topMps : Math.min(gear.topMps, motion.speedMps(gear, leaveRpm[gear.number - 1] ?? motion.car.topRpm))
    const end = Math.min(leave, toMps)
    for (let step = 0; step < STEPS && at < end; step++) {
      const [from, to] = [at + ((end - at) * step) / STEPS, at + ((end - at) * (step + 1)) / STEPS]
      const middle = (from + to) / 2
      const isSlipping = gear.number === 1 && middle < motion.launchMps
      add({ fromMps: from, toMps: to, by: motion.overGrip(gear, middle, isSlipping) > 0 ? 'tyres' : 'engine', gear: gear.number })
    }
    at = Math.max(at, end)
    if (at >= toMps) return held
    if (!isLast) {
      const width = Math.min(toMps, at * 1.012)
      add({ fromMps: at, toMps: width, by: 'shift', gear: gear.number })
      at = width
    }
  }
  add({ fromMps: at, toMps, by: 'revs', gear: itemAt(motion.gears, motion.gears.length - 1).number })
  return held
}
