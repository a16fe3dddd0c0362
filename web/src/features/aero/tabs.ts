import type { RoomTab } from '../../shared/room-tab.ts'
import type { AeroTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<AeroTabProps>[] = [
  { path: 'car', word: 'The car', load: async () => (await import('./car/car-tab.tsx')).CarTab },
  { path: 'speed', word: 'Against speed', load: async () => (await import('./speed/speed-tab.tsx')).SpeedTab },
  { path: 'height', word: 'Ride height', load: async () => (await import('./height/height-tab.tsx')).HeightTab },
  { path: 'setup', word: 'Set-up', load: async () => (await import('./setup/setup-tab.tsx')).SetupTab },
  { path: 'mounts', word: 'Mounts', load: async () => (await import('./mounts/mounts-tab.tsx')).MountsTab },
  { path: 'proof', word: 'Proof', load: async () => (await import('./proof/proof-tab.tsx')).ProofTab },
  { path: 'panel', word: 'Panel', load: async () => (await import('./panel/panel-tab.tsx')).PanelTab },
]
