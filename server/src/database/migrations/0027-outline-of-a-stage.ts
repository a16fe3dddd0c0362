import type { Knex } from 'knex'

/** The car by a tape may be another one from a stage on. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('stages', (table) => {
    table.jsonb('outline')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
