import type { Knex } from 'knex'
import { ofBuild, ofStage } from './record-table.ts'

/** Parts do something in the driveline, builds have their air and clock; what a stage chooses, courses, and what was read with an instrument. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('parts', (made) => {
    made.jsonb('drive')
    made.date('fitted_on')
  })
  await knex.schema.alterTable('builds', (made) => {
    made.double('air_density_kg_m3').notNullable().defaultTo(1.2)
    made.jsonb('drive_basis')
  })
  await ofBuild(knex, 'drive_settings', (made) => {
    ofStage(made)
    for (const name of ['top_rpm', 'launch_rpm', 'shock_factor', 'reserve_wanted']) made.double(name)
    for (const name of ['use', 'shock_school']) made.text(name)
    for (const name of [
      'pair',
      'engine_inertia_kg_m2',
      'grip_use',
      'front_slip_rad',
      'clutch_holding',
      'centre_height_m',
      'drag_area_m2',
      'rolling_coefficient',
    ])
      made.jsonb(name)
  })
  await ofBuild(knex, 'courses', (made) => {
    made.text('name').notNullable()
    made.boolean('is_shared').notNullable()
    made.boolean('is_closed').notNullable()
    made.double('braking_mps2').notNullable()
    made.jsonb('corners').notNullable()
  })
  await ofBuild(knex, 'readings', (made) => {
    ofStage(made)
    made.text('metric').notNullable()
    made.timestamp('at', { useTz: true }).notNullable()
    made.double('value').notNullable()
    made.double('sd')
    for (const name of ['instrument', 'timing', 'set_aside', 'typed']) made.text(name)
    made.text('surface').notNullable()
    made.double('roll_out_m').notNullable()
  })
  await knex.raw('CREATE UNIQUE INDEX drive_settings_once ON drive_settings (build_id, stage_id) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX courses_once ON courses (build_id, lower(name)) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
