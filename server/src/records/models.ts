import { RESOURCE_FIELDS, type ResourceName } from '@bold-ballast/contract'
import { CURVE_VERSION } from '@bold-ballast/core'
import { Model, type ModelClass, type Pojo } from 'objection'

/** Columns every record has, beside the fields of its resource. */
export class RecordModel extends Model {
  declare id: string
  declare buildId: string
  declare version: number
  declare createdAt: string
  declare createdBy: string
  declare updatedAt: string
  declare updatedBy: string
  declare deletedAt: string | null
}

const table = (name: string, jsonAttributes: string[] = []): ModelClass<RecordModel> =>
  class extends RecordModel {
    static override tableName = name
    static override jsonAttributes = jsonAttributes
  }

/** A pull keeps its grid curve as three columns, the powers as a typed array. */
class PullModel extends RecordModel {
  static override tableName = 'pulls'
  static override jsonAttributes = ['alongside']

  override $formatDatabaseJson(json: Pojo): Pojo {
    const { curve, ...rest } = json
    if (!curve) return super.$formatDatabaseJson(rest)
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
    return { ...rest, curve: { stepRpm: curveStepRpm, firstSpeedRpm: curveFirstSpeedRpm, powerW: curvePowerW } }
  }
}

export class BuildModel extends RecordModel {
  static override tableName = 'builds'
  static override jsonAttributes = ['reference', 'powerBasis', 'baselineMass', 'fuelPlace', 'driverPlace', 'suspension', 'drivelineLoss']
}

const MODELS: Record<ResourceName, ModelClass<RecordModel>> = {
  stages: class extends RecordModel {
    static override tableName = 'stages'
    override $parseDatabaseJson(json: Pojo): Pojo {
      const { livePosition: _, ...rest } = super.$parseDatabaseJson(json)
      return rest
    }
  },
  limits: table('limits'),
  targets: table('targets'),
  changes: table('changes', ['values', 'place']),
  expectations: table('expectations'),
  weighings: table('weighings', ['pads', 'extras', 'secondPlacement', 'conditions']),
  'in-cars': table('in_cars'),
  sessions: table('sessions', ['ambient']),
  pulls: PullModel,
  standings: table('standings', ['pullIds']),
  zones: table('zones', ['place']),
  boxes: table('boxes'),
  lifts: table('lifts'),
  'balance-steps': table('balance_steps', ['before', 'turns', 'after']),
  sites: table('sites', ['place', 'plates']),
  'ballast-aims': table('ballast_aims', ['front', 'left', 'crossRfLr']),
  photos: table('photos'),
  parts: table('parts', ['mass', 'place', 'ratings', 'life', 'extras']),
  'part-uses': table('part_uses'),
  'engine-plans': table('engine_plans', ['engine', 'target', 'air', 'burn', 'injectors', 'pump']),
  'pull-plans': table('pull_plans', ['changes', 'stops']),
  'dyno-mappings': table('dyno_mappings', ['columns']),
}

export const modelOf = (resource: ResourceName): ModelClass<RecordModel> => MODELS[resource]

/** Only the fields of a resource, of a record or a body. */
export function fieldsOf(resource: ResourceName, record: object): Record<string, unknown> {
  const known = Object.keys(RESOURCE_FIELDS[resource])
  return Object.fromEntries(Object.entries(record).filter(([key]) => known.includes(key)))
}
