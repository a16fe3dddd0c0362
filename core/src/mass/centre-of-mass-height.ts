import { CalculationError, requireFinite, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { mean } from '../stats/moments.ts'

/** One reading with an axle lifted: the load on the rear axle then. */
export interface LiftReading {
  /** Which axle was lifted. */
  readonly lifted: 'rear' | 'front'
  /** By how much the pads of the lifted axle stand higher. */
  readonly liftM: number
  readonly rearAxleKg: number
}

export interface CentreHeight {
  readonly heightM: number
  readonly sdM: number
  /** The spread one lift of this height would give, with the same scales and the same care. */
  readonly sdByLift: readonly { liftM: number; sdM: number }[]
  readonly warnings: readonly string[]
}

/** Spreads where none is given (common practice, no source): axle load, pad height difference, loaded radius. */
export const AXLE_SD_KG = 0.7
export const LIFT_SD_M = 0.005
export const RADIUS_SD_M = 0.002
const LEAST_LIFT_SHARE = 0.05

/**
 * A lift up to this is refused: the scales' own spread would drown what it tells.
 * @example leastLiftM(2.6) // 0.13
 */
export const leastLiftM = (axleDistanceM: number): number => LEAST_LIFT_SHARE * axleDistanceM
const GOOD_LIFT_SHARE = 0.15

/**
 * Height of the centre of mass from axle loads level and with one axle lifted. With D the distance of the axle centres, radii r_f and r_r and
 * pad height difference H (rear higher positive): sin θ = (r_r − r_f + H)/D, W_r/W = (s − q tan θ)/D, h = r_f + s sin θ₀ + q cos θ₀.
 * Several lifts: straight line of W_r/W on tan θ. Spread: u_h² = u_r² + (D u_W-terms of the slope)² + (q u_θ/(sin θ cos θ))², which for one
 * lift is [D √2 u_W/(W tan θ)]² and [q u_θ/(sin θ cos θ)]². Source: moments about the front contact, closed form.
 * Rejects a lift of 5 % of the axle distance or less, loads and lengths of zero or less. Warns under 15 % and for heights outside 0.25 to 0.9 m.
 */
export function centreOfMassHeight(input: {
  totalKg: number
  rearAxleKg: number
  lifts: readonly LiftReading[]
  wheelbaseM: number
  radiusFrontM: number
  radiusRearM: number
  axleSdKg?: number | undefined
  liftSdM?: number | undefined
  radiusSdM?: number | undefined
}): CentreHeight {
  const { totalKg, rearAxleKg, lifts, wheelbaseM, radiusFrontM, radiusRearM, axleSdKg = AXLE_SD_KG, liftSdM = LIFT_SD_M, radiusSdM = RADIUS_SD_M } = input
  for (const [field, value] of Object.entries({ totalKg, rearAxleKg, wheelbaseM, radiusFrontM, radiusRearM })) requirePositive(value, field)
  if (rearAxleKg >= totalKg) throw new CalculationError('inconsistent', 'rearAxleKg', 'The rear axle reads as much as the whole car. Check the level readings.')
  if (lifts.length === 0) throw new CalculationError('missing', 'lifts', 'There is no reading with an axle lifted. Give at least one.')
  const axleDistanceM = Math.hypot(wheelbaseM, radiusRearM - radiusFrontM)
  const radiusDifference = radiusRearM - radiusFrontM
  const tangent = (heightM: number) => Math.tan(Math.asin((radiusDifference + heightM) / axleDistanceM))
  const points = [{ heightM: 0, share: rearAxleKg / totalKg }, ...lifts.map((lift, i) => checkedPoint(lift, i, totalKg, axleDistanceM))]
  const tangents = points.map(({ heightM }) => tangent(heightM))
  const middle = mean(tangents)
  const spreadOfTangents = tangents.reduce((sum, t) => sum + (t - middle) ** 2, 0)
  const weights = tangents.map((t) => (t - middle) / spreadOfTangents)
  const slope = points.reduce((sum, { share }, i) => sum + itemAt(weights, i) * share, 0)
  const level = mean(points.map(({ share }) => share)) + slope * (itemAt(tangents, 0) - middle)
  const alongNormalM = -axleDistanceM * slope
  const alongAxleLineM = axleDistanceM * level + alongNormalM * itemAt(tangents, 0)
  const levelAngle = Math.asin(radiusDifference / axleDistanceM)
  const heightM = radiusFrontM + alongAxleLineM * Math.sin(levelAngle) + alongNormalM * Math.cos(levelAngle)
  const sd = (heights: readonly { heightM: number; weight: number }[]) => {
    const loadTerm = axleDistanceM ** 2 * (axleSdKg / totalKg) ** 2 * heights.reduce((sum, { weight }) => sum + weight ** 2, 0)
    const angleTerm = heights.reduce((sum, { heightM: lift, weight }) => {
      if (lift === 0) return sum
      const cosine = Math.cos(Math.asin((radiusDifference + lift) / axleDistanceM))
      const angleSd = liftSdM / (axleDistanceM * cosine)
      return sum + (alongNormalM * weight * (angleSd / cosine ** 2)) ** 2
    }, 0)
    return Math.sqrt(radiusSdM ** 2 + loadTerm + angleTerm)
  }
  const one = (liftM: number) => {
    const weight = 1 / (tangent(liftM) - tangent(0))
    return sd([
      { heightM: 0, weight: -weight },
      { heightM: liftM, weight },
    ])
  }
  return {
    heightM,
    sdM: sd(points.map(({ heightM: lift }, i) => ({ heightM: lift, weight: itemAt(weights, i) }))),
    sdByLift: [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8].filter((lift) => lift < axleDistanceM / 2).map((liftM) => ({ liftM, sdM: one(liftM) })),
    warnings: heightWarnings(heightM, lifts, axleDistanceM),
  }
}

function checkedPoint(lift: LiftReading, i: number, totalKg: number, axleDistanceM: number): { heightM: number; share: number } {
  requireFinite(lift.liftM, `lifts[${i}].liftM`)
  requirePositive(lift.rearAxleKg, `lifts[${i}].rearAxleKg`)
  if (!(lift.liftM > leastLiftM(axleDistanceM))) {
    const least = Math.ceil(leastLiftM(axleDistanceM) * 1000)
    throw new CalculationError(
      'out-of-range',
      `lifts[${i}].liftM`,
      `A lift of ${Math.round(lift.liftM * 1000)} mm is too small to tell a height: the scales' own spread would drown it. Lift by more than ${least} mm; 300 mm and more is usual.`,
    )
  }
  if (lift.liftM > axleDistanceM / 2) {
    throw new CalculationError('out-of-range', `lifts[${i}].liftM`, 'A lift of over half the wheelbase cannot be. Check the number and its unit.')
  }
  if (lift.rearAxleKg >= totalKg) {
    throw new CalculationError('inconsistent', `lifts[${i}].rearAxleKg`, 'The lifted reading is as much as the whole car. Type the load on the rear axle.')
  }
  return { heightM: lift.lifted === 'rear' ? lift.liftM : -lift.liftM, share: lift.rearAxleKg / totalKg }
}

function heightWarnings(heightM: number, lifts: readonly LiftReading[], axleDistanceM: number): string[] {
  const warnings: string[] = []
  if (lifts.every(({ liftM }) => liftM < GOOD_LIFT_SHARE * axleDistanceM))
    warnings.push(`Every lift is under 15 % of the wheelbase, so the spread is wide; ${Math.ceil(GOOD_LIFT_SHARE * axleDistanceM * 100)} cm or more is better.`)
  if (heightM < 0.25 || heightM > 0.9)
    warnings.push('The height lies outside 0.25 to 0.9 m. Check which axle was lifted, that the brakes were off and the suspension was locked.')
  return warnings
}
