import type { Knex } from 'knex'
import { recordTable, within } from './record-table.ts'

/** Places, boxes, conditions and second placements of weighings, lifted readings, corner balance, ballast and pictures. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('builds', (table) => {
    table.jsonb('fuel_place')
    table.jsonb('driver_place')
    table.jsonb('suspension')
    table.text('guess_pairs_from').notNullable().defaultTo('build')
    table.text('cross_convention').notNullable().defaultTo('rfLr')
  })
  await recordTable(knex, 'zones', (table) => {
    table.text('name').notNullable()
    table.jsonb('place')
  })
  await knex.raw('CREATE UNIQUE INDEX zones_once ON zones (build_id, lower(name)) WHERE deleted_at IS NULL')
  await recordTable(knex, 'boxes', (table) => {
    table.text('name').notNullable()
    table.text('instrument')
    table.double('reading_sd_kg')
    table.double('empty_kg').notNullable()
    table.text('typed')
  })
  await knex.schema.alterTable('changes', (table) => {
    table.jsonb('place')
    table.double('cost')
    table.double('hours')
    table.foreign(['build_id', 'box_id']).references(['build_id', 'id']).inTable('boxes').onDelete('RESTRICT').deferrable('immediate')
  })
  await knex.schema.alterTable('weighings', (table) => {
    table.jsonb('second_placement')
    table.jsonb('conditions')
  })
  await recordTable(knex, 'lifts', (table) => {
    within(table, 'weighing_id', 'weighings')
    table.timestamp('at', { useTz: true }).notNullable()
    table.text('lifted').notNullable()
    table.double('lift_m').notNullable().checkPositive()
    table.double('lift_sd_m')
    table.double('rear_axle_kg').notNullable().checkPositive()
    table.double('axle_sd_kg')
    table.double('radius_front_m').notNullable().checkPositive()
    table.double('radius_rear_m').notNullable().checkPositive()
    table.text('typed')
  })
  await recordTable(knex, 'balance_steps', (table) => {
    within(table, 'stage_id', 'stages')
    table.timestamp('at', { useTz: true }).notNullable()
    table.text('school').notNullable()
    table.double('wanted_cross_rf_lr').notNullable()
    table.jsonb('before').notNullable()
    table.jsonb('turns').notNullable()
    table.jsonb('after')
    table.text('note')
  })
  await recordTable(knex, 'sites', (table) => {
    table.text('name').notNullable()
    table.jsonb('place').notNullable()
    table.double('limit_kg').notNullable().checkPositive()
    table.jsonb('plates').notNullable()
  })
  await recordTable(knex, 'ballast_aims', (table) => {
    within(table, 'stage_id', 'stages')
    table.double('minimum_kg').notNullable().checkPositive()
    table.double('most_over_kg')
    table.jsonb('front')
    table.jsonb('left')
    table.jsonb('cross_rf_lr')
    table.text('objective').notNullable()
    table.double('load_factor_g')
    table.text('typed')
  })
  await knex.raw('CREATE UNIQUE INDEX ballast_aims_once ON ballast_aims (stage_id) WHERE deleted_at IS NULL')
  await recordTable(knex, 'photos', (table) => {
    table.uuid('record_id').notNullable()
    table.text('name').notNullable()
    table.text('media_type').notNullable()
    table.integer('byte_count').notNullable().checkPositive()
    table.index(['record_id'])
  })
  await knex.schema.createTable('photo_bytes', (table) => {
    table.uuid('photo_id').primary().references('id').inTable('photos').onDelete('RESTRICT')
    table.binary('bytes').notNullable()
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
