import { GAS_CONSTANT_DRY_AIR } from '../air/density.ts'
import { requireSpeedRpm } from '../dyno/power-torque.ts'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

export interface EngineSize {
  readonly displacementM3: number
  /** 4 or 2. */
  readonly strokes: 2 | 4
}

/** Seconds that a cycle of filling takes: two turns with four strokes, one with two. */
export const cycleS = (speedRpm: number, strokes: 2 | 4): number => (strokes === 4 ? 120 : 60) / requireSpeedRpm(speedRpm)

function requireFilling(displacementM3: number, volumetricEfficiency: number, temperatureK: number): void {
  requirePositive(displacementM3, 'displacementM3')
  requireWithin(volumetricEfficiency, 0.2, 1.6, 'volumetricEfficiency')
  if (!(temperatureK >= 230))
    throw new CalculationError('out-of-range', 'manifoldTemperatureK', 'A manifold under 230 K cannot be. Give kelvin: 20 °C is 293.15.')
}

/**
 * Air that an engine takes: ṁ_a = VE p_m V_d/(R T_m) n/120 (four strokes). VE is referred to manifold density; schools that refer it to ambient
 * density give a boosted engine more than 1.5. Source: ideal gas, closed form. Rejects VE outside 0.2 to 1.6 and a manifold under 230 K.
 */
export function airFlowKgPerS(
  input: EngineSize & { speedRpm: number; volumetricEfficiency: number; manifoldPressurePa: number; manifoldTemperatureK: number },
): number {
  const { displacementM3, strokes, speedRpm, volumetricEfficiency, manifoldPressurePa, manifoldTemperatureK } = input
  requireFilling(displacementM3, volumetricEfficiency, manifoldTemperatureK)
  requirePositive(manifoldPressurePa, 'manifoldPressurePa')
  return (volumetricEfficiency * manifoldPressurePa * displacementM3) / (GAS_CONSTANT_DRY_AIR * manifoldTemperatureK * cycleS(speedRpm, strokes))
}

/** The reverse: the manifold pressure that an air flow needs, Pa absolute. */
export function manifoldPressurePa(
  input: EngineSize & { speedRpm: number; volumetricEfficiency: number; airKgPerS: number; manifoldTemperatureK: number },
): number {
  const { displacementM3, strokes, speedRpm, volumetricEfficiency, airKgPerS, manifoldTemperatureK } = input
  requireFilling(displacementM3, volumetricEfficiency, manifoldTemperatureK)
  requirePositive(airKgPerS, 'airKgPerS')
  return (airKgPerS * GAS_CONSTANT_DRY_AIR * manifoldTemperatureK * cycleS(speedRpm, strokes)) / (volumetricEfficiency * displacementM3)
}

/**
 * Pressure ratio of the compressor for a manifold pressure: (p_m + losses after it)/(p_ambient − loss before it).
 * Source: definition. Under 1 no compressor is needed, which is refused; over 3.5 a single stage is warned about by the caller.
 */
export function pressureRatio(input: { manifoldPressurePa: number; afterLossPa: number; ambientPressurePa: number; beforeLossPa: number }): number {
  const inlet = input.ambientPressurePa - input.beforeLossPa
  requirePositive(inlet, 'ambientPressurePa')
  const ratio = (requirePositive(input.manifoldPressurePa, 'manifoldPressurePa') + input.afterLossPa) / inlet
  if (ratio < 1) throw new CalculationError('out-of-range', 'manifoldPressurePa', 'The air that is needed comes in by itself: no compressor is needed for it.')
  return ratio
}
