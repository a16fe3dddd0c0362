import { Matrix } from 'ml-matrix'
import { CalculationError, requireFinite } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { cornerFigures, PAD_NAMES, type PadReading } from './corners.ts'
import { bodyFlexibility, type CornerPlaces, type CornerRates, cornerGeometry, fromColumn, type PerCorner, perCorner, stiffness } from './suspension.ts'

export interface PlacedLoad {
  /** Below zero for a mass that comes off. */
  readonly massKg: number
  /** Rearward of the front axle. */
  readonly xM: number
  /** Left of the middle positive. */
  readonly yM: number
}

/** How a load and its moments [Σm, Σmx, Σmy] split over the corners: K B (BᵀKB)⁻¹. */
function loadSplit(places: CornerPlaces, rates: CornerRates): Matrix {
  const geometry = cornerGeometry(places)
  const { ride } = stiffness(rates)
  return ride.mmul(geometry).mmul(bodyFlexibility(geometry, ride))
}

/**
 * What each corner gains from a mass of 1 kg at (x, y): F = K B (BᵀKB)⁻¹ [1, x, y]ᵀ.
 * Rigid chassis, linear rates. Source: statics with the elastic corners, closed form. The four add up to 1.
 */
export const cornerShares = (places: CornerPlaces, rates: CornerRates, xM: number, yM: number): PerCorner<number> =>
  fromColumn(loadSplit(places, rates).mmul(Matrix.columnVector([1, xM, yM])))

export interface AddedMass {
  readonly changeKg: PerCorner<number>
  readonly cornersKg: PerCorner<number>
  readonly frontShare: number
  readonly leftShare: number
  readonly crossShareRfLr: number
}

/**
 * The change at each corner from masses put at places (or taken away, below zero), and the new shares.
 * Statics alone cannot tell four loads apart; the rates decide how a load off the middle splits. Linear: bump rubbers and droop
 * limits must not engage. Rejects places that are not finite, rates of zero or less, and a result with a corner under zero.
 * @example addAt({ corners: CORNERS, ...PLACES, wheelRateNPerM: RATES, loads: [{ massKg: 20, xM: 2.3, yM: -0.4 }] }).changeKg.LF // −1.327
 */
export function addAt(input: CornerPlaces & CornerRates & { corners: PerCorner<number>; loads: readonly PlacedLoad[] }): AddedMass {
  const { corners, loads } = input
  const sums = [0, 0, 0]
  loads.forEach(({ massKg, xM, yM }, i) => {
    requireFinite(massKg, `loads[${i}].massKg`)
    requireFinite(xM, `loads[${i}].xM`)
    requireFinite(yM, `loads[${i}].yM`)
    for (const [at, part] of [massKg, massKg * xM, massKg * yM].entries()) sums[at] = itemAt(sums, at) + part
  })
  const changeKg = fromColumn(loadSplit(input, input).mmul(Matrix.columnVector(sums)))
  const cornersKg = perCorner((name) => corners[name] + changeKg[name])
  const lifted = PAD_NAMES.find((name) => cornersKg[name] < 0)
  if (lifted) throw new CalculationError('out-of-range', 'loads', 'A wheel would lift off its pad. Put less there, or nearer to the middle.')
  const { frontShare, leftShare, crossShareRfLr } = sharesOf(cornersKg)
  return { changeKg, cornersKg, frontShare, leftShare, crossShareRfLr }
}

/**
 * Front and left share, both crosses and the wedge of four loads without spreads.
 * @example sharesOf(CORNERS).frontShare // 0.516949
 */
export function sharesOf(cornersKg: PerCorner<number>) {
  const pads = perCorner((name): PadReading => ({ massKg: cornersKg[name], sdKg: 0 }))
  const { frontShare, leftShare, crossShareRfLr, crossShareLfRr, wedgeKg } = cornerFigures(pads)
  return {
    frontShare: frontShare.value,
    leftShare: leftShare.value,
    crossShareRfLr: crossShareRfLr.value,
    crossShareLfRr: crossShareLfRr.value,
    wedgeKg: wedgeKg.value,
  }
}
