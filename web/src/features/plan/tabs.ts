import type { RecordsAnswer } from '@bold-ballast/contract'
import type { RoomTab } from '../../shared/room-tab.ts'

/** What every tab of the room is handed. */
export interface PlanTabProps {
  readonly records: RecordsAnswer
  readonly buildId: string
}

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<PlanTabProps>[] = [
  { path: 'stages', word: 'Stages', load: async () => (await import('./stages/stages-tab.tsx')).StagesTab },
  { path: 'goals', word: 'Targets and limits', load: async () => (await import('./goals/goals-tab.tsx')).GoalsTab },
  { path: 'rules', word: 'Rules', load: async () => (await import('./rules/rules-tab.tsx')).RulesTab },
  { path: 'expectations', word: 'Expected', load: async () => (await import('./expectations/expectations-tab.tsx')).ExpectationsTab },
  { path: 'car', word: 'The car', load: async () => (await import('./car/car-tab.tsx')).CarTab },
]
