import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { cycleS } from './swallow.ts'

export interface InjectorInput {
  readonly fuelKgPerS: number
  readonly fuelDensityKgM3: number
  readonly injectorCount: number
  /** Static flow of one at its rated pressure, m³/s, and the density of the fluid it was rated with. */
  readonly ratedFlowM3PerS: number
  readonly ratedPressurePa: number
  readonly ratedDensityKgM3?: number | undefined
  /** Rail less manifold, both absolute. */
  readonly pressureDifferencePa: number
  /** Largest share of a cycle that it may be open, dead time included. */
  readonly dutyLimit: number
  readonly deadTimeS?: number | undefined
  readonly speedRpm?: number | undefined
}

export interface InjectorAnswer {
  readonly flowM3PerS: number
  readonly duty: number
  readonly flowNeededM3PerS: number
  /** Fuel that flows at the duty limit, kg/s. */
  readonly fuelAtLimitKgPerS: number
  readonly warnings: readonly string[]
}

/** Density of the fluid that injectors are usually rated with (common practice, no source). */
const TEST_FLUID_KG_M3 = 780

/**
 * Injectors: static flow q = q_r √(Δp/Δp_r · ρ_r/ρ), duty = ṁ_f/(ρ N q) plus the dead time's share of a cycle, and what they carry at the limit.
 * Source: flow through an orifice, closed form; holds within about 30 % of the rated pressure. Rejects Δp of zero or less, limits outside 0.3 to 1.
 */
export function injectors(input: InjectorInput): InjectorAnswer {
  const { fuelKgPerS, fuelDensityKgM3, injectorCount, ratedFlowM3PerS, ratedPressurePa, pressureDifferencePa, dutyLimit, deadTimeS = 0, speedRpm } = input
  for (const [field, value] of Object.entries({ fuelKgPerS, fuelDensityKgM3, injectorCount, ratedFlowM3PerS, ratedPressurePa })) requirePositive(value, field)
  if (!(pressureDifferencePa > 0))
    throw new CalculationError(
      'out-of-range',
      'pressureDifferencePa',
      'The rail has no more pressure than the manifold: nothing would flow. Give rail less manifold, both absolute.',
    )
  requireWithin(dutyLimit, 0.3, 1, 'dutyLimit')
  if (deadTimeS > 0 && speedRpm === undefined)
    throw new CalculationError(
      'missing',
      'speedRpm',
      'A dead time takes its share of a cycle, which lasts as long as the engine speed says. Give speedRpm, or leave deadTimeS out.',
    )
  const ratedDensity = input.ratedDensityKgM3 ?? TEST_FLUID_KG_M3
  const flowM3PerS = ratedFlowM3PerS * Math.sqrt((pressureDifferencePa / ratedPressurePa) * (ratedDensity / fuelDensityKgM3))
  const deadShare = speedRpm === undefined ? 0 : deadTimeS / cycleS(speedRpm, 4)
  const perInjector = fuelKgPerS / fuelDensityKgM3 / injectorCount
  const duty = perInjector / flowM3PerS + deadShare
  const open = dutyLimit - deadShare
  if (open <= 0) throw new CalculationError('inconsistent', 'deadTimeS', 'At this speed the dead time alone is longer than the injector may be open.')
  const warnings: string[] = []
  if (duty > 0.9) warnings.push('The duty is over 90 %: the injector hardly closes any more.')
  const ratio = pressureDifferencePa / ratedPressurePa
  if (ratio < 0.7 || ratio > 1.3) warnings.push('The pressure is more than 30 % off the rated one, where flow by the root of pressure holds.')
  return { flowM3PerS, duty, flowNeededM3PerS: perInjector / open, fuelAtLimitKgPerS: flowM3PerS * open * injectorCount * fuelDensityKgM3, warnings }
}

/** Share of a cycle that an injector really is open: duty less the dead time's. Cycle of four strokes. */
export const openShare = (duty: number, deadTimeS: number, speedRpm: number): number => duty - deadTimeS / cycleS(speedRpm, 4)

