import type { RecordsAnswer } from '@bold-ballast/contract'
import type { LapPlan, TrackRoom, TrackRoomStage } from '@bold-ballast/core'
import type { DrivenPlan } from './use-lap.ts'

/** What every tab of the room is handed. */
export interface TrackTabProps {
  readonly records: RecordsAnswer
  readonly room: TrackRoom
  readonly made: TrackRoomStage
  readonly position: number
  readonly stageId: string
  /** The track that is looked at; null while none is drawn. */
  readonly track: TrackRoom['tracks'][number] | null
  /** What its lap is worked out of. */
  readonly plan: LapPlan | null
  /** The lap itself, worked out beside the page; null until it is there. */
  readonly driven: DrivenPlan | null
  readonly openTrack: (id: string) => void
}
