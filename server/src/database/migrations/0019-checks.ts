import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Checks and their marks, power boxes, circuits and plans of cooling; what plans of track time, uses, jobs, parts and builds gain. */
export async function up(knex: Knex): Promise<void> {
  await ofBuild(knex, 'checks', (made) => {
    for (const name of ['kind', 'name']) made.text(name).notNullable()
    for (const name of ['zone', 'tool', 'note']) made.text(name)
    within(made, 'part_id', 'parts', true)
    made.jsonb('rounds').notNullable()
    made.double('minutes')
    for (const name of ['is_safety', 'when_touched']) made.boolean(name)
    for (const name of ['place', 'every', 'bolt', 'level', 'gear', 'take', 'reading', 'gap']) made.jsonb(name)
  })
  await ofBuild(knex, 'marks', marks)
  await ofBuild(knex, 'power_boxes', (made) => {
    ofStage(made)
    made.text('name').notNullable()
    within(made, 'part_id', 'parts', true)
    for (const name of ['outputs', 'keep_free']) made.jsonb(name).notNullable()
    for (const name of ['load_share', 'system_v']) made.double(name).notNullable()
    for (const name of ['peak_share', 'total_a']) made.double(name)
    made.boolean('vital_alone').notNullable()
  })
  await ofBuild(knex, 'circuits', circuits)
  await ofBuild(knex, 'cooling_plans', (made) => {
    ofStage(made)
    for (const name of ['kind', 'mount']) made.text(name).notNullable()
    within(made, 'part_id', 'parts', true)
    for (const name of ['heat_w', 'load_share', 'face_share', 'thermostat_k']) made.double(name)
    for (const name of ['area_m2', 'flow_m3_per_s', 'fluid_l', 'metal_kg', 'stop_k', 'warm_k']) made.double(name).notNullable()
    for (const name of ['rating', 'cold']) made.jsonb(name)
    for (const name of ['hot', 'logged']) made.jsonb(name).notNullable()
  })
  await widen(knex)
  await knex.raw('CREATE INDEX marks_by_check ON marks (build_id, check_id)')
  for (const table of ['checks', 'circuits'])
    await knex.raw('CREATE UNIQUE INDEX ?? ON ?? (build_id, lower(name)) WHERE deleted_at IS NULL', [`${table}_once`, table])
  await knex.raw('CREATE UNIQUE INDEX power_boxes_once ON power_boxes (build_id, stage_id) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX cooling_plans_once ON cooling_plans (build_id, stage_id, kind) WHERE deleted_at IS NULL')
}

function marks(made: Knex.CreateTableBuilder): void {
  within(made, 'check_id', 'checks')
  ofStage(made)
  made.timestamp('at', { useTz: true }).notNullable()
  within(made, 'event_id', 'events', true)
  within(made, 'track_session_id', 'track_sessions', true)
  made.text('result').notNullable()
  for (const name of ['round', 'typed', 'note']) made.text(name)
  for (const name of ['value', 'sd']) made.double(name)
  made.jsonb('damage')
}

function circuits(made: Knex.CreateTableBuilder): void {
  within(made, 'stage_id', 'stages', true)
  for (const name of ['name', 'kind', 'known', 'return']) made.text(name).notNullable()
  for (const name of ['current_a', 'duty', 'start_factor', 'joint_ohm', 'temperature_k', 'drop_share']) made.double(name).notNullable()
  for (const name of ['sd_a', 'length_m', 'area_mm2']) made.double(name)
  for (const name of ['group', 'output', 'note']) made.text(name)
  for (const name of ['is_vital', 'is_pinned', 'behind_kill']) made.boolean(name).notNullable()
  made.jsonb('ends').notNullable()
}

/** What kinds that were there gain. */
async function widen(knex: Knex): Promise<void> {
  await knex.schema.alterTable('track_plans', (made) => {
    within(made, 'event_id', 'events', true)
    made.double('set_up_s').notNullable().defaultTo(480)
    for (const name of ['lap_s', 'fuel_per_lap_l']) made.double(name)
    made.integer('people').notNullable().defaultTo(2)
  })
  await knex.schema.alterTable('track_sessions', (made) => {
    made.integer('step')
  })
  await knex.schema.alterTable('part_uses', (made) => {
    made.text('kind').notNullable().defaultTo('use')
  })
  await knex.schema.alterTable('tasks', (made) => {
    within(made, 'check_id', 'checks', true)
  })
  await knex.schema.alterTable('parts', (made) => {
    made.jsonb('outer')
  })
  await knex.schema.alterTable('builds', (made) => {
    made.jsonb('supply')
    made.jsonb('spaces').notNullable().defaultTo('[]')
  })
  // Steps hold the fields that they gained.
  await knex.raw(`UPDATE track_plans SET steps = (
    SELECT coalesce(jsonb_agg('{"factor": null, "seconds": null, "overruled": null}'::jsonb || step ORDER BY place), '[]'::jsonb)
    FROM jsonb_array_elements(steps) WITH ORDINALITY AS each (step, place))`)
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
