import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { BuildModel, modelOf } from '../records/models.ts'
import { createOnce, updateVersioned } from '../records/versioned.ts'

type Row = Record<string, unknown>
const place = (buildId: string) => ({ model: BuildModel, resource: 'builds', buildId })

/** Builds themselves: made with their stage 0, changed, removed and brought back. */
export class BuildService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
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
}
