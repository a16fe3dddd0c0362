import { CalculationError, requireWithin } from '../errors.ts'
import { floatAt, itemAt } from '../item-at.ts'
import { type LapCar, lapGears } from './lap-car.ts'
import { Driver, LEAST_V2 } from './lap-driver.ts'
import { type Cell, type TrackLine, trackCells } from './track.ts'
import { cornerSpeed, FASTEST_MPS, type TyreModel, tyreLimits } from './tyre-limits.ts'

export const LAP_HOLDERS = ['grip', 'power', 'braking', 'shift', 'gear'] as const
/** What holds the car at a place: its tyres, its engine, its brakes, a shift, or an engine that turns no faster. */
export type LapHolder = (typeof LAP_HOLDERS)[number]
export const LAP_HOLDER_WORDS: Record<LapHolder, string> = {
  grip: 'tyres hold it',
  power: 'engine holds it',
  braking: 'brakes hold it',
  shift: 'a shift holds it',
  gear: 'the last gear ends',
}

/** A lap, node by node: one more node than cells, the last one the first again where the track is closed. */
export interface Lap {
  readonly lapS: number
  readonly cells: readonly Cell[]
  readonly speedMps: Float64Array
  /** From the line to each node, s. */
  readonly timeS: Float64Array
  /** Of each cell. */
  readonly holder: readonly LapHolder[]
  /** Of each cell, counted from 1; 0 without gears on record. */
  readonly gear: Uint8Array
  /** The fastest that each cell's corner allows, m/s. */
  readonly limitMps: Float64Array
  readonly secondsBy: Readonly<Record<LapHolder, number>>
  readonly upshifts: number
  readonly fastestMps: number
  readonly slowestMps: number
}

export interface LapOptions {
  readonly stepM?: number
  /** Speed at the begin of a track that is no circuit, m/s. */
  readonly entryMps?: number
}

const USUAL_ENTRY_MPS = 15

/** Corner speeds by cell; equal places in a row are asked once. */
function cornerSpeeds(tyres: TyreModel, cells: readonly Cell[]): Float64Array {
  const found = new Float64Array(cells.length)
  let before: Cell | undefined
  cells.forEach((cell, i) => {
    const isSame =
      before &&
      before.curvaturePerM === cell.curvaturePerM &&
      before.grade === cell.grade &&
      before.camberRad === cell.camberRad &&
      before.gripFactor === cell.gripFactor
    found[i] = isSame ? floatAt(found, i - 1) : cornerSpeed(tyres, cell)
    before = cell
  })
  return found
}

/** What a forward pass leaves of each cell. */
interface Forward {
  readonly v: Float64Array
  readonly gear: Uint8Array
  readonly holder: Uint8Array
  readonly upshifts: Uint8Array
}
const AT = { grip: 0, power: 1, braking: 2, shift: 3, gear: 4 } as const

function forward(
  driver: Driver,
  cells: readonly Cell[],
  { corner, limit }: { corner: Float64Array; limit: Float64Array },
  from: number,
  entryMps: number | null,
): Forward {
  const n = cells.length
  const v = new Float64Array(n + 1)
  const out = { v, gear: new Uint8Array(n), holder: new Uint8Array(n), upshifts: new Uint8Array(n) }
  driver.v = entryMps === null ? floatAt(limit, from) : Math.min(entryMps, floatAt(limit, from))
  driver.takeBest()
  v[from] = driver.v
  for (let step = 0; step < n; step++) {
    const i = (from + step) % n
    const begin = driver.v
    const isShifting = driver.shiftLeftS > 0
    driver.upshifts = 0
    driver.drive(itemAt(cells, i), floatAt(corner, i))
    const cap = floatAt(limit, i + 1)
    const isCapped = driver.v >= cap
    out.upshifts[i] = driver.upshifts
    out.gear[i] = driver.gear + 1
    out.holder[i] = isCapped || driver.isByTyres ? AT.grip : isShifting ? AT.shift : driver.isAtTop ? AT.gear : AT.power
    if (isCapped) driver.v = cap
    if (isCapped || (driver.v < begin && driver.shiftLeftS === 0 && !isShifting)) driver.takeBest()
    v[i + 1] = driver.v
    if (i === n - 1 && from > 0) v[0] = driver.v
  }
  return out
}

/** How hard a car slows at a place with its brakes on, m/s². */
function slowing(car: LapCar, tyres: TyreModel, cell: Cell, speedMps: number): number {
  const { left, brakingN, resistanceN, slopeN } = tyres.at(cell, speedMps)
  return (car.brakingUse * left * brakingN + resistanceN + slopeN) / car.massKg
}

