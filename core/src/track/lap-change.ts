import { CalculationError, requireFinite } from '../errors.ts'
import type { LapCar } from './lap-car.ts'

/** What is moved of a car that laps: added unless the name says factor. */
export interface LapChange {
  readonly massKg?: number
  readonly powerW?: number
  readonly dragAreaM2?: number
  readonly downforceFrontM2?: number
  readonly downforceRearM2?: number
  readonly gripFactor?: number
  readonly finalFactor?: number
  readonly shiftS?: number
  readonly centreHeightM?: number
  readonly brakeFrontShare?: number
  readonly brakingUse?: number
}

/** The greatest power of a curve, W. */
export const peakPowerW = (car: Pick<LapCar, 'curve'>): number => Math.max(...car.curve.powerW)

/**
 * A car with some of its numbers moved: power scales the whole curve so that its peak moves by that much; what turns scales with the mass; loads are still
 * counted against the car as it was. Rejects power of nothing or less.
 * @example changedLapCar(LAP_CAR, { massKg: -30 }).massKg // 1150
 */
export function changedLapCar(car: LapCar, change: LapChange): LapCar {
  for (const [key, value] of Object.entries(change)) requireFinite(value, key)
  const peak = peakPowerW(car)
  const scale = (peak + (change.powerW ?? 0)) / peak
  if (!(scale > 0)) throw new CalculationError('out-of-range', 'powerW', 'Nothing would be left of the power. Take away less.')
  const final = change.finalFactor ?? 1
  return {
    ...car,
    reference: car.reference ?? { massKg: car.massKg, frontShare: car.frontShare },
    massKg: car.massKg + (change.massKg ?? 0),
    curve: scale === 1 ? car.curve : { ...car.curve, powerW: car.curve.powerW.map((power) => power * scale) },
    dragAreaM2: car.dragAreaM2 + (change.dragAreaM2 ?? 0),
    downforceFrontM2: car.downforceFrontM2 + (change.downforceFrontM2 ?? 0),
    downforceRearM2: car.downforceRearM2 + (change.downforceRearM2 ?? 0),
    gripFactor: car.gripFactor * (change.gripFactor ?? 1),
    centreHeightM: car.centreHeightM + (change.centreHeightM ?? 0),
    brakeFrontShare: car.brakeFrontShare === null ? null : car.brakeFrontShare + (change.brakeFrontShare ?? 0),
    brakingUse: car.brakingUse + (change.brakingUse ?? 0),
    gears: car.gears && {
      ...car.gears,
      overallRatios: car.gears.overallRatios.map((ratio) => ratio * final),
      shiftS: Math.max(0, car.gears.shiftS + (change.shiftS ?? 0)),
    },
  }
}

/**
 * The change that takes another back: what was added taken away, a factor divided by.
 * @example undoneLapChange({ massKg: -30, gripFactor: 1.25 }) // { massKg: 30, gripFactor: 0.8 }
 */
export const undoneLapChange = (change: LapChange): LapChange =>
  Object.fromEntries(Object.entries(change).map(([key, value]) => [key, key === 'gripFactor' || key === 'finalFactor' ? 1 / value : -value]))

/** Downforce added with the balance kept, m2: by the share that the front has of it, of a car without any by its weight. */
export function keptDownforce(car: Pick<LapCar, 'downforceFrontM2' | 'downforceRearM2' | 'frontShare'>, areaM2: number): LapChange {
  const total = car.downforceFrontM2 + car.downforceRearM2
  const share = total > 0.02 ? car.downforceFrontM2 / total : car.frontShare
  return { downforceFrontM2: share * areaM2, downforceRearM2: (1 - share) * areaM2 }
}
