import type { AuditAction } from '@bold-ballast/contract'
import type { Request } from 'express'
import type { Knex } from 'knex'
import { auditNetwork } from './addresses.ts'

export interface Audited {
  readonly action: AuditAction
  readonly subject: string
  readonly outcome?: 'done' | 'refused'
  readonly personId?: string | null
  readonly garageId?: string | null
  readonly buildId?: string | null
}

/** Writes down what was done about who may do what; nothing of it is ever changed. */
export async function writeAudit(db: Knex, request: Pick<Request, 'ip'> | null, { outcome = 'done', subject, ...rest }: Audited): Promise<void> {
  await db('audit').insert({ ...rest, outcome, subject: subject.slice(0, 200), address: request?.ip ? auditNetwork(request.ip) : null })
}

const KEPT_DAYS = 400

/** Forgets what is older than it is kept; only the role that owns the tables may. */
export const forgetOldAudit = (owner: Knex): Promise<number> =>
  owner('audit')
    .where('at', '<', owner.raw(`now() - interval '${KEPT_DAYS} days'`))
    .delete()
