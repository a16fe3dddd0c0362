import type { Knex } from 'knex'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { writeHistory } from '../records/history.ts'
import { modelOf } from '../records/models.ts'
import { findLocked, freshMeta, lockBuild, plain } from '../records/versioned.ts'
import { type ChannelBytes, insertSamples } from './channels.ts'

type Row = Record<string, unknown>

/** Inserts the pulls of one file: all or none, and once for an import id. */
export function importPulls(
  knex: Knex,
  actor: Actor,
  buildId: string,
  sessionId: string,
  importId: string,
  pulls: readonly { fields: Row & { id: string }; channels: readonly ChannelBytes[] }[],
): Promise<Row[]> {
  return knex.transaction(async (trx) => {
    await lockBuild(trx, buildId)
    const session = await findLocked(trx, { model: modelOf('sessions'), resource: 'sessions', buildId }, sessionId)
    if (session.deletedAt !== null) throw new AppError('not-found', 'This session was deleted. Put it back first.')
    const settings = session.settings as readonly { readonly id: string }[]
    if (pulls.some(({ fields }) => typeof fields.settingId === 'string' && !settings.some(({ id }) => id === fields.settingId))) {
      const message = 'The session has no such setting. Pick one of its settings.'
      throw new AppError('bad-input', message, { errors: [{ path: 'settingId', message }] })
    }
    const mine = () => modelOf('pulls').query(trx).where({ buildId, sessionId }).where('importId', importId).orderBy('position')
    const existing = await mine()
    if (existing.length > 0) return existing.map(plain)
    const { count } = (await trx('pulls').where({ buildId, sessionId }).count('* as count').first()) as { count: number }
    const made = pulls.map(({ fields }, i) => ({ ...fields, position: Number(count) + i, importId, buildId, ...freshMeta(actor) }))
    await modelOf('pulls')
      .query(trx)
      .insert(made as object[])
    await insertSamples(
      trx,
      buildId,
      pulls.map(({ fields, channels }) => ({ pullId: fields.id, channels })),
    )
    const records = (await mine()).map(plain)
    const written = (record: (made: Row) => unknown) => ({ records: records.map((made) => ({ resource: 'pulls', record: record(made) })) })
    await writeHistory(trx, actor, {
      buildId,
      resource: 'sessions',
      recordId: sessionId,
      action: 'import',
      before: written(() => null),
      after: written((made) => made),
      importId,
    })
    return records
  })
}
