import { type BatchWrite, type batchSchema, createSchema, patchSchema, RESOURCE_FIELDS } from '@bold-ballast/contract'
import type { z } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { read } from '../http/read.ts'
import { type Actor, writeHistory } from '../records/history.ts'
import { fieldsOf, modelOf } from '../records/models.ts'
import { applyRules, checkRemoval, storedContext } from '../records/rules.ts'
import { findLocked, freshMeta, lockBuild, type Place, plain } from '../records/versioned.ts'

type Row = Record<string, unknown>
interface Written {
  readonly before: Row | null
  readonly after: Row
}

/** Many writes of one build as one: all or none, one entry in the log, and once for a batch id. */
export class BatchService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  write(actor: Actor, buildId: string, { batchId, writes }: z.output<typeof batchSchema>): Promise<Row[]> {
    return this.knex.transaction(async (trx) => {
      await lockBuild(trx, buildId)
      const done = await trx('history').where({ importId: batchId }).first()
      if (done) return (done.after as { records: { record: Row }[] }).records.map(({ record }) => record)
      const written: Written[] = []
      for (const [i, write] of writes.entries()) written.push(await this.writeOne(trx, actor, buildId, write, i))
      const records = (side: (entry: Written) => Row | null) => ({
        records: written.map((entry, i) => ({ resource: writes[i]?.resource, record: side(entry) })),
      })
      await writeHistory(trx, actor, {
        buildId,
        resource: writes[0]?.resource ?? 'changes',
        recordId: buildId,
        action: 'batch',
        before: records(({ before }) => before),
        after: records(({ after }) => after),
        importId: batchId,
      })
      return written.map(({ after }) => after)
    })
  }

  private async writeOne(trx: Knex, actor: Actor, buildId: string, write: BatchWrite, i: number): Promise<Written> {
    const place: Place = { model: modelOf(write.resource), resource: write.resource, buildId }
    try {
      return await this.writeIn(trx, actor, place, write)
    } catch (error) {
      if (!(error instanceof AppError)) throw error
      const errors = error.errors.map(({ path, message }) => ({ path: `writes.${i}.${path}`, message }))
      throw new AppError(error.code, `Entry ${i + 1}: ${error.message}`, { errors, current: error.current })
    }
  }

  private async writeIn(trx: Knex, actor: Actor, place: Place, write: BatchWrite): Promise<Written> {
    const { buildId, model } = place
    const context = storedContext(trx, buildId, actor.now)
    if (write.kind === 'create') {
      const body = read(createSchema(RESOURCE_FIELDS[write.resource]), write.body) as Row & { id: string }
      const next = await applyRules(context, write.resource, undefined, body)
      if (await model.query(trx).findById(body.id)) throw new AppError('duplicate', 'Another record has this id already. Send it again with a new id.')
      return { before: null, after: plain(await model.query(trx).insertAndFetch({ ...next, buildId, ...freshMeta(actor) })) }
    }
    const before = await findLocked(trx, place, write.id)
    if (before.deletedAt !== null) throw new AppError('not-found', 'It was deleted. Put it back first.')
    const { version, ...fields } =
      write.kind === 'update' ? (read(patchSchema(RESOURCE_FIELDS[write.resource]), write.body) as Row) : { version: write.version }
    if (before.version !== version)
      throw new AppError('stale', `${String(before.updatedBy)} changed it in the meantime. Look at both and choose.`, { current: before })
    const meta = { version: (before.version as number) + 1, updatedAt: actor.now, updatedBy: actor.person }
    if (write.kind === 'remove') {
      await checkRemoval(context, write.resource, before)
      return { before, after: plain(await model.query(trx).patchAndFetchById(write.id, { deletedAt: actor.now, ...meta })) }
    }
    const next = await applyRules(context, write.resource, before, { ...fieldsOf(write.resource, before), ...fields })
    const { id: _, ...changed } = next
    return { before, after: plain(await model.query(trx).patchAndFetchById(write.id, { ...changed, ...meta })) }
  }
}
