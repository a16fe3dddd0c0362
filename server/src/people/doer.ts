import type { AuditAction } from '@bold-ballast/contract'
import type { Request } from 'express'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { writeAudit } from '../sign-in/audit.ts'
import type { PersonRow } from '../sign-in/rows.ts'

/** An owner who changes something of his garage. */
export interface Doer {
  readonly request: Request
  readonly personId: string
  readonly garageId: string
}

export const noSuch = (what: string): AppError => new AppError('not-found', `There is no such ${what} in this garage.`)

/** A person who is at home in a garage; refused where there is none of that id. */
export async function memberOf(db: Knex, garageId: string, personId: string): Promise<PersonRow> {
  const person = (await db('people').where({ id: personId, garageId }).first()) as PersonRow | undefined
  if (!person) throw noSuch('person')
  return person
}

/** Writes down what an owner did, with what it was about. */
export const noteDone = (
  trx: Knex,
  { request, personId, garageId }: Doer,
  action: AuditAction,
  subject: string,
  buildId: string | null = null,
): Promise<void> => writeAudit(trx, request, { action, subject, personId, garageId, buildId })
