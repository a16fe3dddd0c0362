import type { Knex } from 'knex'
import { ofBuild, ofStage, within } from './record-table.ts'

/** Hands, events, jobs, rule books, decisions and lessons; days and money of parts and lines. */
export async function up(knex: Knex): Promise<void> {
  await ofBuild(knex, 'rule_books', (made) => {
    for (const name of ['name', 'edition']) made.text(name).notNullable()
    made.boolean('is_shared').notNullable()
    made.jsonb('rules').notNullable()
  })
  await ofBuild(knex, 'hands', (made) => {
    made.text('name').notNullable()
    for (const name of ['hours_by_weekday', 'away']) made.jsonb(name).notNullable()
  })
  await ofBuild(knex, 'events', events)
  await ofBuild(knex, 'tasks', tasks)
  await ofBuild(knex, 'decisions', (made) => {
    ofStage(made)
    made.text('question').notNullable()
    for (const name of ['due_on', 'decided_on']) made.date(name)
    for (const name of ['criteria', 'options']) made.jsonb(name).notNullable()
    for (const name of ['chosen', 'reason', 'revisit']) made.text(name)
  })
  await ofBuild(knex, 'lessons', (made) => {
    for (const name of ['text', 'about']) made.text(name).notNullable()
    made.boolean('is_shared').notNullable()
  })
  await widen(knex)
  for (const table of ['tasks', 'decisions']) await knex.raw('CREATE INDEX ?? ON ?? (build_id, stage_id)', [`${table}_by_stage`, table])
  await knex.raw('CREATE UNIQUE INDEX hands_once ON hands (build_id, lower(name)) WHERE deleted_at IS NULL')
  await knex.raw('CREATE UNIQUE INDEX rule_books_once ON rule_books (build_id, lower(name), lower(edition)) WHERE deleted_at IS NULL')
}

function events(made: Knex.CreateTableBuilder): void {
  for (const name of ['name', 'kind']) made.text(name).notNullable()
  made.date('starts_on').notNullable()
  made.integer('days').notNullable()
  within(made, 'stage_id', 'stages', true)
  within(made, 'track_id', 'tracks', true)
  for (const name of ['booked_s', 'cost', 'paid']) made.double(name)
  made.double('hours_per_day').notNullable()
  made.date('leaves_on')
}

function tasks(made: Knex.CreateTableBuilder): void {
  ofStage(made)
  made.double('position').notNullable()
  for (const name of ['name', 'kind', 'state']) made.text(name).notNullable()
  for (const name of ['guess_h', 'guess_days', 'real_days', 'cost', 'paid']) made.double(name)
  for (const name of ['who_ids', 'after_ids', 'part_ids', 'change_ids', 'worked']) made.jsonb(name).notNullable()
  for (const name of ['holds', 'note']) made.text(name)
  for (const name of ['not_before', 'begun_on']) made.date(name)
  for (const name of ['is_optional', 'needs_car', 'is_away', 'teaches']) made.boolean(name).notNullable()
  made.timestamp('done_at', { useTz: true })
}

/** What kinds that were there gain. */
async function widen(knex: Knex): Promise<void> {
  await knex.schema.alterTable('parts', (made) => {
    for (const name of ['ordered_on', 'promised_on', 'came_on']) made.date(name)
    made.integer('lead_days')
    made.double('paid')
    made.text('cost_known')
    made.jsonb('take_off')
  })
  await knex.schema.alterTable('changes', (made) => {
    made.double('paid')
    made.jsonb('fate')
  })
  await knex.schema.alterTable('builds', (made) => {
    for (const name of ['money', 'session_start_h']) made.jsonb(name)
  })
  await knex.schema.alterTable('stages', (made) => {
    within(made, 'rule_book_id', 'rule_books', true)
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
