import type { DrivetrainMetric } from '../records/metric-keys.ts'
import { drivetrainValue } from '../rooms/drivetrain/metrics.ts'
import { lapMissValue, lapTimeValue, plannedGripValue } from '../rooms/track/metrics.ts'
import type { Car } from '../stages/car.ts'
import type { StageValue } from '../stages/stage-value.ts'

const OF_A_LAP = /^(lapTime|cornerGrip|lapMiss) (.+)$/

/**
 * A metric whose sums take long, at a stage, worked out here and now: what a thread of the pool is asked for after a car said that it comes later. A lap is
 * asked for with the id of its track behind it.
 * @example lateValue(CAR, 1, 'lapTime skarvholm') // undefined
 */
export function lateValue(car: Car, position: number, asked: string): StageValue | undefined {
  const [, metric, trackId] = OF_A_LAP.exec(asked) ?? []
  if (trackId === undefined) return drivetrainValue(car, position, asked as DrivetrainMetric)
  if (metric === 'lapMiss') return lapMissValue(car, position, trackId)
  return metric === 'lapTime' ? lapTimeValue(car, position, trackId) : plannedGripValue(car, position, trackId)
}
