import type { Knex } from 'knex'

/** Who changes what, and when; `now` is passed so that one transaction has one time. */
export interface Actor {
  readonly person: string
  readonly now: string
}

export interface HistoryEntry {
  readonly buildId: string
  readonly resource: string
  readonly recordId: string
  readonly action: 'create' | 'update' | 'remove' | 'restore' | 'reorder' | 'import'
  readonly before: unknown
  readonly after: unknown
}

/** Writes one line of the build's log, in the transaction of the change itself. */
export async function writeHistory(trx: Knex, actor: Actor, entry: HistoryEntry): Promise<void> {
  const { before, after } = entry
  await trx('history').insert({
    build_id: entry.buildId,
    resource: entry.resource,
    record_id: entry.recordId,
    action: entry.action,
    before: before === null ? null : JSON.stringify(before),
    after: after === null ? null : JSON.stringify(after),
    at: actor.now,
    by: actor.person,
  })
}
