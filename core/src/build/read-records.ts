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

/** Which record of which list a field names. */
const REFERENCES: readonly { list: RecordList; field: string; target: RecordList; what: string }[] = [
  ...(['changes', 'expectations', 'weighings', 'sessions', 'standings'] as const).map((list) => ({
    list,
    field: 'stageId',
    target: 'stages' as const,
    what: 'a stage',
  })),
  { list: 'pulls', field: 'sessionId', target: 'sessions', what: 'a dyno session' },
  { list: 'standings', field: 'sessionId', target: 'sessions', what: 'a dyno session' },
  { list: 'inCars', field: 'weighingId', target: 'weighings', what: 'a weighing' },
  { list: 'inCars', field: 'changeId', target: 'changes', what: 'a ledger line' },
]

type Row = Record<string, unknown> & { id: string }
const nameOf = (row: Row): string => String(row.name ?? row.label ?? row.dynoName ?? row.metric ?? row.at ?? row.id)

function whyUnreadable(error: z.ZodError): string {
  const issue = error.issues[0]
  return `${issue?.path.join('.') || 'the record'}: ${issue?.message ?? 'cannot be read'}`
}

/**
 * The records of a build as calculations take them, and those that are broken: unreadable ones, and ones that name a record which is not there.
 * Rejects only a build whose own record cannot be read, and one without stages: nothing can be worked out of those.
 */
export function readBuildRecords(stored: { readonly build: object } & { readonly [List in RecordList]: readonly object[] }): {
  readonly records: BuildRecords
  readonly broken: readonly BrokenRecord[]
} {
  const build = buildRecordsSchema.shape.build.safeParse(stored.build)
  if (!build.success)
    throw new CalculationError('inconsistent', 'build', `The build's own record cannot be used: ${whyUnreadable(build.error)}. Correct it in the plan.`)
  const broken: BrokenRecord[] = []
  const lists: Record<string, Row[]> = {}
  for (const [list, schema] of LIST_SCHEMAS) {
    const item = (schema instanceof z.ZodDefault ? schema.unwrap() : schema) as z.ZodArray
    lists[list] = (stored[list] as readonly Row[]).flatMap((row): Row[] => {
      const read = z.safeParse(item.element, row)
      if (read.success) return [read.data as Row]
      broken.push({ list, id: row.id, name: nameOf(row), reason: whyUnreadable(read.error) })
      return []
    })
  }
  for (const { list, field, target, what } of REFERENCES) {
    const there = new Set(lists[target]?.map((row) => row.id))
    lists[list] = (lists[list] as Row[]).filter((row) => {
      if (there.has(row[field] as string)) return true
      broken.push({ list, id: row.id, name: nameOf(row), reason: `it names ${what} that is not there` })
      return false
    })
  }
  if (lists.stages?.length === 0) throw new CalculationError('missing', 'stages', 'This build has no stage that can be read.')
  return { records: { build: build.data, ...lists } as unknown as BuildRecords, broken }
}
