import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'

const at = (table: Knex.CreateTableBuilder, column: string) => table.timestamp(column, { useTz: true })

/** A garage or one build, never both and never neither. */
const EITHER = 'num_nonnulls(garage_id, build_id) = 1'

async function makePeople(knex: Knex): Promise<void> {
  await knex.schema.createTable('people', (table) => {
    table.uuid('id').primary()
    table.uuid('garage_id').notNullable().references('id').inTable('garages').onDelete('RESTRICT')
    table.text('name').notNullable()
    // The name without case and without letters that only look like others.
    table.text('name_shape').notNullable()
    table.text('login')
    table.text('login_key').unique()
    table.text('password_hash')
    table.text('code_hash')
    table.text('state').notNullable().checkIn(['invited', 'active', 'off'])
    table.integer('epoch').notNullable().defaultTo(0)
    at(table, 'created_at').notNullable().defaultTo(knex.fn.now())
    at(table, 'here_at')
    table.unique(['garage_id', 'name_shape'])
  })
  await knex.schema.createTable('memberships', (table) => {
    table.uuid('id').primary()
    table.uuid('person_id').notNullable().references('id').inTable('people').onDelete('RESTRICT')
    table.uuid('garage_id').references('id').inTable('garages').onDelete('RESTRICT')
    table.uuid('build_id').references('id').inTable('builds').onDelete('RESTRICT')
    table.text('role').notNullable().checkIn(['viewer', 'crew', 'owner'])
    at(table, 'until')
    at(table, 'changed_at').notNullable().defaultTo(knex.fn.now())
    table.unique(['person_id', 'garage_id'])
    table.unique(['person_id', 'build_id'])
    table.check(EITHER)
    // Owners own a garage whole, and for good.
    table.check("role <> 'owner' OR (build_id IS NULL AND until IS NULL)")
  })
  await knex.schema.createTable('name_claims', (table) => {
    table.uuid('id').primary()
    table.uuid('garage_id').notNullable().references('id').inTable('garages').onDelete('RESTRICT')
    table.text('name').notNullable()
    table.uuid('person_id').notNullable().references('id').inTable('people').onDelete('RESTRICT')
    table.uuid('agreed_by').references('id').inTable('people').onDelete('RESTRICT')
    at(table, 'agreed_at').notNullable().defaultTo(knex.fn.now())
    table.unique(['garage_id', 'name'])
  })
}

async function makeLinks(knex: Knex): Promise<void> {
  await knex.schema.createTable('invitations', (table) => {
    table.uuid('id').primary()
    table.text('token_hash').notNullable().unique()
    table.uuid('garage_id').references('id').inTable('garages').onDelete('RESTRICT')
    table.uuid('build_id').references('id').inTable('builds').onDelete('RESTRICT')
    table.text('role').notNullable().checkIn(['viewer', 'crew', 'owner'])
    at(table, 'until')
    // One that is for a person who is here already sets a new password.
    table.uuid('person_id').references('id').inTable('people').onDelete('RESTRICT')
    table.text('name')
    at(table, 'made_at').notNullable().defaultTo(knex.fn.now())
    table.uuid('made_by').references('id').inTable('people').onDelete('RESTRICT')
    at(table, 'expires_at').notNullable()
    at(table, 'used_at')
    table.uuid('used_by').references('id').inTable('people').onDelete('RESTRICT')
    at(table, 'withdrawn_at')
    table.check(EITHER)
  })
  await knex.schema.createTable('share_links', (table) => {
    table.uuid('build_id').notNullable().references('id').inTable('builds').onDelete('RESTRICT')
    table.uuid('id').notNullable()
    table.text('token_hash').notNullable().unique()
    table.uuid('stage_id')
    at(table, 'made_at').notNullable().defaultTo(knex.fn.now())
    table.uuid('made_by').references('id').inTable('people').onDelete('RESTRICT')
    at(table, 'expires_at')
    at(table, 'withdrawn_at')
    table.integer('opens').notNullable().defaultTo(0)
    table.primary(['build_id', 'id'])
    table.foreign(['build_id', 'stage_id']).references(['build_id', 'id']).inTable('stages').onDelete('RESTRICT')
  })
}

async function makeTraces(knex: Knex): Promise<void> {
  await knex.schema.createTable('sign_ins', (table) => {
    table.text('sid').primary()
    table.json('sess').notNullable()
    table.timestamp('expire', { precision: 6 }).notNullable().index()
  })
  await knex.schema.createTable('tries', (table) => {
    table.string('key', 255).primary()
    table.integer('points').notNullable().defaultTo(0)
    table.bigInteger('expire')
  })
  await knex.schema.createTable('seen', (table) => {
    table.uuid('build_id').notNullable().references('id').inTable('builds').onDelete('RESTRICT')
    table.uuid('person_id').notNullable().references('id').inTable('people').onDelete('RESTRICT')
    table.bigInteger('entry_id').notNullable()
    at(table, 'at').notNullable().defaultTo(knex.fn.now())
    table.primary(['build_id', 'person_id'])
  })
  // Who is where: gone after a minute, and after a crash.
  await knex.raw(
    'CREATE UNLOGGED TABLE presence (build_id uuid NOT NULL, page uuid NOT NULL, person_id uuid NOT NULL, room text NOT NULL, record_id uuid, at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (build_id, page))',
  )
  await knex.schema.createTable('audit', (table) => {
    table.bigIncrements('id')
    at(table, 'at').notNullable().defaultTo(knex.fn.now())
    table.uuid('person_id')
    table.uuid('garage_id')
    table.uuid('build_id')
    table.text('action').notNullable()
    table.text('subject').notNullable()
    table.text('address')
    table.text('outcome').notNullable()
    table.index(['garage_id', 'id'])
  })
}

/** Garages, who is in them, what each may do, and how one signs in. Every build that was here stands in the first garage. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('garages', (table) => {
    table.uuid('id').primary()
    table.text('name').notNullable()
    table.text('goals_by').notNullable().defaultTo('crew').checkIn(['crew', 'owners'])
    at(table, 'made_at').notNullable().defaultTo(knex.fn.now())
  })
  const first = randomUUID()
  await knex('garages').insert({ id: first, name: 'Garage' })
  await knex.schema.alterTable('builds', (table) => {
    table.uuid('garage_id').references('id').inTable('garages').onDelete('RESTRICT').index()
  })
  await knex('builds').update({ garage_id: first })
  await knex.raw('ALTER TABLE builds ALTER COLUMN garage_id SET NOT NULL')
  await knex.schema.alterTable('history', (table) => {
    table.uuid('by_id')
  })
  await makePeople(knex)
  await makeLinks(knex)
  await makeTraces(knex)
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
