import type { Room } from '../shared/define-room.ts'

/** Rooms of a build that work: each folder of `features` with a `room.ts` is one, in the order of the side list. */
export const ROOMS: readonly Room[] = Object.values(import.meta.glob<{ readonly room: Room }>('../features/*/room.ts', { eager: true }))
  .map(({ room }) => room)
  .sort((a, b) => a.place - b.place)

/** At the foot of the list: it belongs to no build. */
export const FORMULAS_ROOM = { path: '/formulas', name: 'Formulas', key: 'f' } as const
