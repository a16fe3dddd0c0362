import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { CLOSURE_SHARE, MOST_CURVATURE_PER_M, type Segment } from '../track/track.ts'
import { evenSteps, type Origin, toPlane } from './plane.ts'
import { smoothingWeight, whittaker } from './whittaker.ts'

/** A cut-off that leaves corners and takes the noise of positions (common practice, no source). */
export const USUAL_CUT_OFF_M = 25
export const TRACE_STEP_M = 5
const FEWEST_POINTS = 20

/** A trace as a track can be drawn from it. */
export interface TracedTrack {
  readonly segments: readonly Segment[]
  readonly lengthM: number
  /** How far the ends of what was driven miss each other, m. */
  readonly gapM: number
  readonly turningRad: number
  /** Heading of its begin, from east to north, rad. */
  readonly bearingRad: number
  readonly cutOffM: number
  readonly problems: readonly string[]
}

const angle = (rad: number) => Math.atan2(Math.sin(rad), Math.cos(rad))

/** Heading of each piece between points, and the turn at each point shared by the pieces that meet there. */
function curvatures(x: Float64Array, y: Float64Array, isClosed: boolean): { pieceM: number[]; curvature: number[] } {
  const n = x.length
  const pieces = isClosed ? n : n - 1
  const heading = Array.from({ length: pieces }, (_, i) => Math.atan2(itemAt(y, (i + 1) % n) - itemAt(y, i), itemAt(x, (i + 1) % n) - itemAt(x, i)))
  const pieceM = Array.from({ length: pieces }, (_, i) => Math.hypot(itemAt(x, (i + 1) % n) - itemAt(x, i), itemAt(y, (i + 1) % n) - itemAt(y, i)))
  const turnAt = (i: number) => {
    if (!isClosed && (i <= 0 || i >= pieces)) return 0
    return angle(itemAt(heading, i % pieces) - itemAt(heading, (i - 1 + pieces) % pieces))
  }
  const curvature = pieceM.map((lengthM, i) => Math.max(-MOST_CURVATURE_PER_M, Math.min(MOST_CURVATURE_PER_M, (turnAt(i) + turnAt(i + 1)) / 2 / lengthM)))
  return { pieceM, curvature }
}

function problemsOf(lengthM: number, gapM: number, turningRad: number, isClosed: boolean): string[] {
  if (!isClosed) return []
  const turns = Math.abs(turningRad) / (2 * Math.PI)
  return [
    ...(gapM > CLOSURE_SHARE * lengthM ? [`The ends miss each other by ${gapM.toFixed(1)} m. Close it, or say it is no circuit.`] : []),
    ...(Math.min(Math.abs(turns - 1), turns) > 0.02 ? [`It turns by ${Math.round((turningRad * 180) / Math.PI)} degrees; a circuit turns by 360.`] : []),
  ]
}

/**
 * A track out of positions on the Earth, in driven order: laid in the plane, taken at steps of 5 m, smoothed by Whittaker with a cut-off length, each step a
 * piece of constant curvature; heights, where given, become grades over 50 m. A longer cut-off makes corners look faster: it stands beside every corner speed.
 * Source: H.1 and the room's page. Rejects fewer than 20 places, and a cut-off outside 12 to 200 m.
 * @example tracedTrack(CIRCLE_OF_80_M, { isClosed: true }).segments[0].curvaturePerM // 0.0125
 */
export function tracedTrack(
  places: readonly (Origin & { readonly heightM?: number | null })[],
  { isClosed, cutOffM = USUAL_CUT_OFF_M }: { isClosed: boolean; cutOffM?: number },
): TracedTrack {
  requireWithin(cutOffM, 12, 200, 'cutOffM')
  if (places.length < FEWEST_POINTS)
    throw new CalculationError('missing', 'places', `The trace has ${places.length} places; ${FEWEST_POINTS} are the least. Record a whole lap.`)
  const origin = itemAt(places, 0)
  const plane = toPlane(origin, places)
  const last = places.length - 1
  const gapM = Math.hypot(itemAt(plane.x, last) - itemAt(plane.x, 0), itemAt(plane.y, last) - itemAt(plane.y, 0))
  const even = evenSteps(plane, TRACE_STEP_M, isClosed)
  const weight = smoothingWeight({ stepM: even.stepM, cutOffM })
  const [x, y] = [whittaker(even.x, weight, isClosed), whittaker(even.y, weight, isClosed)]
  const { pieceM, curvature } = curvatures(x, y, isClosed)
  const grades = gradesOf(places, plane, pieceM, cutOffM, isClosed)
  const segments = pieceM.map((lengthM, i): Segment => ({ lengthM, curvaturePerM: itemAt(curvature, i), grade: itemAt(grades, i) }))
  const turningRad = segments.reduce((sum, segment) => sum + segment.lengthM * segment.curvaturePerM, 0)
  const lengthM = pieceM.reduce((sum, piece) => sum + piece, 0)
  const [ahead, behind] = [itemAt(x, 1), itemAt(x, 0)]
  const bearingRad = Math.atan2(itemAt(y, 1) - itemAt(y, 0), ahead - behind)
  return { segments, lengthM, gapM, turningRad, bearingRad, cutOffM, problems: problemsOf(lengthM, gapM, turningRad, isClosed) }
}

/** Heights are far noisier than places: they are smoothed over at least this length, m. */
const HEIGHT_CUT_OFF_M = 150
const STEEPEST = 0.25

function gradesOf(
  places: readonly { readonly heightM?: number | null }[],
  plane: { readonly x: Float64Array; readonly y: Float64Array },
  pieceM: readonly number[],
  cutOffM: number,
  isClosed: boolean,
): number[] {
  if (places.some(({ heightM }) => heightM == null)) return pieceM.map(() => 0)
  const at = [0]
  for (let i = 1; i < places.length; i++) {
    at.push(itemAt(at, i - 1) + Math.hypot(itemAt(plane.x, i) - itemAt(plane.x, i - 1), itemAt(plane.y, i) - itemAt(plane.y, i - 1)))
  }
  const whole = itemAt(at, at.length - 1)
  const count = isClosed ? pieceM.length : pieceM.length + 1
  let k = 0
  const heights = Array.from({ length: count }, (_, i) => {
    const want = (whole * i) / pieceM.length
    while (k < at.length - 2 && itemAt(at, k + 1) < want) k++
    const span = itemAt(at, k + 1) - itemAt(at, k)
    const share = span > 0 ? (want - itemAt(at, k)) / span : 0
    return (itemAt(places, k).heightM as number) * (1 - share) + (itemAt(places, k + 1).heightM as number) * share
  })
  const step = whole / pieceM.length
  const smooth = whittaker(heights, smoothingWeight({ stepM: step, cutOffM: Math.max(cutOffM, HEIGHT_CUT_OFF_M) }), isClosed)
  return pieceM.map((_, i) => {
    const grade = (itemAt(smooth, (i + 1) % count) - itemAt(smooth, i)) / step
    return Math.max(-STEEPEST, Math.min(STEEPEST, grade))
  })
}
