import type { RecordsAnswer } from '@bold-ballast/contract'
import type { AeroRoom, AeroRoomStage, AeroTotals, HeightsInput, Picks, TotalsBasis } from '@bold-ballast/core'

/** What every tab of the room is handed. */
export interface AeroTabProps {
  readonly records: RecordsAnswer
  readonly room: AeroRoom
  readonly made: AeroRoomStage
  readonly position: number
  readonly stageId: string
  /** Notches that are looked at and not stored. */
  readonly picks: Picks
  readonly pick: (deviceId: string, notchId: string) => void
  /** Stores the notches that are looked at, in the set-up of the stage. */
  readonly keep: () => void
  /** At the picked speed, at the heights the car then rides at. */
  readonly totals: AeroTotals
  /** As the values of the devices say, before any of them comes nearer to the ground. */
  readonly stated: AeroTotals
  /** What heights are worked out of; null without springs or an outline. */
  readonly heights: HeightsInput | null
  /** Of the moving air at the picked speed, Pa. */
  readonly q: number
  readonly speedMps: number
  readonly openDevice: (id: string) => void
  readonly openOutline: () => void
  /** The tapes of this stage on. */
  readonly openOutlineAnew: () => void
}

/** Where the sums of a stage are quoted, with the tests that they start from. */
export const totalsBasis = ({ wheelbaseM, anchors }: AeroRoomStage, { basis }: Pick<AeroRoom, 'basis'>): TotalsBasis => ({
  wheelbaseM,
  school: basis.balanceSchool,
  anchors,
})
