import { curvePeak, curvePeakTorque, gridSpeedRpm } from '../../dyno/curve.ts'
import { torqueFromPowerNm } from '../../dyno/power-torque.ts'
import { isMeasured, type Proof } from '../../proof/quantity.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'
import type { StagePower } from './power-room.ts'

/** What a standing curve says of an engine, where the build counts power. */
export interface MeasuredEngine {
  readonly powerW: number
  readonly peakSpeedRpm: number
  readonly peakTorqueNm: number
  readonly torqueAtPeakNm: number
  readonly lastSpeedRpm: number
}

type Stage = Pick<StagePower, 'value' | 'proof' | 'curve'> | null | undefined

/**
 * What the curve that stands at a stage says of the engine; null where its power was not measured or there is no curve.
 * @example measuredEngine(null) // null
 */
export function measuredEngine(stage: Stage): MeasuredEngine | null {
  if (!stage?.curve || !isMeasured(stage.proof as Proof)) return null
  const { curve } = stage
  const peak = curvePeak(curve)
  return {
    powerW: stage.value,
    peakSpeedRpm: peak.speedRpm,
    peakTorqueNm: curvePeakTorque(curve).torqueNm,
    torqueAtPeakNm: torqueFromPowerNm(peak.powerW, peak.speedRpm),
    lastSpeedRpm: gridSpeedRpm(curve, curve.powerW.length - 1),
  }
}

/** Whether a build counts power where a plan asks for it: at the wheels, or at the crank on an engine dyno. */
export const isSamePlace = (plan: Pick<EnginePlan, 'target'>, build: Pick<BuildRecord, 'powerBasis'>): boolean =>
  (plan.target.place === 'crank') === (build.powerBasis.place === 'engine')

/**
 * The power that a stage was measured to make, W at a plan's place; 0 where it was not measured, or elsewhere.
 * @example measuredPowerW(null, PLAN, EXAMPLE.build) // 0
 */
export const measuredPowerW = (stage: Stage, plan: Pick<EnginePlan, 'target'>, build: Pick<BuildRecord, 'powerBasis'>): number =>
  stage && isMeasured(stage.proof as Proof) && isSamePlace(plan, build) ? stage.value : 0
