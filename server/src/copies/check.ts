import path from 'node:path'
import { CalculationError, makeBoard } from '@bold-ballast/core'
import { OpenBuilds } from '../builds/open-builds.ts'
import { connectAlone } from '../database/address.ts'
import { openDatabase } from '../database/open.ts'
import { RecordService } from '../records/service.ts'
import { insertByteRows, requireBytes } from './bytes.ts'
import { CopyRefusal, DUMP, digestOf, type Manifest, ROWS, readManifest } from './manifest.ts'
import { type PostgresPrograms, runProgram } from './programs.ts'
import { differing, sumsOf } from './tables.ts'

/** An empty database on a server of its own, for a trial. */
export interface TrialDatabase {
  readonly url: string
  readonly stop: () => Promise<void>
}

export interface CheckOptions {
  /** The copy's own folder. */
  readonly folder: string
  /** Where its bytes lie. */
  readonly copiesDir: string
  readonly programs: PostgresPrograms
  readonly startTrial: () => Promise<TrialDatabase>
}

/** Refuses a copy that is not, byte for byte, what was written. */
export async function requireWritten({ folder, copiesDir }: Pick<CheckOptions, 'folder' | 'copiesDir'>): Promise<Manifest> {
  const manifest = await readManifest(folder)
  for (const [name, written] of [
    [DUMP, manifest.dump],
    [ROWS, manifest.rows],
  ] as const) {
    const found = await digestOf(path.join(folder, name)).catch(() => undefined)
    if (found?.sha256 !== written.sha256) throw new CopyRefusal(`${name} is not the file that was written. Nothing was changed.`)
  }
  await requireBytes(path.join(folder, ROWS), copiesDir)
  return manifest
}

/** Puts a copy into an empty database, and holds every table against what stood there when it was taken. */
export async function putInto(databaseUrl: string, manifest: Manifest, { folder, copiesDir, programs }: Omit<CheckOptions, 'startTrial'>): Promise<void> {
  await runProgram(programs.pg_restore, databaseUrl, ['--no-owner', '--no-privileges', '--exit-on-error', path.join(folder, DUMP)])
  const client = await connectAlone(databaseUrl)
  try {
    await insertByteRows(client, path.join(folder, ROWS), copiesDir)
    const others = differing(manifest.tables, await sumsOf(client))
    if (others.length > 0) throw new CopyRefusal(`Restored, ${others.join(', ')} ${others.length === 1 ? 'has' : 'have'} other rows than were copied.`)
  } finally {
    await client.end()
  }
}

/** Upgrades the trial to this program's tables, as an upgrade would, and works out the Board of every build; a build that its own records make impossible is said to be so, and no fault of the copy. */
async function openBoards(databaseUrl: string): Promise<number> {
  const knex = openDatabase(databaseUrl)
  try {
    await knex.migrate.latest()
    const open = new OpenBuilds(knex, new RecordService(knex))
    const ids = (await knex('builds').whereNull('deletedAt').pluck('id')) as string[]
    const today = new Date().toISOString().slice(0, 10)
    for (const id of ids) {
      try {
        makeBoard((await open.get(id)).car(), today)
      } catch (error) {
        if (!(error instanceof CalculationError)) throw error
      }
    }
    return ids.length
  } finally {
    await knex.destroy()
  }
}

/**
 * Looks at a copy as somebody would who needs it: every byte of it, restored on a server of its own, every table held against the manifest, upgraded where it is
 * an older program's, every Board opened.
 * @throws a sentence with what is wrong
 * @returns its manifest, and how many Boards opened
 */
export async function checkCopy(options: CheckOptions): Promise<{ manifest: Manifest; boards: number }> {
  const manifest = await requireWritten(options)
  const trial = await options.startTrial()
  try {
    await putInto(trial.url, manifest, options)
    return { manifest, boards: await openBoards(trial.url) }
  } finally {
    await trial.stop()
  }
}
