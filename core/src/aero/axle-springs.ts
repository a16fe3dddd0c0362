import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

export interface RubberPoint {
  readonly compressionM: number
  readonly forceN: number
}

/** One axle's springs as they stand at a wheel: rates in N/m, lengths in m; gap and packer at the damper. */
export interface AxleSprings {
  readonly springRateNPerM: number
  readonly motionRatio: number
  /** Damper travel over wheel travel; null: as the spring's. */
  readonly damperMotionRatio: number | null
  readonly tyreRateNPerM: number
  /** Free travel of the damper before the rubber, with no packer; null: it is never reached. */
  readonly gapM: number | null
  readonly packerM: number
  /** Its own curve, rising, without the first point of nothing; goes on with its last slope. */
  readonly rubber: readonly RubberPoint[]
}

/** Springs that can be. Refuses those that cannot by the field. */
export function requireSprings(axle: AxleSprings, name: string): void {
  requirePositive(axle.springRateNPerM, `${name}.springRateNPerM`)
  requireWithin(axle.motionRatio, 0.2, 2, `${name}.motionRatio`)
  if (axle.damperMotionRatio !== null) requireWithin(axle.damperMotionRatio, 0.2, 2, `${name}.damperMotionRatio`)
  requirePositive(axle.tyreRateNPerM, `${name}.tyreRateNPerM`)
  requireWithin(axle.packerM, 0, 0.2, `${name}.packerM`)
  if (axle.gapM === null) return
  requireWithin(axle.gapM, 0, 0.3, `${name}.gapM`)
  if (axle.packerM > axle.gapM)
    throw new CalculationError('out-of-range', `${name}.packerM`, 'The packer is longer than the free gap: the damper stands on it at rest. Shorten it.')
  let before: RubberPoint = { compressionM: 0, forceN: 0 }
  for (const point of axle.rubber) {
    if (!(point.compressionM > before.compressionM && point.forceN >= before.forceN))
      throw new CalculationError('bad-input', `${name}.rubber`, 'The curve of the bump rubber must rise: more squeeze, more force. Check its points.')
    before = point
  }
}

const wheelRate = ({ springRateNPerM, motionRatio }: AxleSprings): number => springRateNPerM * motionRatio ** 2
const damperRatio = ({ damperMotionRatio, motionRatio }: AxleSprings): number => damperMotionRatio ?? motionRatio
const hasRubber = ({ gapM, rubber }: AxleSprings): boolean => gapM !== null && rubber.length > 0

/** Force of the rubber at a squeeze, N. */
function rubberN(rubber: readonly RubberPoint[], squeezeM: number): number {
  if (squeezeM <= 0 || rubber.length === 0) return 0
  let before: RubberPoint = { compressionM: 0, forceN: 0 }
  for (const [i, point] of rubber.entries()) {
    if (squeezeM <= point.compressionM || i === rubber.length - 1)
      return before.forceN + ((point.forceN - before.forceN) * (squeezeM - before.compressionM)) / (point.compressionM - before.compressionM)
    before = point
  }
  return 0
}

/**
 * Force at one wheel for a travel of the suspension, N: P(z) = k_s MR² z + MR_d R(MR_d z − (gap − packer)). Travel in m.
 * @example wheelForceN({ ...SPRINGS, gapM: null }, 0.01) // 519.9986
 */
export function wheelForceN(axle: AxleSprings, travelM: number): number {
  const own = wheelRate(axle) * travelM
  if (!hasRubber(axle)) return own
  const ratio = damperRatio(axle)
  return own + ratio * rubberN(axle.rubber, ratio * travelM - ((axle.gapM ?? 0) - axle.packerM))
}

/** Travels at which the stiffness of a wheel changes, m. */
export function kinksM(axle: AxleSprings): number[] {
  if (!hasRubber(axle)) return []
  const free = (axle.gapM ?? 0) - axle.packerM
  return [0, ...axle.rubber.slice(0, -1).map(({ compressionM }) => compressionM)].map((squeeze) => (free + squeeze) / damperRatio(axle))
}

/** The travel that holds a force at the wheel: P is piecewise linear and rises, so that each piece is solved exactly. */
function travelFor(axle: AxleSprings, forceN: number): number {
  const places = [0, ...kinksM(axle).filter((travel) => travel > 0)]
  const from = places.findLast((travel) => wheelForceN(axle, travel) <= forceN) ?? 0
  const at = wheelForceN(axle, from)
  const next = places.find((travel) => travel > from) ?? from + 1e-3
  const slope = forceN < 0 ? wheelRate(axle) : (wheelForceN(axle, next) - at) / (next - from)
  return from + (forceN - at) / slope
}

/**
 * How far an axle sinks under a load on both its wheels, m: travel of the suspension and squeeze of the tyre. Lifts where the load is under zero.
 * Source: G.8, statics, exact. Refuses springs that `rideHeights` refuses.
 * @example axleDropM({ ...SPRINGS, gapM: null }, 100) // 0.00117893
 */
export function axleDropM(axle: AxleSprings, axleN: number): number {
  requireSprings(axle, 'axle')
  return travelFor(axle, axleN / 2) + axleN / 2 / axle.tyreRateNPerM
}
