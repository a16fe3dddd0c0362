import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Board, JobsRoom, RulesRoom, WeightRoom } from '@bold-ballast/core'

/** What every sheet is made of. */
export interface SheetProps {
  readonly records: RecordsAnswer
  readonly board: Board
  readonly weight: WeightRoom
  readonly jobs: JobsRoom
  readonly rules: RulesRoom
  readonly position: number
}
