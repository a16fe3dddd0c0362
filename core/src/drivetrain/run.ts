import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { GEAR_WORDS } from './drive-car.ts'
import { integrateShort, integrateTwo, signChange } from './integrate.ts'
import type { GearFacts, Motion } from './motion.ts'

/** A stretch of a run: in a gear, with the clutch slipping, between two gears, or at a speed that does not rise any more. */
export interface Stretch {
  readonly kind: 'slip' | 'drive' | 'shift' | 'held'
  /** Counted from 1; of a shift the gear that was left. */
  readonly gear: number
  readonly from: Moment
  readonly to: Moment
}

export interface Moment {
  readonly timeS: number
  readonly distanceM: number
  readonly speedMps: number
}

/** What a run is asked: where it begins, when each gear is left, and how far it goes. */
export interface RunQuestion {
  readonly motion: Motion
  /** rpm at which each gear is left; the last is driven to its end. */
  readonly leaveRpm: readonly number[]
  readonly fromMps?: number
  /** The gear it begins in; the one that pulls hardest where it is left out, first from rest. */
  readonly fromGear?: number
  readonly toMps?: number
  readonly toM?: number
}

const SHIFT_STEPS = 12
/** A piece whose speed changes by a smaller share than this is integrated by fewer points: what is lost lies under 1e-9 of it. */
const SHORT_SHARE = 0.03
/** Kinks that lie farther apart than a short piece have one more between them, so that eight points see every bend. */
const PIECES_BETWEEN_KINKS = 2
const LONGEST_S = 3600

/** Collects the stretches of a run, each cut where the question ends it. */
class Recorder {
  readonly stretches: Stretch[] = []
  now: Moment
  private readonly question: RunQuestion
  constructor(question: RunQuestion) {
    this.question = question
    this.now = { timeS: 0, distanceM: 0, speedMps: question.fromMps ?? 0 }
  }
  get isOver(): boolean {
    const { toMps = Number.POSITIVE_INFINITY, toM = Number.POSITIVE_INFINITY } = this.question
    return this.now.speedMps >= toMps || this.now.distanceM >= toM || this.now.timeS >= LONGEST_S
  }
  add(kind: Stretch['kind'], gear: number, to: Moment): void {
    this.stretches.push({ kind, gear, from: this.now, to })
    this.now = to
  }
}

/** Time and distance from one speed to a higher one in a gear. */
function between(motion: Motion, gear: GearFacts, isSlipping: boolean, from: number, to: number): [number, number] {
  const pieces = to - from < SHORT_SHARE * from ? integrateShort : integrateTwo
  return pieces(
    (speed) => {
      const pace = 1 / motion.acceleration(gear, speed, isSlipping)
      return [pace, speed * pace]
    },
    from,
    to,
  )
}

/** The speeds at which a gear's acceleration bends between two speeds: kinks of the curve, and where tyres and engine change places. */
function bends(motion: Motion, gear: GearFacts, isSlipping: boolean, from: number, to: number): number[] {
  const kinks = [from, ...gear.kinksMps.filter((speed) => speed > from && speed < to), to]
  const fine = kinks.flatMap((speed, i) => {
    const next = kinks[i + 1]
    if (next === undefined || next - speed < SHORT_SHARE * speed) return [speed]
    return Array.from({ length: PIECES_BETWEEN_KINKS }, (_, part) => speed + ((next - speed) * part) / PIECES_BETWEEN_KINKS)
  })
  const over = (speed: number) => motion.overGrip(gear, speed, isSlipping)
  return fine.flatMap((speed, i) => {
    const next = fine[i + 1]
    if (next === undefined) return [speed]
    return over(speed) > 0 !== over(next) > 0 ? [speed, signChange(over, speed, next)] : [speed]
  })
}

/** The speed within a piece at which so many metres have been driven from its beginning. */
function speedAfter(motion: Motion, gear: GearFacts, isSlipping: boolean, from: number, to: number, metres: number): number {
  return signChange((speed) => between(motion, gear, isSlipping, from, speed)[1] - metres, from, to)
}

