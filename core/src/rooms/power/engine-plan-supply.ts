import { USUAL_BSFC_G_PER_KWH } from '../../engine/air-and-fuel.ts'
import { fuelPumps } from '../../engine/fuel-supply.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { AirPath, EnginePoint } from './engine-point.ts'

/** Torque at the crank at the speed of the power, and the greatest by the plan's rise. */
export const greatestTorqueNm = (plan: EnginePlan, crankPowerW: number): number =>
  (crankPowerW / ((plan.burn.powerSpeedRpm * Math.PI) / 30)) * plan.burn.torqueRise

/** Ethanol in the fuel that the usual range of E85 is of. */
const E85_SHARE = 0.85

/**
 * Usual fuel per power for how the plan's engine breathes and what it burns, g/kWh: between petrol and E85 by the share of ethanol, and on to pure ethanol alike (common practice, no source).
 * @example usualBsfc(PLAN)[0] // 446.04
 */
export function usualBsfc(plan: {
  readonly air: Pick<EnginePlan['air'], 'isBoosted'>
  readonly burn: Pick<EnginePlan['burn'], 'ethanolShare'>
}): readonly [number, number] {
  const boosted = plan.air.isBoosted ? 'Boosted' : 'NaturallyAspirated'
  const [petrol, e85] = [USUAL_BSFC_G_PER_KWH[`petrol${boosted}`], USUAL_BSFC_G_PER_KWH[`e85${boosted}`]]
  const share = plan.burn.ethanolShare / E85_SHARE
  return [0, 1].map((i) => (1 - share) * itemAt(petrol, i) + share * itemAt(e85, i)) as [number, number]
}

/** What the fuel has to reach above the air: what the regulator holds, the boost it follows, and what filter and lines take. Rejects a plan without pumps. */
export function pumpOutletPa(plan: EnginePlan, path: AirPath): number {
  const { pump, air } = plan
  if (!pump) throw new CalculationError('missing', 'pump', 'No pumps are chosen yet.')
  return pump.basePressurePa + Math.max(0, path.manifoldPressurePa - air.ambientPressurePa) + pump.lineLossPa
}

/** How a plan's pumps do at a point. Rejects a plan without pumps. */
export function pumpsAt(plan: EnginePlan, point: EnginePoint, path: AirPath) {
  const outletPressurePa = pumpOutletPa(plan, path)
  const pump = plan.pump as NonNullable<EnginePlan['pump']>
  const all = {
    fuelKgPerS: point.flows.fuelKgPerS,
    fuelDensityKgM3: point.fuel.densityKgM3,
    points: pump.points,
    outletPressurePa,
    pumpCount: pump.count,
    spareCount: pump.spareCount,
    margin: pump.margin,
  }
  return { ...fuelPumps(all), outletPressurePa }
}
