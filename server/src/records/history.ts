import type { LogAction } from '@bold-ballast/contract'
import type { ResourceName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { tell } from '../access/notify.ts'
import type { Least } from '../http/access.ts'
import type { Actor } from '../http/actor.ts'

/** One record as it was before and after a write; null before where the write made it. */
export interface RecordChange {
  readonly resource: ResourceName | 'builds'
  readonly before: Record<string, unknown> | null
  readonly after: Record<string, unknown>
}

export interface HistoryEntry {
  readonly buildId: string
  readonly resource: string
  readonly recordId: string
  readonly action: LogAction
  readonly before: unknown
  readonly after: unknown
  /** Records that went, came back or forgot along with it; the entry reads as that of the one record. */
  readonly companions?: readonly RecordChange[]
  /** The entry that this one takes back. */
  readonly undoes?: number | undefined
  /** Made by the client, so that an import sent twice is made once. */
  readonly importId?: string | undefined
}

const GOALS = new Set(['targets', 'limits'])

/** Every kind of record that an entry touches, also those of its lists. */
function touchedKinds({ resource, before, after, companions = [] }: HistoryEntry): string[] {
  const listed = [before, after].flatMap((side) => (side as { records?: readonly { resource: string }[] } | null)?.records ?? [])
  return [resource, ...companions.map((each) => each.resource), ...listed.map((each) => each.resource)]
}

/** What one must be to write an entry, whatever way it came. */
function leastFor(entry: HistoryEntry): Least {
  const isOfBuild = entry.resource === 'builds' && entry.recordId === entry.buildId
  if (isOfBuild && (entry.action === 'remove' || entry.action === 'restore')) return 'owner'
  // A build that comes with its goals is no goal that moves.
  if (entry.before === null && isOfBuild) return 'crew'
  return touchedKinds(entry).some((kind) => GOALS.has(kind)) ? 'goals' : 'crew'
}

/** Writes one line of the build's log, in the transaction of the change itself: the one place that every write passes, so a role is asked for here once more. */
export async function writeHistory(trx: Knex, actor: Actor, entry: HistoryEntry): Promise<void> {
  await actor.access.requireBuild(trx, entry.buildId, leastFor(entry))
  const { before, after, companions = [], ...rest } = entry
  const [made] = await trx('history')
    .insert({
      ...rest,
      before: before === null ? null : JSON.stringify(before),
      after: after === null ? null : JSON.stringify(after),
      companions: companions.length === 0 ? null : JSON.stringify(companions),
      at: actor.now,
      typedAt: actor.typedAt ?? null,
      by: actor.person,
      byId: actor.access.personId,
    })
    .returning('id')
  const { id } = made as { id: number }
  const { personId } = actor.access
  if (personId !== null) await tell(trx, { b: entry.buildId, e: id, p: personId })
  actor.noteEntry?.(id)
}

/** The last line of a build's log, or of all logs: it changes with every write, because writers of one build wait for each other. */
export async function lastEntryId(db: Knex, buildId?: string): Promise<number> {
  const found = await db('history')
    .where(buildId === undefined ? {} : { buildId })
    .max('id as id')
    .first()
  return Number(found?.id ?? 0)
}
