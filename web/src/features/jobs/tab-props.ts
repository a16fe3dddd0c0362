import type { RecordsAnswer } from '@bold-ballast/contract'
import type { JobsRoom } from '@bold-ballast/core'
import type { RoadQuestion } from './jobs.worker.ts'
import type { RoadState } from './use-road.ts'

/** What every tab of the room is handed. */
export interface JobsTabProps {
  readonly records: RecordsAnswer
  readonly room: JobsRoom
  readonly position: number
  readonly stageId: string
  /** The road to the picked stage, with what is late. */
  readonly road: RoadState
  readonly late: RoadQuestion['late']
}

export type StoredTask = RecordsAnswer['tasks'][number]
