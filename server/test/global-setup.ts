import knexPackage from 'knex'
import { bringUp } from '../src/database/migrate.ts'
import { openDatabase } from '../src/database/open.ts'

export const TEMPLATE = 'bold_ballast_template'

/** One migrated database that each test file clones. */
export async function setup(): Promise<void> {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('The API tests need DATABASE_URL: run npm test, which brings a PostgreSQL of its own.')
  const admin = knexPackage.knex({ client: 'pg', connection: url })
  await admin.raw(`DROP DATABASE IF EXISTS ${TEMPLATE} WITH (FORCE)`)
  await admin.raw(`CREATE DATABASE ${TEMPLATE}`)
  await admin.destroy()
  const made = new URL(url)
  made.pathname = `/${TEMPLATE}`
  const template = openDatabase(made.href)
  await bringUp({ knex: template, databaseUrl: made.href })
  await template.destroy()
}
