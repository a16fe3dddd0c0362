import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** How much of its downforce a device gives at a clearance of its own underside; 1 is what its value says. */
export interface MapPoint {
  readonly clearanceM: number
  readonly factor: number
}

/** A device that a person gave a height map, with what it gives at a factor of 1: areas at the tyres, m2. */
export interface MappedArea {
  readonly name: string
  /** Its underside, in the middle of it, over the ground at rest. */
  readonly xM: number
  readonly zM: number
  readonly frontM2: number
  readonly rearM2: number
  readonly map: readonly MapPoint[]
}

/**
 * A map that can be read: two clearances at least, rising. Refuses what is not, by the field.
 * @example requireMap([{ clearanceM: 0.02, factor: 0.6 }, { clearanceM: 0.08, factor: 1 }]) // undefined
 */
export function requireMap(map: readonly MapPoint[]): void {
  if (map.length < 2) throw new CalculationError('out-of-range', 'heightMap', 'A height map has two clearances at least. Type another.')
  for (const [i, { clearanceM, factor }] of map.entries()) {
    requireWithin(clearanceM, -0.05, 1, 'heightMap.clearanceM')
    requireWithin(factor, 0, 5, 'heightMap.factor')
    if (i > 0 && clearanceM <= itemAt(map, i - 1).clearanceM)
      throw new CalculationError('bad-input', 'heightMap', 'The clearances of a height map rise from line to line. Sort them, lowest first.')
  }
}

/**
 * The factor at a clearance, straight between two points and level beyond the ends.
 * @example mapFactor([{ clearanceM: 0.02, factor: 0.6 }, { clearanceM: 0.08, factor: 1 }], 0.05) // 0.8
 */
export function mapFactor(map: readonly MapPoint[], clearanceM: number): number {
  const above = map.findIndex((point) => point.clearanceM >= clearanceM)
  if (above === 0) return itemAt(map, 0).factor
  if (above < 0) return itemAt(map, map.length - 1).factor
  const [low, high] = [itemAt(map, above - 1), itemAt(map, above)]
  return low.factor + ((high.factor - low.factor) * (clearanceM - low.clearanceM)) / (high.clearanceM - low.clearanceM)
}
