import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 as G } from '../mass/suspension.ts'
import type { LapCar } from '../track/lap-car.ts'

/** A stretch of a logged lap that nothing but the driver held back. */
export interface DriverStretch {
  readonly fromM: number
  readonly toM: number
  readonly seconds: number
}

/** Under so much of the grip, and under so much of the throttle, neither tyres nor engine hold the car (common practice, no source). */
const GRIP_SHARE = 0.85
const FULL_SHARE = 0.95
/** A shorter stretch is a shift, or noise. */
const LEAST_S = 0.5
/** Slowing down harder than it is braking: held against the hardest that this lap braked, as hardware and balance allow. */
const BRAKING_MPS2 = 3
const HARDEST_SHARE = 0.9

/** One logged lap by distance, with what was sampled at its places. */
export interface DrivenSides {
  readonly atM: ArrayLike<number>
  readonly timeS: ArrayLike<number>
  readonly speedMps: ArrayLike<number>
  readonly throttle: ArrayLike<number>
  readonly alongMps2: ArrayLike<number>
  readonly acrossMps2: ArrayLike<number>
}

/**
 * Where the driver held the car: under 85 % of the grip that its fit leaves it, downforce counted; while braking under 85 % of
 * the hardest that the lap braked; and under full throttle, for half a second or more.
 * Source: the room's page. Rejects lists of different length.
 * @example driverHeld({ atM: [0, 20, 40], timeS: [0, 1, 2], speedMps: [20, 20, 20], throttle: [0.4, 0.4, 0.4], alongMps2: [0, 0, 0], acrossMps2: [2, 2, 2] }, FITTED_CAR)[0].seconds // 2
 */
export function driverHeld(
  { atM, timeS, speedMps, throttle, alongMps2, acrossMps2 }: DrivenSides,
  car: Pick<LapCar, 'massKg' | 'friction' | 'gripFactor' | 'downforceFrontM2' | 'downforceRearM2' | 'airDensityKgM3'>,
): readonly DriverStretch[] {
  for (const list of [timeS, speedMps, throttle, alongMps2, acrossMps2])
    if (list.length !== atM.length) throw new CalculationError('inconsistent', 'samples', 'The samples of the lap differ in their number.')
  const found: DriverStretch[] = []
  let from = -1
  const downM2 = car.downforceFrontM2 + car.downforceRearM2
  const braking = Array.from(alongMps2).filter((along) => along < -BRAKING_MPS2)
  const hardest =
    braking.length === 0
      ? 0
      : -itemAt(
          braking.sort((a, b) => b - a),
          Math.floor(HARDEST_SHARE * (braking.length - 1)),
        )
  const isHeld = (i: number) => {
    const q = 0.5 * car.airDensityKgM3 * itemAt(speedMps, i) ** 2
    const mostMps2 = car.friction * car.gripFactor * (G + (q * downM2) / car.massKg)
    const used = Math.hypot(itemAt(alongMps2, i), itemAt(acrossMps2, i)) / mostMps2
    if (itemAt(alongMps2, i) < -BRAKING_MPS2) return -itemAt(alongMps2, i) < GRIP_SHARE * hardest
    // Not sampled then: nothing is said of the driver.
    return used < GRIP_SHARE && itemAt(throttle, i) < FULL_SHARE
  }
  for (let i = 0; i <= atM.length; i++) {
    const isIn = i < atM.length && isHeld(i)
    if (isIn && from < 0) from = i
    if (isIn || from < 0) continue
    const to = i - 1
    const seconds = itemAt(timeS, to) - itemAt(timeS, from)
    if (seconds >= LEAST_S) found.push({ fromM: itemAt(atM, from), toM: itemAt(atM, to), seconds })
    from = -1
  }
  return found
}
