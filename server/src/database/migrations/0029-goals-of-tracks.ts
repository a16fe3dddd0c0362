import type { Knex } from 'knex'
import { ofBuild, within } from './record-table.ts'

/** Goals of one track, what a line is expected to give, use of parts by session on track, the setting an engine ran on, and the choice of a fit. */
export async function up(knex: Knex): Promise<void> {
  for (const name of ['targets', 'limits'])
    await knex.schema.alterTable(name, (made) => {
      within(made, 'track_id', 'tracks', true)
    })
  await knex.raw('DROP INDEX targets_once')
  await knex.raw(
    'CREATE UNIQUE INDEX targets_once ON targets (build_id, metric, COALESCE(due_stage_id, build_id), COALESCE(track_id, build_id)) WHERE deleted_at IS NULL',
  )
  await knex.schema.alterTable('expectations', (made) => {
    within(made, 'change_id', 'changes', true)
  })
  await knex.schema.alterTable('part_uses', (made) => {
    within(made, 'track_session_id', 'track_sessions', true)
  })
  await knex.schema.alterTable('track_sessions', (made) => {
    within(made, 'dyno_session_id', 'sessions', true)
    made.text('dyno_setting_id')
  })
  await ofBuild(knex, 'lap_fits', (made) => {
    within(made, 'track_id', 'tracks')
    made.jsonb('track_session_ids').notNullable()
    made.text('factors').notNullable()
  })
  await knex.raw('CREATE UNIQUE INDEX lap_fits_once ON lap_fits (build_id, track_id) WHERE deleted_at IS NULL')
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
