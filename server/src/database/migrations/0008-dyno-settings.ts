import type { Knex } from 'knex'

/** A session has settings, of which each pull ran on one; a pull may be a peak alone. What a session said of its engine becomes its one setting. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE sessions ADD COLUMN settings jsonb')
  await knex.raw(
    `UPDATE sessions SET settings = jsonb_build_array(jsonb_build_object(
       'id', 'first', 'name', 'as it ran', 'fuel', fuel, 'ethanolShare', ethanol_share, 'boostControl', boost_control, 'boostPa', boost_pa, 'wasSet', NULL))`,
  )
  await knex.raw('ALTER TABLE sessions ALTER COLUMN settings SET NOT NULL')
  await knex.schema.alterTable('sessions', (table) => {
    table.dropColumns('fuel', 'ethanol_share', 'boost_control', 'boost_pa')
  })
  await knex.schema.alterTable('pulls', (table) => {
    table.text('setting_id')
  })
  await knex.schema.alterTable('standings', (table) => {
    table.text('setting_id')
  })
  for (const column of ['peak_power_speed_rpm', 'peak_torque_nm', 'curve_step_rpm', 'curve_first_speed_rpm', 'curve_power_w'])
    await knex.raw('ALTER TABLE pulls ALTER COLUMN ?? DROP NOT NULL', [column])
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
