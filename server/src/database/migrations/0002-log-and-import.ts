import type { Knex } from 'knex'

/** What the log needs to take entries back, and what an import needs to be made once and in any order of its lines. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('history', (table) => {
    table.bigInteger('undoes')
    table.uuid('import_id').unique()
    table.index(['build_id', 'resource', 'record_id'])
  })
  for (const column of ['from_change_id', 'to_change_id']) {
    await knex.raw('ALTER TABLE changes ALTER CONSTRAINT ?? DEFERRABLE INITIALLY IMMEDIATE', [`changes_build_id_${column}_foreign`])
  }
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
