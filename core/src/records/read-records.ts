import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { type BuildRecords, buildRecordsSchema } from './records.ts'

export type RecordList = Exclude<keyof BuildRecords, 'build'>

/** A stored record that cannot be used; it is left out of every sum and named wherever its build is shown. */
export interface BrokenRecord {
  readonly list: RecordList
  readonly id: string
  readonly name: string
  readonly reason: string
}

const LIST_SCHEMAS = Object.entries(buildRecordsSchema.shape).filter(([key]) => key !== 'build') as [RecordList, z.ZodType][]

/** Which record of which list a field names. A part of another record goes out of sight with it; anything else without its stage is broken. */
const REFERENCES: readonly { list: RecordList; field: string; target: RecordList; isPart: boolean }[] = [
  { list: 'changes', field: 'stageId', target: 'stages', isPart: false },
  { list: 'weighings', field: 'stageId', target: 'stages', isPart: false },
  { list: 'sessions', field: 'stageId', target: 'stages', isPart: false },
  { list: 'expectations', field: 'stageId', target: 'stages', isPart: true },
  { list: 'standings', field: 'stageId', target: 'stages', isPart: true },
  { list: 'standings', field: 'sessionId', target: 'sessions', isPart: true },
  { list: 'pulls', field: 'sessionId', target: 'sessions', isPart: true },
  { list: 'inCars', field: 'weighingId', target: 'weighings', isPart: true },
  { list: 'inCars', field: 'changeId', target: 'changes', isPart: true },
  { list: 'lifts', field: 'weighingId', target: 'weighings', isPart: true },
  { list: 'balanceSteps', field: 'stageId', target: 'stages', isPart: true },
  { list: 'ballastAims', field: 'stageId', target: 'stages', isPart: true },
  { list: 'enginePlans', field: 'stageId', target: 'stages', isPart: true },
  { list: 'pullPlans', field: 'stageId', target: 'stages', isPart: true },
  { list: 'partUses', field: 'partId', target: 'parts', isPart: true },
]

type Row = Record<string, unknown> & { id: string }
const nameOf = (row: Row): string => String(row.name ?? row.label ?? row.dynoName ?? row.metric ?? row.at ?? row.id)

function whyUnreadable(error: z.ZodError): string {
  const issue = error.issues[0]
  return `${issue?.path.join('.') || 'the record'}: ${issue?.message ?? 'cannot be read'}`
}

const known = new WeakMap<Row, Row | string>()

/** A stored row as a record, or why it is none; worked out once for each row, because rows are never changed in place. */
function readOnce(schema: z.core.$ZodType, row: Row): Row | string {
  const before = known.get(row)
  if (before !== undefined) return before
  const read = z.safeParse(schema, row)
  const answer = read.success ? (read.data as Row) : whyUnreadable(read.error)
  known.set(row, answer)
  return answer
}

/**
 * The records of a build as calculations take them, and those that are broken: unreadable ones, and ones that name a record which is not there.
 * Rejects only a build whose own record cannot be read, and one without stages: nothing can be worked out of those.
 */
export function readBuildRecords(stored: { readonly build: object } & { readonly [List in RecordList]: readonly object[] }): {
  readonly records: BuildRecords
  readonly broken: readonly BrokenRecord[]
  /** Ids of all records left out: the broken ones, and parts of deleted ones. */
  readonly leftOut: ReadonlySet<string>
} {
  const build = buildRecordsSchema.shape.build.safeParse(stored.build)
  if (!build.success)
    throw new CalculationError('inconsistent', 'build', `The build's own record cannot be used: ${whyUnreadable(build.error)}. Correct it in the plan.`)
  const broken: BrokenRecord[] = []
  const lists: Record<string, Row[]> = {}
  for (const [list, schema] of LIST_SCHEMAS) {
    const item = (schema instanceof z.ZodDefault ? schema.unwrap() : schema) as z.ZodArray
    lists[list] = (stored[list] as readonly Row[]).flatMap((row): Row[] => {
      const read = readOnce(item.element, row)
      if (typeof read !== 'string') return [read]
      broken.push({ list, id: row.id, name: nameOf(row), reason: read })
      return []
    })
  }
  const leftOut = new Set(broken.map((record) => record.id))
  for (const { list, field, target, isPart } of REFERENCES) {
    const there = new Set(lists[target]?.map((row) => row.id))
    lists[list] = (lists[list] as Row[]).filter((row) => {
      if (there.has(row[field] as string)) return true
      leftOut.add(row.id)
      if (!isPart) broken.push({ list, id: row.id, name: nameOf(row), reason: 'its stage is not there' })
      return false
    })
  }
  if (lists.stages?.length === 0) throw new CalculationError('missing', 'stages', 'This build has no stage that can be read.')
  return { records: { build: build.data, ...lists } as unknown as BuildRecords, broken, leftOut }
}
