import { type BookRule, METRIC_INFO, type RuleAverage, type RuleStanding } from '@bold-ballast/core'
import type { useQuantities } from '../../ui/quantity.ts'

/** What a rule asks, in words. */
export function needText(rule: BookRule, text: ReturnType<typeof useQuantities>['text']): string {
  if (rule.metric === null || rule.value === null) return rule.sense === 'mustNot' ? 'forbidden' : 'must be kept'
  const { kind } = METRIC_INFO[rule.metric]
  if (rule.sense === 'between' && rule.highValue !== null)
    return `${text(kind, rule.value, { isGoal: true })} to ${text(kind, rule.highValue, { isGoal: true })}`
  return `${rule.sense === 'atMost' ? 'at most' : 'at least'} ${text(kind, rule.value, { isGoal: true })}`
}

/** How a rule averages power, as it is typed. */
export function averageText({ around, speedRpm, offsetsRpm, weights, fromRpm, toRpm, pulls }: RuleAverage): string {
  const ofPulls = pulls === 'mean' ? '' : ` ${pulls} pull`
  if (fromRpm !== null && toRpm !== null) return `${fromRpm} to ${toRpm}${ofPulls}`
  return `${around === 'peak' ? 'peak' : `at ${speedRpm}:`} ${offsetsRpm.join(' ')}${weights.length > 0 ? ` weights ${weights.join(' ')}` : ''}${ofPulls}`
}

/** Which driver and fuel a rule counts, in words. */
export function basisText({ metric, basis, average, modifiers }: BookRule, text: ReturnType<typeof useQuantities>['text']): string {
  const countsMass = metric === 'massReady' || metric === 'ruleRatio'
  return [
    basis && countsMass ? (basis.driverIn ? 'driver in' : 'no driver') : '',
    basis && countsMass && basis.fuelL !== null ? `${text('volume', basis.fuelL)} of fuel` : '',
    metric === 'noise' && basis?.atM ? `${text('distance', basis.atM, { isGoal: true })} off` : '',
    average ? `power averaged, ${averageText(average).replaceAll('-', '−')}` : '',
    ...modifiers.filter(({ applies }) => applies).map(({ name }) => name),
  ]
    .filter((part) => part !== '')
    .join(', ')
}

/** What is in hand of a rule, or what is short of it. */
export function marginText({ kgInHand, wInHand, inHand, metric }: RuleStanding, text: ReturnType<typeof useQuantities>['text']): string {
  const words = (amount: string, value: number, cure: string) => (value >= 0 ? `${amount} in hand` : `${amount} ${cure}`)
  if (kgInHand !== null && wInHand !== null)
    return `${words(text('mass', Math.abs(kgInHand)), kgInHand, 'to add')} or ${words(text('power', Math.abs(wInHand)), wInHand, 'to give up')}`
  if (kgInHand !== null) return words(text('mass', Math.abs(kgInHand)), kgInHand, 'short')
  if (inHand === null || metric === null) return ''
  return words(text(METRIC_INFO[metric].kind, Math.abs(inHand)), inHand, 'short')
}
