import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base) => [
  { key: 'go card', group: 'Go to', label: 'Stage card', hint: 'report, one page to print', to: `${base}/report?tab=card` },
  { key: 'go story', group: 'Go to', label: 'Build story', hint: 'report, every stage', to: `${base}/report?tab=story` },
  { key: 'go sheet', group: 'Go to', label: 'Tech sheet for scrutineering', hint: 'report, rules, print', to: `${base}/report?tab=sheet` },
  { key: 'go ticks', group: 'Go to', label: 'Rounds to tick', hint: 'report, list, print', to: `${base}/report?tab=rounds` },
  { key: 'go order', group: 'Go to', label: 'Work order for a maker', hint: 'report, job, print', to: `${base}/report?tab=order` },
]
