import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { signChange } from './integrate.ts'
import type { GearFacts, Motion } from './motion.ts'

export interface TopSpeed {
  readonly topMps: number
  readonly gear: number
  /** What holds it: resistance, or the end of the gear. */
  readonly heldBy: 'drag' | 'gearing' | 'tyres'
  /** The end of the tallest gear at the top speed of the engine. */
  readonly gearingMps: number
}

/** The last speed at which a gear still pulls; undefined where it never does. */
function lastPull(motion: Motion, gear: GearFacts): number | undefined {
  const pulls = (speed: number) => motion.acceleration(gear, speed) >= 0
  if (pulls(gear.topMps)) return gear.topMps
  const places = [...gear.kinksMps].filter((speed) => speed < gear.topMps).sort((a, b) => b - a)
  let before = gear.topMps
  for (const speed of places) {
    if (pulls(speed)) return signChange((each) => (pulls(each) ? 1 : -1), speed, before)
    before = speed
  }
  return undefined
}

/**
 * The greatest speed in any gear: where what resists is as large as what drives, or the end of the gear; the lesser. Level road, no wind.
 * Source: F.7, by halving on the falling branch. Rejects a car that no gear moves.
 * @example topSpeed(MOTION).heldBy // 'gearing'
 */
export function topSpeed(motion: Motion): TopSpeed {
  const found = motion.gears.flatMap((gear) => {
    const speed = lastPull(motion, gear)
    return speed === undefined ? [] : [{ gear, speed }]
  })
  if (found.length === 0) throw new CalculationError('out-of-range', 'curve', 'No gear moves the car: what resists it is more than any gear gives.')
  const { gear, speed } = found.reduce((best, each) => (each.speed > best.speed ? each : best))
  const heldBy = speed === gear.topMps ? 'gearing' : motion.overGrip(gear, speed) > 0 ? 'tyres' : 'drag'
  return { topMps: speed, gear: gear.number, heldBy, gearingMps: itemAt(motion.gears, motion.gears.length - 1).topMps }
}
