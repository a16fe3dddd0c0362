import { randomUUID } from 'node:crypto'
import type { GoalsBy, InvitationEntry, MadeLink, MemberEntry, PersonEntry, Role } from '@bold-ballast/contract'
import type { Knex } from 'knex'
import { tell } from '../access/notify.ts'
import { AppError } from '../http/problem.ts'
import { type PersonRow, raiseEpoch } from '../sign-in/rows.ts'
import { hashOfToken, makeToken } from '../sign-in/tokens.ts'
import { type Doer, memberOf, noSuch, noteDone } from './doer.ts'

interface MembershipRow {
  readonly id: string
  readonly personId: string
  readonly garageId: string | null
  readonly buildId: string | null
  readonly role: Role
  readonly until: string | null
}

const DAY_MS = 86_400_000

/** People of a garage, what each is in, and invitations. */
export class GarageService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  /** Builds of a garage, also deleted ones: their memberships stand. */
  private builds(db: Knex, garageId: string) {
    return db('builds').where({ garageId }).select('id')
  }

  private memberships(db: Knex, garageId: string) {
    return db('memberships').where((query) => {
      void query.where('memberships.garageId', garageId).orWhereIn('memberships.buildId', this.builds(db, garageId))
    })
  }

  /** Everybody who is at home here or in a build of it; what has ended is not told. */
  async people(garageId: string): Promise<PersonEntry[]> {
    const rows = (await this.memberships(this.knex, garageId)
      .where((query) => {
        void query.whereNull('memberships.until').orWhere('memberships.until', '>', this.knex.fn.now())
      })
      .leftJoin('builds', 'builds.id', 'memberships.buildId')
      .orderBy('memberships.changedAt')
      .select(
        'memberships.id as membershipId',
        'memberships.personId',
        'memberships.buildId',
        'builds.name as buildName',
        'memberships.role',
        'memberships.until',
      )) as (MemberEntry & {
      personId: string
    })[]
    const ids = rows.map(({ personId }) => personId)
    const people = (await this.knex('people').where({ garageId }).orWhereIn('id', ids).orderBy(['createdAt', 'id'])) as (PersonRow & {
      hereAt: string | null
    })[]
    return people.map(({ id, name, login, state, hereAt }) => ({
      id,
      name,
      login,
      state,
      hereAt,
      memberships: rows.filter(({ personId }) => personId === id).map(({ personId: _, ...entry }) => entry),
    }))
  }

  /** Somebody must own the garage: refused where this is the last one who does. Waits for others who change its owners. */
  private async requireOtherOwner(trx: Knex, garageId: string, personId: string): Promise<void> {
    await trx('garages').where({ id: garageId }).forUpdate().first('id')
    const others = await trx('memberships')
      .join('people', 'people.id', 'memberships.personId')
      .where({ 'memberships.garageId': garageId, role: 'owner', state: 'active' })
      .whereNot('people.id', personId)
      .first('people.id')
    if (!others) throw new AppError('duplicate', 'This is the last owner. Make another one first.')
  }

  private async isOwner(trx: Knex, garageId: string, personId: string): Promise<boolean> {
    return (await trx('memberships').where({ garageId, personId, role: 'owner' }).first('id')) !== undefined
  }

  async changePerson(
    doer: Doer,
    personId: string,
    { state, endEverywhere }: { state?: 'active' | 'off' | undefined; endEverywhere?: true | undefined },
  ): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const person = await memberOf(trx, doer.garageId, personId)
      if (state === 'off' && (await this.isOwner(trx, doer.garageId, personId))) await this.requireOtherOwner(trx, doer.garageId, personId)
      const ends = state === 'off' || endEverywhere === true
      await trx('people')
        .where({ id: personId })
        .update({ state: state ?? person.state, epoch: ends ? raiseEpoch(trx) : person.epoch })
      await tell(trx, { p: personId, rights: true })
      if (state && state !== person.state) await noteDone(trx, doer, state === 'off' ? 'switched off' : 'switched on', person.name)
      if (endEverywhere) await noteDone(trx, doer, 'ended everywhere', person.name)
    })
  }

  async changeGarage(doer: Doer, fields: { name?: string | undefined; goalsBy?: GoalsBy | undefined }): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const changed = Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined))
      if (Object.keys(changed).length === 0) return
      await trx('garages').where({ id: doer.garageId }).update(changed)
      await noteDone(
        trx,
        doer,
        'garage changed',
        Object.entries(changed)
          .map(([key, value]) => `${key === 'goalsBy' ? 'goals moved by' : 'name'}: ${value}`)
          .join(', '),
      )
    })
  }

  async invitations(garageId: string): Promise<InvitationEntry[]> {
    return this.knex('invitations')
      .where((query) => {
        void query.where('invitations.garageId', garageId).orWhereIn('invitations.buildId', this.builds(this.knex, garageId))
      })
      .leftJoin('builds', 'builds.id', 'invitations.buildId')
      .leftJoin('people', 'people.id', 'invitations.personId')
      .orderBy('madeAt', 'desc')
      .limit(200)
      .select(
        'invitations.id',
        'role',
        'invitations.buildId',
        'builds.name as buildName',
        'people.name as personName',
        'madeAt',
        'expiresAt',
        'usedAt',
        'withdrawnAt',
      )
  }

  private async requireBuild(db: Knex, garageId: string, buildId: string): Promise<string> {
    const build = (await db('builds').where({ id: buildId, garageId }).whereNull('deletedAt').first('name')) as { name: string } | undefined
    if (!build) throw noSuch('build')
    return build.name
  }

  /** A link to join by, or to set a password anew; its secret is told this once. */
  async invite(
    doer: Doer,
    {
      role,
      buildId,
      until,
      days,
      personId,
    }: { role: Role; buildId?: string | undefined; until?: string | null | undefined; days: number; personId?: string | undefined },
  ): Promise<MadeLink> {
    if (role === 'owner' && (buildId || until))
      throw new AppError('bad-input', 'Owners own the whole garage, for good. Leave build and end out.', {
        errors: [{ path: 'role', message: 'is for the whole garage' }],
      })
    if (until && Date.parse(until) <= Date.now())
      throw new AppError('bad-input', 'until lies behind. Give a day to come.', { errors: [{ path: 'until', message: 'lies behind' }] })
    return this.knex.transaction(async (trx) => {
      const buildName = buildId ? await this.requireBuild(trx, doer.garageId, buildId) : null
      const person = personId ? await memberOf(trx, doer.garageId, personId) : null
      const token = makeToken()
      const place = buildId ? { buildId } : { garageId: doer.garageId }
      const row = { id: randomUUID(), tokenHash: hashOfToken(token), ...place, role, until: until ?? null, personId: personId ?? null, madeBy: doer.personId }
      const expiresAt = new Date(Date.now() + days * DAY_MS).toISOString()
      await trx('invitations').insert({ ...row, expiresAt })
      await noteDone(trx, doer, 'invited', person ? `${person.name}, to a new password` : `${role}${buildName ? ` of ${buildName}` : ''}`, buildId ?? null)
      return { id: row.id, token, expiresAt }
    })
  }

  async withdraw(doer: Doer, id: string): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const [gone] = await trx('invitations')
        .where({ id })
        .where((query) => {
          void query.where({ garageId: doer.garageId }).orWhereIn('buildId', this.builds(trx, doer.garageId))
        })
        .whereNull('usedAt')
        .update({ withdrawnAt: trx.fn.now() })
        .returning('role')
      if (!gone) throw noSuch('open invitation')
      await noteDone(trx, doer, 'invitation withdrawn', (gone as { role: string }).role)
    })
  }

  private async membership(trx: Knex, garageId: string, id: string): Promise<MembershipRow & { personName: string }> {
    const found = (await this.memberships(trx, garageId).where('memberships.id', id).first()) as MembershipRow | undefined
    if (!found) throw noSuch('membership')
    const { name } = (await trx('people').where({ id: found.personId }).first('name')) as { name: string }
    return { ...found, personName: name }
  }

  async changeMembership(doer: Doer, id: string, { role, until }: { role?: Role | undefined; until?: string | null | undefined }): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const held = await this.membership(trx, doer.garageId, id)
      const next = { role: role ?? held.role, until: until === undefined ? held.until : until }
      if (next.role === 'owner' && (held.buildId !== null || next.until !== null))
        throw new AppError('rule-broken', 'Owners own the whole garage, for good. Invite this person into the garage first.')
      if (held.role === 'owner' && next.role !== 'owner') await this.requireOtherOwner(trx, doer.garageId, held.personId)
      await trx('memberships')
        .where({ id })
        .update({ ...next, changedAt: trx.fn.now() })
      await tell(trx, { p: held.personId, rights: true })
      await noteDone(trx, doer, 'role changed', `${held.personName}: ${held.role} to ${next.role}`, held.buildId)
    })
  }

  async endMembership(doer: Doer, id: string): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const held = await this.membership(trx, doer.garageId, id)
      if (held.role === 'owner') await this.requireOtherOwner(trx, doer.garageId, held.personId)
      await trx('memberships').where({ id }).delete()
      await tell(trx, { p: held.personId, rights: true })
      await noteDone(trx, doer, 'membership ended', `${held.personName}: ${held.role}`, held.buildId)
    })
  }

  async ofBuild(buildId: string): Promise<(MemberEntry & { readonly personId: string; readonly name: string })[]> {
    return this.knex('memberships')
      .join('people', 'people.id', 'memberships.personId')
      .where({ buildId })
      .orderBy('memberships.changedAt')
      .select('memberships.id as membershipId', 'personId', 'people.name', 'buildId', 'role', 'until')
  }

  /** Makes somebody who is in the garage, or in another build of it, one of a build. */
  async addToBuild(
    doer: Omit<Doer, 'garageId'>,
    buildId: string,
    { personId, role, until }: { personId: string; role: 'viewer' | 'crew'; until?: string | null | undefined },
  ): Promise<MemberEntry> {
    return this.knex.transaction(async (trx) => {
      const { garageId, name: buildName } = (await trx('builds').where({ id: buildId }).first('garageId', 'name')) as { garageId: string; name: string }
      const person = await memberOf(trx, garageId, personId)
      const row = { id: randomUUID(), personId, buildId, role, until: until ?? null }
      const [made] = await trx('memberships')
        .insert(row)
        .onConflict(['person_id', 'build_id'])
        .merge({ role, until: row.until, changedAt: trx.fn.now() })
        .returning('id')
      await tell(trx, { p: personId, rights: true })
      await noteDone(trx, { ...doer, garageId }, 'role changed', `${person.name}: ${role} of ${buildName}`, buildId)
      return { membershipId: (made as { id: string }).id, buildId, buildName, role, until: row.until }
    })
  }
}
