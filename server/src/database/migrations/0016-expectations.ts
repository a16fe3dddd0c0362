import type { Knex } from 'knex'
import { within } from './record-table.ts'

/** An expectation may be of a wished part. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('expectations', (made) => {
    within(made, 'part_id', 'parts', true)
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
