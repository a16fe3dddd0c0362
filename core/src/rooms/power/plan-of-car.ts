import { injectors } from '../../engine/fuel-supply.ts'
import { fuelBlend } from '../../engine/fuels.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { FuelRole, Part } from '../../records/part-kinds.ts'

/** How far the fuel's ethanol share may lie from that of a rating (common practice, no source). */
const FUEL_TOLERANCE = 0.1

type PartRating = Part['ratings'][number]

/** Whether a rating holds for the fuel that a plan burns. */
export const holdsForFuel = ({ ethanolShare }: PartRating, { burn }: EnginePlan): boolean =>
  ethanolShare === null || Math.abs(ethanolShare - burn.ethanolShare) <= FUEL_TOLERANCE

/**
 * What a part does for the engine's fuel: as it says, else by the words of its kind; null for any other part.
 * @example fuelRoleOf({ fuelRole: null, kind: 'Lift pump' }) // 'liftPump'
 */
export function fuelRoleOf({ fuelRole, kind }: Pick<Part, 'fuelRole' | 'kind'>): FuelRole | null {
  if (fuelRole) return fuelRole
  if (/\binjectors?\b/i.test(kind)) return 'injectors'
  if (!/\b(fuel|lift|feed|spare) pumps?\b/i.test(kind)) return null
  return /\blift\b/i.test(kind) ? 'liftPump' : /\bspare\b/i.test(kind) ? 'sparePump' : 'feedPump'
}

/** Static flow of one injector, or flow of one pump, by a part's rating for the plan's fuel, m³/s; undefined without one. */
export function flowOfOne(part: Part, plan: EnginePlan): number | undefined {
  const rating = part.ratings.find((entry) => entry.of === 'fuelFlow' && holdsForFuel(entry, plan))
  return rating && (rating.isEach ? rating.limit : rating.limit / part.count)
}

const countOf = (parts: readonly Part[], role: FuelRole) => parts.filter((part) => fuelRoleOf(part) === role).reduce((sum, { count }) => sum + count, 0)

/**
 * A plan with what the car's own parts say of injectors and pumps, so that one part has one limit wherever it is looked at: number and static flow of the
 * rated injectors, the smaller of both duty limits, and the number of feed and spare pumps. What the parts do not say stays as planned.
 * @example planWithParts(PLAN, []).injectors.count // 8
 */
export function planWithParts(plan: EnginePlan, parts: readonly Part[]): EnginePlan {
  const fitted = parts.filter((part) => fuelRoleOf(part) === 'injectors')
  const rated = fitted.find((part) => flowOfOne(part, plan) !== undefined)
  const duties = fitted.flatMap(({ ratings }) => ratings.flatMap(({ of, limit }) => (of === 'injectorDuty' ? [limit] : [])))
  const [feedCount, spareCount] = [countOf(parts, 'feedPump'), countOf(parts, 'sparePump')]
  return {
    ...plan,
    injectors: plan.injectors && {
      ...plan.injectors,
      ...(rated ? { count: rated.count, ratedFlowM3PerS: flowOfOne(rated, plan) as number } : {}),
      dutyLimit: Math.min(plan.injectors.dutyLimit, ...duties),
    },
    pump: plan.pump && { ...plan.pump, count: feedCount || plan.pump.count, spareCount: spareCount || plan.pump.spareCount },
  }
}

/** How a plan's injectors do with so much fuel. Rejects a plan without injectors. */
export function injectorsAt(plan: EnginePlan, fuelKgPerS: number) {
  const { injectors: chosen, burn } = plan
  if (!chosen) throw new CalculationError('missing', 'injectors', 'No injectors are chosen yet.')
  return injectors({
    fuelKgPerS,
    fuelDensityKgM3: fuelBlend(burn.ethanolShare).densityKgM3,
    injectorCount: chosen.count,
    ratedFlowM3PerS: chosen.ratedFlowM3PerS,
    ratedPressurePa: chosen.ratedPressurePa,
    pressureDifferencePa: chosen.pressureDifferencePa,
    dutyLimit: chosen.dutyLimit,
    ...(chosen.deadTimeS === null ? {} : { deadTimeS: chosen.deadTimeS, speedRpm: burn.powerSpeedRpm }),
  })
}

/** Fuel that a plan's injectors let through at their duty limit, m³/s. Rejects a plan without injectors. */
export const injectorLimitM3PerS = (plan: EnginePlan): number => {
  // What flows at the limit does not hang on what is asked.
  const { fuelAtLimitKgPerS } = injectorsAt(plan, 1)
  return fuelAtLimitKgPerS / fuelBlend(plan.burn.ethanolShare).densityKgM3
}
