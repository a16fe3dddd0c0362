import { randomUUID } from 'node:crypto'
import type { GarageEntry, StoredBuild } from '@bold-ballast/contract'
import { arrivedCell, type Board, CalculationError, makeBoard } from '@bold-ballast/core'
import type { Knex } from 'knex'
import pLimit from 'p-limit'
import type { Actor } from '../http/actor.ts'
import { BuildModel, modelOf } from '../records/models.ts'
import { createOnce, plain, updateVersioned } from '../records/versioned.ts'
import type { OpenBuild, OpenBuilds } from './open-builds.ts'

type Row = Record<string, unknown>
const AT_ONCE = 4
const place = (buildId: string) => ({ model: BuildModel, resource: 'builds', buildId })

/** Builds themselves: made with their stage 0, and shown in the Garage. */
export class BuildService {
  readonly knex: Knex
  private readonly open: OpenBuilds

  constructor(knex: Knex, open: OpenBuilds) {
    this.knex = knex
    this.open = open
  }

  create(actor: Actor, body: Row & { id: string }): Promise<{ record: Row; isNew: boolean }> {
    return this.knex.transaction(async (trx) => {
      const made = await createOnce(trx, actor, place(body.id), body)
      if (made.isNew) await this.makeFirstStage(trx, actor, body.id)
      return made
    })
  }

  private async makeFirstStage(trx: Knex, actor: Actor, buildId: string): Promise<void> {
    await createOnce(trx, actor, { model: modelOf('stages'), resource: 'stages', buildId }, { id: randomUUID(), position: 0, name: 'As bought' })
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

  async garage(today: string, seen: ReadonlySet<string> | null): Promise<GarageEntry[]> {
    const all = await BuildModel.query(this.knex).whereNull('deletedAt').orderBy(['createdAt', 'id'])
    const builds = all.filter(({ id }) => seen === null || seen.has(id))
    // Some at a time: each needs the database, which others need too.
    const inTurn = pLimit(AT_ONCE)
    return inTurn.map(builds, async (build) => {
      try {
        return JSON.parse(await this.open.answer(build.id, `garage ${today}`, (open) => garageEntry(open, today), true)) as GarageEntry
      } catch (error) {
        if (error instanceof CalculationError) return brokenEntry(plain(build) as unknown as StoredBuild, error.message)
        throw error
      }
    })
  }
}

/** A build that nothing can be worked out of; it stays in the Garage with the reason. */
const brokenEntry = (build: StoredBuild, problem: string): GarageEntry => ({
  build,
  stageCount: 0,
  reachedPosition: null,
  reachedName: null,
  reachedState: null,
  reachedStageId: null,
  stages: [],
  trail: [],
  mass: null,
  powerToMass: null,
  brokenLimits: 0,
  limitsThatWouldBreak: 0,
  lateStages: 0,
  lateTargets: 0,
  next: null,
  problem,
})

function garageEntry({ stored, car, broken }: OpenBuild, today: string): GarageEntry {
  const board = makeBoard(car(), today)
  const isBuilt = (state: string) => state === 'built' || state === 'proven'
  const reached = board.stages.findLast((stage) => isBuilt(stage.state)) ?? board.stages.find((stage) => stage.state === 'underway')
  const cell = (metric: Board['rows'][number]['metric']) => arrivedCell(board.rows.find((row) => row.metric === metric)?.cells[reached?.position ?? 0])
  const count = (word: string) => board.rows.filter((row) => row.goal.kind === 'limit' && row.goal.verdict?.word === word).length
  return {
    ...(board.isWaiting ? { isWaiting: true } : {}),
    build: stored.build,
    stageCount: board.stages.length,
    reachedPosition: reached?.position ?? null,
    reachedName: reached?.name ?? null,
    reachedState: reached?.state ?? null,
    reachedStageId: reached?.id ?? null,
    stages: board.stages.map(({ id, name, date, state }) => ({ id, name, date, isDone: isBuilt(state) })),
    trail: board.trail,
    mass: cell('massReady'),
    powerToMass: cell('powerToMass'),
    brokenLimits: count('broken'),
    limitsThatWouldBreak: count('would break'),
    lateStages: board.stages.filter((stage) => stage.isLate).length,
    lateTargets: board.rows.filter((row) => row.goal.kind === 'target' && row.goal.verdict?.isLate).length,
    next: board.next[0] ?? null,
    problem: broken.length === 0 ? null : `${broken.length === 1 ? 'One record is' : `${broken.length} records are`} broken and left out.`,
  }
}
