import type { Row } from '../../records/define-record.ts'
import { findKind } from '../../records/kinds.ts'

/** One record as a line of the log left it, and as it was before; null before where the line made it. */
export interface MovedPair {
  /** The address of its list, or "builds" for the build itself. */
  readonly resource: string
  readonly before: Row | null
  readonly after: Row
}

/** A line of a build's log, with every record it changed in the order in which they were written. */
export interface MovedLine {
  readonly id: number
  readonly at: string
  readonly by: string
  /** The line that this one takes back. */
  readonly undoes: number | null
  readonly pairs: readonly MovedPair[]
}

/** The live records of a build by list, with the build itself. */
export type LiveLists = { readonly build: Row } & Readonly<Record<string, unknown>>

const isLive = (row: Row | null): row is Row => row !== null && (row.deletedAt ?? null) === null

/** By place where the records of a list have one, then as they were made. */
function inListOrder(hasPlace: boolean): (a: Row, b: Row) => number {
  const made = (row: Row) => `${row.createdAt} ${row.id}`
  return (a, b) => (hasPlace ? (a.position as number) - (b.position as number) : 0) || (made(a) < made(b) ? -1 : made(a) > made(b) ? 1 : 0)
}

/**
 * The records as they stood before a line of the log; null where the build was not there yet. Lines are put back newest first, each from what the one before gave.
 * @example putBack({ build: { id: 'b' }, hands: [{ id: 'h', name: 'Ilse' }] }, { id: 7, at: '', by: '', undoes: null, pairs: [{ resource: 'hands', before: null, after: { id: 'h' } }] }).hands // []
 */
export function putBack(lists: LiveLists, { pairs }: Pick<MovedLine, 'pairs'>): LiveLists | null {
  let build: Row | null = lists.build
  const touched = new Map<string, Row[]>()
  for (const { resource, before, after } of [...pairs].reverse()) {
    if (resource === 'builds') {
      build = before
      continue
    }
    const kind = findKind(resource)
    if (!kind) continue
    const rows = touched.get(kind.list) ?? (lists[kind.list] as readonly Row[] | undefined) ?? []
    const others = rows.filter(({ id }) => id !== after.id)
    touched.set(kind.list, isLive(before) ? [...others, before] : others)
  }
  if (build === null) return null
  const ordered = [...touched].map(([list, rows]) => [list, [...rows].sort(inListOrder('position' in (findKind(list)?.fields ?? {})))])
  return { ...lists, ...Object.fromEntries(ordered), build }
}
