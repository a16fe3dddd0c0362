import type { GarageState } from '@bold-ballast/core'
import type { Knex } from 'knex'

/** What the owners of a garage look after, as the database has it; days are those of UTC. */
export async function garageState(knex: Knex, garageId: string, keepsCopies: boolean): Promise<GarageState> {
  const [owners, invitations, copy] = await Promise.all([
    knex('memberships')
      .join('people', 'people.id', 'memberships.personId')
      .where({ 'memberships.garageId': garageId, role: 'owner', state: 'active' })
      .count('people.id as count')
      .first(),
    knex('invitations')
      .where((query) => {
        void query.where({ garageId }).orWhereIn('buildId', knex('builds').where({ garageId }).select('id'))
      })
      .whereNull('usedAt')
      .whereNull('withdrawnAt')
      .whereNull('personId')
      .orderBy('madeAt')
      .select('id', 'madeAt') as Promise<{ id: string; madeAt: string }[]>,
    knex('copies').whereNull('problem').whereNull('removedAt').orderBy('takenAt', 'desc').first('takenAt') as Promise<{ takenAt: string } | undefined>,
  ])
  const copies = keepsCopies ? { copyCheckedOn: copy?.takenAt.slice(0, 10) ?? null } : {}
  return { ...copies, ownerCount: Number(owners?.count ?? 0), openInvitations: invitations.map(({ id, madeAt }) => ({ id, madeOn: madeAt.slice(0, 10) })) }
}
