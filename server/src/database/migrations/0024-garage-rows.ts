import type { Knex } from 'knex'

/** What the Garage says of each build, kept with the line of the log and the day that it is true of. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('garage_rows', (table) => {
    table.uuid('build_id').primary().references('id').inTable('builds').onDelete('RESTRICT')
    table.bigInteger('entry_id').notNullable()
    table.date('day').notNullable()
    // Which program's words and numbers it holds.
    table.integer('made_by').notNullable()
    table.jsonb('entry').notNullable()
  })
  await knex.raw('CREATE INDEX builds_by_name ON builds (garage_id, lower(name))')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
