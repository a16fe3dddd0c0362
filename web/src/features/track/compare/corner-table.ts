import { type Corner, type CornerSides, cornerSides } from '@bold-ballast/core'
import type { LaidLap } from '../use-lap-log.ts'

/** Corner by corner: least speeds of both laps, and what B loses from its begin to that of the next. */
export function cornerTable(a: LaidLap, b: LaidLap, corners: readonly Corner[]): readonly CornerSides[] {
  const side = ({ trace, lapS, of }: LaidLap) => ({ atM: trace.atM, timeS: trace.timeS, lapS, speedMps: of('speed') ?? of('wheelSpeed') ?? [] })
  return cornerSides(side(a), side(b), a.lengthM, corners)
}
