import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { normalCdf } from '../stats/normal.ts'

export const SLOPE_SCHOOLS = ['lowAspect', 'liftingLine'] as const
/** How the slope of a short wing follows from its section: one formula down to very short wings, or lifting line, good above an aspect of 4. */
export type SlopeSchool = (typeof SLOPE_SCHOOLS)[number]
export const SLOPE_SCHOOL_WORDS: Readonly<Record<SlopeSchool, string>> = { lowAspect: 'low aspect ratio', liftingLine: 'lifting line' }

export const WING_PLACES = ['behindRoof', 'freeAir'] as const
export type WingPlace = (typeof WING_PLACES)[number]
/** What the car leaves of the pressure, and how far it turns the flow down, by where the wing stands (common practice, no source). */
export const FLOW_AT: Readonly<Record<WingPlace, { factor: number; factorSd: number; downwashRad: number; downwashSdRad: number }>> = {
  behindRoof: { factor: 0.75, factorSd: 0.15 / Math.sqrt(3), downwashRad: (7.5 * Math.PI) / 180, downwashSdRad: ((2.5 / Math.sqrt(3)) * Math.PI) / 180 },
  freeAir: { factor: 1, factorSd: 0.05, downwashRad: 0, downwashSdRad: (0.5 * Math.PI) / 180 },
}

/** Lift coefficients between which one element usually lets go, and two or more do (common practice, no source). */
export const STALL_ONE: StallBand = { from: 1.2, to: 1.6 }
export interface StallBand {
  readonly from: number
  readonly to: number
}
/** Share of the load that is added to the doubt for each chance of stall (common practice, no source). */
const DOUBT_PER_CHANCE = 0.25
const SLOPE_RELATIVE_SD = 0.05
const ZERO_LIFT_SD_RAD = Math.PI / 180
const SET_ANGLE_SD_RAD = (0.5 * Math.PI) / 180
const PROFILE_DRAG_RELATIVE_SD = 0.5

export interface WingShape {
  readonly spanM: number
  readonly chordM: number
  /** Height of the end plates; 0: none. */
  readonly plateHeightM: number
}

export interface WingInput extends WingShape {
  /** Trailing edge up. */
  readonly angleRad: number
  /** Of the section, as it stands with its hollow side up: below zero where it pushes down at no angle. */
  readonly zeroLiftRad: number
  readonly place: WingPlace
  readonly slopeSchool: SlopeSchool
  /** Slope of the section over 2π a radian. */
  readonly sectionShare: number
  /** How close the spread of load is to the best. */
  readonly spanEfficiency: number
  readonly profileDrag: number
  readonly stall: StallBand
}

export const USUAL_WING = {
  plateHeightM: 0,
  place: 'behindRoof',
  slopeSchool: 'lowAspect',
  sectionShare: 0.95,
  spanEfficiency: 0.95,
  profileDrag: 0.015,
  stall: STALL_ONE,
} as const satisfies Partial<WingInput>

/**
 * The aspect ratio that end plates make of a wing: A (1 + 1.9 h/b). Source: empirical rule of drag handbooks (from memory), doubtful beyond h/b 0.2;
 * refused beyond 0.4. Lengths in m.
 * @example effectiveAspect({ spanM: 1.4, chordM: 0.25, plateHeightM: 0.2 }) // 7.12
 */
export function effectiveAspect({ spanM, chordM, plateHeightM }: WingShape): number {
  requirePositive(spanM, 'spanM')
  requirePositive(chordM, 'chordM')
  requireWithin(plateHeightM / spanM, 0, 0.4, 'plateHeightM over spanM')
  return (spanM / chordM) * (1 + (1.9 * plateHeightM) / spanM)
}

/**
 * Lift slope of a whole wing, per radian, of its aspect ratio: a0 A/(k + √(A² + k²)) with k = a0/π, which tends to πA/2; or lifting line
 * a0/(1 + a0/(π e A)). Source: G.3. Aspect over 0; section slope up to 2π times 1.1.
 * @example wingSlope(2, { slopeSchool: 'lowAspect', sectionShare: 1, spanEfficiency: 1 }) // 2.60258
 */
