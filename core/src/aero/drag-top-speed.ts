import { requirePositive, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { bisect } from '../stats/normal.ts'

/** Rolling resistance of a car that nobody measured, over its weight (common practice, no source). */
export const USUAL_ROLLING = 0.014
export const USUAL_ROLLING_SD = 0.003

/**
 * The speed at which power is used up by air and rolling: P = ρ CdA v³/2 + Crr m g v, level, no wind, if the gearing lets it; with the spread that those of
 * power, drag area and rolling give it. W, m², kg, m/s. Source: G.1. Power 1 kW to 3 MW; drag area 0.1 to 3 m²; mass 100 to 5000 kg.
 * @example dragTopSpeed({ wheelPowerW: 318_000, wheelPowerSdW: 9500, dragAreaM2: 0.7674, dragAreaSdM2: 0.035, rollingCoefficient: 0.014, rollingSd: 0.003, massKg: 1335.9, airDensityKgM3: 1.2 }).speedMps // 86.89
 */
export function dragTopSpeed(input: {
  readonly wheelPowerW: number
  readonly wheelPowerSdW: number
  readonly dragAreaM2: number
  readonly dragAreaSdM2: number
  readonly rollingCoefficient: number
  readonly rollingSd: number
  readonly massKg: number
  readonly airDensityKgM3: number
}): { speedMps: number; sdMps: number } {
  const { wheelPowerW, dragAreaM2, rollingCoefficient, massKg, airDensityKgM3 } = input
  requireWithin(wheelPowerW, 1000, 3e6, 'wheelPowerW')
  requirePositive(dragAreaM2, 'dragAreaM2')
  requireWithin(dragAreaM2, 0.1, 3, 'dragAreaM2')
  requireWithin(rollingCoefficient, 0, 0.1, 'rollingCoefficient')
  requireWithin(massKg, 100, 5000, 'massKg')
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  const needed = (speed: number) => 0.5 * airDensityKgM3 * dragAreaM2 * speed ** 3 + rollingCoefficient * weightN * speed
  const speedMps = bisect((speed) => needed(speed) - wheelPowerW, 0, 1000)
  const slope = 1.5 * airDensityKgM3 * dragAreaM2 * speedMps ** 2 + rollingCoefficient * weightN
  const byDrag = 0.5 * airDensityKgM3 * speedMps ** 3 * input.dragAreaSdM2
  const byRolling = weightN * speedMps * input.rollingSd
  return { speedMps, sdMps: Math.hypot(input.wheelPowerSdW, byDrag, byRolling) / slope }
}

/**
 * Power that pushing the air takes, W: ρ CdA v³/2. Source: G.1. m², kg/m³, m/s.
 * @example powerFromDragW(0.8, 1.2, 50) // 60000
 */
export const powerFromDragW = (dragAreaM2: number, airDensityKgM3: number, speedMps: number): number => 0.5 * airDensityKgM3 * dragAreaM2 * speedMps ** 3
