import { inverse, Matrix } from 'ml-matrix'
import { CalculationError, requirePositive } from '../errors.ts'
import { PAD_NAMES, type PadName } from './corners.ts'

export type PerCorner<Value> = Record<PadName, Value>

/** N/m at the wheel for each corner; in series with the tyres, and coupled by bars, where those are given. */
export interface CornerRates {
  readonly wheelRateNPerM: PerCorner<number>
  readonly tyreRateNPerM?: PerCorner<number> | undefined
  /** Rate of a bar per unit of left-right difference at the wheels; zero or left out where it is disconnected. */
  readonly barFrontNPerM?: number | undefined
  readonly barRearNPerM?: number | undefined
}

export interface CornerPlaces {
  readonly wheelbaseM: number
  readonly trackFrontM: number
  readonly trackRearM: number
}

/** Standard acceleration of free fall, exact by definition (CGPM 1901). */
export const STANDARD_GRAVITY_MPS2 = 9.80665

/**
 * A value for each corner: LF, RF, LR and RR.
 * @example perCorner((name) => name.length) // { LF: 2, RF: 2, LR: 2, RR: 2 }
 */
export const perCorner = <Value>(work: (name: PadName) => Value): PerCorner<Value> =>
  Object.fromEntries(PAD_NAMES.map((name) => [name, work(name)])) as PerCorner<Value>

export const asColumn = (values: PerCorner<number>): Matrix => Matrix.columnVector(PAD_NAMES.map((name) => values[name]))
export const fromColumn = (column: Matrix): PerCorner<number> => Object.fromEntries(PAD_NAMES.map((name, i) => [name, column.get(i, 0)])) as PerCorner<number>

/** Where the four contact patches are: a row a corner of 1, x rearward of the front axle, y to the left. */
export function cornerGeometry({ wheelbaseM, trackFrontM, trackRearM }: CornerPlaces): Matrix {
  requirePositive(wheelbaseM, 'wheelbaseM')
  requirePositive(trackFrontM, 'trackFrontM')
  requirePositive(trackRearM, 'trackRearM')
  return new Matrix([
    [1, 0, trackFrontM / 2],
    [1, 0, -trackFrontM / 2],
    [1, wheelbaseM, trackRearM / 2],
    [1, wheelbaseM, -trackRearM / 2],
  ])
}

export interface StiffnessMatrices {
  /** Load at the pads for a downward move of the body at the corners, tyres in series. */
  readonly ride: Matrix
  /** The same without tyres: wheel rates with the bars' coupling. */
  readonly suspension: Matrix
  /** Springs alone, on the diagonal. */
  readonly springs: Matrix
}

/**
 * Stiffness of the four corners: K = (K_susp⁻¹ + K_tyre⁻¹)⁻¹, K_susp the wheel rates with +c on the two ends of a bar and −c between them.
 * Source: linear statics, closed form. Rejects rates of zero or less and bars under zero.
 */
export function stiffness({ wheelRateNPerM, tyreRateNPerM, barFrontNPerM = 0, barRearNPerM = 0 }: CornerRates): StiffnessMatrices {
  for (const name of PAD_NAMES) {
    requirePositive(wheelRateNPerM[name], `wheelRateNPerM.${name}`)
    if (tyreRateNPerM) requirePositive(tyreRateNPerM[name], `tyreRateNPerM.${name}`)
  }
  for (const [field, rate] of [
    ['barFrontNPerM', barFrontNPerM],
    ['barRearNPerM', barRearNPerM],
  ] as const)
    if (!(rate >= 0)) throw new CalculationError('out-of-range', field, `${field} is ${rate}; a bar's rate is zero or more.`)
  const springs = Matrix.diag(PAD_NAMES.map((name) => wheelRateNPerM[name]))
  const suspension = springs.clone()
  for (const [left, bar] of [
    [0, barFrontNPerM],
    [2, barRearNPerM],
  ] as const) {
    for (const end of [left, left + 1]) suspension.set(end, end, suspension.get(end, end) + bar)
    suspension.set(left, left + 1, -bar)
    suspension.set(left + 1, left, -bar)
  }
  if (!tyreRateNPerM) return { ride: suspension, suspension, springs }
  const tyreFlexibility = Matrix.diag(PAD_NAMES.map((name) => 1 / tyreRateNPerM[name]))
  return { ride: inverse(Matrix.add(inverse(suspension), tyreFlexibility)), suspension, springs }
}

/** (BᵀKB)⁻¹: how the body moves in heave, pitch and roll under a load and its moments. */
export const bodyFlexibility = (geometry: Matrix, ride: Matrix): Matrix => inverse(geometry.transpose().mmul(ride).mmul(geometry))

/** One corner's rate with its tyre in series, bars disconnected; the mean of the four, for a height error of a block. */
export function meanRideRateNPerM(rates: CornerRates): number {
  const { ride } = stiffness({ ...rates, barFrontNPerM: 0, barRearNPerM: 0 })
  return ride.trace() / 4
}
