import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Drawn tracks, sessions on them with their laps and runs, what a stage brakes with, and what a booked hour is for. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('builds', (made) => {
    made.jsonb('lap_basis')
  })
  await ofBuild(knex, 'tracks', (made) => {
    for (const name of ['name', 'line']) made.text(name).notNullable()
    for (const name of ['is_shared', 'is_closed']) made.boolean(name).notNullable()
    for (const name of ['segments', 'marks']) made.jsonb(name).notNullable()
    made.jsonb('origin')
    for (const name of ['bearing_rad', 'altitude_m', 'cut_off_m']) made.double(name)
  })
  await ofBuild(knex, 'track_sessions', (made) => {
    ofStage(made)
    within(made, 'track_id', 'tracks')
    made.timestamp('at', { useTz: true }).notNullable()
    for (const name of ['kind', 'surface', 'tread_by', 'logger', 'timing']) made.text(name).notNullable()
    for (const name of ['driver', 'aim', 'words', 'set_aside']) made.text(name)
    for (const name of ['ambient', 'corners']) made.jsonb(name)
    for (const name of ['track_k', 'wind_mps', 'fuel_start_l', 'fuel_end_l', 'rear_pairs_used']) made.double(name)
    within(made, 'front_tyres_part_id', 'parts', true)
    within(made, 'rear_tyres_part_id', 'parts', true)
    made.jsonb('turned').notNullable()
    made.integer('ease')
  })
  await ofBuild(knex, 'laps', (made) => {
    within(made, 'track_session_id', 'track_sessions')
    made.integer('position').notNullable()
    made.double('lap_s').notNullable()
    made.jsonb('sector_s').notNullable()
    made.text('kind').notNullable()
    for (const name of ['typed', 'set_aside']) made.text(name)
  })
  await ofBuild(knex, 'drift_runs', (made) => {
    within(made, 'track_session_id', 'track_sessions')
    made.integer('position').notNullable()
    for (const name of ['entry_mps', 'angle_rad', 'score']) made.double(name)
    made.text('angle_by').notNullable()
    made.integer('gear')
    made.integer('straightened').notNullable()
    for (const name of ['words', 'typed', 'set_aside']) made.text(name)
  })
  await ofBuild(knex, 'brake_systems', (made) => {
    ofStage(made)
    for (const name of ['front', 'rear']) made.jsonb(name).notNullable()
    made.jsonb('masters')
    made.double('rear_valve').notNullable()
  })
  await ofBuild(knex, 'track_plans', (made) => {
    within(made, 'track_id', 'tracks')
    ofStage(made)
    made.double('booked_s').notNullable()
    made.jsonb('steps').notNullable()
  })
  for (const name of ['laps', 'drift_runs']) await knex.raw(`CREATE INDEX ${name}_by_session ON ${name} (build_id, track_session_id)`)
  await knex.raw('CREATE UNIQUE INDEX tracks_once ON tracks (build_id, lower(name)) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX brake_systems_once ON brake_systems (build_id, stage_id) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX track_plans_once ON track_plans (build_id, track_id, stage_id) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
