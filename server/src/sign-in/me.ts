import type { BuildMembership, GarageMembership, MeAnswer, SeatEntry } from '@bold-ballast/contract'
import type { Request } from 'express'
import type { Knex } from 'knex'
import { standingOf } from '../access/person-access.ts'
import { seatOf } from './sessions.ts'

const NOBODY: MeAnswer = { mode: 'closed', person: null, seats: [], garages: [], builds: [] }

/** As long as nobody signs in, whoever is at the machine owns what stands on it. */
async function openMe(knex: Knex): Promise<MeAnswer> {
  const rows = (await knex('garages').orderBy(['madeAt', 'id']).select('id', 'name', 'goalsBy')) as (Omit<GarageMembership, 'garageId' | 'role'> & {
    id: string
  })[]
  return { ...NOBODY, mode: 'open', garages: rows.map(({ id, name, goalsBy }) => ({ garageId: id, name, goalsBy, role: 'owner' })) }
}

async function seatsOf(knex: Knex, request: Request): Promise<SeatEntry[]> {
  const seats = request.session.seats ?? []
  const rows = (await knex('people')
    .whereIn(
      'id',
      seats.map(({ personId }) => personId),
    )
    .where({ state: 'active' })
    .select('id', 'name', 'epoch', knex.raw('code_hash IS NOT NULL AS has_code'))) as { id: string; name: string; epoch: number; hasCode: boolean }[]
  return seats.flatMap(({ personId, epoch }) => {
    const person = rows.find((row) => row.id === personId && row.epoch === epoch)
    return person ? [{ personId, name: person.name, hasCode: person.hasCode }] : []
  })
}

/** Who is at this browser, who may take over, and what the one who is at it is in. */
export async function meOf(knex: Knex, request: Request, isClosed: boolean): Promise<MeAnswer> {
  if (!isClosed) return openMe(knex)
  const seats = await seatsOf(knex, request)
  const taken = seatOf(request)
  const standing = taken && seats.some(({ personId }) => personId === taken.personId) ? await standingOf(knex, taken.personId) : undefined
  if (!standing) return { ...NOBODY, seats }
  const { id, name, login, hasCode, memberships } = standing
  const ids = memberships.flatMap(({ garageId }) => (garageId === null ? [] : [garageId]))
  const rows = (await knex('garages').whereIn('id', ids).select('id', 'name', 'goalsBy')) as {
    id: string
    name: string
    goalsBy: GarageMembership['goalsBy']
  }[]
  const garages = rows.map(
    (row): GarageMembership => ({
      garageId: row.id,
      name: row.name,
      goalsBy: row.goalsBy,
      role: memberships.find(({ garageId }) => garageId === row.id)?.role ?? 'viewer',
    }),
  )
  const builds = memberships.flatMap(({ buildId, role, until }): BuildMembership[] => (buildId === null ? [] : [{ buildId, role, until }]))
  return { mode: 'closed', person: { id, name, login, hasCode }, seats, garages, builds }
}
