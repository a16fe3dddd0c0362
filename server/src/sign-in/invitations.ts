import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import type { InvitationRow, NewPerson } from './rows.ts'
import { hashOfToken } from './tokens.ts'

export const NOT_VALID = 'It is used up or too old. Ask for a new one.'
export const field = (path: string, message: string): AppError => new AppError('bad-input', message, { errors: [{ path, message }] })

/** Uses an invitation up, once whoever comes at the same time. */
export async function useInvitation(trx: Knex, token: string): Promise<InvitationRow & { homeId: string }> {
  const [used] = (await trx('invitations')
    .where({ tokenHash: hashOfToken(token) })
    .whereNull('usedAt')
    .whereNull('withdrawnAt')
    .where('expiresAt', '>', trx.fn.now())
    .update({ usedAt: trx.fn.now() })
    .returning('*')) as InvitationRow[]
  const build = used?.buildId
    ? ((await trx('builds').where({ id: used.buildId }).whereNull('deletedAt').first('garageId')) as { garageId: string } | undefined)
    : undefined
  const homeId = used?.garageId ?? build?.garageId
  if (!used || !homeId) throw new AppError('gone', NOT_VALID)
  return { ...used, homeId }
}

/** What a new person must say of himself. */
export function wholePerson({ name, login, password }: Partial<NewPerson>): NewPerson {
  if (!name) throw field('name', 'Say who you are: it stands beside what you write.')
  if (!login) throw field('login', 'Choose a name to sign in with.')
  if (!password) throw field('password', 'Choose a password.')
  return { name, login, password }
}

/** A higher role only adds: one who is in already keeps what he has where that reaches further. */
export async function grant(trx: Knex, personId: string, { garageId, buildId, role, until }: InvitationRow): Promise<void> {
  const place = garageId === null ? { buildId } : { garageId }
  const held = (await trx('memberships')
    .where({ personId, ...place })
    .first()) as { id: string; role: string; until: string | null } | undefined
  if (!held) return void (await trx('memberships').insert({ id: randomUUID(), personId, ...place, role, until }))
  const ranks = ['viewer', 'crew', 'owner']
  const isHigher = ranks.indexOf(role) > ranks.indexOf(held.role)
  const isLonger = role === held.role && held.until !== null && (until === null || Date.parse(until) > Date.parse(held.until))
  if (isHigher || isLonger) await trx('memberships').where({ id: held.id }).update({ role, until, changedAt: trx.fn.now() })
}