export function wingSlope(
  aspect: number,
  { slopeSchool, sectionShare, spanEfficiency }: Pick<WingInput, 'slopeSchool' | 'sectionShare' | 'spanEfficiency'>,
): number {
  requirePositive(aspect, 'aspect')
  requireWithin(sectionShare, 0.5, 1.1, 'sectionShare')
  requireWithin(spanEfficiency, 0.4, 1, 'spanEfficiency')
  const a0 = 2 * Math.PI * sectionShare
  const k = a0 / Math.PI
  return slopeSchool === 'lowAspect' ? (a0 * aspect) / (k + Math.hypot(aspect, k)) : a0 / (1 + a0 / (Math.PI * spanEfficiency * aspect))
}

export interface WingEstimate {
  readonly effectiveAspect: number
  readonly slopePerRad: number
  readonly liftCoefficient: number
  readonly dragCoefficient: number
  /** Down positive. */
  readonly downforceM2: number
  readonly downforceSdM2: number
  readonly dragM2: number
  readonly dragSdM2: number
  /** Set angles at which it is likely to let go, first and last. */
  readonly stallFromRad: number
  readonly stallToRad: number
  readonly stallChance: number
}

/** One spread of the lift coefficient over itself, without what stall adds: from slope and angle. */
function liftRelativeSd(flowRad: number, downwashSdRad: number): number {
  return Math.hypot(Math.hypot(downwashSdRad, ZERO_LIFT_SD_RAD, SET_ANGLE_SD_RAD) / flowRad, SLOPE_RELATIVE_SD)
}

/**
 * What one wing element gives and costs, as areas (force over ρv²/2), with its doubt: CL = a (angle + downwash − zero lift), CD = cd0 + CL²/(π e A'),
 * times the pressure that the car leaves. Chance of stall from the band of lift coefficients. Source: G.3 and the room's page.
 * Refuses a wing past its band of stall, one that pushes up, and what `effectiveAspect` and `wingSlope` refuse. Angles −30 to 30 degrees.
 * @example wingEstimate({ ...WING, angleRad: 0 }).downforceM2 // 0.253318
 */
export function wingEstimate(input: WingInput): WingEstimate {
  const { spanM, chordM, angleRad, zeroLiftRad, place, spanEfficiency, profileDrag, stall } = input
  requireWithin(angleRad, -Math.PI / 6, Math.PI / 6, 'angleRad')
  requireWithin(zeroLiftRad, -0.35, 0.1, 'zeroLiftRad')
  requireWithin(profileDrag, 0.004, 0.2, 'profileDrag')
  const { factor, factorSd, downwashRad, downwashSdRad } = FLOW_AT[place]
  const aspect = effectiveAspect(input)
  const slopePerRad = wingSlope(aspect, input)
  const flowRad = angleRad + downwashRad - zeroLiftRad
  if (flowRad <= 0)
    throw new CalculationError('out-of-range', 'angleRad', 'At this angle the wing does not push down. Turn its trailing edge up, or check its zero lift.')
  const liftCoefficient = slopePerRad * flowRad
  const setAt = (lift: number) => lift / slopePerRad - downwashRad + zeroLiftRad
  if (liftCoefficient > stall.to)
    throw new CalculationError(
      'out-of-range',
      'angleRad',
      `The wing is past its stall: CL ${liftCoefficient.toFixed(2)}, let go by ${stall.to}. Set it under ${((setAt(stall.to) * 180) / Math.PI).toFixed(1)} degrees, or type a measured value.`,
    )
  const induced = liftCoefficient ** 2 / (Math.PI * spanEfficiency * aspect)
  const dragCoefficient = profileDrag + induced
  const stallChance = normalCdf((liftCoefficient - (stall.from + stall.to) / 2) / ((stall.to - stall.from) / 2 / Math.sqrt(3)))
  const lift = liftRelativeSd(flowRad, downwashSdRad)
  const dragSd = Math.hypot(2 * induced * lift, PROFILE_DRAG_RELATIVE_SD * profileDrag)
  const area = factor * spanM * chordM
  return {
    effectiveAspect: aspect,
    slopePerRad,
    liftCoefficient,
    dragCoefficient,
    downforceM2: liftCoefficient * area,
    downforceSdM2: liftCoefficient * area * Math.max(LEAST_RELATIVE_SD, Math.hypot(lift, factorSd / factor, DOUBT_PER_CHANCE * stallChance)),
    dragM2: dragCoefficient * area,
    dragSdM2: dragCoefficient * area * Math.hypot(dragSd / dragCoefficient, factorSd / factor),
    stallFromRad: setAt(stall.from),
    stallToRad: setAt(stall.to),
    stallChance,
  }
}

/** No estimate is surer than this, whatever its inputs say (common practice, no source). */
export const LEAST_RELATIVE_SD = 0.15
