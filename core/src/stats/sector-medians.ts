import { itemAt } from '../item-at.ts'
import { median } from './moments.ts'

/**
 * The middle of each sector over laps, s; of laps with as many sectors as most of them have. Null where none has sectors.
 * @example sectorMedians([[29.9, 28.5], [29.7, 28.4], [29.6, 28.3], []]) // [29.7, 28.4]
 */
export function sectorMedians(sectorS: readonly (readonly number[])[]): readonly number[] | null {
  const counts = sectorS.map(({ length }) => length).filter((length) => length > 0)
  if (counts.length === 0) return null
  const usual =
    [...new Set(counts)].sort((a, b) => counts.filter((count) => count === b).length - counts.filter((count) => count === a).length || b - a)[0] ?? 0
  const whole = sectorS.filter(({ length }) => length === usual)
  return Array.from({ length: usual }, (_, i) => median(whole.map((sectors) => itemAt(sectors, i))))
}
