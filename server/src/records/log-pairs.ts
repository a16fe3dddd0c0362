import { isListEntry, type LogAction } from '@bold-ballast/contract'
import { type ResourceName, upgradeRecord } from '@bold-ballast/core'

export type Row = Record<string, unknown> & { id: string; version: number; deletedAt: string | null }

export interface HistoryRow {
  readonly id: number
  readonly buildId: string
  readonly resource: ResourceName | 'builds'
  readonly recordId: string
  readonly action: LogAction
  readonly before: unknown
  readonly after: unknown
  readonly companions: readonly RecordPair[] | null
  readonly at: string
  readonly by: string
  readonly typedAt: string | Date | null
  readonly undoes: number | null
}

/** One record as it was before and after an entry; null before where the entry made it. */
export interface RecordPair {
  readonly resource: ResourceName | 'builds'
  readonly before: Row | null
  readonly after: Row
}

interface Batch {
  readonly records?: readonly { readonly resource: ResourceName | 'builds'; readonly record: Row | null }[]
}

/** A record as an entry kept it, in the fields of this edition. */
const asKept = (resource: ResourceName | 'builds', record: Row | null): Row | null => record && (upgradeRecord(resource, record) as Row)

const pair = (resource: ResourceName | 'builds', before: Row | null, after: Row | null): RecordPair => ({
  resource,
  before: asKept(resource, before),
  after: asKept(resource, after) as Row,
})

/** The record that an entry is about; many where it was an import, a batch or a new order, and none for a build that came whole out of a file. */
export function namedPairs(entry: HistoryRow): RecordPair[] {
  const [before, after] = [entry.before as Batch | Row | null, entry.after as Batch | Row]
  if (!isListEntry(entry.action)) return [pair(entry.resource, before as Row | null, after as Row)]
  const was = (before as Batch | null)?.records ?? []
  return ((after as Batch).records ?? []).map(({ resource, record }, i) => pair(resource, was[i]?.record ?? null, record))
}

/** Every record that an entry changed, in the order in which they were written: what goes along goes first, and comes back last. */
export function pairsOf(entry: HistoryRow): RecordPair[] {
  const along = (entry.companions ?? []).map(({ resource, before, after }) => pair(resource, before, after))
  const named = namedPairs(entry)
  return entry.action === 'restore' ? [...named, ...along] : [...along, ...named]
}
