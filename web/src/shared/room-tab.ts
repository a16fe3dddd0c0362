import type { ComponentType } from 'react'

/** One job of a room; which one is open stands in the address. */
export interface RoomTab<Props> {
  readonly path: string
  readonly word: string
  readonly load: () => Promise<ComponentType<Props>>
}
