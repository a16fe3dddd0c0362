import { CalculationError, requireFinite, requireSteps, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import type { Place } from './tyre-limits.ts'

/** A piece of a track: as long as it is, its curvature straight from the first to the second number. */
export interface Segment {
  readonly lengthM: number
  /** Left positive. */
  readonly curvaturePerM: number
  /** Null: as at its begin. */
  readonly endCurvaturePerM?: number | null
  readonly grade?: number
  readonly camberRad?: number
  readonly gripFactor?: number
}

/** A drawn track. */
export interface TrackLine {
  readonly segments: readonly Segment[]
  /** Whether its end is its begin. */
  readonly isClosed: boolean
}

export const MOST_SEGMENTS = 20_000
/** No bend of a track is tighter: a radius of 5 m. */
export const MOST_CURVATURE_PER_M = 0.2
/** More cells than that show nothing more. */
const MOST_CELLS = 60_000
/** Longer is no lap. */
const LONGEST_M = 60_000
const SHORTEST_M = 20

/** A track that a car can be driven on. Rejects others, with the place of the segment. */
export function requireTrack({ segments }: TrackLine): void {
  if (segments.length < 1 || segments.length > MOST_SEGMENTS)
    throw new CalculationError('out-of-range', 'segments', `A track has 1 to ${MOST_SEGMENTS} segments. Draw one, or join short ones.`)
  segments.forEach((segment, i) => {
    const at = `segments.${i}`
    requireFinite(segment.lengthM, `${at}.lengthM`)
    if (!(segment.lengthM > 0))
      throw new CalculationError('out-of-range', `${at}.lengthM`, `Segment ${i + 1} is ${segment.lengthM} m long: give it a length, or remove it.`)
    requireWithin(segment.curvaturePerM, -MOST_CURVATURE_PER_M, MOST_CURVATURE_PER_M, `${at}.curvaturePerM`)
    requireWithin(segment.endCurvaturePerM ?? 0, -MOST_CURVATURE_PER_M, MOST_CURVATURE_PER_M, `${at}.endCurvaturePerM`)
    requireWithin(segment.grade ?? 0, -0.4, 0.4, `${at}.grade`)
    requireWithin(segment.camberRad ?? 0, -0.6, 0.6, `${at}.camberRad`)
    requireWithin(segment.gripFactor ?? 1, 0.3, 1.2, `${at}.gripFactor`)
  })
  requireWithin(lengthOfTrack(segments), SHORTEST_M, LONGEST_M, 'segments')
}

/**
 * Length of all segments, m.
 * @example lengthOfTrack([{ lengthM: 20, curvaturePerM: 0 }, { lengthM: 5, curvaturePerM: 0.1 }]) // 25
 */
export const lengthOfTrack = (segments: readonly Segment[]): number => segments.reduce((sum, { lengthM }) => sum + lengthM, 0)

/** A short piece that a lap is worked out over: the place in its middle. */
export interface Cell extends Place {
  readonly lengthM: number
  /** Of its begin from the line. */
  readonly atM: number
  readonly segment: number
}

/** Cells of tracks that are still held: a forecast drives its track 30 times, and cutting it costs as much as driving it. */
const CUT = new WeakMap<readonly Segment[], Map<number, readonly Cell[]>>()

/**
 * A track cut into cells no longer than a step, whole per segment; the curvature of a spiral is that of the cell's middle. Rejects what `requireTrack` rejects,
 * and steps under 0.05 m or over 50.
 * @example trackCells(SKARVHOLM, 1).length // 2747
 */
export function trackCells(track: TrackLine, stepM = 1): readonly Cell[] {
  const known = CUT.get(track.segments)?.get(stepM)
  if (known) return known
  requireTrack(track)
  requireWithin(stepM, 0.05, 50, 'stepM')
  requireSteps(lengthOfTrack(track.segments) / stepM, MOST_CELLS, 'stepM')
  const cells: Cell[] = []
  let atM = 0
  track.segments.forEach((segment, index) => {
    const count = Math.max(1, Math.ceil(segment.lengthM / stepM - 1e-9))
    const lengthM = segment.lengthM / count
    const end = segment.endCurvaturePerM ?? segment.curvaturePerM
    const { curvaturePerM: begin, grade = 0, camberRad = 0, gripFactor = 1 } = segment
    for (let i = 0; i < count; i++) {
      const curvaturePerM = begin + ((end - begin) * (i + 0.5)) / count
      // Spelled out: a spread would cost more than all other sums of a cell.
      cells.push({ lengthM, atM: atM + i * lengthM, curvaturePerM, grade, camberRad, gripFactor, segment: index })
    }
    atM += segment.lengthM
  })
  CUT.set(track.segments, (CUT.get(track.segments) ?? new Map<number, readonly Cell[]>()).set(stepM, cells))
  return cells
}

/** A track laid out in the plane: points in m, heading in rad from the x axis, left positive. */
export interface TrackShape {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly headingRad: Float64Array
  readonly atM: Float64Array
  readonly lengthM: number
  /** How far its end misses its begin, m. */
  readonly gapM: number
  /** All its turning, rad: ±2π for a circuit that does not cross itself. */
  readonly turningRad: number
  /** Height of its end over its begin, m. */
  readonly risesM: number
}

/**
 * A track laid out in the plane from 0, 0 along the x axis, each cell an arc. Source: the room's page; turning of a simple closed curve is 2π.
 * Rejects what `requireTrack` rejects.
 * @example trackShape(SKARVHOLM).lengthM // 2734.02
 */
export function trackShape(track: TrackLine, stepM = 2): TrackShape {
  const cells = trackCells(track, stepM)
  const count = cells.length + 1
  const [x, y, headingRad, atM] = [new Float64Array(count), new Float64Array(count), new Float64Array(count), new Float64Array(count)]
  let risesM = 0
  cells.forEach(({ lengthM, curvaturePerM, grade }, i) => {
    const turn = curvaturePerM * lengthM
    const heading = itemAt(headingRad, i)
    // The chord of an arc: shorter than it by sin(turn/2)/(turn/2), along the middle heading.
    const chord = Math.abs(turn) < 1e-9 ? lengthM : (lengthM * Math.sin(turn / 2)) / (turn / 2)
    x[i + 1] = itemAt(x, i) + chord * Math.cos(heading + turn / 2)
    y[i + 1] = itemAt(y, i) + chord * Math.sin(heading + turn / 2)
    headingRad[i + 1] = heading + turn
    atM[i + 1] = itemAt(atM, i) + lengthM
    risesM += lengthM * grade
  })
  const last = count - 1
  return {
    x,
    y,
    headingRad,
    atM,
    lengthM: itemAt(atM, last),
    gapM: Math.hypot(itemAt(x, last), itemAt(y, last)),
    turningRad: itemAt(headingRad, last),
    risesM,
  }
}

/** The largest miss of a closed circuit, a share of its length. */
export const CLOSURE_SHARE = 0.005

/**
 * What is wrong with a circuit that is said to be closed, as sentences; none where it closes and turns once round.
 * @example closureProblems(SKARVHOLM) // []
 */
export function closureProblems(track: TrackLine): readonly string[] {
  if (!track.isClosed) return []
  const { gapM, lengthM, turningRad } = trackShape(track)
  const turns = Math.abs(turningRad) / (2 * Math.PI)
  const gap = gapM > CLOSURE_SHARE * lengthM ? [`The ends miss each other by ${gapM.toFixed(1)} m. Close it, or say it is no circuit.`] : []
  // A track that crosses itself by a bridge turns by nothing at all.
  const turning =
    Math.min(Math.abs(turns - 1), turns) > 0.01
      ? [`It turns by ${((turningRad * 180) / Math.PI).toFixed(0)} degrees; a circuit turns by 360, or by 0 with a crossing.`]
      : []
  return [...gap, ...turning]
}

/** The same track driven the other way up: each left a right. */
export const mirroredTrack = (track: TrackLine): TrackLine => ({
  ...track,
  segments: track.segments.map((segment) => ({
    ...segment,
    curvaturePerM: -segment.curvaturePerM,
    endCurvaturePerM: segment.endCurvaturePerM == null ? null : -segment.endCurvaturePerM,
  })),
})

/** A closed track whose line was moved by whole segments. */
export const restartedTrack = (track: TrackLine, segments: number): TrackLine => ({
  ...track,
  segments: [...track.segments.slice(segments), ...track.segments.slice(0, segments)],
})
