import type { RecordsAnswer } from '@bold-ballast/contract'
import type { WorkshopEvent } from '@bold-ballast/core'

/** What every tab of the room is handed. */
export interface ChecksTabProps {
  /** With the marks that are on their way. */
  readonly records: RecordsAnswer
  readonly today: string
  /** The event that is looked at; null: today. */
  readonly event: WorkshopEvent | null
  readonly position: number
  readonly stageId: string
}

export type StoredCheck = RecordsAnswer['checks'][number]
