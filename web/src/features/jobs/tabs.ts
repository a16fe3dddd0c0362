import type { RoomTab } from '../../shared/room-tab.ts'
import type { JobsTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<JobsTabProps>[] = [
  { path: 'road', word: 'Road', load: async () => (await import('./road/road-tab.tsx')).RoadTab },
  { path: 'money', word: 'Money', load: async () => (await import('./money/money-tab.tsx')).MoneyTab },
  { path: 'decisions', word: 'Decisions', load: async () => (await import('./decisions/decisions-tab.tsx')).DecisionsTab },
  { path: 'dates', word: 'Hands and dates', load: async () => (await import('./dates/dates-tab.tsx')).DatesTab },
]
