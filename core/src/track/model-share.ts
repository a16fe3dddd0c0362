import { USUAL_MODEL_SHARE } from './lap-forecast.ts'

/** A change that was forecast and driven: what it was to give, what it gave beyond, and how sure both are without the model's own share, s. */
export interface DrivenGain {
  readonly gainS: number
  readonly missS: number
  readonly sdS: number
}

/** So many forecasts that were driven teach the model's share. */
export const LEAST_GAINS = 5
/** The model is never trusted better than this (common practice, no source). */
const LEAST_SHARE = 0.05

/**
 * How far the model misses a change that it forecasts, as a share of it: learned from five pairs on by what their misses have beyond the doubt of both, over the
 * squares of the forecast changes, widened for few pairs as any next one (E.9); never under 5 %. The usual share with fewer. Source: E.9, the room's page.
 * @example learnedModelShare([]).share // 0.2
 */
export function learnedModelShare(pairs: readonly DrivenGain[]): { readonly share: number; readonly pairs: number; readonly isLearned: boolean } {
  const used = pairs.filter(({ gainS }) => gainS !== 0)
  if (used.length < LEAST_GAINS) return { share: USUAL_MODEL_SHARE, pairs: used.length, isLearned: false }
  const excess = used.reduce((sum, { missS, sdS }) => sum + missS ** 2 - sdS ** 2, 0)
  const squares = used.reduce((sum, { gainS }) => sum + gainS ** 2, 0)
  const share = Math.sqrt((Math.max(0, excess) / squares) * (1 + 1 / used.length))
  return { share: Math.max(LEAST_SHARE, share), pairs: used.length, isLearned: true }
}
