import { type BatchWrite, type batchSchema, createSchema, patchSchema } from '@bold-ballast/contract'
import { kindOf, type z } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read } from '../http/read.ts'
import { type RecordChange, writeHistory } from '../records/history.ts'
import { fieldsOf, modelOf } from '../records/models.ts'
import { patchRecord, type Removal, removeRecord } from '../records/removal.ts'
import { applyRules, requireFreeId, storedContext } from '../records/rules.ts'
import { findLocked, freshMeta, keyOf, lockBuild, type Place, plain, requireFresh } from '../records/versioned.ts'

type Row = Record<string, unknown>
/** The records of a batch that was written before, as the entry in the log holds them, one for each write. */
function writtenBefore(after: unknown, writes: readonly BatchWrite[]): Row[] {
  const records = new Map((after as { records: { record: Row }[] }).records.map(({ record }) => [record.id, record]))
  return writes.flatMap((write): Row[] => {
    const record = records.get(write.kind === 'create' ? write.body.id : write.id)
    return record ? [record] : []
  })
}

/** Many writes of one build as one: all or none, one entry in the log, and once for a batch id. */
export class BatchService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  /** What is done alongside is part of it: with the writes, or not at all. */
  write(
    actor: Actor,
    buildId: string,
    { batchId, writes }: z.output<typeof batchSchema>,
    alongside: (trx: Knex) => Promise<void> = async () => undefined,
  ): Promise<Row[]> {
    return this.knex.transaction(async (trx) => {
      await lockBuild(trx, buildId)
      const done = await trx('history').where({ importId: batchId, buildId, action: 'batch', by: actor.person }).first()
      if (done) return writtenBefore(done.after, writes)
      const written: Row[] = []
      const all: RecordChange[] = []
      for (const [i, write] of writes.entries()) {
        const { record, companions } = await this.writeOne(trx, actor, buildId, write, i)
        written.push(record.after)
        all.push(...companions, record)
      }
      const records = (side: (entry: RecordChange) => Row | null) => ({ records: all.map((entry) => ({ resource: entry.resource, record: side(entry) })) })
      await writeHistory(trx, actor, {
        buildId,
        resource: writes[0]?.resource ?? 'changes',
        recordId: buildId,
        action: 'batch',
        before: records(({ before }) => before),
        after: records(({ after }) => after),
        importId: batchId,
      })
      await alongside(trx)
      return written
    })
  }

  private async writeOne(trx: Knex, actor: Actor, buildId: string, write: BatchWrite, i: number): Promise<Removal> {
    const place: Place = { model: modelOf(write.resource), resource: write.resource, buildId }
    try {
      return await this.writeIn(trx, actor, place, write)
    } catch (error) {
      if (!(error instanceof AppError)) throw error
      const errors = error.errors.map(({ path, message }) => ({ path: `writes.${i}.${path}`, message }))
      throw new AppError(error.code, `Entry ${i + 1}: ${error.message}`, { errors, current: error.current })
    }
  }

  private async writeIn(trx: Knex, actor: Actor, place: Place, write: BatchWrite): Promise<Removal> {
    const { buildId, model } = place
    const { list, fields: known } = kindOf(write.resource)
    const context = storedContext(trx, buildId, actor.now)
    if (write.kind === 'create') {
      const body = read(createSchema(known), write.body) as Row & { id: string }
      await requireFreeId(trx, buildId, write.resource, body.id)
      const next = await applyRules(context, write.resource, undefined, body)
      if (await model.query(trx).findById(keyOf(place, body.id)))
        throw new AppError('duplicate', 'Another record has this id already. Send it again with a new id.')
      const made = plain(await model.query(trx).insertAndFetch({ ...next, buildId, ...freshMeta(actor) }))
      return { record: { resource: write.resource, before: null, after: made }, companions: [] }
    }
    const before = await findLocked(trx, place, write.id)
    if (before.deletedAt !== null) throw new AppError('not-found', 'It was deleted. Put it back first.')
    const { version, ...fields } = write.kind === 'update' ? (read(patchSchema(known), write.body) as Row) : { version: write.version }
    requireFresh(before, version as number)
    if (write.kind === 'remove') return removeRecord(trx, actor, write.resource, before)
    const next = await applyRules(context, write.resource, before, { ...fieldsOf(write.resource, before), ...fields })
    const { id: _, ...changed } = next
    return { record: await patchRecord(trx, actor, list, before, changed), companions: [] }
  }
}
