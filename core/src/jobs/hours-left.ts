import { chanceAtMost, type Distribution } from '../stats/distribution.ts'
import { guessSum } from '../stats/log-bias.ts'
import { leftOf } from './begun.ts'
import { DAY_H, hoursBefore } from './free-time.ts'
import type { Laid, ReadyRoad } from './road.ts'

/** Hours that a hand's jobs still take, against those there are. */
export interface HandHours {
  readonly handId: string
  readonly meanH: number
  readonly sdH: number
  readonly thereH: number
  /** That the hours there are suffice, taken alone; a road through them may not be there. */
  readonly chance: number
}

/**
 * Hours left of each hand's jobs up to a stage against his hours before a day: fresh jobs share the doubt in how guesses run, begun ones are apart,
 * one log-normal of the same mean and spread over all. What nobody is named for counts with the hand that the road gives it to.
 * Necessary, not enough. Source: moment matching, closed form.
 * @example hoursLeft(READY, layRoad(READY, lengthsAt(ROAD)), 3, 26)[0].thereH // 42
 */
export function hoursLeft({ road, sessions }: ReadyRoad, laid: readonly Laid[], stage: number, day: number): HandHours[] {
  const bias = road.optimism.work
  return road.hands.map(({ id }) => {
    const jobs = road.jobs.filter((job, i) => job.kind === 'work' && job.stage <= stage && laid[i]?.handIds.includes(id))
    const fresh = guessSum(
      jobs.filter(({ spent }) => !(spent > 0)).map(({ guess }) => guess),
      bias,
    )
    const begun = jobs.filter(({ spent }) => spent > 0).map(({ guess, spent }) => leftOf(guess, spent, bias))
    const mean = begun.reduce((sum, left) => sum + left.mean, fresh.mean)
    const sdH = Math.sqrt(begun.reduce((sum, left) => sum + left.sd ** 2, fresh.variance))
    const thereH = hoursBefore(sessions.get(id) ?? { from: [], to: [] }, day * DAY_H)
    const shape: Distribution = { shape: 'lognormal', floor: 0, mean, sd: sdH }
    return { handId: id, meanH: mean, sdH, thereH, chance: mean > 0 ? chanceAtMost(shape, thereH) : 1 }
  })
}
