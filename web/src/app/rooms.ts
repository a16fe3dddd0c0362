/** Rooms of a build that work, with their two-key shortcut (g, then a letter of the name). */
export const ROOMS: readonly { path: string; name: string; key: string; heading?: string }[] = [
  { path: 'board', name: 'Board', key: 'b' },
  { path: 'plan', name: 'Plan', key: 'l' },
  { path: 'weight', name: 'Weight', key: 'w', heading: 'The car' },
  { path: 'power', name: 'Power', key: 'p' },
  { path: 'parts', name: 'Parts', key: 't', heading: 'Workshop' },
  { path: 'devices', name: 'Devices', key: 'd' },
  { path: 'log', name: 'Log', key: 'o', heading: 'The record' },
]

/** At the foot of the list: it belongs to no build. */
export const FORMULAS_ROOM = { path: '/formulas', name: 'Formulas', key: 'f' } as const
