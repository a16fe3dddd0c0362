import type { Part } from '../../records/part-kinds.ts'
import { partsOfKind, wholeCost, wholeMassKg } from './parts.ts'

/** What could replace a part: the cheapest of its kind that carries the whole sweep, else the one that carries most. */
export interface NextStep {
  readonly partId: string
  readonly cost: number | null
  readonly massDifferenceKg: number | null
  readonly limitPowerW: number | null
}

/**
 * The next step for a part: of those of its kind in the register that are not in the car nor worn out and carry more power, the cheapest that carries
 * the whole sweep, else the one that carries most; null where there is none. `limitPowerOf` is in W; null beyond the sweep, undefined without a rating.
 */
export function nextStep(part: Part, parts: readonly Part[], all: readonly Part[], limitPowerOf: (part: Part) => number | null | undefined): NextStep | null {
  const own = limitPowerOf(part)
  const better = partsOfKind(all, part.kind).flatMap((other) => {
    if (other.id === part.id || other.status === 'wornOut' || parts.some(({ id }) => id === other.id)) return []
    const limitPowerW = limitPowerOf(other)
    return limitPowerW === undefined || !isHigher(limitPowerW, own) ? [] : [{ other, limitPowerW }]
  })
  const cost = ({ other }: { other: Part }) => wholeCost(other) ?? Number.POSITIVE_INFINITY
  const found =
    better.filter(({ limitPowerW }) => limitPowerW === null).sort((a, b) => cost(a) - cost(b))[0] ??
    better.sort((a, b) => (b.limitPowerW ?? Number.POSITIVE_INFINITY) - (a.limitPowerW ?? Number.POSITIVE_INFINITY))[0]
  if (!found) return null
  const [mine, theirs] = [wholeMassKg(part), wholeMassKg(found.other)]
  return {
    partId: found.other.id,
    cost: wholeCost(found.other),
    massDifferenceKg: mine === null || theirs === null ? null : theirs - mine,
    limitPowerW: found.limitPowerW,
  }
}

/** Whether a limit power is higher than another; null is beyond the sweep. */
const isHigher = (limitPowerW: number | null, than: number | null | undefined): boolean =>
  than === undefined || (than !== null && (limitPowerW === null || limitPowerW > than))