export interface FlowPoint {
  readonly pressurePa: number
  readonly flowM3PerS: number
}

/** Flow of a pump at a pressure, by straight lines between measured points; refuses a pressure outside them. */
export function pumpFlowM3PerS(points: readonly FlowPoint[], pressurePa: number): number {
  const sorted = [...points].sort((a, b) => a.pressurePa - b.pressurePa)
  const above = sorted.findIndex((point) => point.pressurePa >= pressurePa)
  const [high, low] = [sorted[above], sorted[above - 1]]
  if (!high || (!low && high.pressurePa !== pressurePa))
    throw new CalculationError(
      'out-of-range',
      'pressurePa',
      'The pump was not measured at this pressure. Give points on both sides of it; nothing is guessed beyond them.',
    )
  if (!low) return high.flowM3PerS
  const share = (pressurePa - low.pressurePa) / (high.pressurePa - low.pressurePa)
  return low.flowM3PerS + share * (high.flowM3PerS - low.flowM3PerS)
}

/**
 * Pumps against the engine's demand with a margin: whether the running ones carry it, and whether one may fail; spare ones run only then.
 * Source: continuity. Margins of 15 to 30 % are common practice, no source. Rejects points outside, margins outside 0 to 1, and no pump.
 */
export function fuelPumps(input: {
  fuelKgPerS: number
  fuelDensityKgM3: number
  points: readonly FlowPoint[]
  outletPressurePa: number
  pumpCount: number
  spareCount?: number | undefined
  margin: number
}): {
  flowPerPumpM3PerS: number
  demandM3PerS: number
  returnM3PerS: number
  marginReached: number
  marginOneFailed: number
  isEnough: boolean
  oneMayFail: boolean
} {
  const { fuelKgPerS, fuelDensityKgM3, points, outletPressurePa, pumpCount, spareCount = 0, margin } = input
  requirePositive(fuelKgPerS, 'fuelKgPerS')
  requirePositive(fuelDensityKgM3, 'fuelDensityKgM3')
  requireWithin(margin, 0, 1, 'margin')
  if (!Number.isInteger(pumpCount) || pumpCount < 1) throw new CalculationError('out-of-range', 'pumpCount', 'There is at least one pump. Give a whole number.')
  const flowPerPumpM3PerS = pumpFlowM3PerS(points, outletPressurePa)
  const demandM3PerS = fuelKgPerS / fuelDensityKgM3
  const reached = (count: number) => (count * flowPerPumpM3PerS) / demandM3PerS - 1
  return {
    flowPerPumpM3PerS,
    demandM3PerS,
    returnM3PerS: pumpCount * flowPerPumpM3PerS - demandM3PerS,
    marginReached: reached(pumpCount),
    marginOneFailed: reached(pumpCount - 1 + spareCount),
    isEnough: reached(pumpCount) >= margin,
    oneMayFail: pumpCount + spareCount > 1 && reached(pumpCount - 1 + spareCount) >= 0,
  }
}

/**
 * Electrical power of the running pumps at a pressure, from the current measured with their flow: N U I(p), by straight lines. Source: definition. Rejects
 * points without a current, and a pressure outside them.
 * @example pumpPowerW({ points: [{ pressurePa: 3e5, currentA: 12 }, { pressurePa: 5e5, currentA: 15 }], outletPressurePa: 4e5, pumpCount: 2, voltageV: 13.5 }) // 364.5
 */
export function pumpPowerW(input: {
  points: readonly { readonly pressurePa: number; readonly currentA?: number | undefined }[]
  outletPressurePa: number
  pumpCount: number
  voltageV: number
}): number {
  const { points, outletPressurePa, pumpCount, voltageV } = input
  const currents = points.flatMap(({ pressurePa, currentA }) => (currentA === undefined ? [] : [{ pressurePa, flowM3PerS: currentA }]))
  if (currents.length === 0)
    throw new CalculationError('missing', 'points', 'No point has a current. Measure it with the flow, at the voltage the car has, and give it as currentA.')
  return pumpCount * voltageV * pumpFlowM3PerS(currents, outletPressurePa)
}
