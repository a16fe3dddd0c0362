import type { RecordsAnswer } from '@bold-ballast/contract'
import type { SystemsStage } from '@bold-ballast/core'

/** What every tab of the room is handed. */
export interface SystemsTabProps {
  readonly records: RecordsAnswer
  readonly made: SystemsStage
  readonly position: number
  readonly stageId: string
}
