import type { PicturePoint } from '../dyno/picture-axes.ts'
import { CalculationError, requireWithin } from '../errors.ts'

/** A place on the side of the car: behind the front axle and over the ground, m. */
export interface SidePoint {
  readonly xM: number
  readonly zM: number
}

/** Fewer pixels between the wheels than this tell nothing. */
const LEAST_PX = 50

/**
 * Reads places off a picture of the car's side: both wheel centres give its scale and its tilt, whichever way the car faces; a lens that bends lines and a
 * camera that looks from in front or behind are not taken out, so that what comes of it is for drawing. Both wheels are as large. m.
 * Rejects wheel centres that nearly fall together, a wheelbase outside 1.5 to 5 and a radius outside 0.15 to 0.6. Source: similarity, closed form.
 * @example sideReader({ frontWheel: { right: 100, down: 400 }, rearWheel: { right: 600, down: 400 }, wheelbaseM: 2.5, wheelRadiusM: 0.3 })({ right: 100, down: 460 }) // { xM: 0, zM: 0 }
 */
export function sideReader({
  frontWheel,
  rearWheel,
  wheelbaseM,
  wheelRadiusM,
}: {
  readonly frontWheel: PicturePoint
  readonly rearWheel: PicturePoint
  readonly wheelbaseM: number
  readonly wheelRadiusM: number
}): (place: PicturePoint) => SidePoint {
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  requireWithin(wheelRadiusM, 0.15, 0.6, 'wheelRadiusM')
  const [right, down] = [rearWheel.right - frontWheel.right, rearWheel.down - frontWheel.down]
  const length = Math.hypot(right, down)
  if (length < LEAST_PX) throw new CalculationError('inconsistent', 'rearWheel', 'The wheels lie nearly at one place. Click the middle of each wheel.')
  const metres = wheelbaseM / length
  const [alongRight, alongDown] = [right / length, down / length]
  // Square to the line of the wheels, towards the top of the picture.
  const [upRight, upDown] = alongRight >= 0 ? [alongDown, -alongRight] : [-alongDown, alongRight]
  return (place) => {
    const [r, d] = [place.right - frontWheel.right, place.down - frontWheel.down]
    return { xM: metres * (r * alongRight + d * alongDown), zM: wheelRadiusM + metres * (r * upRight + d * upDown) }
  }
}
