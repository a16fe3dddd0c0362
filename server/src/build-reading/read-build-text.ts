import { BUILD_FILE_FORMAT, BUILD_FILE_VERSION, type BuildFile, buildFileSchema, upgradeBuildFile } from '@bold-ballast/contract'
import { KINDS } from '@bold-ballast/core'
import { AppError, badInput } from '../http/problem.ts'

const refuse = (path: string, message: string) => new AppError('bad-input', message, { errors: [{ path, message }] })

/** A build file that was read, or why it was not, so that it can be handed from one thread to another. */
export type ReadBuild =
  | { readonly ok: true; readonly file: BuildFile }
  | { readonly ok: false; readonly code: AppError['code']; readonly message: string; readonly errors: AppError['errors'] }

/** The text of a build file, read and checked for itself: format, version, fields, ids that stand twice. */
export function readBuildText({ bytes }: { readonly bytes: Uint8Array }): ReadBuild {
  try {
    return { ok: true, file: fileOf(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8')) }
  } catch (error) {
    if (!(error instanceof AppError)) throw error
    return { ok: false, code: error.code, message: error.message, errors: error.errors }
  }
}

function fileOf(text: string): BuildFile {
  const raw = parseJson(text)
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
  return read.data
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
