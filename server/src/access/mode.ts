import type { Knex } from 'knex'

const KEY = 'closed'
const LOOK_MS = 1000

/** Whether people sign in: one row of the settings, made by the first owner, looked at again each second. */
export class Mode {
  private readonly knex: Knex
  private readonly now: () => number
  private known: { readonly isClosed: boolean; readonly at: number } | undefined

  constructor(knex: Knex, now: () => number = Date.now) {
    this.knex = knex
    this.now = now
  }

  async isClosed(): Promise<boolean> {
    if (this.known && this.now() - this.known.at < LOOK_MS) return this.known.isClosed
    const isClosed = (await this.knex('settings').where({ key: KEY }).first('key')) !== undefined
    this.known = { isClosed, at: this.now() }
    return isClosed
  }

  /** Somebody else may have closed or opened it: the next look is a new one. */
  forget(): void {
    this.known = undefined
  }

  /** Closes it for the first owner; false where another one was first. */
  static async close(trx: Knex, personId: string): Promise<boolean> {
    return (await trx('settings').insert({ key: KEY, value: personId }).onConflict('key').ignore().returning('key')).length > 0
  }

  static async open(trx: Knex): Promise<boolean> {
    return (await trx('settings').where({ key: KEY }).delete()) > 0
  }
}
