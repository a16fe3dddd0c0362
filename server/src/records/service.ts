import { isListEntry, type LogAction, type StoredRecords } from '@bold-ballast/contract'
import { KINDS, kindOf, type ResourceName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { lastEntryId, type RecordChange, writeHistory } from './history.ts'
import { BuildModel, fieldsOf, modelOf } from './models.ts'
import { removeRecord, restoreRecord } from './removal.ts'
import { applyRules, requireFreeId, storedContext } from './rules.ts'
import { createOnce, findLocked, lockBuild, type Place, plain, requireFresh, updateVersioned } from './versioned.ts'

type Row = Record<string, unknown>

/** Records as they stand after one line of the log. */
export interface StoredAt {
  readonly revision: number
  readonly stored: StoredRecords
}

const hasPosition = (resource: ResourceName) => 'position' in kindOf(resource).fields

/** The order of a list: by place where its records have one, then as they were made. */
const inListOrder = (resource: ResourceName) => (a: Row, b: Row) => {
  const byPlace = hasPosition(resource) ? (a.position as number) - (b.position as number) : 0
  const [first, second] = [`${a.createdAt} ${a.id}`, `${b.createdAt} ${b.id}`]
  return byPlace || (first < second ? -1 : first > second ? 1 : 0)
}

/** Records of builds: made once, changed by version, deleted by a mark, each with a line in the log. */
export class RecordService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  private place(resource: ResourceName, buildId: string): Place {
    return { model: modelOf(resource), resource, buildId }
  }

  async requireBuild(db: Knex, buildId: string): Promise<Row> {
    const build = await BuildModel.query(db).findById(buildId).whereNull('deletedAt')
    if (!build) throw new AppError('not-found', 'There is no such build.')
    return build.toJSON() as unknown as Row
  }

  async list(resource: ResourceName, buildId: string): Promise<Row[]> {
    await this.requireBuild(this.knex, buildId)
    return this.listLive(this.knex, resource, buildId)
  }

  private async listLive(db: Knex, resource: ResourceName, buildId: string): Promise<Row[]> {
    const order = hasPosition(resource) ? ['position', 'createdAt', 'id'] : ['createdAt', 'id']
    const found = await modelOf(resource).query(db).where({ buildId }).whereNull('deletedAt').orderBy(order)
    return found.map((record) => record.toJSON() as unknown as Row)
  }

  async get(resource: ResourceName, buildId: string, id: string): Promise<Row> {
    const found = await modelOf(resource).query(this.knex).findById([buildId, id])
    if (!found || found.deletedAt !== null) throw new AppError('not-found', 'This build has no such record.')
    return found.toJSON() as unknown as Row
  }

  /**
   * All live records of a build and the line of its log they stand after, read in one transaction so that they fit each other.
   * With what was read before, only the records that the log names since are read again; the others stay the same objects.
   */
  async all(buildId: string, before?: StoredAt): Promise<StoredAt> {
    return this.knex.transaction(
      async (trx) => {
        const build = await this.requireBuild(trx, buildId)
        const revision = await lastEntryId(trx, buildId)
        const touched = before && (await this.touchedSince(trx, buildId, before.revision))
        if (before && touched) return { revision, stored: await this.refresh(trx, buildId, before.stored, touched) }
        const lists: Record<string, Row[]> = {}
        for (const { list, address } of KINDS) lists[list] = await this.listLive(trx, address, buildId)
        return { revision, stored: { build, ...lists } as unknown as StoredRecords }
      },
      { isolationLevel: 'repeatable read', readOnly: true },
    )
  }

  /** Ids by resource that single entries of the log name; undefined where an entry changed more than one record, or the build itself. */
  private async touchedSince(trx: Knex, buildId: string, revision: number): Promise<Map<string, string[]> | undefined> {
    const entries = (await trx('history').where({ buildId }).where('id', '>', revision).select('resource', 'recordId', 'action', 'companions')) as {
      resource: string
      recordId: string
      action: LogAction
      companions: readonly RecordChange[] | null
    }[]
    const touched = new Map<string, string[]>()
    const note = (resource: string, recordId: string) => touched.set(resource, [...(touched.get(resource) ?? []), recordId])
    for (const { resource, recordId, action, companions } of entries) {
      if (resource === 'builds' || isListEntry(action)) return undefined
      note(resource, recordId)
      for (const { resource: other, after } of companions ?? []) note(other, String(after.id))
    }
    return touched
  }

  private async refresh(trx: Knex, buildId: string, stored: StoredRecords, touched: ReadonlyMap<string, readonly string[]>): Promise<StoredRecords> {
    const next: Record<string, unknown> = { ...stored }
    for (const { list, address } of KINDS) {
      const ids = touched.get(address)
      if (!ids) continue
      const fresh = (
        await modelOf(list)
          .query(trx)
          .where({ buildId })
          .whereIn('id', [...ids])
          .whereNull('deletedAt')
      ).map(plain)
      const kept = (next[list] as Row[]).filter((row) => !ids.includes(row.id as string))
      next[list] = [...kept, ...fresh].sort(inListOrder(address))
    }
    return next as unknown as StoredRecords
  }

  create(actor: Actor, resource: ResourceName, buildId: string, body: Row & { id: string }): Promise<{ record: Row; isNew: boolean }> {
    return this.knex.transaction((trx) => this.createIn(trx, actor, resource, buildId, body))
  }

  async createIn(trx: Knex, actor: Actor, resource: ResourceName, buildId: string, body: Row & { id: string }): Promise<{ record: Row; isNew: boolean }> {
    await lockBuild(trx, buildId)
    await requireFreeId(trx, buildId, resource, body.id)
    const next = await applyRules(storedContext(trx, buildId, actor.now), resource, undefined, body)
    const existing = await modelOf(resource).query(trx).findById([buildId, body.id])
    // Sent again: the time that was filled in the first time counts, not a new one.
    const doneAt = body.doneAt === null && existing ? { doneAt: (existing as unknown as Row).doneAt } : {}
    return createOnce(trx, actor, this.place(resource, buildId), { ...next, ...doneAt, id: body.id })
  }

  update(actor: Actor, resource: ResourceName, buildId: string, id: string, { version, ...fields }: Row & { version: number }): Promise<Row> {
    return this.knex.transaction(async (trx) => {
      await lockBuild(trx, buildId)
      const place = this.place(resource, buildId)
      const before = await findLocked(trx, place, id)
      const next = await applyRules(storedContext(trx, buildId, actor.now), resource, before, { ...fieldsOf(resource, before), ...fields })
      const { id: _, ...changed } = next
      return updateVersioned(trx, actor, place, id, version, changed)
    })
  }

  remove(actor: Actor, resource: ResourceName, buildId: string, id: string, version: number): Promise<Row> {
    return this.takeAwayOrPutBack(actor, resource, buildId, id, version, 'remove')
  }

  restore(actor: Actor, resource: ResourceName, buildId: string, id: string, version: number): Promise<Row> {
    return this.takeAwayOrPutBack(actor, resource, buildId, id, version, 'restore')
  }

  private takeAwayOrPutBack(actor: Actor, resource: ResourceName, buildId: string, id: string, version: number, action: 'remove' | 'restore'): Promise<Row> {
    return this.knex.transaction(async (trx) => {
      await lockBuild(trx, buildId)
      const found = await findLocked(trx, this.place(resource, buildId), id)
      requireFresh(found, version, action === 'restore')
      const { record, companions } = await (action === 'remove' ? removeRecord : restoreRecord)(trx, actor, resource, found)
      const { before, after } = record
      await writeHistory(trx, actor, { buildId, resource, recordId: id, action, before, after, companions })
      return after
    })
  }

  /** A new order of stages: stage 0 stays, and only stages without done changes or measurements move. One entry in the log. */
  reorderStages(actor: Actor, buildId: string, order: readonly { id: string; version: number }[]): Promise<Row[]> {
    return this.knex.transaction(async (trx) => {
      await lockBuild(trx, buildId)
      const stages = (await this.listLive(trx, 'stages', buildId)) as { id: string; position: number; version: number; name: string }[]
      if (stages.length !== order.length || new Set(order.map((entry) => entry.id)).size !== stages.length) {
        throw new AppError('rule-broken', 'The order must name each stage once. Load the page again and repeat.')
      }
      for (const [position, entry] of order.entries()) {
        const stage = stages.find((candidate) => candidate.id === entry.id)
        if (!stage) throw new AppError('not-found', 'The order names a stage that this build does not have.')
        if (stage.version !== entry.version) throw new AppError('stale', 'The stages were changed in the meantime. Load them again.', { current: stages })
        if (stage.position === position) continue
        await this.requireMovable(trx, buildId, stage)
        await modelOf('stages')
          .query(trx)
          .findById([buildId, stage.id])
          .patch({ position, version: stage.version + 1, updatedAt: actor.now, updatedBy: actor.person } as object)
      }
      const after = await this.listLive(trx, 'stages', buildId)
      const moved = after.filter((stage) => stages.some((was) => was.id === stage.id && was.position !== stage.position))
      const records = (list: readonly { id?: unknown }[]) => ({
        records: moved.map(({ id }) => ({ resource: 'stages', record: list.find((stage) => stage.id === id) })),
      })
      const [was, is] = [records(stages), records(after)]
      if (moved.length > 0) await writeHistory(trx, actor, { buildId, resource: 'stages', recordId: buildId, action: 'reorder', before: was, after: is })
      return after
    })
  }

  private async requireMovable(trx: Knex, buildId: string, stage: { id: string; name: string; position: number }): Promise<void> {
    if (stage.position === 0) throw new AppError('rule-broken', 'Stage 0 is the car as bought and stays first.')
    const has = async (resource: ResourceName, where: Row) =>
      (await modelOf(resource)
        .query(trx)
        .where({ buildId, stageId: stage.id, ...where })
        .whereNull('deletedAt')
        .resultSize()) > 0
    if ((await has('changes', { state: 'done' })) || (await has('weighings', {})) || (await has('sessions', {}))) {
      throw new AppError('rule-broken', `"${stage.name}" has done changes or measurements and keeps its place.`)
    }
  }
}
