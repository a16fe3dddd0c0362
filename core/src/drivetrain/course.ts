import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { signChange } from './integrate.ts'
import type { GearFacts, Motion } from './motion.ts'
import { hardestGear, type Moment, momentAt, run, type Stretch } from './run.ts'

/** A corner of a course with the speed it is taken at, and the straight after it; null: none follows. */
export interface CourseCorner {
  readonly name: string
  readonly speedMps: number
  readonly straightM: number | null
}

export interface CourseQuestion {
  readonly motion: Motion
  readonly leaveRpm: readonly number[]
  readonly corners: readonly CourseCorner[]
  /** Whether the last straight leads to the first corner. */
  readonly isClosed: boolean
  readonly brakingMps2: number
}

/** How far under its leave speed the gear of a corner begins, so that no shift comes at once (common practice, no source). */
export const CORNER_GEAR_SHARE = 0.93
/** The share of the greatest power within which the engine is in its band. */
export const BAND_SHARE = 0.9

/** What is driven between two corners. */
export interface Straight {
  readonly corner: string
  /** Counted from 1; the gear that pulls hardest out of the corner. */
  readonly gear: number
  readonly speedRpm: number
  /** Of its time with full throttle, without braking. */
  readonly stretches: readonly Stretch[]
  readonly timeS: number
  readonly topMps: number
  /** Time at the end of the top gear. */
  readonly atEndS: number
  readonly isInBand: boolean
}

export interface CourseRun {
  readonly timeS: number
  readonly straights: readonly Straight[]
  /** Into each gear, from second on. */
  readonly upshiftsInto: readonly number[]
  readonly atEndS: number
  /** Share of the full-throttle time with a gear in within 90 % of the greatest power. */
  readonly bandShare: number
  readonly cornersOutsideBand: readonly string[]
}

/** Where on a run the brakes go on, so that the straight is used up; undefined where the run ends before. */
function brakingPoint(
  motion: Motion,
  stretches: readonly Stretch[],
  metres: number,
  toMps: number,
  brakingMps2: number,
): { at: number; moment: Moment } | undefined {
  const used = ({ distanceM, speedMps }: Moment) => distanceM + Math.max(0, speedMps ** 2 - toMps ** 2) / (2 * brakingMps2)
  const at = stretches.findIndex(({ to }) => used(to) >= metres)
  const found = stretches[at]
  if (!found) return undefined
  const share = signChange((part) => used(momentAt(motion, found, part)) - metres, 0, 1)
  return { at, moment: momentAt(motion, found, share) }
}

function straight(question: CourseQuestion, corner: CourseCorner, fromMps: number, toMps: number | undefined): { straight: Straight; endMps: number } | null {
  const { motion, leaveRpm, brakingMps2 } = question
  const { straightM: metres, name } = corner
  const gear = cornerGear(motion, leaveRpm, fromMps, name)
  const speedRpm = motion.speedRpm(gear, fromMps)
  const common = { corner: name, gear: gear.number, speedRpm, isInBand: isInBand(motion, speedRpm) }
  if (metres === null) return null
  const needed = toMps === undefined ? 0 : (fromMps ** 2 - toMps ** 2) / (2 * brakingMps2)
  if (toMps !== undefined && needed > metres) {
    const words = `${shown(fromMps)} to ${shown(toMps)} m/s needs ${needed.toFixed(0)} m; the straight has ${shown(metres)}.`
    throw new CalculationError('inconsistent', 'straightM', `${name}: ${words} Lengthen it, or check the speeds.`)
  }
  const driven = run({ motion, leaveRpm, fromMps, fromGear: gear.number, toM: metres })
  const brakes = toMps === undefined ? undefined : brakingPoint(motion, driven, metres, toMps, brakingMps2)
  const cut = brakes ? itemAt(driven, brakes.at) : undefined
  const stretches = brakes && cut ? [...driven.slice(0, brakes.at), { ...cut, to: brakes.moment }] : driven
  const end = itemAt(stretches, stretches.length - 1).to
  const slowed = brakes && toMps !== undefined ? Math.max(0, end.speedMps - toMps) : 0
  return {
    straight: {
      ...common,
      stretches,
      timeS: end.timeS + slowed / brakingMps2,
      topMps: Math.max(...stretches.map(({ to }) => to.speedMps), fromMps),
      atEndS: timeAtEnd(motion, stretches),
    },
    endMps: end.speedMps - slowed,
  }
}

const shown = (value: number) => String(Number(value.toFixed(1)))

/** Time at the end of the top gear: the speed is held there by the engine's top speed. */
function timeAtEnd(motion: Motion, stretches: readonly Stretch[]): number {
  const top = motion.gears.at(-1)
  return stretches.reduce(
    (sum, { kind, from, to }) => sum + (kind === 'held' && top && from.speedMps >= top.topMps * (1 - 1e-9) ? to.timeS - from.timeS : 0),
    0,
  )
}

/**
 * The gear of a corner: the one that pulls hardest there, at least 7 % under where it is left (common practice, no source). Rejects a corner that no gear
 * has the curve under.
 * @example cornerGear(MOTION, LEAVE, 18, 'Bank').number // 2
 */
