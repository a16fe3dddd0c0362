import { attempt } from '../attempt.ts'
import { CalculationError } from '../errors.ts'
import type { DriveCar } from './drive-car.ts'
import { leaveSpeeds } from './leave-speeds.ts'
import { driveMotion, type Motion } from './motion.ts'
import { QUARTER_MILE_M, SIXTY_FEET_M } from './quarter-mile-rule.ts'
import { passedDistance, passedSpeed, run } from './run.ts'
import { topSpeed } from './top-speed.ts'

export const YARDSTICKS = ['zeroTo100', 'zeroTo60Mph', 'from100To200', 'sixtyFoot', 'quarterMile', 'quarterMileSpeed', 'topSpeed'] as const
/** Seconds; the last two in m/s. */
export type Yardstick = (typeof YARDSTICKS)[number]
export type YardstickValues = Readonly<Record<Yardstick, number | null>>

const KMH = 1 / 3.6
const SIXTY_MPH = 60 * 0.44704
const FROM_REST = new Set<Yardstick>(['zeroTo100', 'zeroTo60Mph', 'sixtyFoot', 'quarterMile', 'quarterMileSpeed'])

/** How far the sums themselves may be off, as a share: from rest, and rolling (common practice, no source). */
export const MODEL_RELATIVE_SD = { fromRest: 0.02, rolling: 0.01 } as const
export const modelShare = (yardstick: Yardstick): number => (FROM_REST.has(yardstick) ? MODEL_RELATIVE_SD.fromRest : MODEL_RELATIVE_SD.rolling)

/**
 * The times and speeds by which cars are compared, each null where the car never gets there. `rollOutM` is how far it rolls before the clock starts.
 * From rest with a slipping clutch; 100 to 200 km/h begins in the gear that pulls hardest. Source: `run`.
 * @example yardsticks(MOTION, 0).zeroTo100 // 4.7503
 */
export function yardsticks(motion: Motion, rollOutM: number): YardstickValues {
  const leaveRpm = leaveSpeeds(motion)
  const fromRest = run({ motion, leaveRpm, toM: QUARTER_MILE_M + rollOutM })
  const start = rollOutM > 0 ? (passedDistance(motion, fromRest, rollOutM)?.timeS ?? 0) : 0
  const isPast = (mps: number) => (fromRest.at(-1)?.to.speedMps ?? 0) >= mps
  const ofSpeed = (mps: number) => {
    const driven = isPast(mps) ? fromRest : run({ motion, leaveRpm, toMps: mps })
    const mark = passedSpeed(motion, driven, mps)
    return mark && mark.timeS - start
  }
  const ofDistance = (metres: number) => passedDistance(motion, fromRest, metres + rollOutM)
  const quarter = ofDistance(QUARTER_MILE_M)
  const rolling = attempt(() => run({ motion, leaveRpm, fromMps: 100 * KMH, toMps: 200 * KMH }))
  const end = rolling instanceof CalculationError ? undefined : rolling.at(-1)?.to
  const sixty = ofDistance(SIXTY_FEET_M)
  return {
    zeroTo100: ofSpeed(100 * KMH),
    zeroTo60Mph: ofSpeed(SIXTY_MPH),
    from100To200: end && end.speedMps >= 200 * KMH * (1 - 1e-9) ? end.timeS : null,
    sixtyFoot: sixty && sixty.timeS - start,
    quarterMile: quarter && quarter.timeS - start,
    quarterMileSpeed: quarter?.speedMps ?? null,
    topSpeed: topSpeed(motion).topMps,
  }
}

/** A number of the car that is not known exactly: its spread, and the car with it moved by so many spreads. */
export interface UnsureInput {
  readonly key: string
  readonly isGuess: boolean
  readonly moved: (car: DriveCar, spreads: number) => DriveCar
}

/** What one unsure input does to a number: half of the difference of two runs, signed as the input rises. */
export interface InputShare {
  readonly key: string
  readonly isGuess: boolean
  readonly byOneSd: number
}

