import { type AdviceWords, formatChance, METRIC_INFO } from '@bold-ballast/core'
import { useQuantities } from '../ui/quantity.ts'
import { dayText } from '../ui/words.ts'

/** What a rule of What next is told in on a page of a build. */
export function useAdviceWords(buildId: string, stages: readonly { readonly id: string; readonly name: string }[]): AdviceWords {
  const { text } = useQuantities()
  return {
    text,
    stage: (position) => `stage ${position} ${stages[position]?.name ?? ''}`,
    at: (room, position, more = '') => `/builds/${buildId}/${room}?stage=${stages[position]?.id ?? ''}${more}`,
    to: (room, query) => `/builds/${buildId}/${room}?${query}`,
    metric: (key) => METRIC_INFO[key],
    day: dayText,
    chance: formatChance,
  }
}
