import type { Knex } from 'knex'

export const CHANNEL = 'ballast'

/** What servers tell each other: a build that was written to, or looked at by somebody else now, or a person whose rights changed. */
export interface Told {
  /** The build, the line of its log, and who wrote it. */
  readonly b?: string
  readonly e?: number
  readonly p?: string
  /** Somebody came, moved or left. */
  readonly here?: true
  /** What a person may, or whether he is signed in, changed; of nobody named: everybody's. */
  readonly rights?: true
}

/** Tells all servers once the transaction is kept; nothing of one that is not. */
export async function tell(db: Knex, told: Told): Promise<void> {
  await db.raw('SELECT pg_notify(?, ?)', [CHANNEL, JSON.stringify(told)])
}
