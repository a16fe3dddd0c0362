import { buildFields, CURVE_VERSION, KINDS, kindOf, type RecordList, type ResourceName, z } from '@bold-ballast/core'
import { Model, type ModelClass, type Pojo } from 'objection'

/** Columns every record has, beside the fields of its kind. */
export class RecordModel extends Model {
  declare id: string
  declare buildId: string
  declare version: number
  declare createdAt: string
  declare createdBy: string
  declare updatedAt: string
  declare updatedBy: string
  declare deletedAt: string | null
  // An id counts within its build alone, so that no query can reach into another one.
  static override idColumn: string | string[] = ['buildId', 'id']
}

/** Whether a field holds an object or a list, which the database keeps as JSON. */
function isJson(field: z.ZodType): boolean {
  if (field instanceof z.ZodDefault || field instanceof z.ZodNullable || field instanceof z.ZodOptional) return isJson(field.unwrap() as z.ZodType)
  return field instanceof z.ZodObject || field instanceof z.ZodDiscriminatedUnion || field instanceof z.ZodArray || field instanceof z.ZodRecord
}

/** The fields of a kind that are kept as JSON. */
export const jsonFields = (fields: Readonly<Record<string, z.ZodType>>): string[] =>
  Object.entries(fields).flatMap(([name, field]) => (isJson(field) ? [name] : []))

/** A pull keeps its grid curve as three columns, the powers as a typed array; a peak alone has none of them. */
class PullModel extends RecordModel {
  override $formatDatabaseJson(json: Pojo): Pojo {
    const { curve, ...rest } = json
    if (curve === undefined) return super.$formatDatabaseJson(rest)
    if (curve === null)
      return super.$formatDatabaseJson({
        ...rest,
        curveStepRpm: null,
        curveFirstSpeedRpm: null,
        curvePowerW: null,
        curveVersion: rest.curveVersion ?? CURVE_VERSION,
      })
    const columns = {
      curveStepRpm: curve.stepRpm,
      curveFirstSpeedRpm: curve.firstSpeedRpm,
      curvePowerW: curve.powerW,
      curveVersion: rest.curveVersion ?? CURVE_VERSION,
    }
    return super.$formatDatabaseJson({ ...rest, ...columns })
  }
  override $parseDatabaseJson(json: Pojo): Pojo {
    const { curveStepRpm, curveFirstSpeedRpm, curvePowerW, curveVersion: _version, importId: _import, ...rest } = super.$parseDatabaseJson(json)
    const curve = curvePowerW === null ? null : { stepRpm: curveStepRpm, firstSpeedRpm: curveFirstSpeedRpm, powerW: curvePowerW }
    return { ...rest, curve }
  }
}

/** A stage has a column of its own for the place it holds while it is live. */
class StageModel extends RecordModel {
  override $parseDatabaseJson(json: Pojo): Pojo {
    const { livePosition: _, ...rest } = super.$parseDatabaseJson(json)
    return rest
  }
}

export class BuildModel extends RecordModel {
  static override tableName = 'builds'
  static override idColumn = 'id'
  static override jsonAttributes = jsonFields(buildFields)
  // Where a build stands is no field of it: it goes into no answer, no log and no file.
  override $parseDatabaseJson(json: Pojo): Pojo {
    const { garageId: _, ...rest } = super.$parseDatabaseJson(json)
    return rest
  }
}

/** Kinds whose table is more than a column a field; the fields beside each are kept in columns of their own. */
const SPECIAL: { readonly [List in RecordList]?: { readonly base: typeof RecordModel; readonly apart: readonly string[] } } = {
  pulls: { base: PullModel, apart: ['curve'] },
  stages: { base: StageModel, apart: [] },
}

const MODELS = new Map<string, ModelClass<RecordModel>>(
  KINDS.map(({ list, table, fields }) => {
    const { base, apart } = SPECIAL[list] ?? { base: RecordModel, apart: [] }
    return [
      list,
      class extends base {
        static override tableName = table
        static override jsonAttributes = jsonFields(fields).filter((name) => !apart.includes(name))
      },
    ]
  }),
)

export const modelOf = (name: RecordList | ResourceName): ModelClass<RecordModel> => MODELS.get(kindOf(name).list) as ModelClass<RecordModel>

/** Only the fields of a kind, of a record or a body. */
export function fieldsOf(name: RecordList | ResourceName, record: object): Record<string, unknown> {
  const known = Object.keys(kindOf(name).fields)
  return Object.fromEntries(Object.entries(record).filter(([key]) => known.includes(key)))
}
