import type { Knex } from 'knex'

export interface PersonRow {
  readonly id: string
  readonly garageId: string
  readonly name: string
  readonly login: string | null
  readonly passwordHash: string | null
  readonly codeHash: string | null
  readonly state: 'invited' | 'active' | 'off'
  readonly epoch: number
}

export interface InvitationRow {
  readonly id: string
  readonly garageId: string | null
  readonly buildId: string | null
  readonly role: 'viewer' | 'crew' | 'owner'
  readonly until: string | null
  readonly personId: string | null
  readonly name: string | null
}

export interface NewPerson {
  readonly name: string
  readonly login: string
  readonly password: string
}

/** Rises with every change that ends what was signed in before. */
export const raiseEpoch = (db: Knex) => db.raw('epoch + 1')
