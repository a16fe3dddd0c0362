import { isListEntry, type LogAction, type LogEntry, type LogPage } from '@bold-ballast/contract'
import { kindOf, type ResourceName, recordName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { claimedNames } from '../records/claimed-names.ts'
import { type RecordChange, writeHistory } from '../records/history.ts'
import { type HistoryRow, namedPairs, pairsOf, type RecordPair, type Row } from '../records/log-pairs.ts'
import { BuildModel, fieldsOf, modelOf } from '../records/models.ts'
import { patchRecord, removeRecord } from '../records/removal.ts'
import { applyRules, storedContext } from '../records/rules.ts'
import { lockBuild, plain, sameFields } from '../records/versioned.ts'

const INVERSE: Record<LogAction, LogAction> = {
  create: 'remove',
  remove: 'restore',
  restore: 'remove',
  update: 'update',
  reorder: 'reorder',
  import: 'import',
  batch: 'batch',
}

const META = new Set(['id', 'buildId', 'version', 'createdAt', 'createdBy', 'updatedAt', 'updatedBy'])
const modelFor = (resource: ResourceName | 'builds') => (resource === 'builds' ? BuildModel : modelOf(resource))

const ownFields = (record: Row) => Object.fromEntries(Object.entries(record).filter(([key]) => !META.has(key)))
/** Whether a record reads now as an entry left it, whatever happened and was taken back in between. */
const isAsLeft = (after: Row, now: Row | undefined) => now !== undefined && sameFields(ownFields(after), now)
const wasThere = (pair: RecordPair) => pair.before !== null && pair.before.deletedAt === null

/** The log of a build, and taking its entries back. */
export class LogService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  async page(buildId: string, { before, limit }: { before?: number | undefined; limit: number }): Promise<LogPage> {
    const build = await BuildModel.query(this.knex).findById(buildId)
    if (!build) throw new AppError('not-found', 'There is no such build.')
    const query = this.knex('history').where({ buildId }).orderBy('id', 'desc')
    if (before !== undefined) query.where('id', '<', before)
    const rows = (await query.limit(limit + 1)) as HistoryRow[]
    const shown = rows.slice(0, limit)
    const now = await this.current(this.knex, buildId, shown.flatMap(pairsOf))
    const undone = await this.knex('history')
      .where({ buildId })
      .whereIn(
        'undoes',
        shown.map((row) => row.id),
      )
      .select('id', 'undoes')
    const undoneBy = new Map((undone as { id: number; undoes: number }[]).map((row) => [row.undoes, row.id]))
    const latest = (await this.knex('history').where({ buildId }).max('id as id').first()) as { id: number }
    const nameOf = await claimedNames(this.knex, buildId)
    return {
      entries: shown.map((row) => describe({ ...row, by: nameOf(row.by) }, now, undoneBy.get(row.id) ?? null, latest.id)),
      nextBefore: rows.length > limit ? (shown.at(-1)?.id ?? null) : null,
    }
  }

  /** The records of these pairs as they stand, by id. */
  private async current(db: Knex, buildId: string, pairs: readonly RecordPair[]): Promise<Map<string, Row>> {
    const found = new Map<string, Row>()
    for (const resource of new Set(pairs.map((pair) => pair.resource))) {
      const ids = pairs.filter((pair) => pair.resource === resource).map((pair) => pair.after.id)
      const query = modelFor(resource).query(db).whereRaw('id = ANY(?)', [ids])
      for (const record of await (resource === 'builds' ? query : query.where({ buildId }))) found.set(record.id, plain(record) as Row)
    }
    return found
  }

  /** Takes one entry back as a new entry. Refused with the record as it stands where somebody has built on it. */
  undo(actor: Actor, buildId: string, entryId: number): Promise<{ action: LogAction; name: string; current: unknown }> {
    return this.knex.transaction(async (trx) => {
      await trx.raw('SET CONSTRAINTS ALL DEFERRED')
      const entry = (await trx('history').where({ buildId, id: entryId }).first()) as HistoryRow | undefined
      if (!entry) throw new AppError('not-found', 'The log of this build has no such entry.')
      if (entry.resource === 'builds' && entry.before === null) return this.undoBuild(trx, actor, entry)
      await lockBuild(trx, buildId)
      const pairs = pairsOf(entry)
      const now = await this.current(trx, buildId, pairs)
      const moved = pairs.find((pair) => !isAsLeft(pair.after, now.get(pair.after.id)))
      if (moved) {
        const current = now.get(moved.after.id)
        throw new AppError('stale', movedOn(moved, current), { current })
      }
      const done: RecordChange[] = []
      // Last made, first taken back, so that nothing is left that rests on what goes.
      const leaving = new Set(pairs.filter((pair) => !wasThere(pair)).map((pair) => pair.after.id))
      for (const pair of pairs.toReversed()) done.push(...(await this.putBack(trx, actor, buildId, pair, now.get(pair.after.id) as Row, leaving)))
      const isList = isListEntry(entry.action)
      const side = (of: (change: RecordChange) => unknown) => ({ records: done.map((change) => ({ resource: change.resource, record: of(change) })) })
      const own = done.find((change) => change.after.id === entry.recordId) as RecordChange
      await writeHistory(trx, actor, {
        buildId,
        resource: entry.resource,
        recordId: entry.recordId,
        action: INVERSE[entry.action],
        before: isList ? side((change) => change.before) : own.before,
        after: isList ? side((change) => change.after) : own.after,
        companions: isList ? [] : done.filter((change) => change !== own),
        undoes: entry.id,
      })
      return { action: INVERSE[entry.action], name: nameOf(entry), current: isList ? null : own.after }
    })
  }

  /** Puts one record back as it was before an entry; answers what was written, with what goes along, in its order. */
  private async putBack(trx: Knex, actor: Actor, buildId: string, pair: RecordPair, now: Row, leaving: ReadonlySet<unknown>): Promise<RecordChange[]> {
    const { resource, before } = pair
    if (resource === 'builds') {
      const changed = { ...ownFields(before as Row), deletedAt: null, version: now.version + 1, updatedAt: actor.now, updatedBy: actor.person }
      return [{ resource, before: now, after: plain(await BuildModel.query(trx).patchAndFetchById(buildId, changed)) }]
    }
    if (!wasThere(pair)) {
      const { record, companions } = await removeRecord(trx, actor, resource, now, leaving)
      return [...companions, record]
    }
    const fields = fieldsOf(resource, before as Row)
    // Places of stages are put back as a whole, by the order or the import that moved them.
    const { id: _, ...ruled } = resource === 'stages' ? fields : await applyRules(storedContext(trx, buildId, actor.now), resource, now, fields)
    return [await patchRecord(trx, actor, kindOf(resource).list, now, { ...ruled, deletedAt: null })]
  }

  /** Takes back the making of a build: only while nothing else was written to it. */
  private async undoBuild(trx: Knex, actor: Actor, entry: HistoryRow): Promise<{ action: LogAction; name: string; current: unknown }> {
    const build = await lockBuild(trx, entry.buildId)
    // Its stage 0 was made with it, by the very next line.
    const later = (await trx('history').where({ buildId: entry.buildId }).where('id', '>', entry.id).orderBy('id').limit(2)) as HistoryRow[]
    const isStage0 = ({ resource, action, after }: HistoryRow) => resource === 'stages' && action === 'create' && (after as Row).position === 0
    if (later.length > 1 || later.some((line) => !isStage0(line)))
      throw new AppError('rule-broken', 'This build was worked on since. Delete the build in the Garage if it is not wanted.')
    const meta = { version: (build.version as number) + 1, updatedAt: actor.now, updatedBy: actor.person }
    const after = plain(await BuildModel.query(trx).patchAndFetchById(entry.buildId, { deletedAt: actor.now, ...meta }))
    await writeHistory(trx, actor, {
      buildId: entry.buildId,
      resource: 'builds',
      recordId: entry.buildId,
      action: 'remove',
      before: build,
      after,
      undoes: entry.id,
    })
    return { action: 'remove', name: String(build.name), current: after }
  }
}

