import type { RoomTab } from '../../shared/room-tab.ts'
import type { SheetProps } from './sheet-props.ts'

/** The sheets, one a tab; what is open is what is printed. */
export const TABS: readonly RoomTab<SheetProps>[] = [
  { path: 'card', word: 'Stage card', load: async () => (await import('./card/card-tab.tsx')).CardTab },
  { path: 'story', word: 'Build story', load: async () => (await import('./story/story-tab.tsx')).StoryTab },
  { path: 'sheet', word: 'Tech sheet', load: async () => (await import('./sheet/sheet-tab.tsx')).SheetTab },
  { path: 'rounds', word: 'Rounds to tick', load: async () => (await import('./rounds/rounds-tab.tsx')).RoundsTab },
  { path: 'order', word: 'Work order', load: async () => (await import('./order/order-tab.tsx')).OrderTab },
]
