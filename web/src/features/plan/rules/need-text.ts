import { type BookRule, METRIC_INFO } from '@bold-ballast/core'
import type { useQuantities } from '../../../ui/quantity.ts'

/** What a rule asks, in words. */
export function needText(rule: BookRule, text: ReturnType<typeof useQuantities>['text']): string {
  if (rule.metric === null || rule.value === null) return rule.sense === 'mustNot' ? 'forbidden' : 'must be kept'
  const { kind } = METRIC_INFO[rule.metric]
  if (rule.sense === 'between' && rule.highValue !== null) return `${text(kind, rule.value)} to ${text(kind, rule.highValue)}`
  return `${rule.sense === 'atMost' ? 'at most' : 'at least'} ${text(kind, rule.value)}`
}
