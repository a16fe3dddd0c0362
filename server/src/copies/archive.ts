import { mkdir, readdir, rm } from 'node:fs/promises'
import path from 'node:path'
import { create, extract } from 'tar'
import { readByteRows } from './bytes.ts'
import { BYTES_FOLDER, CopyRefusal, MANIFEST, ROWS } from './manifest.ts'

/** Packs one copy with the bytes it needs into one file that can be carried away. */
export async function packCopy(folder: string, copiesDir: string, file: string): Promise<void> {
  const names = new Set<string>()
  for await (const { sha256 } of readByteRows(path.join(folder, ROWS))) names.add(`${BYTES_FOLDER}/${sha256}`)
  try {
    await create({ file, cwd: copiesDir, portable: true }, [path.basename(folder), ...names])
  } catch (error) {
    await rm(file, { force: true })
    throw new CopyRefusal(`${file} could not be written: ${(error as Error).message}`)
  }
}

/** Unpacks a file of one copy; answers where the copy and its bytes lie now. */
export async function unpackCopy(file: string, into: string): Promise<{ folder: string; copiesDir: string }> {
  await mkdir(path.join(into, BYTES_FOLDER), { recursive: true })
  try {
    await extract({ file, cwd: into, strict: true })
  } catch (error) {
    throw new CopyRefusal(`${file} is no file of a copy, or not whole: ${(error as Error).message}. Nothing was changed.`)
  }
  for (const name of await readdir(into)) {
    const inside: string[] = await readdir(path.join(into, name)).catch(() => [])
    if (inside.includes(MANIFEST)) return { folder: path.join(into, name), copiesDir: into }
  }
  throw new CopyRefusal(`${file} holds no copy: there is no ${MANIFEST} in it. Nothing was changed.`)
}
