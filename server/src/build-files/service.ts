import type { BuildFile, BuildFileRecord, BuildFileReport, FileChange } from '@bold-ballast/contract'
import { CURVE_VERSION, KINDS, kindOf, type RecordList, type ResourceName, type RuleContext, recordName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { insertPhotoBytes, photoTypeOf } from '../photos/photo-bytes.ts'
import { bytesOf, insertSamples } from '../pull-files/channels.ts'
import { rebuildPull } from '../pull-files/rebuild-curves.ts'
import { writeHistory } from '../records/history.ts'
import { BuildModel, modelOf } from '../records/models.ts'
import { applyRules } from '../records/rules.ts'
import { lockBuild, plain } from '../records/versioned.ts'
import { insertChannels } from '../track-logs/blocks.ts'
import type { WorkPool } from '../workers/pool.ts'
import { withNewIds } from './new-ids.ts'
import { parseBuildFile } from './parse.ts'
import { fileFields, type PlannedWrite, planUpdate, type Row, type StoredLists } from './plan-import.ts'
import { readSamples } from './samples.ts'
import type { BuildFileSource } from './source.ts'

export interface ImportWish {
  readonly mode: 'preview' | 'import'
  readonly as: 'new' | 'update'
  readonly importId: string
  readonly missing: 'keep' | 'delete'
}

const INSERT_ROWS = 400

/** Build files in: a preview of what would change, or the whole of it in one transaction, once for an import id. */
export class BuildFileService {
  private readonly knex: Knex
  /** Where long files are read; without one they are read at once. */
  private readonly pool: WorkPool | undefined

  constructor(knex: Knex, pool?: WorkPool) {
    this.knex = knex
    this.pool = pool
  }

  async take(actor: Actor, source: BuildFileSource, wish: ImportWish): Promise<BuildFileReport> {
    const file = await parseBuildFile(source, this.pool)
    // Sent again by the same person for the same build it is answered as before; to anybody else its id says nothing.
    const own = [file.build.id, ...(wish.as === 'new' ? [withNewIds(file, wish.importId).build.id] : [])]
    const done = await this.knex('history')
      .where({ importId: wish.importId, resource: 'builds', action: 'import', by: actor.person })
      .whereIn('buildId', own)
      .first()
    if (done && (await actor.access.seesBuild(this.knex, done.buildId))) return (done.after as { report: BuildFileReport }).report
    if (wish.mode === 'preview') return this.inTransaction(actor, source, file, wish, false)
    return this.inTransaction(actor, source, file, wish, true)
  }

  /** A preview does all that the import does and then takes it back, so that nothing passes the one and fails the other. */
  private async inTransaction(actor: Actor, source: BuildFileSource, file: BuildFile, wish: ImportWish, isKept: boolean): Promise<BuildFileReport> {
    const trx = await this.knex.transaction()
    try {
      await trx.raw('SET CONSTRAINTS ALL DEFERRED')
      const report = wish.as === 'new' ? await this.addBuild(trx, actor, source, file, wish) : await this.updateBuild(trx, actor, source, file, wish)
      await trx.raw('SET CONSTRAINTS ALL IMMEDIATE')
      if (isKept) await trx.commit()
      else await trx.rollback()
      return report
    } catch (error) {
      if (!trx.isCompleted()) await trx.rollback()
      throw error
    }
  }

  private async addBuild(trx: Knex, actor: Actor, source: BuildFileSource, original: BuildFile, wish: ImportWish): Promise<BuildFileReport> {
    const isTaken = (await BuildModel.query(trx).findById(original.build.id)) !== undefined
    const isHere = isTaken && (await actor.access.seesBuild(trx, original.build.id))
    // Ids of records count within their build alone, so they stay as long as the build's own is free.
    const file = isTaken ? withNewIds(original, wish.importId) : original
    const buildId = file.build.id
    const stamp = stamps(actor)
    await BuildModel.query(trx).insert({ ...fileFields('build', file.build), ...stamp(file.build), garageId: await actor.access.garageForNew(trx) } as object)
    const context = memoryContext(file, actor.now)
    for (const { list } of KINDS) await insertRecords(trx, context, buildId, list, file[list] as BuildFileRecord[], stamp)
    const sampleCount = (await storeSamples(trx, buildId, source, file.pulls)) + (await storeLogs(trx, buildId, source, file.trackLogs))
    await storePhotos(trx, buildId, source, file.photos)
    const report = makeReport(file, 'new', { isHere, getsNewIds: isTaken, sampleCount, unchangedCount: 0, changes: [] })
    await writeHistory(trx, actor, {
      buildId,
      resource: 'builds',
      recordId: buildId,
      action: 'import',
      before: null,
      after: { report },
      importId: wish.importId,
    })
    return report
  }

  private async updateBuild(trx: Knex, actor: Actor, source: BuildFileSource, file: BuildFile, wish: ImportWish): Promise<BuildFileReport> {
    const buildId = file.build.id
    const isSeen = await actor.access.seesBuild(trx, buildId)
    const isThere = isSeen && (await BuildModel.query(trx).findById(buildId).whereNull('deletedAt'))
    if (!isThere) throw new AppError('not-found', 'The Garage has no build of this file to update. Import it as a new build, or restore the deleted one first.')
    await actor.access.requireBuild(trx, buildId, 'crew')
    const build = (await lockBuild(trx, buildId)) as Row
    const stored = await storedLists(trx, buildId)
    if (stored.stages.some((stage) => stage.position === 0 && file.stages.some((other) => other.position === 0 && other.id !== stage.id)))
      throw new AppError('rule-broken', 'The file has another stage 0 than this build. Import it as a new build.')
    const { writes, unchangedCount } = planUpdate(file, build, stored, wish.missing === 'delete')
    const context = mergedContext(file, stored, wish.missing === 'delete', actor.now)
    const after = await writePlanned(trx, actor, context, buildId, writes)
    const isAdded = (list: RecordList, { id }: { id: string }) => writes.some((write) => write.list === list && write.before === null && write.change.id === id)
    const added = { pulls: file.pulls.filter((pull) => isAdded('pulls', pull)), logs: file.trackLogs.filter((log) => isAdded('trackLogs', log)) }
    const sampleCount = (await storeSamples(trx, buildId, source, added.pulls)) + (await storeLogs(trx, buildId, source, added.logs))
    await storePhotos(
      trx,
      buildId,
      source,
      file.photos.filter((photo) => isAdded('photos', photo)),
    )
    const changes = writes.map((write) => write.change)
    const report = makeReport(file, 'update', { isHere: true, getsNewIds: false, sampleCount, unchangedCount, changes })
    if (writes.length > 0) {
      const records = (side: (write: PlannedWrite, i: number) => unknown) =>
        writes.map((write, i) => ({ resource: resourceOf(write.list), record: side(write, i) }))
      await writeHistory(trx, actor, {
        buildId,
        resource: 'builds',
        recordId: buildId,
        action: 'import',
        before: { records: records((write) => write.before) },
        after: { records: records((_, i) => after[i]), report },
        importId: wish.importId,
      })
    }
    return report
  }
}

export const resourceOf = (list: RecordList | 'build'): ResourceName | 'builds' => (list === 'build' ? 'builds' : kindOf(list).address)

function makeReport(
  file: BuildFile,
  as: 'new' | 'update',
  rest: { isHere: boolean; getsNewIds: boolean; sampleCount: number; unchangedCount: number; changes: readonly FileChange[] },
): BuildFileReport {
  const counts = Object.fromEntries(KINDS.map(({ list }) => [list, file[list].length])) as unknown as BuildFileReport['counts']
  return { as, buildId: file.build.id, name: file.build.name, counts, ...rest }
}

/** When and by whom a record was made: as the file says, else now, a millisecond apart so that the order of the file stays. */
function stamps(actor: Actor) {
  let made = 0
  return (record: BuildFileRecord) => ({
    version: 1,
    createdAt: record.createdAt ?? new Date(Date.parse(actor.now) + made++).toISOString(),
    createdBy: record.createdBy ?? actor.person,
    updatedAt: actor.now,
    updatedBy: actor.person,
    deletedAt: null,
  })
}

/** A record as the rules complete it; a refusal names the record. Stages are checked as a whole with the file. */
async function ruled(context: RuleContext, list: RecordList, fields: Record<string, unknown> & { id: string }): Promise<Record<string, unknown>> {
  if (list === 'stages') return fields
  try {
    return await applyRules(context, list, undefined, fields)
  } catch (error) {
    if (!(error instanceof AppError)) throw error
    throw new AppError(error.code, `${list}, "${recordName(list, fields)}": ${error.message}`, {
      errors: error.errors.map(({ path, message }) => ({ path: `${list}.${path}`, message })),
    })
  }
}

function pullColumns(list: RecordList, record: BuildFileRecord): Record<string, unknown> {
  return list === 'pulls' ? { curveVersion: record.curveVersion ?? CURVE_VERSION } : {}
}

async function insertRecords(
  trx: Knex,
  context: RuleContext,
  buildId: string,
  list: RecordList,
  records: readonly BuildFileRecord[],
  stamp: ReturnType<typeof stamps>,
): Promise<void> {
  const rows: object[] = []
  for (const record of records)
    rows.push({ ...(await ruled(context, list, fileFields(list, record))), ...pullColumns(list, record), buildId, ...stamp(record) })
  for (let from = 0; from < rows.length; from += INSERT_ROWS)
    await modelOf(list)
      .query(trx)
      .insert(rows.slice(from, from + INSERT_ROWS))
}

async function writePlanned(trx: Knex, actor: Actor, context: RuleContext, buildId: string, writes: readonly PlannedWrite[]): Promise<unknown[]> {
  const stamp = stamps(actor)
  const after: unknown[] = new Array(writes.length)
  // What goes comes first, so that places and goals it held are free.
  const order = writes.map((_, i) => i).sort((a, b) => Number(writes[a]?.fields !== null) - Number(writes[b]?.fields !== null) || a - b)
  for (const i of order) {
    const { list, before, fields, record } = writes[i] as PlannedWrite
    const model = list === 'build' ? BuildModel : modelOf(list)
    if (before === null && list !== 'build' && record) {
      const row = { ...(await ruled(context, list, fileFields(list, record))), ...pullColumns(list, record), buildId, ...stamp(record) }
      after[i] = plain(await model.query(trx).insertAndFetch(row))
      continue
    }
    const next = fields === null ? { deletedAt: actor.now } : { ...(list === 'build' ? fields : await ruled(context, list, fields)), deletedAt: null }
    const { id: _, ...changed } = next as Record<string, unknown>
    const meta = { version: (before?.version ?? 0) + 1, updatedAt: actor.now, updatedBy: actor.person }
    after[i] = plain(await model.query(trx).patchAndFetchById(list === 'build' ? buildId : [buildId, before?.id as string], { ...changed, ...meta }))
  }
  return after
}

/** Reads the samples of pulls one after another and stores them; curve and peaks made another way than this program's are made anew. */
async function storeSamples(trx: Knex, buildId: string, source: BuildFileSource, pulls: BuildFile['pulls']): Promise<number> {
  let count = 0
  for (const pull of pulls) {
    if (!pull.samples) continue
    const channels = await readSamples(await source.open(pull.samples.file), pull.samples.file, pull.samples.channels)
    await insertSamples(trx, buildId, [{ pullId: pull.id, channels: bytesOf(channels) }])
    if (pull.curveVersion !== CURVE_VERSION) await rebuildPull(trx, buildId, pull.id, pull.label, channels)
    count += channels[0]?.values.length ?? 0
  }
  return count
}

/** Reads the samples of logs one after another and stores them; answers how many rows. */
async function storeLogs(trx: Knex, buildId: string, source: BuildFileSource, logs: BuildFile['trackLogs']): Promise<number> {
  let count = 0
  for (const { id, samples } of logs) {
    if (!samples) continue
    const channels = await readSamples(await source.open(samples.file), samples.file, samples.channels)
    await insertChannels(
      trx,
      buildId,
      id,
      channels.map(({ values }) => Float32Array.from(values)),
    )
    count += channels[0]?.values.length ?? 0
  }
  return count
}

/** Stores the pictures whose records were just made; each must be the kind of picture that its record says. */
async function storePhotos(trx: Knex, buildId: string, source: BuildFileSource, photos: BuildFile['photos']): Promise<void> {
  for (const { id, file, mediaType, byteCount } of photos) {
    const chunks: Buffer[] = []
    for await (const chunk of await source.open(file)) chunks.push(chunk as Buffer)
    const bytes = Buffer.concat(chunks)
    if (photoTypeOf(bytes) !== mediaType || bytes.length !== byteCount)
      throw new AppError('bad-input', `${file} is not the picture its record names: another kind or size. Export the build again.`)
    await insertPhotoBytes(trx, buildId, id, bytes)
  }
}

/** Every record of a build, deleted ones too. */
async function storedLists(trx: Knex, buildId: string): Promise<StoredLists> {
  const lists: Record<string, Row[]> = {}
  for (const { list } of KINDS) {
    const found = await modelOf(list).query(trx).where({ buildId }).orderBy(['createdAt', 'id'])
    lists[list] = found.map((record) => plain(record) as Row)
  }
  return lists as unknown as StoredLists
}

type AnyRow = Record<string, unknown> & { id: string }

function contextOf(lists: Partial<Record<RecordList, readonly AnyRow[]>>, now: string): RuleContext {
  const byId = new Map(Object.entries(lists).map(([resource, rows]) => [resource, new Map(rows.map((row) => [row.id, row]))]))
  return {
    now,
    live: async (list, where) => {
      const { id, ...rest } = where
      const rows = id === undefined ? (lists[list as RecordList] ?? []) : [byId.get(list)?.get(id as string)].filter((row) => row !== undefined)
      return rows.filter((row) => Object.entries(rest).every(([key, value]) => row[key] === value))
    },
  }
}

const memoryContext = (file: BuildFile, now: string) => contextOf(Object.fromEntries(KINDS.map(({ list }) => [list, file[list] as readonly AnyRow[]])), now)

/** The build as it will be: the file's records, and those that are only here and stay. */
function mergedContext(file: BuildFile, stored: StoredLists, deletesMissing: boolean, now: string): RuleContext {
  const lists = KINDS.map(({ list }) => {
    const named = new Set(file[list].map((record) => record.id))
    const stay = deletesMissing ? [] : stored[list].filter((row) => row.deletedAt === null && !named.has(row.id))
    return [list, [...(file[list] as readonly AnyRow[]), ...stay]] as const
  })
  return contextOf(Object.fromEntries(lists), now)
}
