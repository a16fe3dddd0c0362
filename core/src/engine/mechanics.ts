import { requireSpeedRpm } from '../dyno/power-torque.ts'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

/** Brake mean effective pressure, Pa: 4 π T/V_d with four strokes, half with two. Source: work of a cycle over displacement. @example bmepPa(450, 0.002, 4) // 2827433.4 */
export const bmepPa = (torqueNm: number, displacementM3: number, strokes: 2 | 4): number =>
  ((strokes === 4 ? 4 : 2) * Math.PI * requirePositive(torqueNm, 'torqueNm')) / requirePositive(displacementM3, 'displacementM3')

export interface BmepJudgement {
  readonly bmepPa: number
  readonly word: 'low' | 'usual without boost' | 'usual with boost' | 'beyond what is usual'
}

/** How a pressure sits against usual ranges (common practice, no source): 9 to 15 bar without boost, 15 to 35 with. Rejects over 40 bar as a slip. */
export function judgeBmep(torqueNm: number, displacementM3: number, strokes: 2 | 4): BmepJudgement {
  const found = bmepPa(torqueNm, displacementM3, strokes)
  if (found > 40e5)
    throw new CalculationError(
      'out-of-range',
      'torqueNm',
      `That is ${(found / 1e5).toFixed(0)} bar of mean pressure, over 40: check torque, displacement and their units.`,
    )
  const word = found < 9e5 ? 'low' : found <= 15e5 ? 'usual without boost' : found <= 35e5 ? 'usual with boost' : 'beyond what is usual'
  return { bmepPa: found, word }
}

export interface PistonMotion {
  readonly meanSpeedMps: number
  readonly peakSpeedMps: number
  /** At the top, towards the crank; the greatest there is. */
  readonly topAccelerationMps2: number
  readonly bottomAccelerationMps2: number
  readonly warnings: readonly string[]
}

/** Acceleration of the piston at a crank angle from the top, positive away from the crank: exact slider crank. Source: kinematics, closed form. */
export function pistonAccelerationMps2(radiusM: number, rodM: number, speedRpm: number, angleRad: number): number {
  const omega = (speedRpm * Math.PI) / 30
  const q = Math.sqrt(rodM ** 2 - (radiusM * Math.sin(angleRad)) ** 2)
  const [sine, cosine] = [Math.sin(angleRad), Math.cos(angleRad)]
  return -(omega ** 2) * (radiusM * cosine + (radiusM ** 2 * Math.cos(2 * angleRad)) / q + (radiusM ** 4 * sine ** 2 * cosine ** 2) / q ** 3)
}

/**
 * Piston speeds and accelerations: mean 2 S n/60, greatest speed of the exact slider crank, top r ω² (1 + r/l), bottom r ω² (1 − r/l).
 * Source: kinematics, closed form. Rejects a rod no longer than the crank radius; warns over 25 m/s, over 50 km/s² and r/l outside 0.2 to 0.4
 * (common practice, no source).
 */
export function pistonMotion(input: { strokeM: number; rodM: number; speedRpm: number }): PistonMotion {
  const { strokeM, rodM, speedRpm } = input
  const radius = requirePositive(strokeM, 'strokeM') / 2
  requireSpeedRpm(speedRpm)
  if (!(rodM > radius)) throw new CalculationError('inconsistent', 'rodM', 'The rod is no longer than the crank radius. Give its length between centres.')
  const omega = (speedRpm * Math.PI) / 30
  const speedAt = (angle: number) => {
    const sine = Math.sin(angle)
    return omega * radius * sine * (1 + (radius * Math.cos(angle)) / Math.sqrt(rodM ** 2 - (radius * sine) ** 2))
  }
  let [low, high] = [0.5, Math.PI / 2]
  // Golden section: the speed has one peak between the top and a quarter turn.
  const golden = (Math.sqrt(5) - 1) / 2
  while (high - low > 1e-12) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)]
    if (speedAt(a) < speedAt(b)) low = a
    else high = b
  }
  const ratio = radius / rodM
  const meanSpeedMps = (2 * strokeM * speedRpm) / 60
  const topAccelerationMps2 = radius * omega ** 2 * (1 + ratio)
  const warnings: string[] = []
  if (meanSpeedMps > 25) warnings.push('The mean piston speed is over 25 m/s: only specially built engines live there.')
  if (topAccelerationMps2 > 50_000) warnings.push('The piston accelerates with over 50 km/s² at the top: rods and bolts need a calculation of their own.')
  if (ratio < 0.2 || ratio > 0.4) warnings.push('Crank radius over rod length lies outside 0.2 to 0.4. Check stroke and rod.')
  return { meanSpeedMps, peakSpeedMps: speedAt((low + high) / 2), topAccelerationMps2, bottomAccelerationMps2: radius * omega ** 2 * (1 - ratio), warnings }
}

export const HEAT_SCHOOLS = ['shareOfFuel', 'shareOfPower'] as const

/**
 * Heat to coolant, W, by a share of the fuel's energy (17 to 30 %) or of the brake power (50 to 60 %), both common practice, no source. Rich mixtures
 * do not burn all of it: the fuel's energy counts with λ up to 1. With a coolant's rise it gives the flow. Rejects shares outside 0.05 to 1.
 */
export function heatToCoolant(input: {
  school: (typeof HEAT_SCHOOLS)[number]
  share: number
  powerW: number
  fuelKgPerS: number
  heatingValueJPerKg: number
  lambda: number
}): number {
  const { school, share, powerW, fuelKgPerS, heatingValueJPerKg, lambda } = input
  requireWithin(share, 0.05, 1, 'share')
  if (school === 'shareOfPower') return share * requirePositive(powerW, 'powerW')
  return (
    share *
    requirePositive(fuelKgPerS, 'fuelKgPerS') *
    requirePositive(heatingValueJPerKg, 'heatingValueJPerKg') *
    Math.min(1, requirePositive(lambda, 'lambda'))
  )
}

/** Coolant flow that carries a heat with a rise, m³/s: Q/(ρ c ΔT). Default: water with half glycol (handbook values, from memory). */
export const coolantFlowM3PerS = (heatW: number, riseK: number, densityKgM3 = 1030, heatCapacity = 3560): number =>
  requirePositive(heatW, 'heatW') / (densityKgM3 * heatCapacity * requirePositive(riseK, 'riseK'))
