import type { DynoStatus, RecordsAnswer } from '@bold-ballast/contract'
import type { PowerRoom } from '@bold-ballast/core'

/** What every tab of the room is handed. */
export interface PowerTabProps {
  readonly records: RecordsAnswer
  readonly room: PowerRoom
  readonly position: number
  readonly stageId: string
  /** Opens the form of a new session, with the air that a dyno tells. */
  readonly newSession: (status: DynoStatus | null) => void
  readonly startImport: (sessionId: string) => void
  readonly edit: (sessionId: string) => void
}
