import type { RecordsAnswer } from '@bold-ballast/contract'
import type { ComponentType } from 'react'

export type FindAction = 'units' | 'name' | 'hands' | 'keys' | 'theme' | 'undo' | 'redo' | 'print' | 'export'

/** A place that can be gone to or a thing that can be done, as Find or do lists it. */
export interface FindItem {
  readonly key: string
  readonly group: string
  readonly label: string
  readonly hint: string
  /** Where it leads, or what it does. */
  readonly to?: string
  readonly action?: FindAction
}

/** What a room adds to Find or do; `base` is the address of the build. */
export type FindInRoom = (base: string, records: RecordsAnswer) => readonly FindItem[]

/** A picture of the room for the README, taken from the demo: the address behind the room's, and what is pressed first. */
export interface RoomPicture {
  readonly name: string
  readonly query?: string
  /** Which demo build; the first is the largest. */
  readonly build?: 'Gannet' | 'Osprey' | 'Petrel'
  /** Whether the last stage is picked. */
  readonly atLastStage?: boolean
  readonly press?: string
  /** What stands on the page once it is ready. */
  readonly until?: string
  readonly hasCurves?: boolean
  /** Taken from the demo that a crew works on. */
  readonly ofCrew?: boolean
  readonly theme?: 'dark'
  /** The day it is on the picture. */
  readonly day?: string
  readonly width?: number
  readonly height?: number
}

interface Definition {
  readonly path: string
  readonly name: string
  /** The letter after g that opens it; one that is in its name. */
  readonly key: string
  /** What it stands under in the side list, and its place there. */
  readonly heading?: 'The car' | 'Workshop' | 'The record'
  readonly place: number
  readonly page: () => Promise<ComponentType>
  /** Keys that act in it: the key, and what it does. */
  readonly keys?: readonly (readonly [key: string, does: string])[]
  readonly pictures?: readonly RoomPicture[]
}

export interface Room extends Definition {
  readonly keys: readonly (readonly [key: string, does: string])[]
  readonly pictures: readonly RoomPicture[]
}

/**
 * Declares a room of a build: route, side list, keys and pictures follow from its `room.ts`, which is found by its folder; what it adds to Find or do
 * stands in a `find.ts` beside it. The folder is called as its path.
 */
export const defineRoom = (definition: Definition): Room => ({ pictures: [], keys: [], ...definition })