export interface SpreadValue {
  readonly value: number
  readonly sd: number
  readonly modelSd: number
  readonly inputs: readonly InputShare[]
  /** Share of the variance that guessed inputs carry. */
  readonly guessShare: number
}

export type SpreadYardsticks = Readonly<Record<Yardstick, SpreadValue | null>>

/**
 * The yardsticks of a car with their spreads: for each unsure input half the difference of two whole runs with it a spread up and down, in quadrature with
 * what the model itself may be off (2 % from rest, 1 % rolling; common practice, no source). Gears are left anew in each run.
 * @example spreadYardsticks(DRIVE, 0, []).zeroTo100.modelSd // 0.0950
 */
export function spreadYardsticks(car: DriveCar, rollOutM: number, inputs: readonly UnsureInput[]): SpreadYardsticks {
  const values = yardsticks(driveMotion(car), rollOutM)
  const runs = inputs.map(({ key, isGuess, moved }) => ({
    key,
    isGuess,
    up: attempt(() => yardsticks(driveMotion(moved(car, 1)), rollOutM)),
    down: attempt(() => yardsticks(driveMotion(moved(car, -1)), rollOutM)),
  }))
  return Object.fromEntries(
    YARDSTICKS.map((yardstick) => {
      const value = values[yardstick]
      if (value === null) return [yardstick, null]
      const shares = runs.map(({ key, isGuess, up, down }): InputShare => {
        const at = (side: typeof up) => (side instanceof CalculationError ? value : (side[yardstick] ?? value))
        return { key, isGuess, byOneSd: (at(up) - at(down)) / 2 }
      })
      return [yardstick, spreadOf(value, modelShare(yardstick) * value, shares)]
    }),
  ) as SpreadYardsticks
}

/** A value with the shares of its spread put together. */
export function spreadOf(value: number, modelSd: number, inputs: readonly InputShare[]): SpreadValue {
  const variance = (list: readonly InputShare[]) => list.reduce((sum, { byOneSd }) => sum + byOneSd ** 2, 0)
  const whole = variance(inputs) + modelSd ** 2
  const guessed = variance(inputs.filter(({ isGuess }) => isGuess))
  const sorted = [...inputs].sort((a, b) => Math.abs(b.byOneSd) - Math.abs(a.byOneSd))
  return { value, sd: Math.sqrt(whole), modelSd, inputs: sorted, guessShare: whole > 0 ? guessed / whole : 0 }
}

/**
 * What a measured time says of a later stage: V = V(k) calc(n)/calc(k), with the spread of the reading and, for inputs that are the same at both, only
 * what they change in the ratio; of others both. Source: the room's page.
 * @example carryYardstick({ measured: 4.83, measuredSd: 0.05, before: { value: 4.7503, inputs: [] }, after: { value: 4.6109, inputs: [] }, isShared: () => true }).value // 4.6883
 */
export function carryYardstick({
  measured,
  measuredSd,
  before,
  after,
  isShared,
}: {
  measured: number
  measuredSd: number
  before: Pick<SpreadValue, 'value' | 'inputs'>
  after: Pick<SpreadValue, 'value' | 'inputs'>
  isShared: (key: string) => boolean
}): { value: number; sd: number } {
  const relative = (of: Pick<SpreadValue, 'value' | 'inputs'>) => new Map(of.inputs.map(({ key, byOneSd }) => [key, byOneSd / of.value]))
  const [was, is] = [relative(before), relative(after)]
  const keys = [...new Set([...was.keys(), ...is.keys()])]
  const variance = keys.reduce(
    (sum, key) => {
      const [a, b] = [was.get(key) ?? 0, is.get(key) ?? 0]
      return sum + (isShared(key) ? (b - a) ** 2 : a ** 2 + b ** 2)
    },
    (measuredSd / measured) ** 2,
  )
  const value = (measured * after.value) / before.value
  return { value, sd: value * Math.sqrt(variance) }
}
