import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** The Earth of WGS 84: half its greater axis, m, and its flattening. */
const SEMI_MAJOR_M = 6_378_137
const FLATTENING = 1 / 298.257223563

export interface Origin {
  readonly latitudeDeg: number
  readonly longitudeDeg: number
}

/** Metres for a degree at a place: the curvature of the meridian and of the parallel there. */
export function metresPerDegree({ latitudeDeg }: Origin): { north: number; east: number } {
  const e2 = FLATTENING * (2 - FLATTENING)
  const phi = (latitudeDeg * Math.PI) / 180
  const w = 1 - e2 * Math.sin(phi) ** 2
  const meridian = (SEMI_MAJOR_M * (1 - e2)) / w ** 1.5
  const parallel = (SEMI_MAJOR_M / Math.sqrt(w)) * Math.cos(phi)
  return { north: (meridian * Math.PI) / 180, east: (parallel * Math.PI) / 180 }
}

/** Farther from its origin no track reaches, degrees of latitude. */
export const FARTHEST_DEG = 0.5

/**
 * Places on the Earth as metres east (x) and north (y) of an origin, by the radii of WGS 84 there: within 1 mm for a kilometre.
 * Source: geodesy (from memory). Rejects places that are none, and those more than half a degree away.
 * @example toPlane({ latitudeDeg: 59.3, longitudeDeg: 18 }, [{ latitudeDeg: 59.301, longitudeDeg: 18.002 }]).x[0] // 113.95
 */
export function toPlane(origin: Origin, places: readonly Origin[]): { x: Float64Array; y: Float64Array } {
  requireWithin(origin.latitudeDeg, -85, 85, 'latitudeDeg')
  requireWithin(origin.longitudeDeg, -180, 180, 'longitudeDeg')
  const { north, east } = metresPerDegree(origin)
  const [x, y] = [new Float64Array(places.length), new Float64Array(places.length)]
  places.forEach(({ latitudeDeg, longitudeDeg }, i) => {
    const [up, across] = [latitudeDeg - origin.latitudeDeg, longitudeDeg - origin.longitudeDeg]
    if (!(Math.abs(up) <= FARTHEST_DEG && Math.abs(across) <= 2 * FARTHEST_DEG))
      throw new CalculationError(
        'out-of-range',
        `places.${i}`,
        `Place ${i + 1} lies ${Math.round(Math.abs(up) * 111)} km from the first. Cut it out, or choose another file.`,
      )
    x[i] = across * east
    y[i] = up * north
  })
  return { x, y }
}

/** Points at even steps along a line through given points, straight between them; points that repeat are passed over. Rejects fewer than two apart. */
export function evenSteps(
  points: { readonly x: ArrayLike<number>; readonly y: ArrayLike<number> },
  stepM: number,
  isClosed: boolean,
): {
  x: Float64Array
  y: Float64Array
  stepM: number
  lengthM: number
} {
  const [px, py, at]: [number[], number[], number[]] = [[], [], []]
  const count = points.x.length
  for (let k = 0; k < count + Number(isClosed); k++) {
    const [x, y] = [itemAt(points.x, k % count), itemAt(points.y, k % count)]
    const gone = px.length === 0 ? 0 : Math.hypot(x - (px.at(-1) as number), y - (py.at(-1) as number))
    if (px.length > 0 && gone < 1e-6) continue
    px.push(x)
    py.push(y)
    at.push((at.at(-1) ?? 0) + gone)
  }
  const lengthM = at.at(-1) ?? 0
  if (!(lengthM > 0)) throw new CalculationError('missing', 'points', 'All points are one place: there is no line.')
  const pieces = Math.max(4, Math.round(lengthM / stepM))
  const own = lengthM / pieces
  const n = isClosed ? pieces : pieces + 1
  const [x, y] = [new Float64Array(n), new Float64Array(n)]
  let k = 0
  for (let i = 0; i < n; i++) {
    const want = Math.min(lengthM, i * own)
    while (k < at.length - 2 && itemAt(at, k + 1) < want) k++
    const share = (want - itemAt(at, k)) / (itemAt(at, k + 1) - itemAt(at, k))
    x[i] = itemAt(px, k) * (1 - share) + itemAt(px, k + 1) * share
    y[i] = itemAt(py, k) * (1 - share) + itemAt(py, k + 1) * share
  }
  return { x, y, stepM: own, lengthM }
}
