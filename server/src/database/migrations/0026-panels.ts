import type { Knex } from 'knex'
import { ofBuild, within } from './record-table.ts'

/** Sheets of one's own with their strips; panels of devices, laid and held. */
export async function up(knex: Knex): Promise<void> {
  await ofBuild(knex, 'panel_materials', (made) => {
    made.text('name').notNullable()
    for (const name of ['young_pa', 'young_across_pa', 'poisson', 'price_over_ply']) made.double(name)
    for (const name of ['allowable_pa', 'density_kg_m3']) made.double(name).notNullable()
    made.jsonb('core')
    for (const name of ['thicknesses_m', 'strips']) made.jsonb(name).notNullable()
    made.text('note')
  })
  await knex.raw('CREATE UNIQUE INDEX panel_materials_once ON panel_materials (build_id, lower(name)) WHERE deleted_at IS NULL')
  await ofBuild(knex, 'panels', (made) => {
    within(made, 'device_id', 'aero_devices')
    within(made, 'material_id', 'panel_materials', true)
    made.text('sheet')
    for (const name of ['thickness_m', 'width_m', 'lip_m', 'carried_kg', 'load_factor', 'standing_n', 'most_tip_m']) made.double(name).notNullable()
    made.integer('layers').notNullable()
    for (const name of ['is_bonded', 'is_chosen']) made.boolean(name).notNullable()
    for (const name of ['span', 'support']) made.text(name).notNullable()
    made.double('rod_at_m')
    made.jsonb('rods')
    made.text('note')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
