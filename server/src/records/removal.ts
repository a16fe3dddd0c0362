import { KINDS, kindOf, listsOf, type RecordList, type ResourceName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import type { RecordChange } from './history.ts'
import { fieldsOf, modelOf } from './models.ts'
import { applyRules, planRemoval, requireNamed, storedContext } from './rules.ts'
import { plain } from './versioned.ts'

type Row = Record<string, unknown>

/** What a write did to the record it names, and to those that went or came back along with it, in the order in which they were written. */
export interface Removal {
  readonly record: RecordChange
  readonly companions: readonly RecordChange[]
}

/** The next version of a record with some of its fields changed. */
export async function patchRecord(trx: Knex, actor: Actor, list: RecordList, before: Row, fields: Row): Promise<RecordChange> {
  const changed = { ...fields, version: (before.version as number) + 1, updatedAt: actor.now, updatedBy: actor.person }
  const after = plain(
    await modelOf(list)
      .query(trx)
      .patchAndFetchById([before.buildId, before.id] as string[], changed),
  )
  return { resource: kindOf(list).address, before, after }
}

/** Deletes a record with all that goes along; answers what became of it, and of each that was touched with it. */
export async function removeRecord(trx: Knex, actor: Actor, name: RecordList | ResourceName, record: Row, leaving?: ReadonlySet<unknown>): Promise<Removal> {
  const context = storedContext(trx, record.buildId as string, actor.now)
  const companions: RecordChange[] = []
  const fresh = new Map<unknown, Row>()
  for (const { list, row, forgets } of await planRemoval(context, name, record, leaving)) {
    const change = await patchRecord(trx, actor, list, fresh.get(row.id) ?? row, forgets === null ? { deletedAt: actor.now } : { [forgets]: null })
    fresh.set(row.id, change.after)
    companions.push(change)
  }
  const removed = await patchRecord(trx, actor, kindOf(name).list, record, { deletedAt: actor.now })
  return { record: removed, companions: [...companions, ...(await moveLaterStages(trx, actor, name, record, -1))] }
}

/** Places of stages close up behind one that goes, and make room for one that comes back, so that they are always 0, 1, 2 and so on. */
async function moveLaterStages(trx: Knex, actor: Actor, name: RecordList | ResourceName, record: Row, by: 1 | -1): Promise<RecordChange[]> {
  if (kindOf(name).list !== 'stages') return []
  const later = await modelOf('stages')
    .query(trx)
    .where({ buildId: record.buildId as string })
    .whereNull('deletedAt')
    .whereNot({ id: record.id as string })
    .where('position', by === 1 ? '>=' : '>', record.position as number)
    .orderBy('position', by === 1 ? 'desc' : 'asc')
  const moved: RecordChange[] = []
  for (const row of later.map(plain)) moved.push(await patchRecord(trx, actor, 'stages', row, { position: (row.position as number) + by }))
  return moved
}

/**
 * Puts a deleted record back, with what went along with it in the same write. Refused where a record that it names is not there any more.
 */
export async function restoreRecord(trx: Knex, actor: Actor, name: RecordList | ResourceName, record: Row): Promise<Removal> {
  await applyRules(storedContext(trx, record.buildId as string, actor.now), name, record, fieldsOf(name, record))
  const room = await moveLaterStages(trx, actor, name, record, 1)
  const back = await putBackAsItWas(trx, actor, name, record)
  return { record: back.record, companions: [...room, ...back.companions] }
}

/** What went along comes back as it was: no rule that it met then is asked again. */
async function putBackAsItWas(trx: Knex, actor: Actor, name: RecordList | ResourceName, record: Row): Promise<Removal> {
  const { list } = kindOf(name)
  await requireNamed(storedContext(trx, record.buildId as string, actor.now), name, record)
  const back = await patchRecord(trx, actor, list, record, { deletedAt: null })
  const companions: RecordChange[] = []
  for (const kind of KINDS) {
    for (const reference of kind.refs) {
      if (reference.whenGone !== 'goesWith' || !listsOf(reference).includes(list)) continue
      const gone = await modelOf(kind.list)
        .query(trx)
        .where({ buildId: record.buildId as string, [reference.field]: record.id as string, deletedAt: record.deletedAt as string })
      for (const row of gone.map(plain)) {
        const found = await putBackAsItWas(trx, actor, kind.list, row)
        companions.push(found.record, ...found.companions)
      }
    }
  }
  return { record: back, companions }
}
