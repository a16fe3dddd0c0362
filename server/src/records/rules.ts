import { KINDS, kindOf, listsOf, type RecordList, RecordRefusal, type ResourceName, type RuleContext } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { modelOf } from './models.ts'
import { plain } from './versioned.ts'

type Row = Record<string, unknown>

/** The records as they stand in the database. */
export const storedContext = (trx: Knex, buildId: string, now: string): RuleContext => ({
  now,
  live: async (list, where) => {
    const found = await modelOf(list as RecordList)
      .query(trx)
      .where({ buildId, ...where })
      .whereNull('deletedAt')
    return found.map(plain)
  },
})

const broken = (path: string, message: string) => new AppError('rule-broken', message, { errors: [{ path, message }] })

/** Every record that is named must be there and not deleted. */
export async function requireNamed(context: RuleContext, name: RecordList | ResourceName, next: Row): Promise<void> {
  for (const reference of kindOf(name).refs) {
    const id = next[reference.field]
    if (id === null || id === undefined) continue
    const lists = listsOf(reference)
    let isThere = false
    for (const list of lists) isThere ||= (await context.live(list, { id })).length > 0
    if (isThere) continue
    const noun = kindOf(lists[0] as RecordList).noun
    throw broken(reference.field, reference.sentence ?? `This build has no such ${noun}. Pick one that is there.`)
  }
}

const OTHERS = new Map(
  KINDS.map(({ list }) => {
    const tables = KINDS.filter((kind) => kind.list !== list).map((kind) => modelOf(kind.list).tableName)
    return [list, tables.map((table) => `SELECT '${table}' AS found FROM ${table} WHERE build_id = :buildId AND id = :id::uuid`).join(' UNION ALL ')] as const
  }),
)

/** An id names one record of a build, of whatever kind: a file of it could not be read again otherwise. */
export async function requireFreeId(trx: Knex, buildId: string, name: RecordList | ResourceName, id: string): Promise<void> {
  const { rows } = await trx.raw(`${OTHERS.get(kindOf(name).list)} LIMIT 1`, { buildId, id })
  if (rows.length > 0) throw new AppError('duplicate', 'Another record of this build has this id already. Send it again with a new id.')
}

/** What a record must be before it is stored; may fill in what follows from the rest. `next` is the whole record as it would be. */
export async function applyRules(context: RuleContext, name: RecordList | ResourceName, before: Row | undefined, next: Row): Promise<Row> {
  await requireNamed(context, name, next)
  let ruled: Row = next
  try {
    for (const rule of kindOf(name).rules) ruled = await rule(ruled, { ...context, before })
  } catch (error) {
    if (error instanceof RecordRefusal) throw broken(error.field, error.message)
    throw error
  }
  return ruled
}

/** The live records that name this one by a reference, kind by kind, those first that may rest on the others. */
async function* naming(context: RuleContext, list: RecordList, id: unknown) {
  for (const kind of KINDS.toReversed())
    for (const reference of kind.refs)
      if (listsOf(reference).includes(list)) yield { list: kind.list, reference, rows: await context.live(kind.list, { [reference.field]: id }) }
}

/** One record that is touched when another is deleted: it goes along, or forgets it. */
export interface Touched {
  readonly list: RecordList
  readonly row: Row
  readonly forgets: string | null
}

/**
 * What goes along with a record that is deleted, and what forgets it; refused where another record keeps it, or where it can never go. Records that leave
 * in the same write anyway, by their ids, neither keep it nor go along.
 */
export async function planRemoval(
  context: RuleContext,
  name: RecordList | ResourceName,
  record: Row,
  leaving: ReadonlySet<unknown> = new Set(),
): Promise<Touched[]> {
  const { list, neverGoes } = kindOf(name)
  const never = await neverGoes(record, context)
  if (never) throw broken('id', never)
  const touched: Touched[] = []
  for await (const { list: other, reference, rows: all } of naming(context, list, record.id)) {
    const { whenGone, field } = reference
    const rows = all.filter((row) => !leaving.has(row.id))
    if (rows.length === 0 || whenGone === 'broken') continue
    if (typeof whenGone === 'object') throw broken('id', whenGone.keepsIt)
    for (const row of rows) {
      if (whenGone === 'goesWith') touched.push(...(await planRemoval(context, other, row, leaving)))
      touched.push({ list: other, row, forgets: whenGone === 'forgets' ? field : null })
    }
  }
  return unique(touched)
}

/** A record that goes along by two ways goes once, and has nothing left to forget. */
function unique(touched: readonly Touched[]): Touched[] {
  const goes = new Set(touched.filter(({ forgets }) => forgets === null).map(({ row }) => row.id))
  const seen = new Set<unknown>()
  return touched.filter(({ row, forgets }) => {
    const key = forgets === null ? row.id : `${row.id} ${forgets}`
    if (seen.has(key) || (forgets !== null && goes.has(row.id))) return false
    seen.add(key)
    return true
  })
}
