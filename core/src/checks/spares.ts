import { requireWithin } from '../errors.ts'
import { regularisedGammaQ } from '../stats/incomplete-gamma.ts'
import { SETS_CHANCE } from './life-left.ts'

const MOST_PER_EVENT = 500

/**
 * How many spares do for an event of what breaks `perEvent` times in the mean: the least k with Q(k + 1, rate) at least the chance, breakages being independent of each
 * other (Poisson). Rejects a rate under 0 or over 500 and a chance outside 0.5 to 0.999. Source: Poisson sums as incomplete gammas (textbook); that it breaks so is
 * common practice, no source.
 * @example sparesNeeded({ perEvent: 0.5 }).spares // 1
 */
export function sparesNeeded({ perEvent, chance = SETS_CHANCE }: { perEvent: number; chance?: number }): { spares: number; chance: number } {
  requireWithin(perEvent, 0, MOST_PER_EVENT, 'perEvent')
  requireWithin(chance, 0.5, 0.999, 'chance')
  const doesFor = (spares: number) => (perEvent === 0 ? 1 : regularisedGammaQ(spares + 1, perEvent))
  let spares = 0
  while (doesFor(spares) < chance) spares += 1
  return { spares, chance: doesFor(spares) }
}
