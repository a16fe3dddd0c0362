import type { RoomTab } from '../../shared/room-tab.ts'
import type { SystemsTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<SystemsTabProps>[] = [
  { path: 'electrics', word: 'Electrics', load: async () => (await import('./electrics/electrics-tab.tsx')).ElectricsTab },
  { path: 'cooling', word: 'Cooling', load: async () => (await import('./cooling/cooling-tab.tsx')).CoolingTab },
  { path: 'gaps', word: 'Gaps', load: async () => (await import('./gaps/gaps-tab.tsx')).GapsTab },
  { path: 'alarms', word: 'Alarms', load: async () => (await import('./alarms/alarms-tab.tsx')).AlarmsTab },
]