export function cornerGear(motion: Motion, leaveRpm: readonly number[], speedMps: number, name: string): GearFacts {
  const found = hardestGear(motion, leaveRpm, speedMps, CORNER_GEAR_SHARE)
  if (found) return found
  const first = itemAt(motion.gears, 0)
  if (speedMps < first.firstMps) return first
  throw new CalculationError(
    'out-of-range',
    'speedMps',
    `${name}: at ${shown(speedMps)} m/s no gear has the curve under it. The car cannot go so fast, or pulls begin too late.`,
  )
}

const powerAt = (motion: Motion, rpm: number) => motion.torqueNm(rpm) * rpm
const greatest = (motion: Motion) =>
  Math.max(...motion.car.curve.speedRpm.filter((rpm) => rpm <= motion.car.topRpm).map((rpm) => powerAt(motion, rpm)), powerAt(motion, motion.car.topRpm))
const isInBand = (motion: Motion, rpm: number) => powerAt(motion, rpm) >= BAND_SHARE * greatest(motion)

/** Full-throttle time with a gear in that a run spends under an engine speed, s. */
function secondsBelow(motion: Motion, stretches: readonly Stretch[], rpm: number): number {
  return stretches.reduce((sum, stretch) => {
    const { kind, from, to, gear } = stretch
    if (kind === 'shift') return sum
    const facts = itemAt(motion.gears, gear - 1)
    const whole = to.timeS - from.timeS
    if (kind === 'slip') return sum + (motion.car.launchRpm < rpm ? whole : 0)
    const speedMps = motion.speedMps(facts, rpm)
    if (speedMps >= to.speedMps) return sum + (kind === 'held' && speedMps === to.speedMps ? 0 : whole)
    if (speedMps <= from.speedMps) return sum
    return sum + momentAt(motion, stretch, (speedMps - from.speedMps) / (to.speedMps - from.speedMps)).timeS - from.timeS
  }, 0)
}

/**
 * Ranges of engine speed within which a car makes 90 % of its greatest power or more, rpm.
 * @example powerBandOf(MOTION)[0].fromRpm // 4961.0
 */
export function powerBandOf(motion: Motion): { fromRpm: number; toRpm: number }[] {
  const { curve, topRpm } = motion.car
  const speeds = [...curve.speedRpm.filter((rpm) => rpm < topRpm), topRpm]
  const over = (rpm: number) => powerAt(motion, rpm) - BAND_SHARE * greatest(motion)
  return speeds.slice(1).flatMap((high, i) => {
    const low = itemAt(speeds, i)
    const [atLow, atHigh] = [over(low) >= 0, over(high) >= 0]
    if (!atLow && !atHigh) return []
    if (atLow && atHigh) return [{ fromRpm: low, toRpm: high }]
    const edge = signChange(over, low, high)
    return [atLow ? { fromRpm: low, toRpm: edge } : { fromRpm: edge, toRpm: high }]
  })
}

/**
 * A course from corner to corner: out of each in the gear that pulls hardest, shifting at the leave speeds, and braking so that each straight is used up.
 * Corners themselves take no time. 1 to 60 corners, braking 2 to 30 m/s². Source: kinematics on runs. Rejects a straight too short to brake on, and a
 * corner no gear has the curve under.
 * @example driveCourse(COURSE).timeS // 27.8426
 */
export function driveCourse(question: CourseQuestion): CourseRun {
  const { motion, corners, isClosed } = question
  if (corners.length < 1 || corners.length > 60) throw new CalculationError('out-of-range', 'corners', 'A course has 1 to 60 corners. Name one and its speed.')
  const straights: Straight[] = []
  let arriving: number | undefined
  for (const [i, corner] of corners.entries()) {
    const next = corners[i + 1] ?? (isClosed ? corners[0] : undefined)
    const from = arriving === undefined ? corner.speedMps : Math.min(corner.speedMps, arriving)
    const found = straight(question, corner, from, next?.speedMps)
    arriving = found?.endMps
    if (found) straights.push(found.straight)
  }
  const all = straights.flatMap(({ stretches }) => stretches)
  const whole = secondsBelow(motion, all, Number.POSITIVE_INFINITY)
  const inBand = powerBandOf(motion).reduce((sum, { fromRpm, toRpm }) => sum + secondsBelow(motion, all, toRpm) - secondsBelow(motion, all, fromRpm), 0)
  return {
    timeS: straights.reduce((sum, { timeS }) => sum + timeS, 0),
    straights,
    upshiftsInto: motion.gears.slice(1).map(({ number }) => all.filter(({ kind, gear }) => kind === 'shift' && gear === number - 1).length),
    atEndS: straights.reduce((sum, { atEndS }) => sum + atEndS, 0),
    bandShare: whole > 0 ? inBand / whole : 0,
    cornersOutsideBand: straights.filter((each) => !each.isInBand).map(({ corner }) => corner),
  }
}

/**
 * The engine speeds between which 5 to 95 % of the full-throttle time of a course lie, rpm.
 * @example usedBand(MOTION, driveCourse(COURSE)).fromRpm // 4948.0
 */
export function usedBand(motion: Motion, { straights }: CourseRun): { fromRpm: number; toRpm: number } {
  const all = straights.flatMap(({ stretches }) => stretches)
  const whole = secondsBelow(motion, all, Number.POSITIVE_INFINITY)
  const at = (share: number) => signChange((rpm) => secondsBelow(motion, all, rpm) - share * whole, 0, motion.car.topRpm + 1)
  return { fromRpm: at(0.05), toRpm: at(0.95) }
}
