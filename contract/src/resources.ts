import { type BatchResource, buildFields, dynoMappingKind, KINDS, loggerMappingKind, z } from '@bold-ballast/core'

const uuid = z.uuid().overwrite((text) => text.toLowerCase())
const uuidField = { id: uuid }
const metaFields = {
  version: z.int().positive(),
  createdAt: z.string(),
  createdBy: z.string(),
  updatedAt: z.string(),
  updatedBy: z.string(),
  deletedAt: z.string().nullable(),
}

type Fields = Readonly<Record<string, z.ZodType>>

/** Fields of an update: each optional, and none filled in by a default, so that what is not sent stays as it is. */
function patchFields(fields: Fields): Fields {
  const entries = Object.entries(fields).filter(([key]) => key !== 'id')
  return Object.fromEntries(entries.map(([key, field]) => [key, (field instanceof z.ZodDefault ? (field.unwrap() as z.ZodType) : field).optional()]))
}

/** Body of a creation: all fields, with an id the client made, so that sending twice creates once. */
export const createSchema = (fields: Fields) => z.strictObject({ ...fields, ...uuidField })

/** Body of an update: the version it saw, and the fields it changes. */
export const patchSchema = (fields: Fields) => z.strictObject({ ...patchFields(fields), version: z.int().positive() })

export const versionSchema = z.strictObject({ version: z.int().positive() })

export const buildCreateSchema = z.strictObject({ ...buildFields, ...uuidField })

export const stageOrderSchema = z.strictObject({
  stages: z
    .array(z.strictObject({ id: uuid, version: z.int().positive() }))
    .min(1)
    .max(100),
})

/** Resources whose records can be written many at once: plain lists without files or places in an order. */
export const BATCH_RESOURCES = KINDS.filter((kind) => kind.isBatchable).map((kind) => kind.address) as [BatchResource, ...BatchResource[]]

/** Many writes as one: all of them or none, one entry in the log, and once for a batch id. */
export const batchSchema = z.strictObject({
  batchId: uuid,
  writes: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('create'), resource: z.enum(BATCH_RESOURCES), body: z.record(z.string(), z.unknown()) }),
        z.strictObject({ kind: z.literal('update'), resource: z.enum(BATCH_RESOURCES), id: uuid, body: z.record(z.string(), z.unknown()) }),
        z.strictObject({ kind: z.literal('remove'), resource: z.enum(BATCH_RESOURCES), id: uuid, version: z.int().positive() }),
      ]),
    )
    .min(1)
    .max(2500),
})
export type BatchWrite = z.output<typeof batchSchema>['writes'][number]

/** Builds of the Garage, by a part of their name, a page at a time. */
export const garageQuerySchema = z.object({
  day: z.iso.date().optional(),
  name: z.string().trim().max(200).default(''),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
})

export const photoQuerySchema = z.strictObject({ id: uuid, recordId: uuid, name: z.string().trim().min(1).max(200) })

/** A mapping in an address: the columns as JSON. */
const mappingText = <Columns extends z.ZodType>(schema: Columns) =>
  z
    .string()
    .max(20_000)
    .transform((text, context): z.output<Columns> => {
      try {
        return schema.parse(JSON.parse(text))
      } catch {
        context.addIssue({ code: 'custom', message: 'is no list of columns; each names its heading, its role and its unit' })
        return z.NEVER
      }
    })

export const pullFileQuerySchema = z.strictObject({
  mode: z.enum(['columns', 'preview', 'import']),
  importId: uuid,
  mapping: mappingText(dynoMappingKind.fields.columns).optional(),
  /** Which of the session's settings the pulls ran on; left out: the first. */
  settingId: z.string().min(1).max(64).nullable().default(null),
})

export type Meta = z.infer<z.ZodObject<typeof metaFields>>
export type Stored<RecordType> = RecordType & Meta & { buildId: string }

export const logFileQuerySchema = z.strictObject({
  mode: z.enum(['columns', 'preview', 'import']),
  importId: uuid,
  logId: uuid,
  fileName: z.string().trim().min(1).max(200),
  loggerName: z.string().trim().min(1).max(120).default('logger'),
  mapping: mappingText(loggerMappingKind.fields.columns).optional(),
})

/** Which channels of a log, by their place, from when to when, and how many entries at the most. */
export const logSamplesQuerySchema = z.strictObject({
  channels: z
    .string()
    .regex(/^\d{1,3}(,\d{1,3}){0,19}$/, 'name up to 20 channels by their place, with commas')
    .transform((text) => text.split(',').map(Number)),
  fromS: z.coerce.number().min(0).max(1e6).default(0),
  toS: z.coerce.number().min(0).max(1e6).default(1e6),
  most: z.coerce.number().int().min(100).max(20_000).default(4000),
})
