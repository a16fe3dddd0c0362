import { requireWithin } from '../errors.ts'

/** Outer sizes, m. */
export interface OuterSize {
  readonly lengthM: number
  readonly widthM: number
  readonly heightM: number
}

const AXES = ['lengthM', 'widthM', 'heightM'] as const

/**
 * Whether a part goes into a space of a car before it is ordered: of the six ways round the one that leaves most, which of its sizes lies along the length, the width and the
 * height of the space, and the least room that is left; less than nothing: so much too large. Square on: nothing is turned by an angle. Rejects sizes of zero or less and over 10 m.
 * @example fitsIn({ lengthM: 0.6, widthM: 0.4, heightM: 0.06 }, { lengthM: 0.42, widthM: 0.07, heightM: 0.62 }).leastRoomM // 0.01
 */
export function fitsIn(part: OuterSize, space: OuterSize): { fits: boolean; leastRoomM: number; along: readonly [string, string, string] } {
  for (const [name, size] of [
    ['part', part],
    ['space', space],
  ] as const)
    for (const axis of AXES) if (!(requireWithin(size[axis], 0, 10, `${name}.${axis}`) > 0)) requireWithin(size[axis], 0.001, 10, `${name}.${axis}`)
  let best: { leastRoomM: number; along: readonly [string, string, string] } | undefined
  for (const a of AXES)
    for (const b of AXES)
      for (const c of AXES) {
        if (a === b || b === c || a === c) continue
        const leastRoomM = Math.min(space.lengthM - part[a], space.widthM - part[b], space.heightM - part[c])
        if (!best || leastRoomM > best.leastRoomM) best = { leastRoomM, along: [a, b, c] }
      }
  const found = best as NonNullable<typeof best>
  return { fits: found.leastRoomM >= 0, ...found }
}
