import type pg from 'pg'
import { connectAlone } from '../database/address.ts'
import { grantTo } from '../database/grants.ts'
import { bringUp } from '../database/migrate.ts'
import { openDatabase } from '../database/open.ts'
import { isServed } from '../database/serving.ts'
import { type CheckOptions, checkCopy, putInto } from './check.ts'
import { CopyRefusal } from './manifest.ts'

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`
const databaseOf = (url: string) => decodeURIComponent(new URL(url).pathname.slice(1))

function withDatabase(url: string, name: string): string {
  const other = new URL(url)
  other.pathname = `/${encodeURIComponent(name)}`
  return other.href
}

/** What must outlive the change of databases: who was switched off, and which roles serve. */
interface Former {
  readonly off: readonly string[]
  readonly servers: readonly string[]
}

async function ask<Row>(client: pg.ClientBase, text: string, values: unknown[] = []): Promise<Row[]> {
  return (await client.query(text, values)).rows as Row[]
}

async function readFormer(databaseUrl: string): Promise<Former> {
  const client = await connectAlone(databaseUrl)
  try {
    if (await isServed(client)) throw new CopyRefusal('A server uses it. Stop it first. Nothing was changed.')
    const [using] = await ask<{ count: string }>(
      client,
      "SELECT count(*)::text AS count FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid() AND backend_type = 'client backend'",
    )
    if (Number(using?.count) > 0) throw new CopyRefusal('Another program uses it. End it first. Nothing was changed.')
    const [there] = await ask<{ people: boolean; history: boolean }>(
      client,
      `SELECT to_regclass('public.people') IS NOT NULL AS people, to_regclass('public.history') IS NOT NULL AS history`,
    )
    const off = there?.people ? await ask<{ id: string }>(client, `SELECT id FROM people WHERE state = 'off'`) : []
    const servers = there?.history
      ? await ask<{ grantee: string }>(
          client,
          `SELECT DISTINCT grantee FROM information_schema.role_table_grants WHERE table_name = 'history' AND grantee NOT IN (current_user, 'PUBLIC')`,
        )
      : []
    return { off: off.map(({ id }) => id), servers: servers.map(({ grantee }) => grantee) }
  } finally {
    await client.end()
  }
}

/** Ends what a copy would let in again: sign-ins, links and invitations of its time, and whoever was switched off since. */
async function shutOut(databaseUrl: string, off: readonly string[]): Promise<void> {
  const client = await connectAlone(databaseUrl)
  try {
    await client.query('BEGIN')
    await client.query('UPDATE people SET epoch = epoch + 1')
    await client.query(`UPDATE people SET state = 'off' WHERE id = ANY($1)`, [off])
    await client.query('UPDATE invitations SET withdrawn_at = now() WHERE withdrawn_at IS NULL AND used_at IS NULL')
    await client.query('UPDATE share_links SET withdrawn_at = now() WHERE withdrawn_at IS NULL')
    await client.query(`INSERT INTO audit (garage_id, action, subject, outcome) SELECT id, 'copy restored', 'at the terminal', 'done' FROM garages`)
    await client.query('COMMIT')
  } finally {
    await client.end()
  }
}

/** Puts one database in the place of another; the former keeps standing under another name. */
async function swap(databaseUrl: string, fresh: string, former: string): Promise<void> {
  const name = databaseOf(databaseUrl)
  const client = await connectAlone(withDatabase(databaseUrl, 'postgres'))
  try {
    await client.query(`ALTER DATABASE ${quoted(name)} RENAME TO ${quoted(former)}`)
    try {
      await client.query(`ALTER DATABASE ${quoted(fresh)} RENAME TO ${quoted(name)}`)
    } catch (error) {
      await client.query(`ALTER DATABASE ${quoted(former)} RENAME TO ${quoted(name)}`)
      throw error
    }
  } finally {
    await client.end()
  }
}

async function onPostgres(databaseUrl: string, ...statements: string[]): Promise<void> {
  const client = await connectAlone(withDatabase(databaseUrl, 'postgres'))
  try {
    for (const statement of statements) await client.query(statement)
  } finally {
    await client.end()
  }
}

/** Fills a database beside the one that is used: the copy as it was, then what this program needs. */
async function fill(freshUrl: string, options: CheckOptions, manifest: Parameters<typeof putInto>[1], { off, servers }: Former): Promise<void> {
  await putInto(freshUrl, manifest, options)
  const knex = openDatabase(freshUrl)
  try {
    await bringUp({ knex, databaseUrl: freshUrl })
    for (const role of servers) await grantTo(knex, role)
  } finally {
    await knex.destroy()
  }
  await shutOut(freshUrl, off)
}

export interface Restored {
  /** What the database that stood there is called now. */
  readonly former: string
  readonly boards: number
  readonly entryId: number
}

/**
 * Puts a copy in the place of a database that no server uses: checked, restored beside, upgraded, compared, and changed over by name.
 * @param databaseUrl of the role that owns the tables and may make databases
 * @throws a sentence; then nothing was changed
 */
export async function restoreCopy(databaseUrl: string, options: CheckOptions, now = new Date()): Promise<Restored> {
  const former = await readFormer(databaseUrl)
  const { manifest, boards } = await checkCopy(options)
  const name = databaseOf(databaseUrl)
  const fresh = `${name}_restoring`
  const before = `${name}_before_${now.toISOString().slice(0, 19).replace(/\D/g, '')}`
  await onPostgres(databaseUrl, `DROP DATABASE IF EXISTS ${quoted(fresh)}`, `CREATE DATABASE ${quoted(fresh)}`)
  try {
    await fill(withDatabase(databaseUrl, fresh), options, manifest, former)
    // Somebody may have started a server meanwhile.
    await readFormer(databaseUrl)
    await swap(databaseUrl, fresh, before)
  } catch (error) {
    await onPostgres(databaseUrl, `DROP DATABASE IF EXISTS ${quoted(fresh)}`)
    throw error
  }
  return { former: before, boards, entryId: manifest.entryId }
}
