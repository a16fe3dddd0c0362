import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { AppError } from '../http/problem.ts'

export interface Spool {
  /** What was sent, as a file. */
  readonly path: string
  /** Where more of the same upload may be put. */
  readonly beside: (name: string) => string
  readonly remove: () => Promise<void>
}

const isFull = (error: unknown) => (error as { code?: string } | null)?.code === 'ENOSPC'

/**
 * Puts what is sent into a file of its own. The body is read to its end whatever comes of it, so that the answer always arrives: what is past the limit is
 * thrown away. Rejects a body over the limit with `tooLarge`, and a full disk.
 */
export async function spoolBody(source: Readable, mostBytes: number, tooLarge: () => AppError): Promise<Spool> {
  const folder = await mkdtemp(path.join(tmpdir(), 'bold-ballast-'))
  const remove = () => rm(folder, { recursive: true, force: true })
  const file = path.join(folder, 'body')
  let bytes = 0
  const kept = async function* (chunks: AsyncIterable<Buffer>) {
    for await (const chunk of chunks) {
      bytes += chunk.length
      if (bytes <= mostBytes) yield chunk
    }
  }
  try {
    await pipeline(source, kept, createWriteStream(file))
    if (bytes > mostBytes) throw tooLarge()
  } catch (error) {
    await remove()
    throw isFull(error)
      ? new AppError('disk-full', 'The disk of the server is full, so the file cannot be taken. Make room and send it again; nothing was stored.')
      : error
  }
  return { path: file, beside: (name) => path.join(folder, name), remove }
}
