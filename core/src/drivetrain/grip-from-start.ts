import { CalculationError, requirePositive } from '../errors.ts'
import { rootBetween } from '../stats/root.ts'
import type { DriveCar } from './drive-car.ts'
import { leaveSpeeds } from './leave-speeds.ts'
import { driveMotion } from './motion.ts'
import { SIXTY_FEET_M } from './quarter-mile-rule.ts'
import { passedDistance, run } from './run.ts'

/**
 * What a timed start says of grip: friction times its use with which the car's own sums give that time over a distance from rest (60 ft unless given, 2 to
 * 60 m). `rollOutM` is how far it rolled before the clock began. Source: `run`, as a root between 0.3 and 2.5. Rejects a time that more grip does not
 * shorten: the engine limits that start, and it says nothing of the tyres.
 * @example gripFromStart(DRIVE, { timeS: 2.342, rollOutM: 0 }).usedFriction // 1.15
 */
export function gripFromStart(
  car: DriveCar,
  start: { readonly timeS: number; readonly distanceM?: number | undefined; readonly rollOutM: number },
): { usedFriction: number; friction: number } {
  const { timeS, distanceM = SIXTY_FEET_M, rollOutM } = start
  requirePositive(timeS, 'timeS')
  if (!(distanceM >= 2 && distanceM <= 60)) throw new CalculationError('out-of-range', 'distanceM', 'A start is timed over 2 to 60 m.')
  const time = (usedFriction: number) => {
    const motion = driveMotion({ ...car, friction: usedFriction, gripUse: 1, surfaceFactor: 1 })
    const driven = run({ motion, leaveRpm: leaveSpeeds(motion), toM: distanceM + rollOutM })
    return (passedDistance(motion, driven, distanceM + rollOutM)?.timeS ?? 0) - (rollOutM > 0 ? (passedDistance(motion, driven, rollOutM)?.timeS ?? 0) : 0)
  }
  const [least, most] = [0.3, 2.5]
  if (timeS > time(least))
    throw new CalculationError('out-of-range', 'timeS', 'That start is slower than with almost no grip. Check the time and the distance.')
  if (timeS <= time(most) * 1.0005)
    throw new CalculationError(
      'out-of-range',
      'timeS',
      'No grip makes the car that quick: its engine limits this start. Check the time, the curve and the mass.',
    )
  const usedFriction = rootBetween((friction) => time(friction) - timeS, least, most)
  return { usedFriction, friction: usedFriction / (car.gripUse * car.surfaceFactor) }
}
