import { requirePositive, requireWithin } from '../errors.ts'

export const MOTION_RATIO_READINGS = ['springOverWheel', 'wheelOverSpring'] as const
/** How a motion ratio was typed: spring travel over wheel travel, or the other way round. */
export type MotionRatioReading = (typeof MOTION_RATIO_READINGS)[number]

export interface WheelRates {
  readonly wheelRateNPerM: number
  readonly rideRateNPerM: number
  readonly rideFrequencyHz: number | null
  /** What it would be with the ratio read the other way. */
  readonly otherReadingNPerM: number
}

/**
 * Rate at the wheel, with the tyre in series, and the ride frequency of the mass on it: k_w = k_s MR², k_r = k_w k_t/(k_w + k_t), f = √(k_r/m)/2π.
 * Source: G.8. Rates in N/m, MR 0.2 to 2 (spring over wheel); sprungKg of one corner, null: no frequency.
 * @example wheelRates({ springRateNPerM: 58_850, motionRatio: 0.94, tyreRateNPerM: 230_000, sprungKg: null }).wheelRateNPerM // 51999.86
 */
export function wheelRates({
  springRateNPerM,
  motionRatio,
  tyreRateNPerM,
  sprungKg,
}: {
  readonly springRateNPerM: number
  readonly motionRatio: number
  readonly tyreRateNPerM: number
  readonly sprungKg: number | null
}): WheelRates {
  requirePositive(springRateNPerM, 'springRateNPerM')
  requirePositive(tyreRateNPerM, 'tyreRateNPerM')
  requireWithin(motionRatio, 0.2, 2, 'motionRatio')
  if (sprungKg !== null) requirePositive(sprungKg, 'sprungKg')
  const wheelRateNPerM = springRateNPerM * motionRatio ** 2
  const rideRateNPerM = (wheelRateNPerM * tyreRateNPerM) / (wheelRateNPerM + tyreRateNPerM)
  return {
    wheelRateNPerM,
    rideRateNPerM,
    rideFrequencyHz: sprungKg === null ? null : Math.sqrt(rideRateNPerM / sprungKg) / (2 * Math.PI),
    otherReadingNPerM: springRateNPerM / motionRatio ** 2,
  }
}

/**
 * Rate of a coil spring, N/m: G d⁴/(8 D³ n), of the wire's shear modulus (Pa), its diameter and the mean one of the coil (m) and the turns that work.
 * Source: torsion of the wire, closed form.
 * @example coilRateNPerM({ shearPa: 79e9, wireM: 0.011, coilM: 0.065, turns: 6 }) // 87743.8
 */
export function coilRateNPerM({
  shearPa,
  wireM,
  coilM,
  turns,
}: {
  readonly shearPa: number
  readonly wireM: number
  readonly coilM: number
  readonly turns: number
}): number {
  requirePositive(shearPa, 'shearPa')
  requirePositive(wireM, 'wireM')
  requireWithin(coilM, 2 * wireM, 0.5, 'coilM')
  requireWithin(turns, 0.5, 30, 'turns')
  return (shearPa * wireM ** 4) / (8 * coilM ** 3 * turns)
}
