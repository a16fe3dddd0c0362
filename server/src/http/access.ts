import type { Knex } from 'knex'

/** What a write or a look asks for, least first; `goals` is crew or owner, as the garage has it. */
export const LEASTS = ['viewer', 'crew', 'goals', 'owner'] as const
export type Least = (typeof LEASTS)[number]

/** What whoever asks may do, read from the database each time it matters. */
export interface Access {
  /** Null as long as nobody signs in. */
  readonly personId: string | null
  /** Refuses what this person may not, as the database has it now: unseen builds as builds that are not there. */
  readonly requireBuild: (db: Knex, buildId: string, least: Least) => Promise<void>
  readonly seesBuild: (db: Knex, buildId: string) => Promise<boolean>
  /** Ids of the builds that lists are made of; null: all. */
  readonly buildsSeen: (db: Knex) => Promise<ReadonlySet<string> | null>
  /** Where a new build of this person stands. */
  readonly garageForNew: (db: Knex) => Promise<string>
}

/** As long as nobody signs in, whoever is at this machine may do all. */
export const OPEN_ACCESS: Access = {
  personId: null,
  requireBuild: async () => undefined,
  seesBuild: async () => true,
  buildsSeen: async () => null,
  garageForNew: async (db) => ((await db('garages').orderBy(['madeAt', 'id']).first('id')) as { id: string }).id,
}
