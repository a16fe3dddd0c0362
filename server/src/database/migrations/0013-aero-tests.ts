import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Days at which the air was measured on the car, and their runs. */
export async function up(knex: Knex): Promise<void> {
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
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
