import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { readFile } from 'node:fs/promises'
import path from 'node:path'
import { pipeline } from 'node:stream/promises'
import { z } from '@bold-ballast/core'
import { migrations } from '../database/migrations/index.ts'

/** A sentence for whoever takes, checks or restores a copy. */
export class CopyRefusal extends Error {}

const digest = z.string().regex(/^[0-9a-f]{64}$/)
const file = z.strictObject({ bytes: z.int().min(0), sha256: digest })

/** What stands beside a copy and says what must be in it. */
export const manifestSchema = z.strictObject({
  format: z.literal('bold-ballast-copy'),
  formatVersion: z.literal(1),
  takenAt: z.iso.datetime(),
  migrations: z.array(z.string()).min(1),
  /** The last line of the log that is in it. */
  entryId: z.int().min(0),
  /** Of each table how many rows, and the sum of the first 64 bits of the MD5 of each row as text. */
  tables: z.record(z.string(), z.strictObject({ count: z.string(), sum: z.string() })),
  dump: file,
  rows: file,
  /** How many files of bytes the rows name, and how large they are together. */
  byteFiles: z.int().min(0),
  byteSize: z.int().min(0),
})
export type Manifest = z.output<typeof manifestSchema>

export const MANIFEST = 'manifest.json'
export const DUMP = 'database.dump'
export const ROWS = 'byte-rows.ndjson.gz'
export const BYTES_FOLDER = 'bytes'

/** Size and digest of a file, read piece by piece. */
export async function digestOf(file: string): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256')
  let bytes = 0
  await pipeline(createReadStream(file), async (chunks: AsyncIterable<Buffer>) => {
    for await (const chunk of chunks) {
      hash.update(chunk)
      bytes += chunk.length
    }
  })
  return { bytes, sha256: hash.digest('hex') }
}

/** The manifest of a copy. Throws a sentence where there is none, or a newer program wrote it. */
export async function readManifest(folder: string): Promise<Manifest> {
  const text = await readFile(path.join(folder, MANIFEST), 'utf8').catch(() => {
    throw new CopyRefusal(`There is no copy at ${folder}: it has no ${MANIFEST}. Nothing was changed.`)
  })
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new CopyRefusal(`${MANIFEST} is not the file that was written. Nothing was changed.`)
  }
  const names = z.object({ migrations: z.array(z.string()) }).safeParse(json)
  const newer = names.success ? names.data.migrations.find((name) => !(name in migrations)) : undefined
  if (newer !== undefined) throw new CopyRefusal(`A newer Bold Ballast took this copy (${newer.slice(0, 4)}). Restore it with that one. Nothing was changed.`)
  const read = manifestSchema.safeParse(json)
  if (!read.success) throw new CopyRefusal(`${MANIFEST} is not the file that was written. Nothing was changed.`)
  return read.data
}
