import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Board, WeightRoom } from '@bold-ballast/core'
import type { RoomTab } from '../../shared/room-tab.ts'

/** What every tab of the room is handed. */
export interface WeightTabProps {
  readonly records: RecordsAnswer
  readonly board: Board
  readonly room: WeightRoom
  readonly position: number
  readonly stageId: string
}

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<WeightTabProps>[] = [
  { path: 'ledger', word: 'Ledger', load: async () => (await import('./ledger/ledger.tsx')).Ledger },
  { path: 'score', word: 'Score', load: async () => (await import('./score/score-tab.tsx')).ScoreTab },
  { path: 'scales', word: 'Scales', load: async () => (await import('./scales/scales.tsx')).Scales },
  { path: 'finished', word: 'Finished car', load: async () => (await import('./finished/finished-tab.tsx')).FinishedTab },
  { path: 'centre', word: 'Centre', load: async () => (await import('./centre/centre-tab.tsx')).CentreTab },
  { path: 'balance', word: 'Corner balance', load: async () => (await import('./balance/balance-tab.tsx')).BalanceTab },
  { path: 'ballast', word: 'Ballast', load: async () => (await import('./ballast/ballast-tab.tsx')).BallastTab },
]
