import type { RoomTab } from '../../shared/room-tab.ts'
import type { ChecksTabProps } from './tab-props.ts'

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<ChecksTabProps>[] = [
  { path: 'ready', word: 'Ready', load: async () => (await import('./ready/ready-tab.tsx')).ReadyTab },
  { path: 'round', word: 'Round', load: async () => (await import('./round/round-tab.tsx')).RoundTab },
  { path: 'shakedown', word: 'Shakedown', load: async () => (await import('./shakedown/shakedown-tab.tsx')).ShakedownTab },
  { path: 'take', word: 'Take', load: async () => (await import('./take/take-tab.tsx')).TakeTab },
  { path: 'due', word: 'Due', load: async () => (await import('./due/due-tab.tsx')).DueTab },
]
