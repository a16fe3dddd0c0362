import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Course, DriveCar, DriveRoom, DriveRoomStage, Surface } from '@bold-ballast/core'

/** What every tab of the room is handed. */
export interface DriveTabProps {
  readonly records: RecordsAnswer
  readonly room: DriveRoom
  readonly position: number
  readonly stageId: string
  readonly made: DriveRoomStage
  /** The car of the stage with the final drive and the surface that are looked at; null where something is missing. */
  readonly car: DriveCar | null
  readonly finalRatio: number | null
  readonly setFinal: (ratio: number | null) => void
  readonly surface: Surface
  readonly course: Course | null
}
