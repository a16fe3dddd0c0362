import type { LogAction } from '@bold-ballast/contract'
import type { Knex } from 'knex'

/** Who changes what, and when; `now` is passed so that one transaction has one time. */
export interface Actor {
  readonly person: string
  readonly now: string
  /** Told the number of each line written to the log, so that a caller can offer to take it back. */
  readonly noteEntry?: (entryId: number) => void
}

export interface HistoryEntry {
  readonly buildId: string
  readonly resource: string
  readonly recordId: string
  readonly action: LogAction
  readonly before: unknown
  readonly after: unknown
  /** The entry that this one takes back. */
  readonly undoes?: number | undefined
  /** Made by the client, so that an import sent twice is made once. */
  readonly importId?: string | undefined
}

/** Writes one line of the build's log, in the transaction of the change itself. */
export async function writeHistory(trx: Knex, actor: Actor, entry: HistoryEntry): Promise<void> {
  const { before, after, ...rest } = entry
  const [made] = await trx('history')
    .insert({
      ...rest,
      before: before === null ? null : JSON.stringify(before),
      after: after === null ? null : JSON.stringify(after),
      at: actor.now,
      by: actor.person,
    })
    .returning('id')
  actor.noteEntry?.((made as { id: number }).id)
}

/** The last line of a build's log, or of all logs: it changes with every write, because writers of one build wait for each other. */
export async function lastEntryId(db: Knex, buildId?: string): Promise<number> {
  const found = await db('history')
    .where(buildId === undefined ? {} : { buildId })
    .max('id as id')
    .first()
  return Number(found?.id ?? 0)
}
