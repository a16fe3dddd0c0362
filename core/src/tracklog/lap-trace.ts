import { CalculationError, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import type { TrackLine } from '../track/track.ts'

/** Samples of a log around a lap; NaN: not sampled then. */
export interface LapSamples {
  readonly timeS: ArrayLike<number>
  readonly speedMps: ArrayLike<number> | null
  /** From the track's own origin, m. */
  readonly east: ArrayLike<number> | null
  readonly north: ArrayLike<number> | null
}

/** One lap of a log by distance along the track. */
export interface LapTrace {
  readonly atM: readonly number[]
  /** Since the lap's begin, s. */
  readonly timeS: readonly number[]
  /** Of the samples that were kept, in the lists they came in. */
  readonly rows: readonly number[]
  /** Length of the track over what the log says of it. */
  readonly factor: number
  readonly by: 'positions' | 'speed'
}

const LEAST_FACTOR = 0.97
const MOST_FACTOR = 1.03
/** So far ahead and behind of where the car was a sample is looked for on the track, m. */
const REACH_M = 120

/** Distance along a line of points for places near it, each looked for around the one before. */
function alongLine(line: { x: ArrayLike<number>; y: ArrayLike<number>; atM: ArrayLike<number> }, east: readonly number[], north: readonly number[]): number[] {
  const last = line.atM.length - 1
  let k = 0
  return east.map((x, i) => {
    const y = itemAt(north, i)
    let best = { far: Number.POSITIVE_INFINITY, atM: 0, k }
    const from = i === 0 ? 0 : k
    for (let j = from; j < last && (i === 0 ? itemAt(line.atM, j) < REACH_M : itemAt(line.atM, j) - itemAt(line.atM, k) < REACH_M); j++) {
      const [dx, dy] = [itemAt(line.x, j + 1) - itemAt(line.x, j), itemAt(line.y, j + 1) - itemAt(line.y, j)]
      const square = dx * dx + dy * dy
      const share = square > 0 ? Math.max(0, Math.min(1, ((x - itemAt(line.x, j)) * dx + (y - itemAt(line.y, j)) * dy) / square)) : 0
      const far = Math.hypot(x - itemAt(line.x, j) - share * dx, y - itemAt(line.y, j) - share * dy)
      if (far < best.far) best = { far, atM: itemAt(line.atM, j) + share * (itemAt(line.atM, j + 1) - itemAt(line.atM, j)), k: j }
    }
    k = best.k
    return best.atM
  })
}

/** Way by speed: the mean of both ends of each step. */
function bySpeed(timeS: readonly number[], speedMps: readonly number[]): number[] {
  const atM = [0]
  for (let i = 1; i < timeS.length; i++)
    atM.push((atM[i - 1] as number) + ((itemAt(timeS, i) - itemAt(timeS, i - 1)) * (itemAt(speedMps, i) + itemAt(speedMps, i - 1))) / 2)
  return atM
}

/** The rows of a lap that hold what distance is told by. */
function rowsOf({ timeS, speedMps, east, north }: LapSamples, fromS: number, lapS: number, by: LapTrace['by']): number[] {
  const rows: number[] = []
  for (let i = 0; i < timeS.length; i++) {
    const t = itemAt(timeS, i)
    if (t < fromS - 1e-6 || t > fromS + lapS + 1e-6) continue
    const told = by === 'positions' ? itemAt(east as ArrayLike<number>, i) + itemAt(north as ArrayLike<number>, i) : itemAt(speedMps as ArrayLike<number>, i)
    if (!Number.isNaN(told)) rows.push(i)
  }
  return rows
}

/**
 * A lap of a log by distance along the track: where its positions lie on the track's line, else the way that its speed makes, scaled to the track's length.
 * Source: the room's page. Rejects (`missing`) a log without either over the lap, and (`inconsistent`) a way outside 0.97 to 1.03 of the track's length.
 * @example lapTrace({ timeS: [0, 1, 2], speedMps: [50, 50, 50], east: null, north: null }, { fromS: 0, lapS: 2 }, { lengthM: 100, line: null }).atM[1] // 50
 */
export function lapTrace(
  samples: LapSamples,
  { fromS, lapS }: { readonly fromS: number; readonly lapS: number },
  { lengthM, line }: { readonly lengthM: number; readonly line: { x: ArrayLike<number>; y: ArrayLike<number>; atM: ArrayLike<number> } | null },
): LapTrace {
  requirePositive(lengthM, 'lengthM')
  requirePositive(lapS, 'lapS')
  const by = line && samples.east && samples.north ? 'positions' : 'speed'
  if (by === 'speed' && !samples.speedMps)
    throw new CalculationError('missing', 'speed', 'The log has no speed and no positions on this track: a lap of it cannot be laid along the track.')
  const rows = rowsOf(samples, fromS, lapS, by)
  if (rows.length < 3) throw new CalculationError('missing', 'samples', 'The log holds fewer than three samples of this lap.')
  const pick = (list: ArrayLike<number> | null) => rows.map((row) => itemAt(list as ArrayLike<number>, row))
  const timeS = pick(samples.timeS).map((t) => t - fromS)
  const raw = by === 'positions' && line ? alongLine(line, pick(samples.east), pick(samples.north)) : bySpeed(timeS, pick(samples.speedMps))
  // What lies before the first and behind the last sample is driven as fast as they are.
  const [first, last] = [itemAt(timeS, 0), itemAt(timeS, timeS.length - 1)]
  const sampledS = Math.max(1e-9, last - first)
  const way = by === 'positions' ? lengthM : (itemAt(raw, raw.length - 1) * lapS) / sampledS
  const factor = lengthM / way
  if (!(factor >= LEAST_FACTOR && factor <= MOST_FACTOR))
    throw new CalculationError(
      'inconsistent',
      'speed',
      `The speed of the log makes ${way.toFixed(0)} m of this lap, the track has ${lengthM.toFixed(0)} m: another track, or a speed of wrong scale.`,
    )
  const lead = by === 'positions' ? 0 : (way * first) / lapS
  let most = 0
  const atM = raw.map((at) => {
    // A position that falls back is noise: the car goes forward.
    most = Math.max(most, Math.min(lengthM, factor * (at + lead)))
    return most
  })
  return { atM, timeS, rows, factor, by }
}

/**
 * Values of a list by distance along a trace, straight between its places.
 * @example alongTrace({ atM: [0, 100] }, [20, 30], [50]) // [25]
 */
export function alongTrace({ atM }: Pick<LapTrace, 'atM'>, values: ArrayLike<number>, at: readonly number[]): number[] {
  let k = 0
  return at.map((s) => {
    while (k > 0 && itemAt(atM, k) > s) k--
    while (k < atM.length - 2 && itemAt(atM, k + 1) < s) k++
    const whole = itemAt(atM, k + 1) - itemAt(atM, k)
    const share = whole > 0 ? (s - itemAt(atM, k)) / whole : 1
    return itemAt(values, k) + Math.max(0, Math.min(1, share)) * (itemAt(values, k + 1) - itemAt(values, k))
  })
}

/**
 * By how much lap B is behind lap A along the track, by their clocks, s: nought at the line, and at the end the difference of both laps.
 * @example gapByClock({ atM: [0, 100], timeS: [0, 5], lapS: 5 }, { atM: [0, 100], timeS: [0, 4], lapS: 4 }, 100, [0, 50, 100]) // [0, -0.5, -1]
 */
export function gapByClock(
  a: Pick<LapTrace, 'atM' | 'timeS'> & { readonly lapS: number },
  b: Pick<LapTrace, 'atM' | 'timeS'> & { readonly lapS: number },
  lengthM: number,
  atM: readonly number[],
): number[] {
  const clock = ({ atM: places, timeS, lapS }: typeof a) => {
    const whole = { atM: [0, ...places, lengthM], timeS: [0, ...timeS, lapS] }
    return alongTrace(whole, whole.timeS, atM)
  }
  const [timeA, timeB] = [clock(a), clock(b)]
  return timeA.map((time, i) => itemAt(timeB, i) - time)
}

/**
 * The slope of the road under a lap by the log's clock: that of the track where the car was.
 * @example gradeUnder({ segments: [{ lengthM: 50, curvaturePerM: 0, grade: 0.02 }, { lengthM: 50, curvaturePerM: 0 }], isClosed: false }, { atM: [0, 100], timeS: [0, 4] }, 10)(11) // 0.02
 */
export function gradeUnder(track: TrackLine, trace: Pick<LapTrace, 'atM' | 'timeS'>, fromS: number): (timeS: number) => number {
  const ends: number[] = []
  for (const { lengthM } of track.segments) ends.push((ends.at(-1) ?? 0) + lengthM)
  return (timeS) => {
    const at = alongTrace({ atM: trace.timeS }, trace.atM, [timeS - fromS])[0] ?? 0
    const segment = ends.findIndex((end) => end > at)
    return (track.segments[segment < 0 ? track.segments.length - 1 : segment] as TrackLine['segments'][number]).grade ?? 0
  }
}
