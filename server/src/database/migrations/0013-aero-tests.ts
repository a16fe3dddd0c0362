import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Days at which the air was measured on the car, and their runs; how devices are held; what is turned at each corner. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('setups', (made) => {
    for (const name of ['corners', 'bars']) made.jsonb(name)
  })
  await ofBuild(knex, 'aero_tests', (made) => {
    ofStage(made)
    made.timestamp('at', { useTz: true }).notNullable()
    for (const name of ['kind', 'place_name']) made.text(name).notNullable()
    made.jsonb('ambient')
    made.double('gust_mps')
    for (const name of ['mass_kg', 'mass_sd_kg']) made.double(name).notNullable()
    made.double('rotating_kg')
    made.jsonb('picks').notNullable()
    for (const name of ['set_aside', 'note']) made.text(name)
  })
  await ofBuild(knex, 'aero_runs', (made) => {
    within(made, 'test_id', 'aero_tests')
    made.integer('position').notNullable()
    for (const name of ['coast', 'steady']) made.jsonb(name)
    made.text('set_aside')
  })
  await ofBuild(knex, 'mounts', (made) => {
    within(made, 'device_id', 'aero_devices')
    for (const name of ['carried_by', 'second']) made.text(name).notNullable()
    made.integer('uprights').notNullable()
    made.jsonb('feet').notNullable()
    for (const name of ['bolts', 'rods']) made.jsonb(name)
    made.double('load_factor').notNullable()
    for (const name of ['access', 'looked_at_by']) made.text(name)
    made.date('looked_at_on')
  })
  await knex.raw('CREATE UNIQUE INDEX mounts_once ON mounts (build_id, device_id) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
