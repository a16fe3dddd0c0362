import type { CourseCorner } from '../../drivetrain/course.ts'
import type { DriveCar } from '../../drivetrain/drive-car.ts'
import { STANDARD_GRAVITY_MPS2 } from '../../mass/suspension.ts'
import type { Course } from '../../records/drive-kinds.ts'

/**
 * A course as runs take it: where a corner has no speed, that of its radius with the grip in use, √(μ g r).
 * @example runnableCourse({ corners: [], isClosed: true, brakingMps2: 9 }, DRIVE).corners // []
 */
export function runnableCourse(
  { corners, isClosed, brakingMps2 }: Pick<Course, 'corners' | 'isClosed' | 'brakingMps2'>,
  car: DriveCar,
): { corners: CourseCorner[]; isClosed: boolean; brakingMps2: number } {
  const mu = car.friction * car.gripUse * car.surfaceFactor
  const made = corners.map(
    ({ name, speedMps, radiusM, straightM }): CourseCorner => ({
      name,
      straightM,
      speedMps: speedMps ?? Math.sqrt(mu * STANDARD_GRAVITY_MPS2 * (radiusM ?? 0)),
    }),
  )
  return { corners: made, isClosed, brakingMps2 }
}