/** Drives a gear up to a speed; answers false where the car cannot reach it. */
function drive(
  recorder: Recorder,
  { motion, toMps = Number.POSITIVE_INFINITY, toM }: RunQuestion,
  gear: GearFacts,
  upToMps: number,
  isSlipping: boolean,
): boolean {
  const kind = isSlipping ? 'slip' : 'drive'
  const places = bends(motion, gear, isSlipping, recorder.now.speedMps, Math.min(upToMps, toMps))
  for (let i = 0; i + 1 < places.length; i++) {
    const [from, wanted] = [itemAt(places, i), itemAt(places, i + 1)]
    if (wanted <= from) continue
    const pull = (speed: number) => motion.acceleration(gear, speed, isSlipping)
    if (pull(from) <= 0) return false
    const stops = pull(wanted) <= 0
    const end = stops ? signChange(pull, from, wanted) : wanted
    // Towards a speed that the car only nears, each piece goes half of what is left.
    const ends = stops ? Array.from({ length: 36 }, (_, k) => end - (end - from) * 0.5 ** (k + 1)) : [wanted]
    for (const to of ends) {
      const { timeS, distanceM, speedMps } = recorder.now
      const [dt, dx] = between(motion, gear, isSlipping, speedMps, to)
      if (toM !== undefined && distanceM + dx >= toM) {
        const speed = speedAfter(motion, gear, isSlipping, speedMps, to, toM - distanceM)
        recorder.add(kind, gear.number, { timeS: timeS + between(motion, gear, isSlipping, speedMps, speed)[0], distanceM: toM, speedMps: speed })
        return true
      }
      recorder.add(kind, gear.number, { timeS: timeS + dt, distanceM: distanceM + dx, speedMps: to })
    }
    if (stops) return false
  }
  return true
}

/** Speed and distance after a time without drive: dv/dt = −R/m with the wheels alone, by steps of fourth order. */
function coasted(motion: Motion, from: Moment, seconds: number): Moment {
  const slowing = (speed: number) => -motion.resistanceN(Math.max(0, speed)) / motion.rollingMassKg
  const dt = seconds / SHIFT_STEPS
  let [speed, distance] = [from.speedMps, from.distanceM]
  for (let step = 0; step < SHIFT_STEPS; step++) {
    const a = slowing(speed)
    const b = slowing(speed + (a * dt) / 2)
    const c = slowing(speed + (b * dt) / 2)
    const d = slowing(speed + c * dt)
    distance += dt * speed + (dt * dt * (a + b + c)) / 6
    speed += (dt * (a + 2 * b + 2 * c + d)) / 6
  }
  return { timeS: from.timeS + seconds, distanceM: distance, speedMps: Math.max(0, speed) }
}

function shift(recorder: Recorder, { motion, toM }: RunQuestion, gear: GearFacts): void {
  const { shiftS } = motion.car
  if (shiftS === 0) return
  const from = recorder.now
  const whole = coasted(motion, from, shiftS)
  const isCut = toM !== undefined && whole.distanceM > toM
  const seconds = isCut ? signChange((time) => coasted(motion, from, time).distanceM - toM, 0, shiftS) : shiftS
  recorder.add('shift', gear.number, isCut ? { ...coasted(motion, from, seconds), distanceM: toM } : whole)
}

/** The gear that pulls hardest at a speed, among those whose engine speed lies on the curve and that are not past where they are left. */
export function hardestGear(motion: Motion, leaveRpm: readonly number[], speedMps: number, share = 1): GearFacts | undefined {
  const open = motion.gears.filter((gear, i) => {
    const leave = leaveRpm[i] ?? motion.car.topRpm
    return speedMps >= gear.firstMps && motion.speedRpm(gear, speedMps) <= share * leave
  })
  return open.reduce<GearFacts | undefined>(
    (best, gear) => (best && motion.acceleration(best, speedMps) >= motion.acceleration(gear, speedMps) ? best : gear),
    undefined,
  )
}

function firstGearOf({ motion, leaveRpm, fromMps = 0, fromGear }: RunQuestion): GearFacts {
  if (fromGear !== undefined) return itemAt(motion.gears, fromGear - 1)
  if (fromMps <= motion.launchMps) return itemAt(motion.gears, 0)
  const found = hardestGear(motion, leaveRpm, fromMps)
  if (found) return found
  throw new CalculationError(
    'out-of-range',
    'fromMps',
    `No gear has the curve under it at ${fromMps.toFixed(1)} m/s. Begin at another speed, or pull from a lower engine speed.`,
  )
}

/**
 * A run from rest or any speed, exact at kinks, shifts and marks: in each gear time and distance are integrated over speed, in a shift speed over time.
 * From rest the clutch slips at launch speed until the wheels catch up; a shift takes the car's time without drive; at the end of the top gear, or
 * where nothing pulls any more, the speed is held. Ends at `toMps` or `toM`; a speed that is never reached ends it after an hour, or at once where there
 * is no distance to go. Source: F.8 in the form of the room's page. Rejects a car that does not move, and a shift that lands under the curve.
 * @example run({ motion: MOTION, leaveRpm: LEAVE, toMps: 100 / 3.6 }).at(-1).to.timeS // 4.7503
 */
