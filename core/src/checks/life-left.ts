import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { regularisedGammaQ } from '../stats/incomplete-gamma.ts'

/** How lives of one kind of part vary where nobody knows better (common practice, no source). */
export const USUAL_LIFE_CV = 0.3

/**
 * The chance that a part of mean life L that has run u runs a more: Q(1/c², (u + a)/(L c²))/Q(1/c², u/(L c²)), lives being gamma with coefficient of
 * variation c; all in one unit. Rejects a life of zero or less, use under zero, c outside 0.05 to 1.5, and use so far past the life that nothing is left to say.
 * Source: gamma distribution (textbook); that lives are so is common practice, no source.
 * @example chanceToLast({ life: 4, used: 3.5, more: 2 }) // 0.1768
 */
export function chanceToLast({ life, used, more, cv = USUAL_LIFE_CV }: { life: number; used: number; more: number; cv?: number }): number {
  requirePositive(life, 'life')
  requireWithin(used, 0, 1e9, 'used')
  requireWithin(more, 0, 1e9, 'more')
  requireWithin(cv, 0.05, 1.5, 'cv')
  const [shape, scale] = [1 / cv ** 2, life * cv ** 2]
  const now = regularisedGammaQ(shape, used / scale)
  if (!(now > 1e-300))
    throw new CalculationError('out-of-range', 'used', 'It has run so far past its life that no chance can be given. Replace it, or correct its life.')
  return Math.min(1, regularisedGammaQ(shape, (used + more) / scale) / now)
}

/** How sure one wants to be that the sets do (common practice, no source). */
export const SETS_CHANCE = 0.9
const MOST_SETS = 10_000

/**
 * How many sets of a part of mean life L do for `wanted` in all, at a chance: the least n with Q(n/c², A/(L c²)) at least that; lives add up, gamma. With it the
 * chances of n and of one fewer. Rejects as `chanceToLast`, a chance outside 0.5 to 0.999, and more than 10,000 sets. Source: as there.
 * @example setsNeeded({ life: 22, wanted: 180, cv: 0.25 }).sets // 10
 */
export function setsNeeded({ life, wanted, cv = USUAL_LIFE_CV, chance = SETS_CHANCE }: { life: number; wanted: number; cv?: number; chance?: number }): {
  sets: number
  chance: number
  chanceOfOneFewer: number
} {
  requirePositive(life, 'life')
  requirePositive(wanted, 'wanted')
  requireWithin(cv, 0.05, 1.5, 'cv')
  requireWithin(chance, 0.5, 0.999, 'chance')
  const doFor = (sets: number) => (sets === 0 ? 0 : regularisedGammaQ(sets / cv ** 2, wanted / (life * cv ** 2)))
  for (let sets = 1; sets <= MOST_SETS; sets++) if (doFor(sets) >= chance) return { sets, chance: doFor(sets), chanceOfOneFewer: doFor(sets - 1) }
  throw new CalculationError('out-of-range', 'wanted', `That takes over ${MOST_SETS} sets. Check the life and what is wanted of it.`)
}
