import { attempt } from '../../attempt.ts'
import { curvePeakTorque } from '../../dyno/curve.ts'
import { powerFromTorqueW, torqueFromPowerNm } from '../../dyno/power-torque.ts'
import { crankToWheel } from '../../dyno/wheel-to-crank.ts'
import { CalculationError } from '../../errors.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { Limit } from '../../records/plan-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { lossOf } from '../power/driveline-loss.ts'
import { curveAtStage } from '../power/power-at-stage.ts'
import { partsAtStage, ratedLimit } from './parts.ts'

/** The part of the finished car that carries least torque, and what that is at the place the build counts power. */
export interface WeakestTorque {
  readonly part: Part
  /** How its rating is known. */
  readonly known: Part['ratings'][number]['known']
  readonly crankTorqueNm: number
  /** Where the build counts power, at the speed of the greatest torque. */
  readonly torqueNm: number
}

/**
 * The weakest torque rating of the car at its last stage, brought to the build's place by its own driveline loss; undefined without a rating or a curve.
 * @example weakestTorque(openCar(WITH_PLAN)).crankTorqueNm // 450
 */
export function weakestTorque(car: Car): WeakestTorque | undefined {
  return weakestAt(car, car.stages.length - 1)
}

const weakestAt = rememberByIndex((car, last): WeakestTorque | undefined => {
  const { records } = car
  const rated = partsAtStage(records, last).flatMap((part) =>
    part.ratings.flatMap((rating) =>
      rating.of === 'crankTorque' || rating.of === 'gearboxTorque' ? [{ part, known: rating.known, crankTorqueNm: ratedLimit(part, rating) }] : [],
    ),
  )
  const [weakest] = rated.sort((a, b) => a.crankTorqueNm - b.crankTorqueNm)
  const curve = weakest && curveAtStage(car, last)?.curve
  if (!weakest || !curve) return undefined
  const torqueNm = attempt(() => {
    const { speedRpm } = curvePeakTorque(curve)
    return torqueFromPowerNm(crankToWheel({ crankPowerW: powerFromTorqueW(weakest.crankTorqueNm, speedRpm), ...lossOf(records.build) }), speedRpm)
  })
  return torqueNm instanceof CalculationError ? undefined : { ...weakest, torqueNm }
})

/** The weakest torque rating as a limit of its own, unless a person has set a limit on torque. */
export function ratingLimits(car: Car): Limit[] {
  const { records } = car
  if (records.limits.some((limit) => limit.metric === 'peakTorque')) return []
  const weakest = weakestTorque(car)
  if (!weakest) return []
  const limit: Limit = {
    id: weakest.part.id,
    metric: 'peakTorque',
    sense: 'atMost',
    value: weakest.torqueNm,
    source: 'rating',
    untilStageId: null,
    fromStageId: weakest.part.stageId ?? records.stages[0]?.id ?? null,
    typed: null,
  }
  return [limit]
}
