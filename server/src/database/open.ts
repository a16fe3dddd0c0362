import knexPackage, { type Knex } from 'knex'
import { knexSnakeCaseMappers } from 'objection'
import pg from 'pg'
import { migrations } from './migrations/index.ts'

const { builtins } = pg.types

/** int8 and numeric as numbers, instants as ISO text, dates as the text they are. */
const types = {
  getTypeParser(oid: number, format?: string) {
    if (oid === builtins.INT8 || oid === builtins.NUMERIC) return Number
    if (oid === builtins.TIMESTAMPTZ) return (text: string) => new Date(text).toISOString()
    if (oid === builtins.DATE) return String
    return pg.types.getTypeParser(oid, format as 'text')
  },
}

/** Migrations as imported modules, so that a bundle holds them: nothing is read from disk at run time. */
const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(migrations).sort(),
  getMigrationName: (name) => name,
  getMigration: async (name) => migrations[name] as Knex.Migration,
}

export function openDatabase(url: string): Knex {
  return knexPackage.knex({
    client: 'pg',
    ...knexSnakeCaseMappers(),
    connection: { connectionString: url, types } as Knex.PgConnectionConfig,
    pool: { min: 0, max: 8 },
    acquireConnectionTimeout: 4000,
    // What goes wrong is answered and logged by the application; the driver's own print would hold addresses.
    log: { warn: () => {}, error: () => {}, deprecate: () => {}, debug: () => {} },
    migrations: { migrationSource, tableName: 'migrations' },
  })
}
