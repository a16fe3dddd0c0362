import type { RoomTab } from '../../shared/room-tab.ts'
import type { CrewTabProps } from './crew-tab.ts'

export const TABS: readonly RoomTab<CrewTabProps>[] = [
  { path: 'since', word: 'Since you looked', load: async () => (await import('./since/since-tab.tsx')).SinceTab },
  { path: 'people', word: 'People', load: async () => (await import('./people/people-tab.tsx')).PeopleTab },
  { path: 'links', word: 'Links', load: async () => (await import('./links/links-tab.tsx')).LinksTab },
]
