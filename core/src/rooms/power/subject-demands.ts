import { attempt } from '../../attempt.ts'
import { pumpFlowM3PerS } from '../../engine/fuel-supply.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { RatingSubject } from '../../records/part-kinds.ts'
import type { DrivelineLoss } from './driveline-loss.ts'
import { greatestTorqueNm, pumpOutletPa } from './engine-plan-supply.ts'
import { airPath, enginePoint } from './engine-point.ts'
import { injectorsAt } from './plan-of-car.ts'

/** What a plan can be asked: the subjects of ratings, and how many of its feed pumps the fuel takes at the pressure of that power. */
export type Demanded = RatingSubject | 'feedPumps'
export type SubjectDemands = Partial<Record<Demanded, number>>

/** What the engine asks of its parts at a power, W at the plan's place; what a plan cannot say is left out. Rejects what the plan's air and fuel reject. */
export function demandsAt(plan: EnginePlan, loss: DrivelineLoss, powerW: number): SubjectDemands {
  const point = enginePoint(plan, loss, powerW)
  const path = airPath(plan, point)
  const duty = plan.injectors ? attempt(() => injectorsAt(plan, point.flows.fuelKgPerS).duty) : undefined
  const current = pumpCurrentA(plan, path)
  const ofOnePump = plan.pump && attempt(() => pumpFlowM3PerS(plan.pump?.points ?? [], pumpOutletPa(plan, path)))
  const torqueNm = greatestTorqueNm(plan, point.crankPowerW)
  return {
    wheelPower: point.wheelPowerW,
    crankPower: point.crankPowerW,
    crankTorque: torqueNm,
    gearboxTorque: torqueNm,
    airFlow: point.flows.airKgPerS,
    fuelFlow: point.fuelM3PerS,
    engineSpeed: plan.engine.redlineRpm,
    ...(plan.air.isBoosted ? { boost: Math.max(0, path.manifoldPressurePa - plan.air.ambientPressurePa), outletTemperature: path.outletTemperatureK } : {}),
    ...(plan.pump ? { fuelPressure: pumpOutletPa(plan, path) } : {}),
    ...(typeof ofOnePump === 'number' ? { feedPumps: point.fuelM3PerS / ofOnePump } : {}),
    chargeTemperature: path.chargeTemperatureK,
    ...(current === undefined ? {} : { pumpCurrent: current }),
    ...(typeof duty === 'number' ? { injectorDuty: duty } : {}),
  }
}

/** Current of all pumps where it was measured with their flow, by straight lines between the points. */
function pumpCurrentA(plan: EnginePlan, path: ReturnType<typeof airPath>): number | undefined {
  const points = plan.pump?.points.filter((point) => point.currentA !== null) ?? []
  if (!plan.pump || points.length === 0) return undefined
  const asFlow = points.map((point) => ({ pressurePa: point.pressurePa, flowM3PerS: point.currentA as number }))
  const each = attempt(() => pumpFlowM3PerS(asFlow, pumpOutletPa(plan, path)))
  return typeof each === 'number' ? each * plan.pump.count : undefined
}