/** Speeds from which what comes can still be reached, from the slowest node backward. */
function backward(car: LapCar, tyres: TyreModel, cells: readonly Cell[], reach: Float64Array, from: number, isClosed: boolean): Float64Array {
  const n = cells.length
  const v = Float64Array.from(reach)
  const start = isClosed ? from : n
  for (let step = 0; step < n; step++) {
    const i = (((start - 1 - step) % n) + n) % n
    if (isClosed && i === n - 1) v[n] = floatAt(v, 0)
    const end = floatAt(v, i + 1)
    const cell = itemAt(cells, i)
    const a = slowing(car, tyres, cell, end)
    const before = Math.sqrt(Math.max(LEAST_V2, end * end + 2 * a * cell.lengthM))
    const b = slowing(car, tyres, cell, before)
    const allowed = Math.sqrt(Math.max(LEAST_V2, end * end + (a + b) * cell.lengthM))
    v[i] = Math.min(floatAt(reach, i), allowed)
  }
  if (isClosed) v[n] = floatAt(v, 0)
  return v
}

function nodeLimits(corner: Float64Array, isClosed: boolean): Float64Array {
  const n = corner.length
  const limit = new Float64Array(n + 1)
  for (let i = 0; i <= n; i++) {
    const before = i > 0 ? floatAt(corner, i - 1) : isClosed ? floatAt(corner, n - 1) : FASTEST_MPS
    const after = i < n ? floatAt(corner, i) : isClosed ? floatAt(corner, 0) : FASTEST_MPS
    limit[i] = Math.min(before, after)
  }
  return limit
}

function slowestNode(limit: Float64Array): number {
  let at = 0
  for (let i = 1; i < limit.length - 1; i++) if (floatAt(limit, i) < floatAt(limit, at)) at = i
  return at
}

function summed(cells: readonly Cell[], went: Forward, v: Float64Array, corner: Float64Array, hasGears: boolean): Lap {
  const n = cells.length
  const timeS = new Float64Array(n + 1)
  const holder: LapHolder[] = []
  const seconds = new Float64Array(LAP_HOLDERS.length)
  let [upshifts, fastestMps, slowestMps] = [0, floatAt(v, 0), floatAt(v, 0)]
  for (let i = 0; i < n; i++) {
    const a = floatAt(v, i)
    const b = floatAt(v, i + 1)
    fastestMps = Math.max(fastestMps, b)
    slowestMps = Math.min(slowestMps, b)
    const dt = (2 * itemAt(cells, i).lengthM) / (a + b)
    timeS[i + 1] = floatAt(timeS, i) + dt
    // Slower at its end, and one end taken back or at the corner's own speed: the brakes are on.
    const isTakenBack = b < floatAt(went.v, i + 1) - 1e-9 || a < floatAt(went.v, i) - 1e-9
    const isBraking = b < a - 1e-9 && (isTakenBack || b >= floatAt(corner, i) - 1e-9)
    const own = isBraking ? AT.braking : itemAt(went.holder, i)
    holder.push(LAP_HOLDERS[own] as LapHolder)
    seconds[own] = floatAt(seconds, own) + dt
    if (!isBraking) upshifts += itemAt(went.upshifts, i)
  }
  return {
    lapS: floatAt(timeS, n),
    cells,
    speedMps: v,
    timeS,
    holder,
    gear: hasGears ? went.gear : new Uint8Array(n),
    limitMps: corner,
    secondsBy: {
      grip: floatAt(seconds, AT.grip),
      power: floatAt(seconds, AT.power),
      braking: floatAt(seconds, AT.braking),
      shift: floatAt(seconds, AT.shift),
      gear: floatAt(seconds, AT.gear),
    },
    upshifts,
    fastestMps,
    slowestMps,
  }
}

/**
 * The lap of a car on a track: corner limits of all cells, once round forward from the slowest node with Heun steps in v² (the lesser of what engine and tyres
 * give, gears left at their speeds, the cell split there, no drive while a shift lasts), once back for the brakes, the lesser of both.
 * Track up to 60 km in cells of 0.05 to 50 m; the step's own error is under 1 ms at 1 m. Not in it: bars, springs, dampers, kerbs, heat and wear of tyres, the
 * line. Source: the room's page; H.2, H.3. Rejects what `requireTrack` and `requireLapCar` reject, and a slope that the car cannot climb.
 * @example lapOf(SKARVHOLM, LAP_CAR).lapS // 81.1045
 */
export function lapOf(track: TrackLine, car: LapCar, { stepM = 1, entryMps = USUAL_ENTRY_MPS }: LapOptions = {}): Lap {
  const gears = lapGears(car)
  const cells = trackCells(track, stepM)
  requireWithin(entryMps, 1, FASTEST_MPS, 'entryMps')
  const tyres = tyreLimits(car)
  const corner = cornerSpeeds(tyres, cells)
  const limit = nodeLimits(corner, track.isClosed)
  const from = track.isClosed ? slowestNode(limit) : 0
  const went = forward(new Driver(car, gears, tyres), cells, { corner, limit }, from, track.isClosed ? null : entryMps)
  const v = backward(car, tyres, cells, went.v, from, track.isClosed)
  const lap = summed(cells, went, v, corner, car.gears !== null)
  if (lap.slowestMps < 1)
    throw new CalculationError(
      'out-of-range',
      'segments',
      'The car does not get up this track: its slope asks for more than engine and tyres give. Check the grades.',
    )
  return lap
}
