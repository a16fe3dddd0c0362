import type { Knex } from 'knex'

/** A device may give more or less as it comes nearer to the ground. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('aero_devices', (table) => {
    table.jsonb('height_map')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
