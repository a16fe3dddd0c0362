import { randomUUID } from 'node:crypto'
import type { GarageEntry, StoredRecords } from '@bold-ballast/contract'
import { type Board, type BuildRecords, buildRecordsSchema, makeBoard } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { type Actor, writeHistory } from '../records/history.ts'
import { BuildModel } from '../records/models.ts'
import type { RecordService } from '../records/service.ts'
import { createOnce, updateVersioned } from '../records/versioned.ts'

type Row = Record<string, unknown>
const place = (buildId: string) => ({ model: BuildModel, resource: 'builds', buildId })

/** The stored records without versions and marks, as the calculations take them. */
export const calculationRecords = (stored: StoredRecords): BuildRecords => buildRecordsSchema.parse(stored)

/** Builds themselves: made with their stage 0, and shown in the Garage. */
export class BuildService {
  private readonly knex: Knex
  private readonly records: RecordService

  constructor(knex: Knex, records: RecordService) {
    this.knex = knex
    this.records = records
  }

  create(actor: Actor, body: Row & { id: string }): Promise<{ record: Row; isNew: boolean }> {
    return this.knex.transaction(async (trx) => {
      const made = await createOnce(trx, actor, place(body.id), body)
      if (made.isNew) await this.makeFirstStage(trx, actor, body.id)
      return made
    })
  }

  private async makeFirstStage(trx: Knex, actor: Actor, buildId: string): Promise<void> {
    const meta = { version: 1, created_at: actor.now, created_by: actor.person, updated_at: actor.now, updated_by: actor.person }
    const stage = { id: randomUUID(), build_id: buildId, position: 0, name: 'As bought', ...meta }
    await trx('stages').insert(stage)
    await writeHistory(trx, actor, { buildId, resource: 'stages', recordId: stage.id, action: 'create', before: null, after: stage })
  }

  update(actor: Actor, id: string, { version, ...fields }: Row & { version: number }): Promise<Row> {
    return this.knex.transaction((trx) => updateVersioned(trx, actor, place(id), id, version, fields))
  }

  remove(actor: Actor, id: string, version: number): Promise<Row> {
    return this.knex.transaction((trx) => updateVersioned(trx, actor, place(id), id, version, { deletedAt: actor.now }, 'remove'))
  }

  restore(actor: Actor, id: string, version: number): Promise<Row> {
    return this.knex.transaction((trx) => updateVersioned(trx, actor, place(id), id, version, { deletedAt: null }, 'restore'))
  }

  async garage(today: string): Promise<GarageEntry[]> {
    const builds = await BuildModel.query(this.knex).whereNull('deletedAt').orderBy(['createdAt', 'id'])
    return Promise.all(builds.map(async (build) => garageEntry(await this.records.all(build.id), today)))
  }
}

function garageEntry(stored: StoredRecords, today: string): GarageEntry {
  const board = makeBoard(calculationRecords(stored), today)
  const isBuilt = (state: string) => state === 'built' || state === 'proven'
  const reached = board.stages.findLast((stage) => isBuilt(stage.state)) ?? board.stages.find((stage) => stage.state === 'underway')
  const cell = (metric: Board['rows'][number]['metric']) => board.rows.find((row) => row.metric === metric)?.cells[reached?.position ?? 0] ?? null
  const count = (word: string) => board.rows.filter((row) => row.goal.kind === 'limit' && row.goal.verdict.word === word).length
  return {
    build: stored.build,
    stageCount: board.stages.length,
    reachedPosition: reached?.position ?? null,
    reachedName: reached?.name ?? null,
    reachedState: reached?.state ?? null,
    reachedStageId: reached?.id ?? null,
    mass: cell('massReady'),
    powerToMass: cell('powerToMass'),
    brokenLimits: count('broken'),
    limitsThatWouldBreak: count('would break'),
    lateStages: board.stages.filter((stage) => stage.isLate).length,
    lateTargets: board.rows.filter((row) => row.goal.kind === 'target' && row.goal.verdict.isLate).length,
    next: board.next[0] ?? null,
  }
}
