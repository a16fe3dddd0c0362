import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { sampleSd } from '../stats/moments.ts'
import { keepFit } from './coast-down-fit.ts'
import { type CoastPair, fitOf, type KeptFit, type PairFit } from './coast-model.ts'
import type { RollingSchool } from './rolling-schools.ts'

/** How far a single pair may be off, over its drag area (common practice, no source). */
export const ONE_PAIR_RELATIVE_SD = 0.05
/** What rotates, as a share of the mass, where nobody said (common practice, no source). */
export const USUAL_ROTATING_SHARE = 0.04
export const USUAL_ROTATING_SD = 0.01

export interface FittedCoastInput {
  readonly fits: readonly KeptFit[]
  readonly massKg: number
  readonly massSdKg: number
  /** null: the usual share of the mass. */
  readonly rotatingKg: number | null
  readonly airDensityKgM3: number
  readonly airDensitySd: number
  readonly rollingSchool: RollingSchool
  /** Speed at which rolling has doubled, by the school that says it grows. */
  readonly rollingSpeedMps: number
}

export interface CoastDown {
  readonly dragAreaM2: number
  readonly dragAreaSdM2: number
  readonly rollingCoefficient: number
  readonly fits: readonly (PairFit & { readonly dragAreaM2: number })[]
  /** What more pairs do not take away: of mass, of what rotates, of the air. */
  readonly systematicSdM2: number
}

export type CoastDownInput = Omit<FittedCoastInput, 'fits'> & { readonly pairs: readonly CoastPair[] }

const NO_PAIR = 'One direction cannot tell wind and slope from drag. Run it back as well.'

/**
 * Drag area and rolling of several pairs that were fitted: as `coastDown`, from what was kept of them. Refuses no pairs, and masses or air out of range.
 * @example fittedCoastDown({ ...COAST, fits: [keepFit(COAST_PAIR)] }).dragAreaM2 // 0.742
 */
export function fittedCoastDown(input: FittedCoastInput): CoastDown {
  const { massKg, massSdKg, rotatingKg, airDensityKgM3, airDensitySd, rollingSchool, rollingSpeedMps } = input
  if (input.fits.length === 0) throw new CalculationError('missing', 'pairs', NO_PAIR)
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(massSdKg, 0, massKg, 'massSdKg')
  requirePositive(rollingSpeedMps, 'rollingSpeedMps')
  const rotating = rotatingKg ?? USUAL_ROTATING_SHARE * massKg
  const rotatingSd = rotatingKg === null ? USUAL_ROTATING_SD * massKg : 0
  const effectiveKg = massKg + rotating
  requireWithin(massKg, 100, 5000, 'massKg')
  requireWithin(effectiveKg, massKg, 1.3 * massKg, 'effectiveKg')
  const fits = input.fits.map((kept) => {
    const fit = fitOf(kept, massKg, effectiveKg)
    const grows = rollingSchool === 'growing' ? fit.aN / rollingSpeedMps ** 2 : 0
    return { ...fit, dragAreaM2: (2 * (fit.cNPerMps2 - grows)) / airDensityKgM3 }
  })
  const dragAreaM2 = fits.reduce((sum, fit) => sum + fit.dragAreaM2, 0) / fits.length
  const spread = fits.length === 1 ? ONE_PAIR_RELATIVE_SD * dragAreaM2 : sampleSd(fits.map((fit) => fit.dragAreaM2)) / Math.sqrt(fits.length)
  const massRelative = Math.hypot(massSdKg * (1 + rotating / massKg), rotatingSd) / effectiveKg
  const systematicSdM2 = dragAreaM2 * Math.hypot(massRelative, airDensitySd / airDensityKgM3)
  return {
    dragAreaM2,
    dragAreaSdM2: Math.hypot(spread, systematicSdM2),
    rollingCoefficient: fits.reduce((sum, fit) => sum + fit.aN, 0) / fits.length / (massKg * STANDARD_GRAVITY_MPS2),
    fits,
    systematicSdM2,
  }
}

/**
 * Drag area and rolling of several pairs: the mean, with sd = hypot(s/√k, what mass, rotating mass and air bring). One pair counts for 5 %.
 * Never from the residual of a fit: gusts go through it. Source: the room's page, 2.9. Refuses what `fitPair` refuses; no pairs.
 * @example coastDown({ ...COAST, pairs: [COAST_PAIR] }).dragAreaM2 // 0.742
 */
export function coastDown(input: CoastDownInput): CoastDown {
  const { pairs, ...rest } = input
  if (pairs.length === 0) throw new CalculationError('missing', 'pairs', NO_PAIR)
  return fittedCoastDown({ ...rest, fits: pairs.map(keepFit) })
}
