import { GAS_CONSTANT_DRY_AIR } from '../air/density.ts'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

/** Ratio of specific heats and heat capacity of air, J/(kg K). */
const GAMMA = 1.4
export const AIR_HEAT_CAPACITY = 1005

/** Reference states that makers of compressor maps use; they differ by up to 8 % in flow. */
export const FLOW_REFERENCES = {
  '288.15 K, 101.325 kPa': { temperatureK: 288.15, pressurePa: 101_325 },
  '298 K, 100 kPa': { temperatureK: 298, pressurePa: 100_000 },
  '302.8 K, 96.18 kPa': { temperatureK: 302.8, pressurePa: 96_180 },
  '303.15 K, 98.1 kPa': { temperatureK: 303.15, pressurePa: 98_100 },
} as const
export type FlowReference = keyof typeof FLOW_REFERENCES

/**
 * What leaves a compressor: T2 = T1 (1 + (PR^((γ−1)/γ) − 1)/η), shaft power ṁ c_p (T2 − T1), and the flow as a map states it,
 * ṁ √(T1/T_ref)/(p1/p_ref) with the reference named. Source: compression with an isentropic efficiency, closed form, γ = 1.40.
 * Rejects ratios under 1, efficiencies outside 0.3 to 1, and a pressure under 40 kPa, which is likelier gauge than absolute.
 * @example compressor({ temperatureK: 298.15, pressurePa: 1e5, pressureRatio: 3, efficiency: 0.7, airKgPerS: 0.2, reference: '298 K, 100 kPa' }).outletTemperatureK // 455.2
 */
export function compressor(input: {
  temperatureK: number
  pressurePa: number
  pressureRatio: number
  efficiency: number
  airKgPerS: number
  reference: FlowReference | { readonly temperatureK: number; readonly pressurePa: number }
}): { outletTemperatureK: number; outletPressurePa: number; shaftPowerW: number; correctedFlowKgPerS: number } {
  const { temperatureK, pressurePa, pressureRatio, efficiency, airKgPerS, reference } = input
  requirePositive(temperatureK, 'temperatureK')
  requirePositive(airKgPerS, 'airKgPerS')
  requireWithin(efficiency, 0.3, 1, 'efficiency')
  if (pressurePa < 40_000)
    throw new CalculationError('out-of-range', 'pressurePa', 'The inlet pressure is under 40 kPa. Give it absolute, not over the ambient.')
  if (!(pressureRatio >= 1)) throw new CalculationError('out-of-range', 'pressureRatio', 'A pressure ratio is 1 or more.')
  const outletTemperatureK = temperatureK * (1 + (pressureRatio ** ((GAMMA - 1) / GAMMA) - 1) / efficiency)
  const { temperatureK: refK, pressurePa: refPa } = typeof reference === 'string' ? FLOW_REFERENCES[reference] : reference
  requirePositive(refK, 'reference.temperatureK')
  requirePositive(refPa, 'reference.pressurePa')
  return {
    outletTemperatureK,
    outletPressurePa: pressureRatio * pressurePa,
    shaftPowerW: airKgPerS * AIR_HEAT_CAPACITY * (outletTemperatureK - temperatureK),
    correctedFlowKgPerS: (airKgPerS * Math.sqrt(temperatureK / refK)) / (pressurePa / refPa),
  }
}

/**
 * What leaves an intercooler: T3 = T2 − ε (T2 − T_coolant), p3 = p2 − loss, ρ3 = p3/(R T3), heat ṁ c_p (T2 − T3).
 * Source: definition of effectiveness. Rejects ε outside 0 to 1, a loss that leaves no pressure, and a coolant warmer than the charge.
 */
export function intercooler(input: {
  temperatureK: number
  pressurePa: number
  coolantTemperatureK: number
  effectiveness: number
  pressureLossPa: number
  airKgPerS: number
}): { temperatureK: number; pressurePa: number; densityKgM3: number; heatW: number } {
  const { temperatureK, pressurePa, coolantTemperatureK, effectiveness, pressureLossPa, airKgPerS } = input
  requirePositive(coolantTemperatureK, 'coolantTemperatureK')
  requireWithin(effectiveness, 0, 1, 'effectiveness')
  requirePositive(airKgPerS, 'airKgPerS')
  const outPa = pressurePa - pressureLossPa
  requirePositive(outPa, 'pressureLossPa')
  if (coolantTemperatureK > temperatureK)
    throw new CalculationError('inconsistent', 'coolantTemperatureK', 'The coolant is warmer than the charge: it would heat it. Check both temperatures.')
  const outK = temperatureK - effectiveness * (temperatureK - coolantTemperatureK)
  return {
    temperatureK: outK,
    pressurePa: outPa,
    densityKgM3: outPa / (GAS_CONSTANT_DRY_AIR * outK),
    heatW: airKgPerS * AIR_HEAT_CAPACITY * (temperatureK - outK),
  }
}
