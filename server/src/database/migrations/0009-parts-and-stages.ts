import type { Knex } from 'knex'

/** Parts have a role in the fuel system, pumps spare ones, a stage its own geometry, a build its drivers, of whom weighings and goals may name one. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('parts', (table) => {
    table.text('fuel_role')
  })
  await knex.raw(`UPDATE engine_plans SET pump = pump || '{"spareCount": 0}' WHERE pump IS NOT NULL`)
  await knex.schema.alterTable('stages', (table) => {
    table.jsonb('geometry')
  })
  await knex.raw(`ALTER TABLE builds ADD COLUMN drivers jsonb NOT NULL DEFAULT '[]'`)
  for (const name of ['weighings', 'targets', 'limits'])
    await knex.schema.alterTable(name, (table) => {
      table.text('driver_name')
    })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
