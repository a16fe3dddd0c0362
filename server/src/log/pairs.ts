import { isListEntry, type LogAction } from '@bold-ballast/contract'
import type { ResourceName } from '@bold-ballast/core'

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

/** The record that an entry is about; many where it was an import, a batch or a new order, and none for a build that came whole out of a file. */
export function namedPairs(entry: HistoryRow): RecordPair[] {
  const [before, after] = [entry.before as Batch | Row | null, entry.after as Batch | Row]
  if (!isListEntry(entry.action)) return [{ resource: entry.resource, before: before as Row | null, after: after as Row }]
  const was = (before as Batch | null)?.records ?? []
  return ((after as Batch).records ?? []).map(({ resource, record }, i) => ({ resource, before: was[i]?.record ?? null, after: record as Row }))
}

/** Every record that an entry changed, in the order in which they were written: what goes along goes first, and comes back last. */
export function pairsOf(entry: HistoryRow): RecordPair[] {
  const [named, along] = [namedPairs(entry), entry.companions ?? []]
  return entry.action === 'restore' ? [...named, ...along] : [...along, ...named]
}
