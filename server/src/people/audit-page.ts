import type { AuditEntry, AuditPage } from '@bold-ballast/contract'
import type { Knex } from 'knex'

const AT_ONCE = 100

/** What was done about who may do what in a garage, latest first; where there is one garage alone, also tries at names that nobody has. */
export async function auditPage(knex: Knex, garageId: string, before: number | undefined): Promise<AuditPage> {
  const isAlone = Number((await knex('garages').count('id as count').first())?.count) === 1
  const query = knex('audit')
    .where((where) => {
      void where.where('audit.garageId', garageId)
      if (isAlone) void where.orWhereNull('audit.garageId')
    })
    .leftJoin('people', 'people.id', 'audit.personId')
    .leftJoin('builds', 'builds.id', 'audit.buildId')
    .orderBy('audit.id', 'desc')
    .limit(AT_ONCE + 1)
    .select('audit.id', 'audit.at', 'people.name as person', 'action', 'subject', 'builds.name as build', 'address', 'outcome')
  if (before !== undefined) query.where('audit.id', '<', before)
  const rows = (await query) as AuditEntry[]
  const entries = rows.slice(0, AT_ONCE)
  return { entries, nextBefore: rows.length > AT_ONCE ? (entries.at(-1)?.id ?? null) : null }
}
