import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { bisect } from '../stats/normal.ts'
import { type AxleSprings, axleDropM, kinksM, requireSprings, wheelForceN } from './axle-springs.ts'
import { type MappedArea, mapFactor, requireMap } from './height-map.ts'

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
  /** Devices whose downforce follows how near the ground they are; what they give at a factor of 1 is in the areas above. */
  readonly mapped?: readonly MappedArea[]
}

export interface HeightsAtSpeed {
  readonly speedMps: number
  readonly frontDropM: number
  readonly rearDropM: number
  /** Nose down positive against rest, rad. */
  readonly rakeChangeRad: number
  readonly pointsM: readonly number[]
  /** Of each mapped device, in their order. */
  readonly factors: readonly number[]
}

function requireHeights({ front, rear, wheelbaseM, airDensityKgM3, downforceFrontM2, downforceRearM2, points, mapped = [] }: HeightsInput): void {
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
  for (const { map } of mapped) requireMap(map)
}

interface Drops {
  readonly frontM: number
  readonly rearM: number
}

const heightAt = ({ xM, zM }: { readonly xM: number; readonly zM: number }, { frontM, rearM }: Drops, wheelbaseM: number): number =>
  zM - frontM - ((rearM - frontM) * xM) / wheelbaseM

const factorsAt = ({ mapped = [], wheelbaseM }: HeightsInput, drops: Drops): number[] =>
  mapped.map((device) => mapFactor(device.map, heightAt(device, drops, wheelbaseM)))

/** How far the axles sink under the load that the devices have at given heights. */
function dropsUnder(input: HeightsInput, q: number, factors: readonly number[]): Drops {
  const more = (axle: 'frontM2' | 'rearM2') => (input.mapped ?? []).reduce((sum, device, i) => sum + (itemAt(factors, i) - 1) * device[axle], 0)
  return {
    frontM: axleDropM(input.front, q * (input.downforceFrontM2 + more('frontM2'))),
    rearM: axleDropM(input.rear, q * (input.downforceRearM2 + more('rearM2'))),
  }
}

/** Steps of speed in which a car with a map is brought up from rest, m/s. */
const PATH_STEP_MPS = 1
const MOST_TRIES = 600
const CLOSE_M = 1e-10

/** Where the car comes to rest on its springs at one pressure of the air, from where it stood a little slower. */
function settle(input: HeightsInput, q: number, from: Drops): Drops | null {
  if (!input.mapped?.length) return dropsUnder(input, q, [])
  let now = from
  for (let i = 0; i < MOST_TRIES; i++) {
    const next = dropsUnder(input, q, factorsAt(input, now))
    const off = Math.max(Math.abs(next.frontM - now.frontM), Math.abs(next.rearM - now.rearM))
    if (off < CLOSE_M) return next
    // Less of each step the longer it takes: a map that falls steeply would hop to and fro.
    const share = 1 / (2 + i / 60)
    now = { frontM: now.frontM + share * (next.frontM - now.frontM), rearM: now.rearM + share * (next.rearM - now.rearM) }
  }
  return null
}

/** The drops at a speed from those a little slower; a car that finds no steady height is refused with the speed. */
function settled(input: HeightsInput, speedMps: number, from: Drops): Drops {
  const found = settle(input, 0.5 * input.airDensityKgM3 * speedMps * speedMps, from)
  if (found) return found
  const names = (input.mapped ?? []).map(({ name }) => name).join(', ')
  throw new CalculationError(
    'inconsistent',
    'heightMap',
    `With its height map the car finds no steady height at ${speedMps.toFixed(0)} m/s: it would hop there. Check the map of ${names}, or stiffen the axle.`,
  )
}

/** The drops at a speed: at once without a map; with one on the way up from rest, as the car would come to it. */
function dropsAt(input: HeightsInput, speedMps: number): Drops {
  let drops: Drops = { frontM: 0, rearM: 0 }
  if (!input.mapped?.length) return settle(input, 0.5 * input.airDensityKgM3 * speedMps * speedMps, drops) as Drops
  const steps = Math.max(1, Math.ceil(speedMps / PATH_STEP_MPS))
  for (let i = 1; i <= steps; i++) drops = settled(input, (speedMps * i) / steps, drops)
  return drops
}

