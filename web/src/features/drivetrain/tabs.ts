import type { RoomTab } from '../../shared/room-tab.ts'
import type { DriveTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<DriveTabProps>[] = [
  { path: 'gears', word: 'Gears', load: async () => (await import('./gears/gears-tab.tsx')).GearsTab },
  { path: 'slide', word: 'Slide', load: async () => (await import('./slide/slide-tab.tsx')).SlideTab },
  { path: 'line', word: 'Straight line', load: async () => (await import('./line/line-tab.tsx')).LineTab },
  { path: 'shifts', word: 'Shifts', load: async () => (await import('./shifts/shifts-tab.tsx')).ShiftsTab },
  { path: 'path', word: 'Torque path', load: async () => (await import('./path/path-tab.tsx')).PathTab },
  { path: 'finals', word: 'Finals', load: async () => (await import('./finals/finals-tab.tsx')).FinalsTab },
  { path: 'whatif', word: 'What if', load: async () => (await import('./whatif/what-if-tab.tsx')).WhatIfTab },
]
