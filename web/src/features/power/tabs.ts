import type { RoomTab } from '../../shared/room-tab.ts'
import type { PowerTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<PowerTabProps>[] = [
  { path: 'pulls', word: 'Pulls', load: async () => (await import('./pulls/pulls-tab.tsx')).PullsTab },
  { path: 'compare', word: 'Compare', load: async () => (await import('./compare/compare-tab.tsx')).CompareTab },
  { path: 'plan', word: 'Engine plan', load: async () => (await import('./plan/plan-tab.tsx')).PlanTab },
  { path: 'links', word: 'Weak links', load: async () => (await import('./links/links-tab.tsx')).LinksTab },
  { path: 'hours', word: 'Hours', load: async () => (await import('./hours/hours-tab.tsx')).HoursTab },
  { path: 'live', word: 'Live pull', load: async () => (await import('./live/live-tab.tsx')).LiveTab },
]
