import { buildFields, gridCurveSchema, KINDS, type RecordList, type RecordOf, upgradeRecord, z } from '@bold-ballast/core'

export const BUILD_FILE_FORMAT = 'bold-ballast-build'
/** Raised when a file of before can no longer be read as it is. */
export const BUILD_FILE_VERSION = 10
/** The file with all records, and the folder of pull samples beside it. */
export const BUILD_FILE_NAME = 'build.json'
export const samplesFileName = (pullId: string) => `pulls/${pullId}.csv`
export const logSamplesFileName = (logId: string) => `logs/${logId}.csv`
export const photoFileName = (photoId: string, mediaType: string) => `photos/${photoId}.${mediaType.slice(mediaType.indexOf('/') + 1)}`

const instant = z.iso.datetime({ offset: true })

/** Who made a record and when, and the version the file saw; a file written by hand may leave them out. */
const originFields = {
  version: z.int().positive().optional(),
  createdAt: instant.optional(),
  createdBy: z.string().max(80).optional(),
}

const channelSchema = z.strictObject({ role: z.string().max(40), name: z.string().max(200), unit: z.string().max(40) })

/** Where the samples of a pull or of a log are: a CSV file beside this one, a column a channel, in this order. */
const samplesIn = (folder: 'pulls' | 'logs') =>
  z.strictObject({
    file: z.string().regex(new RegExp(`^${folder}/[A-Za-z0-9._-]{1,120}\\.csv$`), `name a CSV file in the folder "${folder}"`),
    channels: z.array(channelSchema).min(1).max(200),
  })
type SamplesInFile = z.output<ReturnType<typeof samplesIn>>

const uuid = z.uuid()
type Origin = z.output<z.ZodObject<typeof originFields>>

/** What the records of some lists have in a file beside their fields. */
const MORE_IN_FILE: { readonly [List in RecordList]?: Readonly<Record<string, z.ZodType>> } = {
  pulls: {
    curve: gridCurveSchema.nullable(),
    /** Which way of working out curve and peaks made them; they are made anew from the samples where it is not this program's. */
    curveVersion: z.int().positive().optional(),
    samples: samplesIn('pulls').nullable().default(null),
  },
  trackLogs: {
    /** Null: the file was made without them. */
    samples: samplesIn('logs').nullable().default(null),
  },
  photos: {
    /** Its bytes, beside this file. */
    file: z.string().regex(/^photos\/[A-Za-z0-9._-]{1,120}\.(jpeg|png|webp)$/, 'name a picture in the folder "photos"'),
  },
}

interface MoreInFile {
  readonly pulls: { readonly curveVersion?: number | undefined; readonly samples: SamplesInFile | null }
  readonly trackLogs: { readonly samples: SamplesInFile | null }
  readonly photos: { readonly file: string }
}

type FileRecord<List extends RecordList> = RecordOf<List> & Origin & (List extends keyof MoreInFile ? MoreInFile[List] : unknown)
type FileLists = { [List in RecordList]: z.ZodDefault<z.ZodArray<z.ZodType<FileRecord<List>>>> }

const fileLists = Object.fromEntries(
  KINDS.map(({ list, fields, mostInFile }) => {
    const all = z.array(z.strictObject({ ...fields, id: uuid, ...originFields, ...MORE_IN_FILE[list] })).max(mostInFile)
    return [list, list === 'stages' ? z.array(all.element).min(1).max(mostInFile) : all.default([])]
  }),
) as unknown as FileLists

/** A build as a file: every live record in SI, with what was typed, its proofs and spreads. */
export const buildFileSchema = z
  .strictObject({
    format: z.literal(BUILD_FILE_FORMAT),
    formatVersion: z.literal(BUILD_FILE_VERSION),
    exportedAt: instant.optional(),
    build: z.strictObject({ ...buildFields, id: uuid, ...originFields }),
    ...fileLists,
  })
  .meta({
    title: 'Bold Ballast build file',
    description: 'One build with all its records. Units are in the names: kg, m, L, Pa, K, W, N·m, rpm; shares are 0 to 1.',
  })

/** A file of an earlier format as one of this: the same records in today's fields. Anything that is no build file stays as it is. */
export function upgradeBuildFile(raw: unknown): unknown {
  const version = raw !== null && typeof raw === 'object' ? (raw as { formatVersion?: unknown }).formatVersion : undefined
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version >= BUILD_FILE_VERSION) return raw
  const file: Record<string, unknown> = { ...(raw as object), formatVersion: BUILD_FILE_VERSION }
  for (const { list } of KINDS) {
    const rows = file[list]
    if (Array.isArray(rows)) file[list] = rows.map((row) => (row !== null && typeof row === 'object' ? upgradeRecord(list, row) : row))
  }
  return file
}

export type BuildFile = z.output<typeof buildFileSchema>
export type BuildFileRecord = Record<string, unknown> & {
  id: string
  version?: number | undefined
  createdAt?: string | undefined
  createdBy?: string | undefined
}

/** The published schema of the file, as JSON Schema. */
export const buildFileJsonSchema = () => z.toJSONSchema(buildFileSchema, { io: 'input' })

export const buildFileQuerySchema = z.strictObject({
  mode: z.enum(['preview', 'import']),
  /** A build of its own, or changes to the build of the same id that is here. */
  as: z.enum(['new', 'update']),
  importId: z.uuid(),
  /** What becomes of records that are here and not in the file, in an update. */
  missing: z.enum(['keep', 'delete']).default('keep'),
})

export interface FileChange {
  readonly list: RecordList | 'build'
  readonly id: string
  readonly name: string
  readonly kind: 'added' | 'changed' | 'deleted' | 'putBack'
  readonly fields: readonly { readonly field: string; readonly before: unknown; readonly after: unknown }[]
  /** It was changed here after the file was written, so the import would take that back. */
  readonly changedHere: boolean
}

/** What an import would do, or did. */
export interface BuildFileReport {
  readonly as: 'new' | 'update'
  readonly buildId: string
  readonly name: string
  readonly counts: { readonly [List in RecordList]: number }
  readonly sampleCount: number
  /** Whether a build of the file's id is in the Garage, so that an update is possible. */
  readonly isHere: boolean
  /** Whether all ids get replaced, because the file's are in use here. */
  readonly getsNewIds: boolean
  readonly unchangedCount: number
  readonly changes: readonly FileChange[]
}

/** Samples of logs are many: a file holds them where that is asked. */
export const buildFileWishSchema = z.strictObject({
  logs: z.enum(['yes', 'no']).default('no'),
  /** A line of the log: the build as it stood behind it. */
  at: z.coerce.number().int().min(1).optional(),
})
