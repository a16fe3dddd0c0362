import type { Knex } from 'knex'

/** A weighing may be a total or two axle loads; a ledger line may wait, replace an off line and put in a part of the register. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('weighings', (table) => {
    table.jsonb('total')
    table.jsonb('axles')
  })
  await knex.schema.alterTable('changes', (table) => {
    table.uuid('replaces_change_id')
    table.boolean('waits').notNullable().defaultTo(false)
    table.uuid('part_id')
    table.foreign(['build_id', 'replaces_change_id'], 'changes_replaces').references(['build_id', 'id']).inTable('changes').onDelete('RESTRICT')
    table.foreign(['build_id', 'part_id'], 'changes_part').references(['build_id', 'id']).inTable('parts').onDelete('RESTRICT')
  })
  // Lines of one entry may name each other, in any order.
  for (const name of ['changes_replaces', 'changes_part']) await knex.raw('ALTER TABLE changes ALTER CONSTRAINT ?? DEFERRABLE INITIALLY IMMEDIATE', [name])
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
