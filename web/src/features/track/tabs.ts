import type { RoomTab } from '../../shared/room-tab.ts'
import type { TrackTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<TrackTabProps>[] = [
  { path: 'lap', word: 'Lap', load: async () => (await import('./lap/lap-tab.tsx')).LapTab },
  { path: 'worth', word: 'Worth', load: async () => (await import('./worth/worth-tab.tsx')).WorthTab },
  { path: 'sessions', word: 'Sessions', load: async () => (await import('./sessions/sessions-tab.tsx')).SessionsTab },
  { path: 'compare', word: 'Compare', load: async () => (await import('./compare/compare-tab.tsx')).CompareTab },
  { path: 'proof', word: 'Proof', load: async () => (await import('./proof/proof-tab.tsx')).ProofTab },
  { path: 'tyres', word: 'Tyres and brakes', load: async () => (await import('./tyres/tyres-tab.tsx')).TyresTab },
  { path: 'tracks', word: 'Tracks', load: async () => (await import('./tracks/tracks-tab.tsx')).TracksTab },
]
/** Where drift counts, runs come first. */
export const DRIFT_TABS: readonly RoomTab<TrackTabProps>[] = [
  ...TABS.filter(({ path }) => path === 'sessions').map((tab) => ({ ...tab, word: 'Runs' })),
  ...TABS.filter(({ path }) => path !== 'sessions'),
]
