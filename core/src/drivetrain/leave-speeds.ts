import { itemAt } from '../item-at.ts'
import { signChange } from './integrate.ts'
import type { GearFacts, Motion } from './motion.ts'

export const LEAVE_SCHOOLS = ['acceleration', 'power', 'force'] as const
/** What must not be less in the next gear at the same road speed: acceleration, power (equal wheel force), or force over the mass that turns with it. */
export type LeaveSchool = (typeof LEAVE_SCHOOLS)[number]
export const LEAVE_SCHOOL_WORDS: Record<LeaveSchool, string> = {
  acceleration: 'by acceleration: with resistance, turning masses and grip',
  power: 'by power: where the next gear gives as much force',
  force: 'by force over the mass that turns with it',
}

const MEASURES: Record<LeaveSchool, (motion: Motion, gear: GearFacts, speedMps: number) => number> = {
  acceleration: (motion, gear, speed) => motion.acceleration(gear, speed),
  power: (motion, gear, speed) => motion.driveForceN(gear, speed),
  force: (motion, gear, speed) => motion.driveForceN(gear, speed) / gear.effectiveMassKg,
}

/** Kinks nearer to each other than this share of the speed hide no bend of the grip. */
const SHORT_SHARE = 0.03

/** Speeds between which neither of two gears has a kink, from high to low. */
function piecesDown(gear: GearFacts, next: GearFacts): number[] {
  const low = Math.max(gear.firstMps, next.firstMps)
  const kinks = [...gear.kinksMps, ...next.kinksMps].filter((speed) => speed > low && speed < gear.topMps)
  const places = [...new Set([gear.topMps, ...kinks, low])].sort((a, b) => b - a)
  // Two bends of the grip may lie between kinks that are far apart: each piece is looked at in four.
  return places.flatMap((speed, i) => {
    const after = places[i + 1]
    return after === undefined || speed - after < SHORT_SHARE * speed ? [speed] : [0, 1, 2, 3].map((part) => speed + ((after - speed) * part) / 4)
  })
}

/** The last speed, m/s, at which a gear still does at least as well as the next one. */
function leaveMps(motion: Motion, gear: GearFacts, next: GearFacts, school: LeaveSchool): number {
  if (next.firstMps >= gear.topMps) return gear.topMps
  const ahead = (speed: number) => MEASURES[school](motion, gear, speed) - MEASURES[school](motion, next, speed)
  // Both at the limit of the tyres: the later one. What is less than rounding is nothing.
  const isAhead = (speed: number) => ahead(speed) >= -1e-12 * Math.abs(MEASURES[school](motion, gear, speed))
  const places = piecesDown(gear, next)
  if (isAhead(itemAt(places, 0))) return gear.topMps
  for (let i = 0; i + 1 < places.length; i++) {
    const [high, low] = [itemAt(places, i), itemAt(places, i + 1)]
    if (isAhead(low)) return signChange((speed) => (isAhead(speed) ? 1 : -1), low, high)
  }
  return itemAt(places, places.length - 1)
}

/**
 * The engine speed at which to leave each gear but the last, rpm: the last at which it still does at least as well as the next at the same road speed, by a
 * school. Up to the top speed of the engine. Source: F.6 and the room's page.
 * @example leaveSpeeds(MOTION, 'acceleration')[1] // 7044.5
 */
export function leaveSpeeds(motion: Motion, school: LeaveSchool = 'acceleration'): number[] {
  return motion.gears.slice(0, -1).map((gear, i) => {
    const next = itemAt(motion.gears, i + 1)
    const speed = leaveMps(motion, gear, next, school)
    return speed === gear.topMps ? motion.car.topRpm : motion.speedRpm(gear, speed)
  })
}
