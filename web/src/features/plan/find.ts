import { METRIC_INFO } from '@bold-ballast/core'
import type { FindInRoom } from '../../shared/define-room.ts'
import { stageNames } from '../../shared/find-stages.ts'

export const findIn: FindInRoom = (base, records) => {
  const places = stageNames(records)
  const last = records.stages.at(-1)?.id ?? ''
  return [
    { key: 'go car', group: 'Go to', label: 'The car', hint: 'plan, dimensions and springs', to: `${base}/plan?tab=car` },
    { key: 'do stage', group: 'Do', label: 'Add a stage', hint: 'plan', to: `${base}/plan` },
    { key: 'do goal', group: 'Do', label: 'Set a target or a limit', hint: 'plan', to: `${base}/plan?tab=goals` },
    { key: 'do expectation', group: 'Do', label: 'Say what a stage should give', hint: 'plan', to: `${base}/plan?tab=expectations` },
    { key: 'go rules', group: 'Go to', label: 'Rules of the class, and another class', hint: 'plan, rule book, mass over power', to: `${base}/plan?tab=rules` },
    { key: 'do rule', group: 'Do', label: 'Type a rule of the class', hint: 'plan, rule book', to: `${base}/plan?tab=rules&do=rule` },
    ...records.ruleBooks.map(({ id, name, edition }) => ({
      key: id,
      group: 'Rule books',
      label: `${name} ${edition}`.trim(),
      hint: 'rules of a class',
      to: `${base}/plan?tab=rules&book=${id}`,
    })),
    ...records.targets.map((target) => ({
      key: target.id,
      group: 'Goals',
      label: METRIC_INFO[target.metric].word,
      hint: `target, ${places.get(target.dueStageId ?? last) ?? ''}`,
      to: `${base}/plan?tab=goals`,
    })),
  ]
}
