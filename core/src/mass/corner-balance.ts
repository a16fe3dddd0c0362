import { inverse, Matrix } from 'ml-matrix'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { sharesOf } from './add-at.ts'
import { PAD_NAMES, PAD_WORDS } from './corners.ts'
import {
  asColumn,
  bodyFlexibility,
  type CornerPlaces,
  type CornerRates,
  cornerGeometry,
  fromColumn,
  type PerCorner,
  perCorner,
  STANDARD_GRAVITY_MPS2,
  stiffness,
} from './suspension.ts'

export interface CornerBalanceInput extends CornerPlaces, CornerRates {
  /** What the pads read before, kg. */
  readonly corners: PerCorner<number>
  /** (RF + LR)/total that is wanted. */
  readonly wantedCrossRfLr: number
  /** Spring travel over wheel travel. */
  readonly motionRatio: PerCorner<number>
  /** How far one turn moves the perch, m. */
  readonly threadPitchM: PerCorner<number>
  /** Turns are rounded to whole multiples of this; a quarter where left out. */
  readonly turnStep?: number | undefined
}

/** Perch moves and what they do. A turn above zero winds the perch so that the spring is compressed and the corner rises. */
export interface PerchPlan {
  readonly turns: PerCorner<number>
  /** What those turns give, worked out again after rounding. */
  readonly cornersKg: PerCorner<number>
  readonly crossShareRfLr: number
  /** Rise of the body over each wheel. */
  readonly riseM: PerCorner<number>
}

export interface CornerBalance {
  readonly before: { frontShare: number; leftShare: number; crossShareRfLr: number }
  /** Exact moves that leave every ride height where it is. */
  readonly exactTurns: PerCorner<number>
  /** The same rounded. */
  readonly heightKept: PerchPlan
  /** The other school: equal and opposite turns at all four corners, rounded. */
  readonly equalTurns: PerchPlan
}

/**
 * Perch turns that bring the cross share to a wanted value. Warp is the only pattern perches can load: w = (1/t_f, −1/t_f, −1/t_r, 1/t_r),
 * ΔF = λw with λ = −(C_t − C_0) W g/(1/t_f + 1/t_r). Moves u = K_w⁻¹ K_susp K⁻¹ λw at the wheel leave every ride height as it is;
 * perch = motion ratio × u. Equal and opposite turns reach the same cross and shift heights unless rates, tracks and ratios are equal.
 * Front, rear, left and right totals cannot be changed by perches. Source: linear statics, closed form.
 * Rejects a wanted cross outside 0.40 to 0.60, motion ratios outside 0 to 2, rates, pitches, tracks and loads of zero or less.
 * @example cornerBalance({ corners: CORNERS, ...PLACES, wheelRateNPerM: RATES, ...PERCHES, wantedCrossRfLr: 0.5 }).heightKept.crossShareRfLr // 0.499524
 */
export function cornerBalance(input: CornerBalanceInput): CornerBalance {
  const { corners, wantedCrossRfLr, motionRatio, threadPitchM, turnStep = 0.25, trackFrontM, trackRearM } = input
  requireWithin(wantedCrossRfLr, 0.4, 0.6, 'wantedCrossRfLr')
  requirePositive(turnStep, 'turnStep')
  for (const name of PAD_NAMES) {
    requirePositive(corners[name], `corners.${name}`)
    requirePositive(threadPitchM[name], `threadPitchM.${name}`)
    if (!(motionRatio[name] > 0 && motionRatio[name] <= 2)) {
      const sentence = `The motion ratio ${PAD_WORDS[name]} is ${motionRatio[name]}; spring travel over wheel travel lies over 0 and up to 2.`
      throw new CalculationError('out-of-range', `motionRatio.${name}`, sentence)
    }
  }
  const { ride, suspension, springs } = stiffness(input)
  const { frontShare, leftShare, crossShareRfLr } = sharesOf(corners)
  const before = { frontShare, leftShare, crossShareRfLr }
  const totalKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const warp = Matrix.columnVector([1 / trackFrontM, -1 / trackFrontM, -1 / trackRearM, 1 / trackRearM])
  const lambda = (-(wantedCrossRfLr - before.crossShareRfLr) * totalKg * STANDARD_GRAVITY_MPS2) / (1 / trackFrontM + 1 / trackRearM)
  const atWheel = fromColumn(inverse(springs).mmul(suspension).mmul(inverse(ride)).mmul(Matrix.mul(warp, lambda)))
  const exactTurns = perCorner((name) => (motionRatio[name] * atWheel[name]) / threadPitchM[name])
  const perTurn = forward(
    input,
    perCorner((name) => Math.sign(warp.get(PAD_NAMES.indexOf(name), 0))),
  )
  const crossPerTurn = perTurn.crossShareRfLr - before.crossShareRfLr
  const equal = (wantedCrossRfLr - before.crossShareRfLr) / crossPerTurn
  const rounded = (turns: number) => Math.round(turns / turnStep) * turnStep || 0
  return {
    before,
    exactTurns,
    heightKept: forward(
      input,
      perCorner((name) => rounded(exactTurns[name])),
    ),
    equalTurns: forward(
      input,
      perCorner((name) => rounded(equal * Math.sign(warp.get(PAD_NAMES.indexOf(name), 0)))),
    ),
  }
}

/**
 * What given perch turns do: F = K(δ + K_susp⁻¹ K_w u) with BᵀΔF = 0, so ΔF = [K − KB(BᵀKB)⁻¹BᵀK] K_susp⁻¹ K_w u and the body rises by
 * B(BᵀKB)⁻¹BᵀK K_susp⁻¹ K_w u. Source: linear statics, closed form; the tyre in series is exact here.
 * Rejects what `cornerBalance` rejects.
 * @example forward({ corners: CORNERS, ...PLACES, wheelRateNPerM: RATES, ...PERCHES }, { LF: 1, RF: 0, LR: 0, RR: 0 }).cornersKg.LF // 313.695
 */
export function forward(input: Omit<CornerBalanceInput, 'wantedCrossRfLr'>, turns: PerCorner<number>): PerchPlan {
  const { ride, suspension, springs } = stiffness(input)
  const geometry = cornerGeometry(input)
  const moves = asColumn(perCorner((name) => (turns[name] * input.threadPitchM[name]) / input.motionRatio[name]))
  const felt = inverse(suspension).mmul(springs).mmul(moves)
  const rise = geometry.mmul(bodyFlexibility(geometry, ride)).mmul(geometry.transpose()).mmul(ride).mmul(felt)
  const change = fromColumn(ride.mmul(Matrix.sub(felt, rise)))
  const cornersKg = perCorner((name) => input.corners[name] + change[name] / STANDARD_GRAVITY_MPS2)
  const lifted = PAD_NAMES.find((name) => cornersKg[name] < 0)
  if (lifted) throw new CalculationError('out-of-range', 'turns', `The ${PAD_WORDS[lifted]} wheel would lift off its pad. Take fewer turns.`)
  return { turns, cornersKg, crossShareRfLr: sharesOf(cornersKg).crossShareRfLr, riseM: fromColumn(rise) }
}
