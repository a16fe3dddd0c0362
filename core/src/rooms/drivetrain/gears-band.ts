import { attempt } from '../../attempt.ts'
import { driveCourse, usedBand } from '../../drivetrain/course.ts'
import { leaveSpeeds } from '../../drivetrain/leave-speeds.ts'
import { driveMotion } from '../../drivetrain/motion.ts'
import { GRID_STEP_RPM } from '../../dyno/curve.ts'
import { CalculationError } from '../../errors.ts'
import type { Car } from '../../stages/car.ts'
import { runnableCourse } from './courses.ts'
import { driveStage } from './stage-inputs.ts'
import { courseOf } from './stage-slide.ts'

/** The engine speeds that the gears use, out to the grid of curves, and on which course; no course: from where shifts land to where gears are left. */
export interface GearsBand {
  readonly fromRpm: number
  readonly toRpm: number
  readonly place: string | null
}

/**
 * The band that the gears of the latest stage with a driveline use: 5 to 95 % of the full-throttle time on the Board's course; without one that can be
 * driven, from the lowest landing to the highest leaving from second gear on. Undefined without a driveline.
 * @example gearsBand(CAR) // undefined
 */
export function gearsBand(car: Car): GearsBand | undefined {
  const position = car.stages.findLastIndex((_, at) => driveStage(car, at).car !== null)
  const own = position < 0 ? null : driveStage(car, position).car
  if (!own) return undefined
  const motion = driveMotion(own)
  const leaveRpm = leaveSpeeds(motion)
  const course = courseOf(car)
  const used = course ? attempt(() => usedBand(motion, driveCourse({ motion, leaveRpm, ...runnableCourse(course, own) }))) : undefined
  const out = ({ fromRpm, toRpm }: { fromRpm: number; toRpm: number }) => ({
    fromRpm: Math.floor(fromRpm / GRID_STEP_RPM) * GRID_STEP_RPM,
    toRpm: Math.ceil(toRpm / GRID_STEP_RPM) * GRID_STEP_RPM,
  })
  if (used && !(used instanceof CalculationError) && used.toRpm > used.fromRpm && course) return { ...out(used), place: course.name }
  const shifts = leaveRpm.map((leave, i) => ({ leave, lands: (leave * (motion.gears[i + 1]?.ratio ?? 1)) / (motion.gears[i]?.ratio ?? 1) }))
  const later = shifts.length > 1 ? shifts.slice(1) : shifts
  if (later.length === 0) return undefined
  return { ...out({ fromRpm: Math.min(...later.map(({ lands }) => lands)), toRpm: Math.max(...later.map(({ leave }) => leave)) }), place: null }
}