function movedOn(pair: RecordPair, current: Row | undefined): string {
  const name = recordName(pair.resource, pair.after)
  if (!current) return `"${name}" is not there any more.`
  const who = `${String(current.updatedBy)} has changed "${recordName(pair.resource, current)}" since`
  return current.deletedAt !== null
    ? `"${name}" was deleted since, by ${String(current.updatedBy)}. Take that back first.`
    : `${who}. Take the later change back first, or change the record itself.`
}

function nameOf(entry: HistoryRow): string {
  const { report } = (entry.after ?? {}) as { report?: { name: string } }
  if (report) return report.name
  const [pair, ...more] = namedPairs(entry)
  if (entry.action === 'reorder') return 'the order of stages'
  if (!pair) return ''
  return more.length > 0 ? `${more.length + 1} records` : recordName(pair.resource, pair.after)
}

function describe(entry: HistoryRow, now: ReadonlyMap<string, Row>, undoneBy: number | null, latestId: number): LogEntry {
  const pairs = pairsOf(entry)
  const moved = pairs.find((pair) => !isAsLeft(pair.after, now.get(pair.after.id)))
  const isBuildMade = entry.resource === 'builds' && entry.before === null
  const keptBecause = isBuildMade ? (entry.id === latestId ? null : 'The build was worked on since.') : moved ? movedOn(moved, now.get(moved.after.id)) : null
  const named = namedPairs(entry)
  const [first] = named
  return {
    id: entry.id,
    at: entry.at,
    by: entry.by,
    typedAt: entry.typedAt === null ? null : new Date(entry.typedAt).toISOString(),
    action: entry.action,
    resource: entry.resource,
    recordId: entry.recordId,
    name: nameOf(entry),
    recordCount: Math.max(1, named.length),
    fields: named.length === 1 && first && entry.action === 'update' ? changedFields(first) : [],
    undoes: entry.undoes,
    undoneBy,
    keptBecause,
  }
}

function changedFields({ before, after }: RecordPair): LogEntry['fields'] {
  return Object.keys(ownFields(after))
    .filter((field) => field !== 'deletedAt' && !sameFields({ [field]: after[field] }, before ?? {}))
    .map((field) => ({ field, before: before?.[field] ?? null, after: after[field] ?? null }))
}
