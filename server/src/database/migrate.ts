import type { Knex } from 'knex'
import { connectAlone, placeOfDatabase } from './address.ts'
import { migrations } from './migrations/index.ts'

/** Known to every program of ours that changes tables, and to nothing else of this database. */
const LOCK = 7_423_401
const numberOf = (name: string) => name.slice(0, 4)

/** Names of what was made in a database; none where it is new. */
export async function madeMigrations(knex: Knex): Promise<string[]> {
  if (!(await knex.schema.hasTable('migrations'))) return []
  return knex('migrations').orderBy('id').pluck('name')
}

/** Names of what a database still waits for. Throws a sentence where a newer program has been there. */
export async function waitingMigrations(knex: Knex): Promise<string[]> {
  const made = await madeMigrations(knex)
  const newer = made.filter((name) => !(name in migrations)).sort()
  if (newer[0] !== undefined) throw new Error(`A newer Bold Ballast upgraded it (${numberOf(newer[0])}). Start that one, or restore the copy taken before.`)
  return Object.keys(migrations)
    .sort()
    .filter((name) => !made.includes(name))
}

/** Does something that only one program may do at a time, whatever machine it runs on; one that is killed in it lets go. */
export async function alone<Made>(databaseUrl: string, work: () => Promise<Made>): Promise<Made> {
  const client = await connectAlone(databaseUrl)
  try {
    await client.query('SELECT pg_advisory_lock($1)', [LOCK])
    return await work()
  } finally {
    await client.end()
  }
}

interface Bring {
  /** Of whoever owns the tables. */
  readonly knex: Knex
  readonly databaseUrl: string
  /** Done once others are kept out and before anything is changed, where there is something to lose. */
  readonly before?: (() => Promise<void>) | undefined
}

async function makeWaiting({ knex, before }: Bring): Promise<string[]> {
  const waiting = await waitingMigrations(knex)
  if (waiting.length === 0) return []
  if ((await madeMigrations(knex)).length > 0 && (await knex('builds').first('id'))) await before?.()
  // A program that was killed in it left its mark; others are kept out by the lock above.
  if (await knex.schema.hasTable('migrations_lock')) await knex.migrate.forceFreeMigrationsLock()
  await knex.migrate.latest()
  return waiting
}

/**
 * Brings a database to what this program needs; two that start at once, and one that was killed half way, do no harm.
 * @returns names of what was made
 * @throws a sentence where a newer program has been there, or the role may not change tables
 */
export async function bringUp(bring: Bring): Promise<string[]> {
  if ((await waitingMigrations(bring.knex)).length === 0) return []
  try {
    return await alone(bring.databaseUrl, () => makeWaiting(bring))
  } catch (error) {
    if ((error as { code?: string }).code !== '42501') throw error
    throw new Error(
      `${placeOfDatabase(bring.databaseUrl)} waits for an upgrade, and this role may not change its tables. Run npm run migrate with DATABASE_OWNER_URL.`,
    )
  }
}
