import { CalculationError } from '../errors.ts'
import { issueField, sayIssue } from '../say-issue.ts'
import { z } from '../zod.ts'
import { listsOf, type Row } from './define-record.ts'
import { KINDS, kindOf, type RecordList, recordName } from './kinds.ts'
import { type BuildRecord, buildFields } from './plan-kinds.ts'
import type { BuildRecords } from './records.ts'

/** A stored record that cannot be used; it is left out of every sum and named wherever its build is shown. */
export interface BrokenRecord {
  readonly list: RecordList | 'build'
  readonly id: string
  readonly name: string
  readonly reason: string
}

type Stored = Row & { readonly id: string }

function whyUnreadable(error: z.ZodError): string {
  const issue = error.issues[0]
  return issue ? `${issueField(issue) || 'the record'} ${sayIssue(issue)}` : 'It cannot be read.'
}

const known = new WeakMap<Stored, Stored | string>()

/** A stored row as a record, or why it is none; worked out once for each row, because rows are never changed in place. */
function readOnce(schema: z.ZodType, row: Stored): Stored | string {
  const before = known.get(row)
  if (before !== undefined) return before
  const read = z.safeParse(schema, row)
  const answer = read.success ? (read.data as Stored) : whyUnreadable(read.error)
  known.set(row, answer)
  return answer
}

interface ReadList {
  readonly rows: Stored[]
  readonly broken: readonly BrokenRecord[]
}
const readLists = new WeakMap<readonly Stored[], ReadList>()
/** The rows of a list that can be read; a list that a revision did not touch stays the same list, with all that is kept of it. */
function readList(list: RecordList, schema: z.ZodType, stored: readonly Stored[]): ReadList {
  const before = readLists.get(stored)
  if (before) return before
  const rows: Stored[] = []
  const broken: BrokenRecord[] = []
  for (const row of stored) {
    const read = readOnce(schema, row)
    if (typeof read === 'string') broken.push({ list, id: row.id, name: recordName(list, row), reason: read })
    else rows.push(read)
  }
  const found = { rows, broken }
  readLists.set(stored, found)
  return found
}

const SCHEMAS = KINDS.map((kind) => ({ ...kind, schema: z.object(kind.fields) as z.ZodType }))

/** What stands in for a field of the build that cannot be used, so that its rooms open and it can be corrected (common practice, no source). */
const USUAL_BUILD: Row = {
  discipline: 'timeAttack',
  drivenAxles: 'rear',
  wheelbaseM: 2.6,
  trackFrontM: 1.5,
  trackRearM: 1.5,
  reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
  powerBasis: { place: 'hub', standard: 'asPrinted', boostSchool: 'none' },
  baselineMass: null,
  fuelPlace: null,
  driverPlace: null,
  suspension: null,
  drivelineLoss: null,
  airDensityKgM3: 1.2,
  driveBasis: null,
  aeroBasis: null,
  outline: null,
  money: null,
  sessionStartH: null,
}

/** The build's own record; each field that cannot be used is named, and stands at a usual value. */
function readBuild(stored: Row, broken: BrokenRecord[]): BuildRecord {
  const schema = z.object(buildFields)
  let row = stored
  for (;;) {
    const read = schema.safeParse(row)
    if (read.success) return read.data
    const field = String(read.error.issues[0]?.path[0] ?? '')
    const reason = whyUnreadable(read.error)
    if (!(field in USUAL_BUILD) || row[field] === USUAL_BUILD[field])
      throw new CalculationError('inconsistent', 'build', `The build's own record cannot be used: ${reason} Correct it in the plan.`)
    broken.push({ list: 'build', id: String(stored.id), name: String(stored.name), reason })
    row = { ...row, [field]: USUAL_BUILD[field] }
  }
}

/**
 * The records of a build as calculations take them, and those that are broken: unreadable ones, and ones that name a record which is not there.
 * A field of the build that cannot be used stands at a usual value and is named among the broken. Rejects only a build of which nothing can be read, and one
 * without stages: nothing can be worked out of those.
 * @example readBuildRecords({ ...EXAMPLE, sessions: [] }).records.pulls // []
 */
export function readBuildRecords(stored: { readonly build: object } & { readonly [List in RecordList]: readonly object[] }): {
  readonly records: BuildRecords
  readonly broken: readonly BrokenRecord[]
  /** Ids of all records left out: the broken ones, and parts of deleted ones. */
  readonly leftOut: ReadonlySet<string>
} {
  const broken: BrokenRecord[] = []
  const build = readBuild(stored.build as Row, broken)
  const lists: Record<string, Stored[]> = {}
  for (const { list, schema } of SCHEMAS) {
    const found = readList(list, schema, stored[list] as readonly Stored[])
    lists[list] = found.rows
    broken.push(...found.broken)
  }
  const leftOut = new Set(broken.map((record) => record.id))
  const isBroken = new Set(leftOut)
  for (const { list } of KINDS) dropStrays(list, lists, isBroken, broken, leftOut)

  if (lists.stages?.length === 0) throw new CalculationError('missing', 'stages', 'This build has no stage that can be read.')
  return { records: { build, ...lists } as unknown as BuildRecords, broken, leftOut }
}

const idsOfLists = new WeakMap<readonly Stored[], ReadonlySet<string>>()
/** The ids of a list, collected once for each list. */
function idsOf(rows: readonly Stored[]): ReadonlySet<string> {
  const ids = idsOfLists.get(rows) ?? new Set(rows.map(({ id }) => id))
  idsOfLists.set(rows, ids)
  return ids
}

/** By list and field the ids among which every row once found what it names. */
const allThere = new WeakMap<readonly Stored[], Map<string, readonly ReadonlySet<string>[]>>()
const isSame = (one: readonly unknown[] | undefined, other: readonly unknown[]) => one !== undefined && other.every((each, i) => each === one[i])

/**
 * Records that name one which is not there: parts of it are out of sight with it, what may do without forgets it, and anything else is broken.
 * One that is there but cannot be read is missed only by records that cannot do without. Lists stand in `KINDS` so that what a record is part of has
 * been looked at before.
 */
function dropStrays(list: RecordList, lists: Record<string, Stored[]>, isBroken: ReadonlySet<string>, broken: BrokenRecord[], leftOut: Set<string>): void {
  for (const reference of kindOf(list).refs) {
    const { field, whenGone, isOptional } = reference
    const there = listsOf(reference).map((other) => idsOf(lists[other] ?? []))
    const isHere = (row: Stored): boolean => {
      const named = row[field] as string | null | undefined
      return named === null || named === undefined || there.some((ids) => ids.has(named)) || (isOptional === true && isBroken.has(named))
    }
    const rows = lists[list] ?? []
    const seen = allThere.get(rows) ?? new Map<string, readonly ReadonlySet<string>[]>()
    if (isSame(seen.get(field), there)) continue
    // Nearly always; then the list stays what it is, with the ids that are known of it.
    if (rows.every(isHere)) {
      if (isBroken.size === 0) allThere.set(rows, seen.set(field, there))
      continue
    }
    lists[list] = rows.flatMap((row): Stored[] => {
      if (isHere(row)) return [row]
      if (whenGone === 'forgets') return [{ ...row, [field]: null }]
      leftOut.add(row.id)
      const noun = kindOf(listsOf(reference)[0] as RecordList).noun
      if (whenGone !== 'goesWith') broken.push({ list, id: row.id, name: recordName(list, row), reason: `its ${noun} is not there` })
      return []
    })
  }
}
