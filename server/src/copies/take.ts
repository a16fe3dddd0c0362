import { randomUUID } from 'node:crypto'
import { mkdirSync } from 'node:fs'
import { readdir, rename, rm, statfs } from 'node:fs/promises'
import path from 'node:path'
import type pg from 'pg'
import { connectAlone } from '../database/address.ts'
import { writeByteRows, writeWhole } from './bytes.ts'
import { lastBytesOf, noteCopy } from './ledger.ts'
import { BYTES_FOLDER, CopyRefusal, DUMP, digestOf, MANIFEST, type Manifest, ROWS } from './manifest.ts'
import { type PostgresPrograms, runProgram } from './programs.ts'
import { BYTE_COLUMNS, LEFT_OUT, sumsOf } from './tables.ts'

/** Known to programs of ours that take copies of this database. */
export const COPY_LOCK = 7_423_402
export const PARTIAL = '.partial'
const NAME = /^\d{8}T\d{6}Z$/
const MB = 1e6
const LEAST_FREE_MB = 200
const ROOM_FACTOR = 1.2

/** The name of a copy's folder: when it was taken, UTC. */
export const nameOf = (at: Date): string => at.toISOString().replace(/[-:]/g, '').replace(/\.\d+/, '')
/** When a copy was taken, by its folder's name. */
export const takenAtOf = (name: string): Date => new Date(name.replace(/^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/, '$1-$2-$3T$4:$5:$6Z'))

/** Names of the copies in a folder that were checked, oldest first. */
export async function wholeCopies(copiesDir: string): Promise<string[]> {
  const names = await readdir(copiesDir).catch(() => [])
  return names.filter((name) => NAME.test(name)).sort()
}

export interface TakeOptions {
  readonly databaseUrl: string
  readonly copiesDir: string
  readonly programs: PostgresPrograms
  readonly now?: Date
  /** Free bytes of a folder's disk. */
  readonly freeBytes?: (folder: string) => Promise<number>
  /** Whether one that is being taken is waited for; left out: this one is refused. */
  readonly waits?: boolean | undefined
  /** Looks at a copy before it counts as one; throws what is wrong with it. */
  readonly check: (folder: string) => Promise<void>
}

const freeOf = async (folder: string): Promise<number> => {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}

export interface Taken {
  readonly id: string
  readonly folder: string
  readonly manifest: Manifest
  /** Of the copy itself and the bytes that it shares with others. */
  readonly bytes: number
}

const sizeOf = ({ dump, rows, byteSize }: Manifest) => dump.bytes + rows.bytes + byteSize
const day = (at: Date) => at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' })

function makeFolder(copiesDir: string): void {
  try {
    mkdirSync(path.join(copiesDir, BYTES_FOLDER), { recursive: true, mode: 0o700 })
  } catch {
    throw new CopyRefusal(`COPIES_DIR "${copiesDir}" cannot be written. Give a folder that this program may write to.`)
  }
}

/** Refuses to begin where the disk has no room for a copy like the last. */
async function requireRoom(copiesDir: string, lastBytes: number, freeBytes: (folder: string) => Promise<number>): Promise<void> {
  const neededMB = Math.round((lastBytes * ROOM_FACTOR) / MB + LEAST_FREE_MB)
  const freeMB = Math.floor((await freeBytes(copiesDir)) / MB)
  if (freeMB >= neededMB) return
  const last = (await wholeCopies(copiesDir)).at(-1)
  const stays = last === undefined ? 'There is no copy yet.' : `The copy of ${day(takenAtOf(last))} stays.`
  throw new CopyRefusal(`${freeMB} MB are free, a copy needs ${neededMB}. ${stays}`)
}

/** Writes what one moment of the database holds into a folder. */
async function writeCopy(client: pg.ClientBase, folder: string, { databaseUrl, copiesDir, programs }: TakeOptions, now: Date): Promise<Manifest> {
  await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY')
  const { rows: snapshots } = await client.query('SELECT pg_export_snapshot() AS snapshot')
  const { snapshot } = snapshots[0] as { snapshot: string }
  const dump = path.join(folder, DUMP)
  const without = [...LEFT_OUT, ...Object.keys(BYTE_COLUMNS)].map((table) => `--exclude-table-data=${table}`)
  await runProgram(programs.pg_dump, databaseUrl, ['--format=custom', `--snapshot=${snapshot}`, ...without, `--file=${dump}`])
  const rows = path.join(folder, ROWS)
  const sizes = await writeByteRows(client, rows, copiesDir)
  const tables = await sumsOf(client)
  const { rows: made } = await client.query('SELECT name FROM migrations ORDER BY id')
  const { rows: last } = await client.query('SELECT COALESCE(max(id), 0)::text AS id FROM history')
  await client.query('COMMIT')
  const manifest: Manifest = {
    format: 'bold-ballast-copy',
    formatVersion: 1,
    takenAt: now.toISOString(),
    migrations: made.map(({ name }: { name: string }) => name),
    entryId: Number((last[0] as { id: string }).id),
    tables,
    dump: await digestOf(dump),
    rows: await digestOf(rows),
    ...sizes,
  }
  await writeWhole(path.join(folder, MANIFEST), `${JSON.stringify(manifest, null, 1)}\n`)
  return manifest
}

async function takeAlone(client: pg.ClientBase, options: TakeOptions): Promise<Taken> {
  const { copiesDir, check, now = new Date(), freeBytes = freeOf } = options
  const id = randomUUID()
  const folder = path.join(copiesDir, nameOf(now))
  const partial = `${folder}${PARTIAL}`
  try {
    makeFolder(copiesDir)
    // What a copy that was killed left behind; nobody else writes here now.
    for (const name of await readdir(copiesDir)) if (name.endsWith(PARTIAL)) await rm(path.join(copiesDir, name), { recursive: true })
    await requireRoom(copiesDir, await lastBytesOf(client), freeBytes)
    mkdirSync(partial, { mode: 0o700 })
    const manifest = await writeCopy(client, partial, options, now)
    await check(partial)
    await rename(partial, folder)
    const bytes = sizeOf(manifest)
    await noteCopy(client, { id, folder, bytes, entryId: manifest.entryId, problem: null, takenAt: now })
    return { id, folder, manifest, bytes }
  } catch (error) {
    await rm(partial, { recursive: true, force: true }).catch(() => undefined)
    await client.query('ROLLBACK')
    await noteCopy(client, { id, folder, bytes: 0, entryId: 0, problem: error instanceof Error ? error.message : String(error), takenAt: now })
    throw error
  }
}

/** Keeps others from taking copies of a database meanwhile; waits for one that is being taken, or refuses. */
export async function withCopyLock<Made>(databaseUrl: string, work: (client: pg.ClientBase) => Promise<Made>, waits = false): Promise<Made> {
  const client = await connectAlone(databaseUrl)
  try {
    if (waits) await client.query('SELECT pg_advisory_lock($1)', [COPY_LOCK])
    const { rows } = await client.query('SELECT pg_try_advisory_lock($1) AS mine', [COPY_LOCK])
    if (!(rows[0] as { mine: boolean }).mine) throw new CopyRefusal('Another copy is being taken. Wait until it is done.')
    return await work(client)
  } finally {
    await client.end()
  }
}

/**
 * Takes a copy of everything as it is at one moment, while others go on writing; it has its name once it was checked.
 * @throws a sentence where another one is being taken, the disk has no room, or the check found something
 */
export function takeCopy(options: TakeOptions): Promise<Taken> {
  return withCopyLock(options.databaseUrl, (client) => takeAlone(client, options), options.waits)
}
