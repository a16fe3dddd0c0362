import type { Knex } from 'knex'

/** What takes long to work out, kept for every server and for the next start: by what it was worked out of, and by which program. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('kept_results', (table) => {
    table.uuid('build_id').notNullable().references('id').inTable('builds').onDelete('RESTRICT')
    table.text('name').notNullable()
    table.binary('hash').notNullable()
    table.binary('result').notNullable()
    table.timestamp('kept_at', { useTz: true }).notNullable().defaultTo(knex.fn.now())
    table.primary(['build_id', 'name', 'hash'])
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
