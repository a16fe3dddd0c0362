import { createReadStream, existsSync, statSync } from 'node:fs'
import path from 'node:path'
import { Readable, Transform } from 'node:stream'
import { crc32 } from 'node:zlib'
import { BUILD_FILE_NAME } from '@bold-ballast/contract'
import yauzl from 'yauzl'
import { AppError } from '../http/problem.ts'

/** A build file and the samples beside it, wherever they lie. */
export interface BuildFileSource {
  readonly has: (name: string) => boolean
  readonly open: (name: string) => Promise<Readable>
  readonly close: () => void
}

export const LARGEST_UPLOAD_BYTES = 100 * 1024 * 1024
/** Of all entries of an archive together, unpacked. */
const LARGEST_UNPACKED_BYTES = 400 * 1024 * 1024
const MOST_ENTRIES = 5000
/** Text of numbers shrinks to a tenth or so; what shrinks to less than this is no build. */
const LEAST_RATIO = 1 / 200
const SMALL_ENTRY_BYTES = 1024 * 1024

const refuse = (message: string) => new AppError('bad-input', message, { errors: [{ path: 'file', message }] })

/** A build file alone, without samples. */
export function jsonSource(text: Buffer): BuildFileSource {
  return { has: (name) => name === BUILD_FILE_NAME, open: async () => Readable.from([text]), close: () => {} }
}

export function folderSource(folder: string): BuildFileSource {
  const at = (name: string) => path.join(folder, ...name.split('/'))
  return { has: (name) => existsSync(at(name)) && statSync(at(name)).isFile(), open: async (name) => createReadStream(at(name)), close: () => {} }
}

function checkEntry(entry: yauzl.Entry): void {
  const { fileName, uncompressedSize, compressedSize } = entry
  if (uncompressedSize > SMALL_ENTRY_BYTES && compressedSize < uncompressedSize * LEAST_RATIO)
    throw refuse(`"${fileName.slice(0, 80)}" in the archive would unpack to far more than it holds. It is no build file; export the build again.`)
}

/**
 * A zip archive on disk. Its directory is read first and nothing is ever unpacked to disk; names that leave the archive, too many entries,
 * too much unpacked size and entries that are not as large as they say are refused.
 */
export async function zipSource(file: string): Promise<BuildFileSource> {
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) => {
    yauzl.open(file, { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true }, (error, opened) =>
      opened ? resolve(opened) : reject(zipRefusal(error)),
    )
  })
  try {
    const entries = await readDirectory(zip)
    return {
      has: (name) => entries.has(name),
      open: (name) =>
        new Promise((resolve, reject) => {
          zip.openReadStream(entries.get(name) as yauzl.Entry, (error, stream) => {
            if (!stream) return reject(zipRefusal(error))
            resolve(checked(stream, (entries.get(name) as yauzl.Entry).crc32))
          })
        }),
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}

/** What an entry holds, refused at its end where its checksum is another than the archive says; whatever goes wrong in it is a sentence. */
function checked(entry: Readable, wanted: number): Readable {
  let sum = 0
  const check = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      sum = crc32(chunk, sum)
      done(null, chunk)
    },
    flush(done) {
      done(sum === wanted ? null : refuse('A file in the archive is damaged: its checksum is wrong. Nothing was read; fetch or export the build again.'))
    },
  })
  entry.on('error', (error) => check.destroy(zipRefusal(error)))
  return entry.pipe(check)
}

function readDirectory(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  const entries = new Map<string, yauzl.Entry>()
  let unpacked = 0
  return new Promise((resolve, reject) => {
    zip.on('error', (error) => reject(zipRefusal(error)))
    zip.on('end', () => resolve(entries))
    zip.on('entry', (entry: yauzl.Entry) => {
      try {
        checkEntry(entry)
        unpacked += entry.uncompressedSize
        if (unpacked > LARGEST_UNPACKED_BYTES) throw refuse('The archive would unpack to more than 400 MB. Export the build again, or send fewer pulls.')
        if (entries.size >= MOST_ENTRIES) throw refuse(`The archive holds more than ${MOST_ENTRIES} files. A build file has one for each pull.`)
        if (entries.has(entry.fileName)) throw refuse(`The archive holds "${entry.fileName.slice(0, 80)}" twice. Export the build again.`)
      } catch (error) {
        return reject(error)
      }
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.readEntry()
  })
}

/** Whatever goes wrong inside an archive, as a sentence. */
export function zipRefusal(error: unknown): AppError {
  const text = error instanceof Error ? error.message : ''
  if (/relative path|absolute path|invalid characters/.test(text))
    return refuse('The archive names a file outside itself. Nothing was read; export the build again.')
  if (/too many bytes|not enough bytes/.test(text))
    return refuse('A file in the archive is not as large as the archive says. Nothing was read; export the build again.')
  return refuse('The archive is damaged or cut short. Fetch or export it again and choose that file.')
}
