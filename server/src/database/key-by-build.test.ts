import { randomUUID } from 'node:crypto'
import knexPackage, { type Knex } from 'knex'
import { afterAll, beforeAll, expect, it, test } from 'vitest'
import { openDatabase } from './open.ts'

const name = `keys_${randomUUID().replaceAll('-', '')}`
const admin = knexPackage.knex({ client: 'pg', connection: process.env.DATABASE_URL as string })
let knex: Knex

const ids = {
  build: randomUUID(),
  stage: randomUUID(),
  off: randomUUID(),
  on: randomUUID(),
  box: randomUUID(),
  session: randomUUID(),
  pull: randomUUID(),
  photo: randomUUID(),
}
const made = { created_at: '2026-01-01T10:00:00Z', created_by: 'x', updated_at: '2026-01-01T10:00:00Z', updated_by: 'x', version: 3 }
const line = { stage_id: ids.stage, name: 'bench', count: 1, values: '[]', state: 'planned', touches_power: false, build_id: ids.build, ...made }

/** A database as it was before keys began with the build, with a record of every kind that another one names. */
beforeAll(async () => {
  await admin.raw(`CREATE DATABASE ${name}`)
  const url = new URL(process.env.DATABASE_URL as string)
  url.pathname = `/${name}`
  knex = openDatabase(url.href)
  for (let i = 0; i < 4; i++) await knex.migrate.up()
  await knex('builds').insert({
    id: ids.build,
    name: 'Old',
    discipline: 'track',
    driven_axles: 'rear',
    wheelbase_m: 2.5,
    track_front_m: 1.5,
    track_rear_m: 1.5,
    reference: '{}',
    power_basis: '{}',
    ...made,
  })
  await knex('stages').insert({ id: ids.stage, build_id: ids.build, position: 0, name: 'As bought', ...made })
  await knex('boxes').insert({ id: ids.box, build_id: ids.build, name: 'crate', empty_kg: 1, ...made })
  await knex('changes').insert({ id: ids.on, kind: 'on', ...line })
  await knex('changes').insert({ id: ids.off, kind: 'off', to_change_id: ids.on, box_id: ids.box, ...line })
  await knex('sessions').insert({
    id: ids.session,
    build_id: ids.build,
    stage_id: ids.stage,
    at: made.created_at,
    dyno_name: 'hall',
    place: 'hub',
    printed_standard: 'none',
    boost_control: 'none',
    ...made,
  })
  await knex('pulls').insert({
    id: ids.pull,
    build_id: ids.build,
    session_id: ids.session,
    position: 0,
    label: '1',
    peak_power_w: 1,
    peak_power_speed_rpm: 1,
    peak_torque_nm: 1,
    curve_step_rpm: 50,
    curve_first_speed_rpm: 50,
    curve_power_w: [1],
    curve_version: 1,
    row_count: 1,
    cut_row_count: 0,
    ...made,
  })
  await knex('pull_channels').insert({ pull_id: ids.pull, position: 0, role: 'speed', name: 'n', unit: 'rpm', samples: Buffer.alloc(16, 7) })
  await knex('photos').insert({ id: ids.photo, build_id: ids.build, record_id: ids.off, name: 'p', media_type: 'image/png', byte_count: 3, ...made })
  await knex('photo_bytes').insert({ photo_id: ids.photo, bytes: Buffer.from('abc') })
  await knex('limits').insert({ id: randomUUID(), build_id: ids.build, metric: 'massReady', sense: 'atMost', value: 1200, source: 'own', ...made })
  await knex.migrate.latest()
})
afterAll(async () => {
  await knex.destroy()
  await admin.raw(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`)
  await admin.destroy()
})

it('keeps every record, and gives samples and pictures their build', async () => {
  expect(await knex('pull_channels').first()).toMatchObject({ buildId: ids.build, pullId: ids.pull, samples: Buffer.alloc(16, 7) })
  expect(await knex('photo_bytes').first()).toMatchObject({ buildId: ids.build, bytes: Buffer.from('abc') })
  expect(await knex('changes').where({ id: ids.off }).first()).toMatchObject({ toChangeId: ids.on, boxId: ids.box, version: 3 })
  expect(await knex('limits').first()).toMatchObject({ value: 1200, untilStageId: null })
})

const other = randomUUID()
test.each([
  ['the same id in another build', () => knex('stages').insert({ id: ids.stage, build_id: other, position: 0, name: 'As bought', ...made }), null],
  [
    'a goal below zero',
    () => knex('limits').insert({ id: randomUUID(), build_id: ids.build, metric: 'massReady', sense: 'atLeast', value: -3, source: 'own', ...made }),
    null,
  ],
  ['the same id twice in one build', () => knex('stages').insert({ id: ids.stage, build_id: ids.build, position: 1, name: 'x', ...made }), /stages_pkey/],
  [
    'a line that names a stage of another build',
    () => knex('changes').insert({ id: randomUUID(), kind: 'off', ...line, build_id: other, stage_id: ids.session }),
    /foreign key/,
  ],
  [
    'samples of a pull of another build',
    () => knex('pull_channels').insert({ pull_id: ids.pull, build_id: other, position: 1, role: 'x', name: 'x', unit: '', samples: Buffer.alloc(8) }),
    /foreign key/,
  ],
  ['two places of one number', () => knex('stages').insert({ id: randomUUID(), build_id: ids.build, position: 0, name: 'x', ...made }), /stages_position_once/],
] as const)('%s', async (_, write, refusal) => {
  await knex('builds')
    .insert({ ...(await knex('builds').where({ id: ids.build }).first()), id: other })
    .onConflict('id')
    .ignore()
  if (refusal) await expect(write()).rejects.toThrow(refusal)
  else await write()
})

it('still checks lines that name lines, and boxes, only when asked to', async () => {
  await knex.transaction(async (trx) => {
    await trx.raw('SET CONSTRAINTS ALL DEFERRED')
    const [box, later] = [randomUUID(), randomUUID()]
    await trx('changes').insert({ id: randomUUID(), kind: 'off', ...line, box_id: box, to_change_id: later })
    await trx('boxes').insert({ id: box, build_id: ids.build, name: 'second', empty_kg: 0, ...made })
    await trx('changes').insert({ id: later, kind: 'on', ...line })
  })
})
