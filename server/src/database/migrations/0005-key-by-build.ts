import type { Knex } from 'knex'

/** The tables whose records belong to a build, as they were when this ran. */
const TABLES = [
  'stages',
  'limits',
  'targets',
  'changes',
  'expectations',
  'weighings',
  'in_cars',
  'sessions',
  'pulls',
  'standings',
  'zones',
  'boxes',
  'lifts',
  'balance_steps',
  'sites',
  'ballast_aims',
  'photos',
  'parts',
  'part_uses',
  'engine_plans',
  'pull_plans',
  'dyno_mappings',
]

/** One record of a stage: the index named, and the table it stands on. */
const ONE_PER_STAGE = ['standings', 'ballast_aims', 'engine_plans', 'pull_plans']

interface Constraint {
  readonly table: string
  readonly name: string
  readonly definition: string
}

const constraints = async (knex: Knex, type: 'f' | 'u'): Promise<Constraint[]> => {
  const found = await knex.raw(
    `SELECT conrelid::regclass::text AS "table", conname AS name, pg_get_constraintdef(oid) AS definition
     FROM pg_constraint WHERE contype = ? AND connamespace = current_schema()::regnamespace AND conrelid::regclass::text = ANY(?)`,
    [type, [...TABLES, 'pull_channels', 'photo_bytes']],
  )
  return found.rows as Constraint[]
}

/** Samples and pictures name the build of what they belong to. */
async function addBuildTo(knex: Knex, table: string, column: string, owner: string): Promise<void> {
  await knex.schema.alterTable(table, (altered) => {
    altered.uuid('build_id')
  })
  await knex.raw('UPDATE ?? SET build_id = owner.build_id FROM ?? AS owner WHERE owner.id = ??', [table, owner, `${table}.${column}`])
  await knex.raw('ALTER TABLE ?? ALTER COLUMN build_id SET NOT NULL', [table])
}

/**
 * Every key begins with the build: an id counts within its build alone, and no reference can name a record of another one.
 * What goes or comes back along with a record stands in the same entry of the log.
 */
export async function up(knex: Knex): Promise<void> {
  const references = await constraints(knex, 'f')
  for (const { table, name } of references) await knex.raw('ALTER TABLE ?? DROP CONSTRAINT ??', [table, name])
  await addBuildTo(knex, 'pull_channels', 'pull_id', 'pulls')
  await addBuildTo(knex, 'photo_bytes', 'photo_id', 'photos')
  const twins = (await constraints(knex, 'u')).filter(({ definition }) => definition === 'UNIQUE (build_id, id)')
  for (const { table, name } of twins) await knex.raw('ALTER TABLE ?? DROP CONSTRAINT ??', [table, name])
  for (const table of TABLES) {
    await knex.raw('ALTER TABLE ?? DROP CONSTRAINT ??, ADD PRIMARY KEY (build_id, id)', [table, `${table}_pkey`])
    await knex.raw('DROP INDEX ??', [`${table}_build_id_index`])
  }
  await knex.raw('ALTER TABLE pull_channels DROP CONSTRAINT pull_channels_pkey, ADD PRIMARY KEY (build_id, pull_id, position)')
  await knex.raw('ALTER TABLE photo_bytes DROP CONSTRAINT photo_bytes_pkey, ADD PRIMARY KEY (build_id, photo_id)')
  for (const { table, name, definition } of references) {
    if (table !== 'pull_channels' && table !== 'photo_bytes') await knex.raw(`ALTER TABLE ?? ADD CONSTRAINT ?? ${definition}`, [table, name])
  }
  await knex.raw('ALTER TABLE pull_channels ADD FOREIGN KEY (build_id, pull_id) REFERENCES pulls (build_id, id) ON DELETE RESTRICT')
  await knex.raw('ALTER TABLE photo_bytes ADD FOREIGN KEY (build_id, photo_id) REFERENCES photos (build_id, id) ON DELETE RESTRICT')
  for (const table of ONE_PER_STAGE) {
    await knex.raw('DROP INDEX ??', [`${table}_once`])
    await knex.raw('CREATE UNIQUE INDEX ?? ON ?? (build_id, stage_id) WHERE deleted_at IS NULL', [`${table}_once`, table])
  }
  await knex.raw('ALTER TABLE pulls DROP CONSTRAINT pulls_import_id_position_unique, ADD UNIQUE (build_id, import_id, position)')
  await knex.raw('DROP INDEX photos_record_id_index')
  await knex.raw('CREATE INDEX photos_record ON photos (build_id, record_id)')
  await knex.schema.alterTable('history', (table) => {
    table.jsonb('companions')
  })
}

export async function down(): Promise<void> {
  throw new Error('Migrations only go forward.')
}