/**
 * Heights of low points at a speed: each axle sinks under its load q A, the body turns as a whole, and what lies beyond an axle moves with it. A device with a
 * height map gives more or less as it comes down: the steady height is looked for on the way up from rest.
 * Source: G.8; exact, piecewise linear in v²; with a map by fixed point. Refuses bad springs by name, air outside 0.6 to 1.5 kg/m³, speeds outside 0 to 150 m/s,
 * and (`inconsistent`) a map under which the car finds no steady height.
 * @example rideHeights(HEIGHTS, 70).frontDropM // 0.00672529
 */
export function rideHeights(input: HeightsInput, speedMps: number): HeightsAtSpeed {
  requireHeights(input)
  requireWithin(speedMps, 0, 150, 'speedMps')
  return heightsFor(input, speedMps, dropsAt(input, speedMps))
}

const heightsFor = (input: HeightsInput, speedMps: number, drops: Drops): HeightsAtSpeed => ({
  speedMps,
  frontDropM: drops.frontM,
  rearDropM: drops.rearM,
  rakeChangeRad: (drops.frontM - drops.rearM) / input.wheelbaseM,
  pointsM: input.points.map((point) => heightAt(point, drops, input.wheelbaseM)),
  factors: factorsAt(input, drops),
})

const FASTEST_MPS = 150

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
  if (input.mapped?.length) return contactByPath(input, which)
  const speeds = kinkSpeeds(input, input[which], which === 'front' ? input.downforceFrontM2 : input.downforceRearM2)
  return speeds[0] ?? null
}

/** The speed at which the load of an axle with a map in it reaches what its first kink holds, by halving. */
function contactByPath(input: HeightsInput, which: 'front' | 'rear'): number | null {
  const [kink] = kinksM(input[which])
  if (kink === undefined) return null
  const dropM = axleDropM(input[which], 2 * wheelForceN(input[which], kink))
  const over = (speed: number) => dropsAt(input, speed)[which === 'front' ? 'frontM' : 'rearM'] - dropM
  return over(FASTEST_MPS) < 0 ? null : bisect(over, 0, FASTEST_MPS)
}

export interface Touch {
  readonly name: string
  readonly touchMps: number | null
  /** The least height on the way to the fastest speed, and the speed that it has it at. */
  readonly leastM: number
  readonly leastAtMps: number
}

/**
 * Heights at several speeds, slowest first, as `rideHeights`; a car with a map is brought up through them once.
 * @example heightsAlong(HEIGHTS, [0, 70])[1].frontDropM // 0.00672529
 */
export function heightsAlong(input: HeightsInput, speeds: readonly number[]): HeightsAtSpeed[] {
  if (!input.mapped?.length) return speeds.map((speed) => rideHeights(input, speed))
  requireHeights(input)
  let [drops, at]: [Drops, number] = [{ frontM: 0, rearM: 0 }, 0]
  return speeds.map((speed) => {
    const steps = Math.max(1, Math.ceil((speed - at) / PATH_STEP_MPS))
    for (let i = 1; i <= steps; i++) drops = settled(input, at + ((speed - at) * i) / steps, drops)
    at = speed
    return heightsFor(input, speed, drops)
  })
}

/**
 * The least height of every low point up to a speed, and the speed at which it touches: heights are linear in v² between the speeds at which a rubber is
 * met, and not monotone over them, so that every such speed is looked at. m, m/s.
 * @example touches(HEIGHTS, 70)[0].touchMps // null
 */
export function touches(input: HeightsInput, fastestMps: number): Touch[] {
  requireHeights(input)
  requirePositive(fastestMps, 'fastestMps')
  const between = input.mapped?.length
    ? Array.from({ length: Math.ceil(fastestMps / PATH_STEP_MPS) }, (_, i) => i * PATH_STEP_MPS)
    : [...kinkSpeeds(input, input.front, input.downforceFrontM2), ...kinkSpeeds(input, input.rear, input.downforceRearM2)]
  const speeds = [0, ...between, fastestMps].filter((speed) => speed <= fastestMps).sort((a, b) => a - b)
  const heights = heightsAlong(input, speeds).map(({ pointsM }) => pointsM)
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
