import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { bisect } from '../stats/normal.ts'

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

function requireSprings(axle: AxleSprings, name: string): void {
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
function kinksM(axle: AxleSprings): number[] {
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

export interface LowPoint {
  readonly name: string
  readonly xM: number
  /** Over the ground at rest. */
  readonly zM: number
}

export interface HeightsInput {
  readonly front: AxleSprings
  readonly rear: AxleSprings
  readonly wheelbaseM: number
  readonly airDensityKgM3: number
  /** At the tyres, down positive. */
  readonly downforceFrontM2: number
  readonly downforceRearM2: number
  readonly points: readonly LowPoint[]
}

export interface HeightsAtSpeed {
  readonly speedMps: number
  readonly frontDropM: number
  readonly rearDropM: number
  /** Nose down positive against rest, rad. */
  readonly rakeChangeRad: number
  readonly pointsM: readonly number[]
}

function requireHeights({ front, rear, wheelbaseM, airDensityKgM3, downforceFrontM2, downforceRearM2, points }: HeightsInput): void {
  requireSprings(front, 'front')
  requireSprings(rear, 'rear')
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(downforceFrontM2, -5, 10, 'downforceFrontM2')
  requireWithin(downforceRearM2, -5, 10, 'downforceRearM2')
  for (const { xM, zM } of points) {
    requireWithin(xM, -3, 7, 'points.xM')
    requireFinite(zM, 'points.zM')
  }
}

/**
 * Heights of low points at a speed: each axle sinks under its load q A, the body turns as a whole, and what lies beyond an axle moves with it.
 * Source: G.8; exact, piecewise linear in v². Refuses bad springs by name, air outside 0.6 to 1.5 kg/m³, speeds outside 0 to 150 m/s.
 * @example rideHeights(HEIGHTS, 70).frontDropM // 0.00672529
 */
export function rideHeights(input: HeightsInput, speedMps: number): HeightsAtSpeed {
  requireHeights(input)
  requireWithin(speedMps, 0, 150, 'speedMps')
  const q = 0.5 * input.airDensityKgM3 * speedMps * speedMps
  const frontDropM = axleDropM(input.front, q * input.downforceFrontM2)
  const rearDropM = axleDropM(input.rear, q * input.downforceRearM2)
  const { wheelbaseM } = input
  return {
    speedMps,
    frontDropM,
    rearDropM,
    rakeChangeRad: (frontDropM - rearDropM) / wheelbaseM,
    pointsM: input.points.map(({ xM, zM }) => zM - frontDropM - ((rearDropM - frontDropM) * xM) / wheelbaseM),
  }
}

/** Speeds, slowest first, at which an axle meets or leaves its rubber or a kink of it; none where its load lifts it. */
function kinkSpeeds({ airDensityKgM3 }: HeightsInput, axle: AxleSprings, areaM2: number): number[] {
  if (!(areaM2 > 0)) return []
  return kinksM(axle).map((travel) => Math.sqrt((4 * wheelForceN(axle, travel)) / (airDensityKgM3 * areaM2)))
}

/**
 * Speed at which an axle meets its bump rubber by air alone, m/s; null where it never does.
 * @example contactMps(HEIGHTS, 'front') // 56.3121
 */
export function contactMps(input: HeightsInput, which: 'front' | 'rear'): number | null {
  requireHeights(input)
  const speeds = kinkSpeeds(input, input[which], which === 'front' ? input.downforceFrontM2 : input.downforceRearM2)
  return speeds[0] ?? null
}

export interface Touch {
  readonly name: string
  readonly touchMps: number | null
  /** The least height on the way to the fastest speed, and the speed that it has it at. */
  readonly leastM: number
  readonly leastAtMps: number
}

/**
 * The least height of every low point up to a speed, and the speed at which it touches: heights are linear in v² between the speeds at which a rubber is
 * met, and not monotone over them, so that every such speed is looked at. m, m/s.
 * @example touches(HEIGHTS, 70)[0].touchMps // null
 */
export function touches(input: HeightsInput, fastestMps: number): Touch[] {
  requireHeights(input)
  requirePositive(fastestMps, 'fastestMps')
  const speeds = [0, ...kinkSpeeds(input, input.front, input.downforceFrontM2), ...kinkSpeeds(input, input.rear, input.downforceRearM2), fastestMps]
    .filter((speed) => speed <= fastestMps)
    .sort((a, b) => a - b)
  const heights = speeds.map((speed) => rideHeights(input, speed).pointsM)
  return input.points.map(({ name }, p) => {
    const own = heights.map((each) => itemAt(each, p))
    const least = own.reduce((best, height, i) => (height < itemAt(own, best) ? i : best), 0)
    const after = own.findIndex((height) => height <= 0)
    const touchMps = after < 0 ? null : after === 0 ? 0 : crossing(speeds, own, after)
    return { name, touchMps, leastM: itemAt(own, least), leastAtMps: itemAt(speeds, least) }
  })
}

/** Where a height that is linear in v² passes nothing, between a speed and the one before. */
function crossing(speeds: readonly number[], heights: readonly number[], after: number): number {
  const [v0, v1] = [itemAt(speeds, after - 1) ** 2, itemAt(speeds, after) ** 2]
  const [h0, h1] = [itemAt(heights, after - 1), itemAt(heights, after)]
  return Math.sqrt(v0 + ((v1 - v0) * h0) / (h0 - h1))
}

const STIFFEST_NPM = 2_000_000

/**
 * The spring rate of one axle that holds a low point at a height at a speed, N/m, between the spring that is in (or 10 N/mm) and 2000 N/mm.
 * Source: bracketed root of `rideHeights`. Refuses (`inconsistent`) where no spring does it.
 * @example springForHeight({ ...HEIGHTS, downforceFrontM2: 0.9, downforceRearM2: 0.75 }, { which: 'front', point: 0, heightM: 0.05, speedMps: 70 }) // 35989.74
 */
export function springForHeight(
  input: HeightsInput,
  { which, point, heightM, speedMps }: { readonly which: 'front' | 'rear'; readonly point: number; readonly heightM: number; readonly speedMps: number },
): number {
  const at = (springRateNPerM: number) => itemAt(rideHeights({ ...input, [which]: { ...input[which], springRateNPerM } }, speedMps).pointsM, point) - heightM
  const [soft, stiff] = [10_000, STIFFEST_NPM]
  return rootOf(at, soft, stiff, 'spring')
}

/**
 * The packer of one axle that holds a low point at a height at a speed, m. Refuses (`inconsistent`) where no packer that fits its gap does it, or there is no rubber.
 * @example packerForHeight({ ...HEIGHTS, downforceFrontM2: 0.9, downforceRearM2: 0.75 }, { which: 'front', point: 0, heightM: 0.05, speedMps: 70 }) // 0.0042158
 */
export function packerForHeight(
  input: HeightsInput,
  { which, point, heightM, speedMps }: { readonly which: 'front' | 'rear'; readonly point: number; readonly heightM: number; readonly speedMps: number },
): number {
  const { gapM, rubber } = input[which]
  if (gapM === null || rubber.length === 0)
    throw new CalculationError('missing', `${which}.rubber`, 'A packer works on a bump rubber. Type its curve and the free gap first.')
  const at = (packerM: number) => itemAt(rideHeights({ ...input, [which]: { ...input[which], packerM } }, speedMps).pointsM, point) - heightM
  return rootOf(at, 0, gapM, 'packer')
}

function rootOf(at: (value: number) => number, low: number, high: number, what: string): number {
  const [first, last] = [at(low), at(high)]
  if (first * last > 0)
    throw new CalculationError(
      'inconsistent',
      'heightM',
      `No ${what} holds that height there: it lies ${Math.abs(1000 * (Math.abs(first) < Math.abs(last) ? first : last)).toFixed(0)} mm away at best. Ask for another height.`,
    )
  return bisect((value) => (last > first ? at(value) : -at(value)), low, high)
}
