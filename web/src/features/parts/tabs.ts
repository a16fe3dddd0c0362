import type { RecordsAnswer } from '@bold-ballast/contract'
import type { RoomTab } from '../../shared/room-tab.ts'

/** What every tab of the room is handed. */
export interface PartsTabProps {
  readonly records: RecordsAnswer
  readonly edit: (id: string) => void
}

/** The jobs of the room, in their order. */
export const TABS: readonly RoomTab<PartsTabProps>[] = [
  { path: 'register', word: 'Register', load: async () => (await import('./register/register.tsx')).Register },
  { path: 'beside', word: 'Side by side', load: async () => (await import('./beside/side-by-side.tsx')).SideBySide },
  { path: 'shelf', word: 'Shared shelf', load: async () => (await import('./shelf/shelf.tsx')).Shelf },
]
