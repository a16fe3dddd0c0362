import type { AeroRoomStage } from '@bold-ballast/core'

export type Outline = NonNullable<AeroRoomStage['outline']>

/** From metres of the car to the drawing. */
export interface Scale {
  readonly x: (metres: number) => number
  readonly z: (metres: number) => number
  readonly px: (metres: number) => number
}

/** Of the view from the side, and where the ground stands in it, px. */
export const HEIGHT = 300
export const GROUND = 262
