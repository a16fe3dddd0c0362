import type { Knex } from 'knex'

/** When a line of the log was typed, where it waited in a browser. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('history', (made) => {
    made.timestamp('typed_at', { useTz: true })
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
