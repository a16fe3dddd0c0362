import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Builds have an outline and say where aero is quoted; devices that the air works on, and what is turned at each stage. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('builds', (made) => {
    made.jsonb('aero_basis')
    made.jsonb('outline')
  })
  await ofBuild(knex, 'aero_devices', (made) => {
    made.text('kind').notNullable()
    made.text('name').notNullable()
    within(made, 'change_id', 'changes', true)
    within(made, 'off_change_id', 'changes', true)
    for (const name of ['box', 'wing', 'force']) made.jsonb(name)
    made.jsonb('notches').notNullable()
  })
  await ofBuild(knex, 'setups', (made) => {
    ofStage(made)
    made.jsonb('picks').notNullable()
    for (const name of ['front', 'rear']) made.jsonb(name)
  })
  await knex.raw('CREATE UNIQUE INDEX aero_devices_once ON aero_devices (build_id, lower(name)) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX setups_once ON setups (build_id, stage_id) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
