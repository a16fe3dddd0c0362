import type pg from 'pg'
import type { Manifest } from './manifest.ts'

/** What ends with a restore anyway, or is worked out again. */
export const LEFT_OUT = ['sign_ins', 'tries', 'presence', 'kept_results']

/** Tables whose rows hold bytes that copies share: which columns, in the order of their digest. */
export const BYTE_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  photo_bytes: ['bytes'],
  pull_channels: ['samples'],
  log_blocks: ['samples', 'fine', 'coarse'],
}

/** So that a row has one text, wherever it is read. */
const PLAIN = `SET TIME ZONE 'UTC'; SET extra_float_digits = 3; SET bytea_output = 'hex'; SET DateStyle = 'ISO, YMD'; SET IntervalStyle = 'postgres'`

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`

export async function columnsOf(client: pg.ClientBase, table: string): Promise<string[]> {
  const { rows } = await client.query(
    `SELECT column_name AS name FROM information_schema.columns WHERE table_schema = 'public' AND table_name = $1 ORDER BY ordinal_position`,
    [table],
  )
  return rows.map(({ name }: { name: string }) => name)
}

/** How a table's bytes are held against each other: by the digest that stands in the row; one that an older program made is worked out. */
export const digestSql = (table: string, columns: readonly string[]): string =>
  columns.includes('sha256') ? 't.sha256' : `sha256(${(BYTE_COLUMNS[table] ?? []).map((name) => `t.${quoted(name)}`).join(' || ')})`

async function sumOf(client: pg.ClientBase, table: string): Promise<{ count: string; sum: string }> {
  const bytes = BYTE_COLUMNS[table]
  const columns = bytes ? await columnsOf(client, table) : []
  const kept = columns.filter((name) => name !== 'sha256' && !bytes?.includes(name)).map((name) => `t.${quoted(name)}`)
  const text = bytes ? `CAST(ROW(${[...kept, digestSql(table, columns)].join(', ')}) AS text)` : 'CAST(t AS text)'
  const { rows } = await client.query(
    `SELECT count(*)::text AS count, COALESCE(sum(('x' || left(md5(${text}), 16))::bit(64)::bigint), 0)::text AS sum FROM ${quoted(table)} t`,
  )
  return rows[0] as { count: string; sum: string }
}

/** How many rows each table has and what they sum up to, as the connection sees them. */
export async function sumsOf(client: pg.ClientBase): Promise<Manifest['tables']> {
  await client.query(PLAIN)
  const { rows } = await client.query(`SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename`)
  const names = rows.map(({ name }: { name: string }) => name).filter((name) => !LEFT_OUT.includes(name))
  const sums: Record<string, { count: string; sum: string }> = {}
  for (const name of names) sums[name] = await sumOf(client, name)
  return sums
}

/** Names of tables whose rows are others than the manifest has, or that only one side has. */
export function differing(wanted: Manifest['tables'], found: Manifest['tables']): string[] {
  const names = new Set([...Object.keys(wanted), ...Object.keys(found)])
  return [...names].filter((name) => wanted[name]?.count !== found[name]?.count || wanted[name]?.sum !== found[name]?.sum).sort()
}
