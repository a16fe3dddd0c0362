import { randomUUID } from 'node:crypto'
import type { ClaimEntry } from '@bold-ballast/contract'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { isFreeName } from '../sign-in/names.ts'
import { type Doer, memberOf, noSuch, noteDone } from './doer.ts'

/** Whose the names in lines are that nobody signed, as a garage agreed. */
export class ClaimService {
  private readonly knex: Knex

  constructor(knex: Knex) {
    this.knex = knex
  }

  /** Names in lines that nobody signed, with whose they are held to be. */
  async list(garageId: string): Promise<ClaimEntry[]> {
    const typed = (await this.knex('history')
      .whereIn('buildId', this.knex('builds').where({ garageId }).select('id'))
      .whereNull('byId')
      .groupBy('by')
      .orderByRaw('count(*) DESC, by')
      .select('by')
      .count('id as lineCount')) as unknown as { by: string; lineCount: number }[]
    const claims = (await this.knex('nameClaims')
      .join('people', 'people.id', 'nameClaims.personId')
      .where('nameClaims.garageId', garageId)
      .select('nameClaims.id', 'nameClaims.name', 'personId', 'people.name as personName')) as {
      id: string
      name: string
      personId: string
      personName: string
    }[]
    return typed
      .filter(({ by }) => isFreeName(by) || claims.some(({ name }) => name === by))
      .map(({ by, lineCount }) => {
        const claim = claims.find(({ name }) => name === by)
        return { name: by, lineCount: Number(lineCount), claim: claim ? { id: claim.id, personId: claim.personId, personName: claim.personName } : null }
      })
  }

  async claim(doer: Doer, { name, personId }: { name: string; personId: string }): Promise<void> {
    if (!isFreeName(name))
      throw new AppError('bad-input', `"${name}" is nobody's name: lines of the log bear it that nobody typed.`, {
        errors: [{ path: 'name', message: 'is nobody’s' }],
      })
    await this.knex.transaction(async (trx) => {
      const person = await memberOf(trx, doer.garageId, personId)
      const row = { id: randomUUID(), garageId: doer.garageId, name, personId, agreedBy: doer.personId }
      const made = await trx('nameClaims').insert(row).onConflict(['garage_id', 'name']).ignore().returning('id')
      if (made.length === 0) throw new AppError('duplicate', `"${name}" is claimed already. Take that claim back first.`)
      await noteDone(trx, doer, 'name claimed', `${name}: ${person.name}`)
    })
  }

  async unclaim(doer: Doer, id: string): Promise<void> {
    await this.knex.transaction(async (trx) => {
      const [gone] = await trx('nameClaims').where({ id, garageId: doer.garageId }).delete().returning('name')
      if (!gone) throw noSuch('claim')
      await noteDone(trx, doer, 'claim taken back', (gone as { name: string }).name)
    })
  }
}
