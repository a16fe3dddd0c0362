import type { Knex } from 'knex'

/** What comes and goes; anything else that is removed stays as a line that says so. */
const MAY_DELETE = ['sign_ins', 'tries', 'presence', 'memberships', 'name_claims', 'kept_results']
/** What is written once and never changed. */
const ONCE = ['history', 'audit']
const READ_ONLY = ['migrations', 'migrations_lock']

const list = (names: readonly string[]) => names.map((name) => `"${name}"`).join(', ')

/**
 * Gives a role what a serving program needs and no more: it changes no table, and neither alters nor removes a line of log or audit.
 * @param role an existing role of the database; letters, digits, _ and - alone
 */
export async function grantTo(knex: Knex, role: string): Promise<void> {
  if (!/^[\w-]{1,63}$/.test(role)) throw new Error(`"${role}" is no name of a role. Give letters, digits, _ and - alone.`)
  if (!(await knex('pg_roles').where({ rolname: role }).first('rolname')))
    throw new Error(`The database has no role named "${role}". Make it first: CREATE ROLE "${role}" LOGIN PASSWORD '…'.`)
  const to = `"${role}"`
  await knex.transaction(async (trx) => {
    await trx.raw(`REVOKE ALL ON ALL TABLES IN SCHEMA public FROM ${to}`)
    await trx.raw(`GRANT USAGE ON SCHEMA public TO ${to}`)
    await trx.raw(`GRANT SELECT, INSERT, UPDATE ON ALL TABLES IN SCHEMA public TO ${to}`)
    await trx.raw(`REVOKE INSERT, UPDATE ON ${list(READ_ONLY)} FROM ${to}`)
    await trx.raw(`REVOKE UPDATE ON ${list(ONCE)} FROM ${to}`)
    await trx.raw(`GRANT DELETE ON ${list(MAY_DELETE)} TO ${to}`)
    await trx.raw(`GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO ${to}`)
  })
}
