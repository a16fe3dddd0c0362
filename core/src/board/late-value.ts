import type { DrivetrainMetric } from '../records/metric-keys.ts'
import { drivetrainValue } from '../rooms/drivetrain/metrics.ts'
import { lapTimeValue } from '../rooms/track/metrics.ts'
import type { Car } from '../stages/car.ts'
import type { StageValue } from '../stages/stage-value.ts'

/**
 * A metric whose sums take long, at a stage, worked out here and now: what a thread of the pool is asked for after a car said that it comes later.
 * @example lateValue(CAR, 1, 'lapTime') // undefined
 */
export const lateValue = (car: Car, position: number, metric: string): StageValue | undefined =>
  metric === 'lapTime' ? lapTimeValue(car, position) : drivetrainValue(car, position, metric as DrivetrainMetric)
