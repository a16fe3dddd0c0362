import { buildFields, gridCurveSchema, type RecordList, z } from '@bold-ballast/core'
import { RESOURCE_FIELDS } from './resources.ts'

export const BUILD_FILE_FORMAT = 'bold-ballast-build'
/** Raised when a file of before can no longer be read as it is. */
export const BUILD_FILE_VERSION = 1
/** The file with all records, and the folder of pull samples beside it. */
export const BUILD_FILE_NAME = 'build.json'
export const samplesFileName = (pullId: string) => `pulls/${pullId}.csv`
export const photoFileName = (photoId: string, mediaType: string) => `photos/${photoId}.${mediaType.slice(mediaType.indexOf('/') + 1)}`

const instant = z.iso.datetime({ offset: true })

/** Who made a record and when, and the version the file saw; a file written by hand may leave them out. */
const originFields = {
  version: z.int().positive().optional(),
  createdAt: instant.optional(),
  createdBy: z.string().max(80).optional(),
}

const channelSchema = z.strictObject({ role: z.string().max(40), name: z.string().max(200), unit: z.string().max(40) })

/** Where the samples of a pull are: a CSV file beside this one, a column a channel, in this order. */
const samplesSchema = z.strictObject({
  file: z.string().regex(/^pulls\/[A-Za-z0-9._-]{1,120}\.csv$/, 'name a CSV file in the folder "pulls"'),
  channels: z.array(channelSchema).min(1).max(200),
})

const uuid = z.uuid()
const recordSchema = <Fields extends Record<string, z.ZodType>>(fields: Fields) => z.strictObject({ ...fields, id: uuid, ...originFields })

const pullSchema = z.strictObject({
  ...RESOURCE_FIELDS.pulls,
  id: uuid,
  ...originFields,
  curve: gridCurveSchema,
  /** Which way of working out curve and peaks made them; they are made anew from the samples where it is not this program's. */
  curveVersion: z.int().positive().optional(),
  samples: samplesSchema.nullable().default(null),
})

const photoSchema = z.strictObject({
  ...RESOURCE_FIELDS.photos,
  id: uuid,
  ...originFields,
  /** Its bytes, beside this file. */
  file: z.string().regex(/^photos\/[A-Za-z0-9._-]{1,120}\.(jpeg|png|webp)$/, 'name a picture in the folder "photos"'),
})

const listSchema = <Fields extends Record<string, z.ZodType>>(fields: Fields) => z.array(recordSchema(fields)).max(20_000).default([])

/** A build as a file: every live record in SI, with what was typed, its proofs and spreads. */
export const buildFileSchema = z
  .strictObject({
    format: z.literal(BUILD_FILE_FORMAT),
    formatVersion: z.literal(BUILD_FILE_VERSION),
    exportedAt: instant.optional(),
    build: z.strictObject({ ...buildFields, id: uuid, ...originFields }),
    stages: z.array(recordSchema(RESOURCE_FIELDS.stages)).min(1).max(100),
    limits: listSchema(RESOURCE_FIELDS.limits),
    targets: listSchema(RESOURCE_FIELDS.targets),
    changes: listSchema(RESOURCE_FIELDS.changes),
    expectations: listSchema(RESOURCE_FIELDS.expectations),
    weighings: listSchema(RESOURCE_FIELDS.weighings),
    inCars: listSchema(RESOURCE_FIELDS['in-cars']),
    sessions: listSchema(RESOURCE_FIELDS.sessions),
    pulls: z.array(pullSchema).max(20_000).default([]),
    standings: listSchema(RESOURCE_FIELDS.standings),
    zones: listSchema(RESOURCE_FIELDS.zones),
    boxes: listSchema(RESOURCE_FIELDS.boxes),
    lifts: listSchema(RESOURCE_FIELDS.lifts),
    balanceSteps: listSchema(RESOURCE_FIELDS['balance-steps']),
    sites: listSchema(RESOURCE_FIELDS.sites),
    ballastAims: listSchema(RESOURCE_FIELDS['ballast-aims']),
    photos: z.array(photoSchema).max(2000).default([]),
    parts: listSchema(RESOURCE_FIELDS.parts),
    partUses: listSchema(RESOURCE_FIELDS['part-uses']),
    enginePlans: listSchema(RESOURCE_FIELDS['engine-plans']),
    pullPlans: listSchema(RESOURCE_FIELDS['pull-plans']),
    dynoMappings: listSchema(RESOURCE_FIELDS['dyno-mappings']),
  })
  .meta({
    title: 'Bold Ballast build file',
    description: 'One build with all its records. Units are in the names: kg, m, L, Pa, K, W, N·m, rpm; shares are 0 to 1.',
  })

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
