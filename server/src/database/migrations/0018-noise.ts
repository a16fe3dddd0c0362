import type { Knex } from 'knex'

/** How far off a reading of noise was taken. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('readings', (made) => {
    made.double('at_m')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
