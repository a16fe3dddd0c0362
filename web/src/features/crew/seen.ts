import { readStored, writeStored } from '../../data/stored.ts'

/** Where somebody left a build: the last line of its log then, and when he said so. */
export interface Seen {
  readonly entryId: number
  readonly at: string
}

const keyOf = (buildId: string) => `bold-ballast.seen.${buildId}`

/** Kept in this browser alone, as long as nobody signs in. */
export const readSeen = (buildId: string): Seen | null => readStored<Seen | null>(keyOf(buildId), null)
export const writeSeen = (buildId: string, seen: Seen | null): void => writeStored(keyOf(buildId), seen ?? undefined)