export function run(question: RunQuestion): readonly Stretch[] {
  const { motion, leaveRpm, toM } = question
  const recorder = new Recorder(question)
  let gear = firstGearOf(question)
  if (recorder.now.speedMps < motion.launchMps && gear.number === 1) {
    if (!drive(recorder, question, gear, motion.launchMps, true))
      throw new CalculationError(
        'out-of-range',
        'launchRpm',
        'The car does not move off: what resists it is more than first gear gives. Check mass, gears and rolling.',
      )
  }
  while (!recorder.isOver) {
    const isLast = gear.number === motion.gears.length
    const upTo = isLast ? gear.topMps : Math.min(gear.topMps, motion.speedMps(gear, leaveRpm[gear.number - 1] ?? motion.car.topRpm))
    const reached = drive(recorder, question, gear, upTo, false)
    if (recorder.isOver) break
    if (!reached || isLast) {
      hold(recorder, toM, gear)
      break
    }
    shift(recorder, question, gear)
    if (recorder.isOver) break
    gear = nextGear(motion, gear, recorder.now.speedMps)
  }
  return recorder.stretches
}

function nextGear(motion: Motion, gear: GearFacts, speedMps: number): GearFacts {
  const next = itemAt(motion.gears, gear.number)
  if (speedMps >= next.firstMps) return next
  const rpm = Math.round(motion.speedRpm(next, speedMps))
  const words = `The shift into ${GEAR_WORDS[next.number - 1]} lands at ${rpm} rpm, under where pulls begin. Pull from a lower engine speed, or bring the gears closer.`
  throw new CalculationError('out-of-range', 'curve', words)
}

/** The speed does not rise any more: the way that is left is driven at it. */
function hold(recorder: Recorder, toM: number | undefined, gear: GearFacts): void {
  const { now } = recorder
  if (toM === undefined || now.speedMps <= 0 || now.distanceM >= toM) return
  recorder.add('held', gear.number, { timeS: now.timeS + (toM - now.distanceM) / now.speedMps, distanceM: toM, speedMps: now.speedMps })
}

/** What a run says of a mark. */
export type Mark = Moment | null

/**
 * When, where and how fast a run passed a speed for the first time; null where it never did.
 * @example passedSpeed(MOTION, [], 10) // null
 */
export function passedSpeed(motion: Motion, stretches: readonly Stretch[], speedMps: number): Mark {
  const found = stretches.find(({ kind, to, from }) => (kind === 'drive' || kind === 'slip') && from.speedMps <= speedMps && to.speedMps >= speedMps)
  if (!found) return null
  const gear = itemAt(motion.gears, found.gear - 1)
  const [dt, dx] = between(motion, gear, found.kind === 'slip', found.from.speedMps, speedMps)
  return { timeS: found.from.timeS + dt, distanceM: found.from.distanceM + dx, speedMps }
}

/** When and how fast a run passed a distance; null where it ended before. */
export function passedDistance(motion: Motion, stretches: readonly Stretch[], metres: number): Mark {
  const found = stretches.find(({ to }) => to.distanceM >= metres)
  if (!found) return null
  if (found.to.distanceM === metres) return found.to
  const share = signChange((part) => momentAt(motion, found, part).distanceM - metres, 0, 1)
  return { ...momentAt(motion, found, share), distanceM: metres }
}

/**
 * A moment within a stretch, by the share of its speed (of a shift or a held speed: of its time) that is past, 0 to 1.
 * @example momentAt(MOTION, run({ motion: MOTION, leaveRpm: LEAVE, toM: 100 })[0], 0).timeS // 0
 */
export function momentAt(motion: Motion, { kind, gear, from, to }: Stretch, share: number): Moment {
  if (kind === 'held')
    return { timeS: from.timeS + share * (to.timeS - from.timeS), distanceM: from.distanceM + share * (to.distanceM - from.distanceM), speedMps: from.speedMps }
  if (kind === 'shift') return coasted(motion, from, share * (to.timeS - from.timeS))
  const speedMps = from.speedMps + share * (to.speedMps - from.speedMps)
  const [dt, dx] = between(motion, itemAt(motion.gears, gear - 1), kind === 'slip', from.speedMps, speedMps)
  return { timeS: from.timeS + dt, distanceM: from.distanceM + dx, speedMps }
}
