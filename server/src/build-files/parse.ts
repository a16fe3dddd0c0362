import { BUILD_FILE_FORMAT, BUILD_FILE_NAME, BUILD_FILE_VERSION, type BuildFile, buildFileSchema, upgradeBuildFile } from '@bold-ballast/contract'
import { KINDS } from '@bold-ballast/core'
import { AppError, badInput } from '../http/problem.ts'
import { type BuildFileSource, zipRefusal } from './source.ts'

const LARGEST_JSON_BYTES = 40 * 1024 * 1024

const refuse = (path: string, message: string) => new AppError('bad-input', message, { errors: [{ path, message }] })

/** The build file of a source, read and checked for itself: format, version, fields, ids that stand twice, pull files that are not there. */
export async function parseBuildFile(source: BuildFileSource): Promise<BuildFile> {
  if (!source.has(BUILD_FILE_NAME))
    throw refuse('file', `There is no ${BUILD_FILE_NAME} in it. Choose a build file that was exported here, or an archive of one.`)
  const raw = parseJson(await readText(source))
  const { format, formatVersion } = (raw ?? {}) as { format?: unknown; formatVersion?: unknown }
  if (format !== BUILD_FILE_FORMAT)
    throw refuse('format', 'This is no build file: its "format" is missing or another. Choose a file that was exported as a build.')
  if (typeof formatVersion === 'number' && formatVersion > BUILD_FILE_VERSION)
    throw refuse(
      'formatVersion',
      `The build file has format ${formatVersion}; this program reads up to ${BUILD_FILE_VERSION}. Update the program, or export the file from the older one.`,
    )
  const read = buildFileSchema.safeParse(upgradeBuildFile(raw))
  if (!read.success) throw badInput(read.error)
  checkIds(read.data)
  for (const pull of read.data.pulls) {
    if (pull.samples && !source.has(pull.samples.file))
      throw refuse(
        pull.samples.file,
        `Pull "${pull.label}" names ${pull.samples.file}, which is not beside the build file. Add it, or choose the whole archive.`,
      )
  }
  for (const photo of read.data.photos) {
    if (!source.has(photo.file))
      throw refuse(photo.file, `Picture "${photo.name}" names ${photo.file}, which is not beside the build file. Add it, or choose the whole archive.`)
  }
  return read.data
}

async function readText(source: BuildFileSource): Promise<string> {
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
  return Buffer.concat(chunks).toString('utf8')
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch {
    const isCut = !text.trimEnd().endsWith('}')
    throw refuse(
      'file',
      isCut
        ? 'The build file is cut short: it ends in the middle. Fetch or export it again.'
        : 'The build file is not JSON. Choose a file that was exported as a build.',
    )
  }
}

function checkIds(file: BuildFile): void {
  const seen = new Map<string, string>([[file.build.id, 'the build']])
  for (const { list } of KINDS) {
    file[list].forEach((record, i) => {
      const other = seen.get(record.id)
      if (other)
        throw refuse(`${list}.${i}.id`, `The id ${record.id} stands twice: in ${other} and in ${list}, entry ${i + 1}. Give one of them an id of its own.`)
      seen.set(record.id, `${list}, entry ${i + 1}`)
    })
  }
  const positions = file.stages.map((stage) => stage.position).sort((a, b) => a - b)
  if (positions.some((position, i) => position !== i))
    throw refuse('stages', `The stages stand at places ${positions.join(', ')}; they must be 0, 1, 2 and so on, each once. Correct "position".`)
}
