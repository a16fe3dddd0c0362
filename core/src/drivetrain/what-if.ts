import type { DriveCar } from './drive-car.ts'

/** What is moved of a car, each by itself or together: factors, or what is added. */
export interface WhatIf {
  readonly powerFactor: number
  /** Added, kg. */
  readonly massKg: number
  /** Moved to the rear axle, a share of the whole. */
  readonly rearShare: number
  readonly frictionFactor: number
  readonly finalFactor: number
  readonly radiusFactor: number
  /** Added, s. */
  readonly shiftS: number
  readonly dragFactor: number
}

/**
 * A car with some of its numbers moved; what then lies outside of what a car can be is refused when it is driven.
 * @example whatIfCar(DRIVE, { powerFactor: 1, massKg: -40, rearShare: 0, frictionFactor: 1, finalFactor: 1, radiusFactor: 1, shiftS: 0, dragFactor: 1 }).massKg // 1200
 */
export const whatIfCar = (car: DriveCar, moved: WhatIf): DriveCar => ({
  ...car,
  curve: { ...car.curve, torqueNm: car.curve.torqueNm.map((torque) => torque * moved.powerFactor) },
  massKg: car.massKg + moved.massKg,
  frontShare: car.frontShare - moved.rearShare,
  friction: car.friction * moved.frictionFactor,
  finalRatio: car.finalRatio * moved.finalFactor,
  radiusM: car.radiusM * moved.radiusFactor,
  shiftS: Math.max(0, car.shiftS + moved.shiftS),
  dragAreaM2: car.dragAreaM2 * moved.dragFactor,
})
