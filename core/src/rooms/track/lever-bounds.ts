import type { LapCar } from '../../track/lap-car.ts'
import { peakPowerW } from '../../track/lap-change.ts'
import type { LapLever } from '../../track/lap-wish.ts'

/** How far a lever is followed where no rule bounds it: times what it is, of downforce m2 more (common practice, no source). */
const USUAL_BOUND: Readonly<Record<LapLever, number>> = { power: 2, mass: 0.7, grip: 1.15, downforce: 2.5 }

/** Class limits that bound a wish. */
export interface ClassBounds {
  readonly leastKg: number | null
  readonly mostW: number | null
}

/**
 * How far a lever may go, and what stops it there: the class, else what nobody gets.
 * @example leverBound('mass', LAP_CAR, { leastKg: 1100, mostW: null }).value // 1100
 */
export function leverBound(lever: LapLever, car: LapCar, { mostW, leastKg }: ClassBounds): { readonly value: number; readonly by: string } {
  const byClass = 'the class ends there'
  const peak = peakPowerW(car)
  if (lever === 'power') return mostW !== null ? { value: Math.max(mostW, peak), by: byClass } : { value: USUAL_BOUND.power * peak, by: 'twice its power' }
  if (lever === 'mass')
    return leastKg !== null ? { value: Math.min(leastKg, car.massKg), by: byClass } : { value: USUAL_BOUND.mass * car.massKg, by: 'three tenths of the car' }
  if (lever === 'grip') return { value: USUAL_BOUND.grip, by: 'no next tyre gives 15 % more' }
  const down = Math.max(car.downforceFrontM2 + car.downforceRearM2, 0)
  return { value: down + USUAL_BOUND.downforce, by: 'more than bodywork of its kind gives' }
}
