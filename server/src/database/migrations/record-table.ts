import type { Knex } from 'knex'

export function meta(table: Knex.CreateTableBuilder): void {
  table.integer('version').notNullable().defaultTo(1)
  table.timestamp('created_at', { useTz: true }).notNullable()
  table.text('created_by').notNullable()
  table.timestamp('updated_at', { useTz: true }).notNullable()
  table.text('updated_by').notNullable()
  table.timestamp('deleted_at', { useTz: true })
}

/** A table of records of a build; (build_id, id) is unique so that others can refer to it within the same build only. */
export async function recordTable(knex: Knex, name: string, columns: (table: Knex.CreateTableBuilder) => void): Promise<void> {
  await knex.schema.createTable(name, (table) => {
    table.uuid('id').primary()
    table.uuid('build_id').notNullable().references('id').inTable('builds').onDelete('RESTRICT')
    // Before the columns, because a record may refer to another of its own table.
    table.unique(['build_id', 'id'])
    columns(table)
    meta(table)
    table.index(['build_id'])
  })
}

/** A reference to a record of the same build. */
export function within(table: Knex.CreateTableBuilder, column: string, other: string, isOptional = false): void {
  const made = table.uuid(column)
  if (!isOptional) made.notNullable()
  table.foreign(['build_id', column]).references(['build_id', 'id']).inTable(other).onDelete('RESTRICT')
}

/** A table of records of a build whose key begins with the build. */
export async function ofBuild(knex: Knex, name: string, columns: (table: Knex.CreateTableBuilder) => void): Promise<void> {
  await knex.schema.createTable(name, (made) => {
    made.uuid('build_id').notNullable().references('id').inTable('builds').onDelete('RESTRICT')
    made.uuid('id').notNullable()
    made.primary(['build_id', 'id'])
    columns(made)
    meta(made)
  })
}

/** A record of a stage of its build. */
export const ofStage = (table: Knex.CreateTableBuilder): void => within(table, 'stage_id', 'stages')
