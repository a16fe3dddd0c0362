import type { Knex } from 'knex'

/** Other cores and places beside the one that is planned. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('cooling_plans', (made) => {
    made.jsonb('others').notNullable().defaultTo('[]')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
