import type { Knex } from 'knex'

/** Goals may be below zero or nothing, by what their metric allows, and a limit may end at a stage. */
export async function up(knex: Knex): Promise<void> {
  const found = await knex.raw(
    `SELECT conrelid::regclass::text AS "table", conname AS name FROM pg_constraint
     WHERE contype = 'c' AND connamespace = current_schema()::regnamespace AND conrelid::regclass::text IN ('limits', 'targets')
     AND pg_get_constraintdef(oid) LIKE '%value%'`,
  )
  for (const { table, name } of found.rows as { table: string; name: string }[]) await knex.raw('ALTER TABLE ?? DROP CONSTRAINT ??', [table, name])
  await knex.schema.alterTable('limits', (table) => {
    table.uuid('until_stage_id')
    table.foreign(['build_id', 'until_stage_id']).references(['build_id', 'id']).inTable('stages').onDelete('RESTRICT')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
