import type { Car } from '../../stages/car.ts'
import { massOf } from './mass-at-stage.ts'
import { frontShareAt } from './metrics.ts'

/** What a driver of the build makes of a stage, against the reference driver. */
export interface DriverEffect {
  readonly name: string
  readonly massKg: number
  readonly differenceKg: number
  readonly frontShare: number | null
  readonly frontShareDifference: number | null
}

/**
 * Mass and front share of a stage with each driver of the build in for the reference driver, at the driver's place. Front share is null where that place or
 * the share of the stage is not known. Source: moments, closed form.
 */
export function driverEffects(car: Car, position: number): DriverEffect[] {
  const { drivers, reference, driverPlace } = car.records.build
  const mass = drivers.length > 0 ? massOf(car, position) : undefined
  if (!mass) return []
  const share = frontShareAt(car, position)?.value
  const wheelbaseM = (car.builds[position] ?? car.records.build).wheelbaseM
  return drivers.map(({ name, massKg }): DriverEffect => {
    const differenceKg = massKg - reference.driverKg
    const total = mass.value + differenceKg
    const frontShare = share === undefined || !driverPlace ? null : (mass.value * share + differenceKg * (1 - driverPlace.xM / wheelbaseM)) / total
    return { name, massKg: total, differenceKg, frontShare, frontShareDifference: frontShare === null || share === undefined ? null : frontShare - share }
  })
}
