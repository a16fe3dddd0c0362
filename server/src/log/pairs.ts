import { isListEntry, type LogAction, type ResourceName } from '@bold-ballast/contract'

export type Row = Record<string, unknown> & { id: string; version: number; deletedAt: string | null }

export interface HistoryRow {
  readonly id: number
  readonly buildId: string
  readonly resource: ResourceName | 'builds'
  readonly recordId: string
  readonly action: LogAction
  readonly before: unknown
  readonly after: unknown
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

/** The records that an entry changed: one, or many where it was an import or a new order. Empty for a build that came whole out of a file. */
export function pairsOf(entry: HistoryRow): RecordPair[] {
  const [before, after] = [entry.before as Batch | Row | null, entry.after as Batch | Row]
  if (!isListEntry(entry.action)) return [{ resource: entry.resource, before: before as Row | null, after: after as Row }]
  const was = (before as Batch | null)?.records ?? []
  return ((after as Batch).records ?? []).map(({ resource, record }, i) => ({ resource, before: was[i]?.record ?? null, after: record as Row }))
}
