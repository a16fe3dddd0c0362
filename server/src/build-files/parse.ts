import { BUILD_FILE_NAME, type BuildFile } from '@bold-ballast/contract'
import { readBuildText } from '../build-reading/read-build-text.ts'
import { AppError } from '../http/problem.ts'
import { READ_LIMIT_MS, type WorkPool } from '../workers/pool.ts'
import { type BuildFileSource, zipRefusal } from './source.ts'

const LARGEST_JSON_BYTES = 40 * 1024 * 1024
/** A shorter file is read at once: handing it to a thread would cost more than it. */
const SHORT_BYTES = 512 * 1024

const refuse = (path: string, message: string) => new AppError('bad-input', message, { errors: [{ path, message }] })

/** The build file of a source, read and checked for itself, a long one on a thread of its own; and pull files and pictures that are not there. */
export async function parseBuildFile(source: BuildFileSource, pool?: WorkPool): Promise<BuildFile> {
  if (!source.has(BUILD_FILE_NAME))
    throw refuse('file', `There is no ${BUILD_FILE_NAME} in it. Choose a build file that was exported here, or an archive of one.`)
  const bytes = await readBytes(source)
  const read = pool && bytes.length > SHORT_BYTES ? await pool.run('readBuildText', { bytes }, { limitMs: READ_LIMIT_MS }) : readBuildText({ bytes })
  if (!read.ok) throw new AppError(read.code, read.message, { errors: read.errors })
  const { file } = read
  for (const pull of file.pulls) {
    if (pull.samples && !source.has(pull.samples.file))
      throw refuse(
        pull.samples.file,
        `Pull "${pull.label}" names ${pull.samples.file}, which is not beside the build file. Add it, or choose the whole archive.`,
      )
  }
  for (const { samples, fileName } of file.trackLogs) {
    if (samples && !source.has(samples.file))
      throw refuse(samples.file, `Log "${fileName}" names ${samples.file}, which is not beside the build file. Add it, or choose the whole archive.`)
  }
  for (const photo of file.photos) {
    if (!source.has(photo.file))
      throw refuse(photo.file, `Picture "${photo.name}" names ${photo.file}, which is not beside the build file. Add it, or choose the whole archive.`)
  }
  return file
}

async function readBytes(source: BuildFileSource): Promise<Buffer> {
  const chunks: Buffer[] = []
  let bytes = 0
  try {
    for await (const chunk of await source.open(BUILD_FILE_NAME)) {
      bytes += (chunk as Buffer).length
      if (bytes > LARGEST_JSON_BYTES) throw new AppError('too-large', `${BUILD_FILE_NAME} is larger than 40 MB. It cannot be the file of one build.`)
      chunks.push(chunk as Buffer)
    }
  } catch (error) {
    throw error instanceof AppError ? error : zipRefusal(error)
  }
  return Buffer.concat(chunks)
}
