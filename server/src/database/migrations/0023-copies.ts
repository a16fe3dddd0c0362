import type { Knex } from 'knex'

/** What is kept as bytes, and which columns hold them. */
const BYTES: Readonly<Record<string, string>> = { photo_bytes: 'bytes', pull_channels: 'samples', log_blocks: 'samples || fine || coarse' }

/** The digest of what is kept as bytes, and the copies that were taken of it all. */
export async function up(knex: Knex): Promise<void> {
  for (const [table, columns] of Object.entries(BYTES))
    await knex.raw(`ALTER TABLE ${table} ADD COLUMN sha256 bytea GENERATED ALWAYS AS (sha256(${columns})) STORED`)
  await knex.schema.createTable('copies', (table) => {
    table.uuid('id').primary()
    table.timestamp('taken_at', { useTz: true }).notNullable()
    table.text('path').notNullable()
    table.bigInteger('bytes').notNullable()
    // The last line of the log that is in it.
    table.bigInteger('entry_id').notNullable()
    table.timestamp('checked_at', { useTz: true })
    table.text('problem')
    table.timestamp('removed_at', { useTz: true })
    table.index('taken_at')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
