import type { Knex } from 'knex'
import { ofBuild, within } from './record-table.ts'

/** Logs of sessions on track with their samples in pieces, what parts of them stand for, and which column of a logger is what. */
export async function up(knex: Knex): Promise<void> {
  await ofBuild(knex, 'track_logs', (made) => {
    within(made, 'track_session_id', 'track_sessions')
    for (const name of ['logger_name', 'file_name']) made.text(name).notNullable()
    made.integer('row_count').notNullable()
    made.double('duration_s').notNullable()
    made.jsonb('origin')
    for (const name of ['channels', 'problems']) made.jsonb(name).notNullable()
  })
  await knex.schema.createTable('log_blocks', (made) => {
    made.uuid('build_id').notNullable()
    made.uuid('log_id').notNullable()
    made.integer('channel').notNullable()
    made.integer('block').notNullable()
    // Single floats; least and most of each 64 and of each 4,096 of them.
    for (const name of ['samples', 'fine', 'coarse']) made.binary(name).notNullable()
    made.primary(['build_id', 'log_id', 'channel', 'block'])
    made.foreign(['build_id', 'log_id']).references(['build_id', 'id']).inTable('track_logs').onDelete('RESTRICT')
  })
  // Samples hardly pack, and are read in pieces.
  for (const name of ['samples', 'fine', 'coarse']) await knex.raw('ALTER TABLE log_blocks ALTER COLUMN ?? SET STORAGE EXTERNAL', [name])
  await ofBuild(knex, 'log_windows', (made) => {
    within(made, 'log_id', 'track_logs')
    for (const name of ['from_s', 'to_s']) made.double(name).notNullable()
    made.text('of').notNullable()
    made.integer('gear')
    made.jsonb('points')
    made.double('grip')
    made.text('set_aside')
  })
  await ofBuild(knex, 'logger_mappings', (made) => {
    made.text('logger_name').notNullable()
    made.jsonb('columns').notNullable()
  })
  await knex.schema.alterTable('laps', (made) => {
    within(made, 'log_id', 'track_logs', true)
    made.double('from_s')
  })
  await knex.raw('CREATE INDEX track_logs_by_session ON track_logs (build_id, track_session_id)')
  await knex.raw('CREATE INDEX log_windows_by_log ON log_windows (build_id, log_id)')
  await knex.raw('CREATE UNIQUE INDEX logger_mappings_once ON logger_mappings (build_id, lower(logger_name)) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
