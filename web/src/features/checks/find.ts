import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do check', group: 'Do', label: 'Add a check', hint: 'bolt, fluid, look, gear, gap, reading', to: `${base}/checks?tab=ready&do=check` },
  { key: 'do round', group: 'Do', label: 'Go through a round', hint: 'between runs, before the event', to: `${base}/checks?tab=round` },
  { key: 'go shakedown', group: 'Go to', label: 'The first drive and its gates', hint: 'checks, shakedown, hour', to: `${base}/checks?tab=shakedown` },
  { key: 'go take along', group: 'Go to', label: 'What to take along', hint: 'checks, tools, spares, fluids', to: `${base}/checks?tab=take` },
  { key: 'go due', group: 'Go to', label: 'What wears out, and gear with dates', hint: 'checks, life, sets, belts', to: `${base}/checks?tab=due` },
  ...records.checks.map(({ id, name, kind }) => ({ key: id, group: 'Checks', label: name, hint: kind, to: `${base}/checks?tab=ready&check=${id}` })),
]
