import { createReadStream, createWriteStream, existsSync } from 'node:fs'
import { open, readFile, rename } from 'node:fs/promises'
import path from 'node:path'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import type pg from 'pg'
import { BYTES_FOLDER, CopyRefusal, digestOf } from './manifest.ts'
import { BYTE_COLUMNS, columnsOf, digestSql } from './tables.ts'

/** A row that holds bytes, without them: its other columns, and the lengths of what lies in the file of its digest. */
export interface ByteRow {
  readonly table: string
  readonly sha256: string
  readonly lengths: readonly number[]
  readonly columns: Readonly<Record<string, unknown>>
}

/** What a row with bytes is found by. */
const KEYS = new Set(['build_id', 'photo_id', 'pull_id', 'position', 'log_id', 'channel', 'block'])
/** So many rows are read at once, and so many written in one statement. */
const ROWS_AT_ONCE = 200
const WRITTEN_AT_ONCE = 20

/** Writes a file whole or not at all. */
export async function writeWhole(file: string, bytes: Buffer | string): Promise<void> {
  const handle = await open(`${file}.new`, 'w', 0o600)
  try {
    await handle.writeFile(bytes)
    await handle.sync()
  } finally {
    await handle.close()
  }
  await rename(`${file}.new`, file)
}

/** The rows of a table that hold bytes, some at a time. */
async function* rowsOf(client: pg.ClientBase, table: string): AsyncGenerator<ByteRow> {
  const bytes = BYTE_COLUMNS[table] as readonly string[]
  const columns = await columnsOf(client, table)
  // An older program's database has no such table yet.
  if (columns.length === 0) return
  const others = columns.filter((name) => !bytes.includes(name) && name !== 'sha256')
  const lengths = bytes.map((name) => `octet_length("${name}")`).join(', ')
  await client.query(
    `DECLARE byte_rows NO SCROLL CURSOR FOR SELECT encode(${digestSql(table, columns)}, 'hex') AS sha256, ARRAY[${lengths}] AS lengths,
      (SELECT row_to_json(o) FROM (SELECT ${others.map((name) => `t."${name}"`).join(', ')}) o) AS columns FROM "${table}" t`,
  )
  for (;;) {
    const { rows } = await client.query(`FETCH ${ROWS_AT_ONCE} FROM byte_rows`)
    for (const row of rows as Omit<ByteRow, 'table'>[]) yield { table, ...row }
    if (rows.length < ROWS_AT_ONCE) break
  }
  await client.query('CLOSE byte_rows')
}

/** Puts the bytes of a row beside the copies, where no copy before had them. */
async function storeBytes(client: pg.ClientBase, { table, sha256, columns }: ByteRow, folder: string): Promise<void> {
  const file = path.join(folder, sha256)
  if (existsSync(file)) return
  const all = (BYTE_COLUMNS[table] as readonly string[]).map((name) => `"${name}"`).join(' || ')
  const keys = Object.entries(columns).filter(([name]) => KEYS.has(name))
  const { rows } = await client.query(
    `SELECT ${all} AS bytes FROM "${table}" WHERE ${keys.map(([name], i) => `"${name}" = $${i + 1}`).join(' AND ')}`,
    keys.map(([, value]) => value),
  )
  await writeWhole(file, (rows[0] as { bytes: Buffer }).bytes)
}

/** Writes the rows that hold bytes to a file, and their bytes to files of their own where no copy before had them. */
export async function writeByteRows(client: pg.ClientBase, rowsFile: string, copiesDir: string): Promise<{ byteFiles: number; byteSize: number }> {
  const folder = path.join(copiesDir, BYTES_FOLDER)
  const sizes = new Map<string, number>()
  async function* lines() {
    for (const table of Object.keys(BYTE_COLUMNS)) {
      for await (const row of rowsOf(client, table)) {
        sizes.set(
          row.sha256,
          row.lengths.reduce((sum, length) => sum + length, 0),
        )
        await storeBytes(client, row, folder)
        yield `${JSON.stringify(row)}\n`
      }
    }
  }
  await pipeline(Readable.from(lines()), createGzip(), createWriteStream(rowsFile, { mode: 0o600 }))
  return { byteFiles: sizes.size, byteSize: [...sizes.values()].reduce((sum, size) => sum + size, 0) }
}

/** The rows of a copy that hold bytes, one after the other. */
export async function* readByteRows(rowsFile: string): AsyncGenerator<ByteRow> {
  const text = createReadStream(rowsFile).pipe(createGunzip())
  for await (const line of createInterface({ input: text, crlfDelay: Infinity })) yield JSON.parse(line) as ByteRow
}

/** Refuses a copy one of whose files of bytes is missing or another one. */
export async function requireBytes(rowsFile: string, copiesDir: string): Promise<void> {
  const seen = new Set<string>()
  for await (const { sha256 } of readByteRows(rowsFile)) {
    if (seen.has(sha256)) continue
    seen.add(sha256)
    const file = path.join(copiesDir, BYTES_FOLDER, sha256)
    if (!existsSync(file)) throw new CopyRefusal(`${BYTES_FOLDER}/${sha256} is missing. Nothing was changed.`)
    if ((await digestOf(file)).sha256 !== sha256) throw new CopyRefusal(`${BYTES_FOLDER}/${sha256} is not the file that was written. Nothing was changed.`)
  }
}

async function insertRows(client: pg.ClientBase, rows: readonly (ByteRow & { bytes: readonly Buffer[] })[]): Promise<void> {
  const [{ table, columns: first } = { table: '', columns: {} }] = rows
  const others = Object.keys(first)
  const columns = [...others, ...(BYTE_COLUMNS[table] as readonly string[])]
  const values = rows.flatMap(({ columns: row, bytes }) => [...others.map((name) => row[name]), ...bytes])
  const places = rows.map((_, i) => `(${columns.map((__, j) => `$${i * columns.length + j + 1}`).join(', ')})`).join(', ')
  await client.query(`INSERT INTO "${table}" (${columns.map((name) => `"${name}"`).join(', ')}) VALUES ${places}`, values)
}

/** Puts the rows of a copy that hold bytes into a database, with their bytes. */
export async function insertByteRows(client: pg.ClientBase, rowsFile: string, copiesDir: string): Promise<void> {
  let waiting: (ByteRow & { bytes: readonly Buffer[] })[] = []
  const flush = async () => {
    if (waiting.length > 0) await insertRows(client, waiting)
    waiting = []
  }
  await client.query('BEGIN')
  for await (const row of readByteRows(rowsFile)) {
    if (waiting.length >= WRITTEN_AT_ONCE || (waiting[0] && waiting[0].table !== row.table)) await flush()
    const all = await readFile(path.join(copiesDir, BYTES_FOLDER, row.sha256))
    const ends = row.lengths.map((_, i) => row.lengths.slice(0, i + 1).reduce((sum, length) => sum + length, 0))
    waiting.push({ ...row, bytes: ends.map((end, i) => all.subarray(end - (row.lengths[i] as number), end)) })
  }
  await flush()
  await client.query('COMMIT')
}
