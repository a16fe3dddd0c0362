import type { Knex } from 'knex'
import { recordTable, within } from './record-table.ts'

/** Parts and their use, engine plans, plans of pulls, what a dyno's columns are, schools of a session and of a build, channels beside a pull's curve. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('builds', (table) => {
    table.jsonb('driveline_loss')
  })
  await knex.schema.alterTable('sessions', (table) => {
    table.text('boost_school')
  })
  await knex.schema.alterTable('pulls', (table) => {
    table.jsonb('alongside')
  })
  await recordTable(knex, 'parts', (table) => {
    table.text('kind').notNullable()
    table.text('name').notNullable()
    table.integer('count').notNullable().checkPositive()
    table.jsonb('mass')
    table.jsonb('place')
    table.double('cost')
    table.jsonb('ratings').notNullable()
    table.jsonb('life')
    table.jsonb('extras').notNullable()
    table.text('pros')
    table.text('cons')
    table.text('status').notNullable()
    table.text('serial')
    within(table, 'stage_id', 'stages', true)
    table.boolean('is_shared').notNullable()
  })
  await recordTable(knex, 'part_uses', (table) => {
    within(table, 'part_id', 'parts')
    within(table, 'session_id', 'sessions', true)
    table.timestamp('at', { useTz: true }).notNullable()
    table.double('amount').notNullable().checkPositive()
    table.text('note')
  })
  await recordTable(knex, 'engine_plans', (table) => {
    within(table, 'stage_id', 'stages')
    table.jsonb('engine').notNullable()
    table.jsonb('target').notNullable()
    table.jsonb('air').notNullable()
    table.jsonb('burn').notNullable()
    table.jsonb('injectors')
    table.jsonb('pump')
  })
  await knex.raw('CREATE UNIQUE INDEX engine_plans_once ON engine_plans (stage_id) WHERE deleted_at IS NULL')
  await recordTable(knex, 'pull_plans', (table) => {
    within(table, 'stage_id', 'stages')
    for (const column of ['booked_s', 'set_up_s', 'pull_s', 'cooling_s']) table.double(column).notNullable()
    table.integer('first_pulls').notNullable()
    table.integer('base_pulls').notNullable().checkPositive()
    table.double('pull_sd_w')
    table.jsonb('changes').notNullable()
    table.boolean('returns_to_base').notNullable()
    table.jsonb('stops').notNullable()
  })
  await knex.raw('CREATE UNIQUE INDEX pull_plans_once ON pull_plans (stage_id) WHERE deleted_at IS NULL')
  await recordTable(knex, 'dyno_mappings', (table) => {
    table.text('dyno_name').notNullable()
    table.jsonb('columns').notNullable()
  })
  await knex.raw('CREATE UNIQUE INDEX dyno_mappings_once ON dyno_mappings (build_id, lower(dyno_name)) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
