import { existsSync, statSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { connectAlone, requireSafeDatabase } from '../database/address.ts'
import { packCopy, unpackCopy } from './archive.ts'
import { type CheckOptions, checkCopy } from './check.ts'
import { noteCheck, noteGone } from './ledger.ts'
import { CopyRefusal } from './manifest.ts'
import { type Restored, restoreCopy } from './restore.ts'
import { rotate } from './rotate.ts'
import { type Taken, type TakeOptions, takeCopy, wholeCopies, withCopyLock } from './take.ts'

export { CopyRefusal } from './manifest.ts'

/** What a program at the terminal brings along. */
type Tools = Pick<CheckOptions, 'programs' | 'startTrial'>

/** Does something with a copy, whether it lies in a folder beside its bytes or is packed into one file. */
async function withCopy<Made>(place: string, work: (at: { folder: string; copiesDir: string }) => Promise<Made>): Promise<Made> {
  if (!existsSync(place)) throw new CopyRefusal(`There is no copy at ${place}. Nothing was changed.`)
  if (statSync(place).isDirectory()) return work({ folder: place, copiesDir: path.dirname(place) })
  const into = await mkdtemp(path.join(tmpdir(), 'copy-'))
  try {
    return await work(await unpackCopy(place, into))
  } finally {
    await rm(into, { recursive: true, force: true })
  }
}

/** Takes a copy, looks at it, and lets old ones go. */
export async function backUp({
  databaseUrl,
  copiesDir,
  waits,
  ...tools
}: Tools & Pick<TakeOptions, 'databaseUrl' | 'copiesDir' | 'waits'>): Promise<Taken & { boards: number }> {
  requireSafeDatabase(databaseUrl)
  let boards = 0
  const check = async (folder: string) => {
    boards = (await checkCopy({ folder, copiesDir, ...tools })).boards
  }
  const taken = await takeCopy({ databaseUrl, copiesDir, waits, programs: tools.programs, check })
  const gone = await rotate(copiesDir)
  const client = await connectAlone(databaseUrl)
  await noteGone(client, gone).catch(() => undefined)
  await client.end()
  return { ...taken, boards }
}

/** Looks at a copy again; what was found is noted where a database knows of it. */
export async function checkAgain(place: string, { databaseUrl, ...tools }: Tools & { databaseUrl?: string }): Promise<{ entryId: number; boards: number }> {
  const look = async () => {
    const { manifest, boards } = await withCopy(place, (at) => checkCopy({ ...at, ...tools }))
    return { entryId: manifest.entryId, boards }
  }
  if (databaseUrl === undefined) return look()
  return withCopyLock(databaseUrl, async (client) => {
    try {
      const found = await look()
      await noteCheck(client, path.resolve(place), null)
      return found
    } catch (error) {
      await noteCheck(client, path.resolve(place), (error as Error).message)
      throw error
    }
  })
}

/** Puts a copy in the place of what a database holds. */
export function restoreFrom(place: string, { databaseUrl, ...tools }: Tools & { databaseUrl: string }): Promise<Restored> {
  requireSafeDatabase(databaseUrl)
  return withCopy(place, (at) => restoreCopy(databaseUrl, { ...at, ...tools }))
}

/** Packs the last copy of a folder into one file. */
export async function packLast(copiesDir: string, file: string): Promise<void> {
  const last = (await wholeCopies(copiesDir)).at(-1)
  if (last === undefined) throw new CopyRefusal(`There is no copy in ${copiesDir} yet.`)
  await packCopy(path.join(copiesDir, last), copiesDir, file)
}
