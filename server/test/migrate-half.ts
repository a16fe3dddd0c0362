// Makes seven migrations of an empty database as a start does, and then hangs in the midst of the eighth, for a test to kill.
import { alone } from '../src/database/migrate.ts'
import { openDatabase } from '../src/database/open.ts'

const databaseUrl = process.argv[2] as string
const knex = openDatabase(databaseUrl)
await alone(databaseUrl, async () => {
  for (let i = 0; i < 7; i++) await knex.migrate.up()
  await knex('migrations_lock').update({ is_locked: 1 })
  await knex.transaction(async (trx) => {
    await trx.schema.createTable('half_made', (table) => table.uuid('id').primary())
    process.stdout.write('half way\n')
    await new Promise((done) => setTimeout(done, 60_000))
  })
})
