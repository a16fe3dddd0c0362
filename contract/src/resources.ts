import {
  buildFields,
  changeFields,
  expectationFields,
  inCarFields,
  limitFields,
  pullFields,
  sessionFields,
  stageFields,
  standingFields,
  targetFields,
  weighingFields,
  z,
} from '@bold-ballast/core'

/** Resources below a build, by the name they have in addresses. */
export const RESOURCE_FIELDS = {
  stages: stageFields,
  limits: limitFields,
  targets: targetFields,
  changes: changeFields,
  expectations: expectationFields,
  weighings: weighingFields,
  'in-cars': inCarFields,
  sessions: sessionFields,
  pulls: pullFields,
  standings: standingFields,
} as const

export type ResourceName = keyof typeof RESOURCE_FIELDS
export const RESOURCE_NAMES = Object.keys(RESOURCE_FIELDS) as ResourceName[]

const uuidField = { id: z.uuid() }
const metaFields = {
  version: z.int().positive(),
  createdAt: z.string(),
  createdBy: z.string(),
  updatedAt: z.string(),
  updatedBy: z.string(),
  deletedAt: z.string().nullable(),
}

type Fields = Record<string, z.ZodType>

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
    .array(z.strictObject({ id: z.uuid(), version: z.int().positive() }))
    .min(1)
    .max(100),
})

export const pullFileQuerySchema = z.strictObject({
  mode: z.enum(['preview', 'import']),
  importId: z.uuid(),
  powerUnit: z.string().max(20).optional(),
  torqueUnit: z.string().max(20).optional(),
})

export type Meta = z.infer<z.ZodObject<typeof metaFields>>
export type Stored<RecordType> = RecordType & Meta & { buildId: string }
