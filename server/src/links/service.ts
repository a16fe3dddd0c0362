import { randomUUID } from 'node:crypto'
import type { LinkEntry, linkSchema, MadeLink, SharedSheet } from '@bold-ballast/contract'
import { makeBoard, type z } from '@bold-ballast/core'
import type { Request } from 'express'
import type { Knex } from 'knex'
import type { OpenBuilds } from '../builds/open-builds.ts'
import { AppError } from '../http/problem.ts'
import { writeAudit } from '../sign-in/audit.ts'
import { hashOfToken, makeToken } from '../sign-in/tokens.ts'
import { sharedSheet } from './shared-sheet.ts'

const DAY_MS = 86_400_000
const GONE = 'It is used up or too old. Ask for a new one.'

interface Doer {
  readonly request: Request
  readonly personId: string | null
}

/** Links that show a Board or one stage to whoever holds them. */
export class LinkService {
  private readonly knex: Knex
  private readonly open: OpenBuilds

  constructor(knex: Knex, open: OpenBuilds) {
    this.knex = knex
    this.open = open
  }

  list(buildId: string): Promise<LinkEntry[]> {
    return this.knex('shareLinks')
      .where('shareLinks.buildId', buildId)
      .leftJoin('stages', (join) => {
        join.on('stages.buildId', 'shareLinks.buildId').andOn('stages.id', 'shareLinks.stageId')
      })
      .orderBy('shareLinks.madeAt', 'desc')
      .select('shareLinks.id', 'stages.name as stageName', 'madeAt', 'expiresAt', 'withdrawnAt', 'opens')
  }

  private async note(trx: Knex, { request, personId }: Doer, action: 'link made' | 'link withdrawn', buildId: string): Promise<void> {
    const { garageId, name } = (await trx('builds').where({ id: buildId }).first('garageId', 'name')) as { garageId: string; name: string }
    await writeAudit(trx, request, { action, subject: name, personId, garageId, buildId })
  }

  /** Makes a link; its secret is told this once. */
  make(doer: Doer, buildId: string, { stageId, days }: z.output<typeof linkSchema>): Promise<MadeLink> {
    return this.knex.transaction(async (trx) => {
      if (stageId && !(await trx('stages').where({ buildId, id: stageId }).whereNull('deletedAt').first('id')))
        throw new AppError('not-found', 'This build has no such stage.')
      const token = makeToken()
      const row = { buildId, id: randomUUID(), tokenHash: hashOfToken(token), stageId: stageId ?? null, madeBy: doer.personId }
      const expiresAt = days === null ? null : new Date(Date.now() + days * DAY_MS).toISOString()
      await trx('shareLinks').insert({ ...row, expiresAt })
      await this.note(trx, doer, 'link made', buildId)
      return { id: row.id, token, expiresAt }
    })
  }

  withdraw(doer: Doer, buildId: string, id: string): Promise<void> {
    return this.knex.transaction(async (trx) => {
      const count = await trx('shareLinks').where({ buildId, id }).whereNull('withdrawnAt').update({ withdrawnAt: trx.fn.now() })
      if (count === 0) throw new AppError('not-found', 'This build has no such open link.')
      await this.note(trx, doer, 'link withdrawn', buildId)
    })
  }

  /** What a link shows; a link that is none, too old or withdrawn, and a build that was deleted, are told alike. */
  async show(token: string, today: string): Promise<SharedSheet> {
    const [link] = (await this.knex('shareLinks')
      .where({ tokenHash: hashOfToken(token) })
      .whereNull('withdrawnAt')
      .where((query) => {
        void query.whereNull('expiresAt').orWhere('expiresAt', '>', this.knex.fn.now())
      })
      .whereExists(this.knex('builds').whereRaw('builds.id = share_links.build_id').whereNull('deletedAt').select('id'))
      .update({ opens: this.knex.raw('opens + 1') })
      .returning(['buildId', 'stageId'])) as { buildId: string; stageId: string | null }[]
    if (!link) throw new AppError('gone', GONE)
    const { car, records, revision } = await this.open.get(link.buildId)
    const board = makeBoard(car(), today)
    const position = link.stageId === null ? null : (board.stages.find(({ id }) => id === link.stageId)?.position ?? null)
    if (link.stageId !== null && position === null) throw new AppError('gone', GONE)
    const last = (await this.knex('history').where({ buildId: link.buildId, id: revision }).first('at')) as { at: string } | undefined
    return sharedSheet(records.build, board, position, new Date(last?.at ?? 0).toISOString())
  }
}
