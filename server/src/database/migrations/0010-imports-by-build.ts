import type { Knex } from 'knex'

/** The id of a batch or an import counts for one build and one kind of entry. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('history', (table) => {
    table.dropUnique(['import_id'])
    table.unique(['build_id', 'action', 'import_id', 'resource'])
    table.index(['import_id'])
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
