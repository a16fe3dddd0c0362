import { buildFields, KINDS, kindOf, listOfAddress } from '@bold-ballast/core'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { startTestServer, type TestServer } from '../../test/test-server.ts'
import { jsonFields, modelOf } from './models.ts'

let server: TestServer
let columns: { table: string; column: string }[]
let constraints: { table: string; type: string; text: string }[]
let indexes: { table: string; text: string }[]
beforeAll(async () => {
  server = await startTestServer()
  const rows = async (sql: string) => (await server.knex.raw(sql)).rows
  columns = await rows(`SELECT table_name AS "table", column_name AS "column" FROM information_schema.columns WHERE table_schema = 'public'`)
  constraints = await rows(
    `SELECT conrelid::regclass::text AS "table", contype AS type, pg_get_constraintdef(oid) AS text FROM pg_constraint WHERE connamespace = 'public'::regnamespace`,
  )
  indexes = await rows(`SELECT tablename AS "table", indexdef AS text FROM pg_indexes WHERE schemaname = 'public' AND indexdef LIKE 'CREATE UNIQUE%'`)
})
afterAll(() => server.stop())

const snake = (text: string) => text.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)
const META = ['build_id', 'version', 'created_at', 'created_by', 'updated_at', 'updated_by', 'deleted_at']
/** Columns beside the fields, and fields kept in columns of other names. */
const APART: Record<string, { more: string[]; less: string[] }> = {
  pulls: { more: ['curve_step_rpm', 'curve_first_speed_rpm', 'curve_power_w', 'curve_version', 'import_id'], less: ['curve'] },
  stages: { more: ['live_position'], less: [] },
}

describe.each(KINDS.map((kind) => [kind.list, kindOf(kind.list)] as const))('the table of %s holds what is declared', (list, kind) => {
  it('a column a field', () => {
    const { more, less } = APART[list] ?? { more: [], less: [] }
    const declared = [...Object.keys(kind.fields).filter((field) => !less.includes(field)), ...more].map(snake)
    expect(columns.flatMap(({ table, column }) => (table === kind.table ? [column] : [])).sort()).toEqual([...declared, ...META].sort())
  })
  it('a key and references that begin with the build', () => {
    const own = constraints.filter(({ table }) => table === kind.table)
    expect(own.find(({ type }) => type === 'p')?.text).toBe('PRIMARY KEY (build_id, id)')
    const named = own.filter(({ type }) => type === 'f').map(({ text }) => text.replace(/ ON DELETE.*/, ''))
    const declared = kind.refs.flatMap(({ field, to }) => (typeof to === 'string' ? [[field, kindOf(to as 'stages').table] as const] : []))
    expect(named.sort()).toEqual(
      [
        'FOREIGN KEY (build_id) REFERENCES builds(id)',
        ...declared.map(([field, to]) => `FOREIGN KEY (build_id, ${snake(field)}) REFERENCES ${to}(build_id, id)`),
      ].sort(),
    )
  })
  it('every list that it names, and every kind in one list', () => {
    for (const { to } of kind.refs) for (const other of [to].flat()) expect(KINDS.map((entry) => entry.list as string)).toContain(other)
    expect(modelOf(kind.address).tableName).toBe(kind.table)
  })
  it('one for each value of what is declared so', () => {
    const once = indexes.filter(({ table, text }) => table === kind.table && /_once/.test(text) && !/position_once/.test(text))
    expect(once.length).toBe(kind.onePer.length > 0 ? 1 : 0)
    expect(once[0]?.text ?? '(build_id').toMatch(/\(build_id/)
    for (const field of kind.onePer) expect(once[0]?.text).toContain(snake(field))
  })
})

// The lists that stood by hand in the models before they were derived.
test.each([
  ['stages', ['geometry', 'outline']],
  ['changes', ['values', 'place', 'fate']],
  ['weighings', ['pads', 'total', 'axles', 'extras', 'secondPlacement', 'conditions']],
  ['sessions', ['ambient', 'settings']],
  ['pulls', ['alongside']],
  ['standings', ['pullIds']],
  ['zones', ['place']],
  ['balanceSteps', ['before', 'turns', 'after']],
  ['sites', ['place', 'plates']],
  ['ballastAims', ['front', 'left', 'crossRfLr']],
  ['parts', ['mass', 'place', 'ratings', 'life', 'extras', 'drive', 'takeOff', 'outer']],
  ['courses', ['corners']],
  ['aeroDevices', ['box', 'wing', 'force', 'heightMap', 'notches']],
  ['setups', ['picks', 'front', 'rear', 'corners', 'bars']],
  ['aeroTests', ['ambient', 'picks']],
  ['aeroRuns', ['coast', 'steady']],
  ['mounts', ['feet', 'bolts', 'rods']],
  ['panelMaterials', ['core', 'thicknessesM', 'strips']],
  ['panels', ['rods']],
  ['tracks', ['segments', 'origin', 'marks']],
  ['trackSessions', ['ambient', 'corners', 'turned']],
  ['laps', ['sectorS']],
  ['brakeSystems', ['front', 'rear', 'masters']],
  ['trackPlans', ['steps']],
  ['checks', ['place', 'rounds', 'every', 'bolt', 'level', 'gear', 'take', 'reading', 'gap']],
  ['marks', ['damage']],
  ['powerBoxes', ['outputs', 'keepFree']],
  ['circuits', ['ends']],
  ['coolingPlans', ['rating', 'hot', 'cold', 'others', 'logged']],
  ['trackLogs', ['origin', 'channels', 'problems']],
  ['logWindows', ['points']],
  ['lapFits', ['trackSessionIds']],
  ['loggerMappings', ['columns']],
  ['ruleBooks', ['rules']],
  ['hands', ['hoursByWeekday', 'away']],
  ['tasks', ['whoIds', 'afterIds', 'partIds', 'changeIds', 'worked']],
  ['decisions', ['criteria', 'options']],
  ['driveSettings', ['pair', 'engineInertiaKgM2', 'gripUse', 'frontSlipRad', 'clutchHolding', 'centreHeightM', 'dragAreaM2', 'rollingCoefficient']],
  ['enginePlans', ['engine', 'target', 'air', 'burn', 'injectors', 'pump']],
  ['pullPlans', ['changes', 'stops']],
  ['dynoMappings', ['columns']],
  ...(['limits', 'targets', 'expectations', 'inCars', 'boxes', 'lifts', 'photos', 'partUses', 'readings', 'driftRuns', 'events', 'lessons'] as const).map(
    (list) => [list, []] as const,
  ),
] as const)('%s keeps %j as JSON', (list, expected) => {
  expect([...(modelOf(list).jsonAttributes ?? [])].sort()).toEqual([...expected].sort())
})

it('a build keeps its own parts as JSON', () => {
  expect(jsonFields(buildFields).sort()).toEqual(
    [
      'reference',
      'powerBasis',
      'drivers',
      'supply',
      'spaces',
      'baselineMass',
      'fuelPlace',
      'driverPlace',
      'suspension',
      'drivelineLoss',
      'driveBasis',
      'aeroBasis',
      'outline',
      'lapBasis',
      'money',
      'sessionStartH',
    ].sort(),
  )
})

it.each(KINDS.map(({ list, address }) => [address, list] as const))('the address %s is of the list %s', (address, list) => {
  expect(listOfAddress(address)).toBe(list)
})
