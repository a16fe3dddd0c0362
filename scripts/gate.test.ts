import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, afterEach, describe, expect, it, test } from 'vitest'
// @ts-expect-error a script without types
import { drawFloors, layerFaults } from './check-layers.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))
const folder = mkdtempSync(path.join(tmpdir(), 'planted-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A tree of the four workspaces with planted files. */
function plant(...files: (readonly [file: string, text: string])[]): string[] {
  rmSync(folder, { recursive: true, force: true })
  for (const workspace of ['core', 'contract', 'server', 'web']) mkdirSync(path.join(folder, workspace, 'src'), { recursive: true })
  for (const [file, text] of files) {
    mkdirSync(path.join(folder, path.dirname(file)), { recursive: true })
    writeFileSync(path.join(folder, file), text)
  }
  return layerFaults(folder)
}

describe('the layer check finds a planted fault', () => {
  test.each([
    ['core reaching up', 'core/src/units/a.ts', "import '@bold-ballast/server'", /core may import nothing/],
    ['web reaching the server', 'web/src/ui/a.ts', "import '@bold-ballast/server'", /web may import contract and core/],
    ['core doing input', 'core/src/units/a.ts', "import 'node:fs'", /core does no input/],
    ['a path out of a workspace', 'web/src/ui/a.ts', "import '../../../server/src/x.ts'", /reaches into another workspace/],
    ['a ring', 'core/src/units/a.ts', "import './a.ts'", /ring/],
  ])('%s', (_, file, text, sentence) => {
    expect(plant([file, text]).join('\n')).toMatch(sentence)
  })
  // An arrow up each workspace's floors, at every place where the folders once pointed back.
  test.each([
    ['core/src/records/a.ts', '../board/board.ts', /records\/a\.ts imports board\/board\.ts: board stands on a higher floor/],
    ['core/src/dyno/a.ts', '../rooms/power/b.ts', /rooms\/power stands on a higher floor/],
    ['core/src/rooms/weight/a.ts', '../power/b.ts', /rooms\/power stands on a higher floor/],
    ['core/src/stages/a.ts', '../calculations/b.ts', /calculations stands on a higher floor/],
    ['server/src/http/a.ts', '../records/b.ts', /records stands on a higher floor/],
    ['server/src/records/a.ts', '../pull-files/b.ts', /pull-files stands on a higher floor/],
    ['web/src/data/a.ts', '../ui/b.ts', /ui stands on a higher floor/],
    ['web/src/ui/a.ts', '../app/b.ts', /app stands on a higher floor/],
    ['web/src/shared/a.ts', '../features/weight/b.ts', /features\/weight stands on a higher floor/],
    ['web/src/features/power/a.ts', '../weight/b.ts', /rooms do not import each other/],
    ['core/src/somewhere/a.ts', '../errors.ts', /stands on no floor/],
  ])('an arrow up: %s importing %s', (file, to, sentence) => {
    expect(plant([file, `import '${to}'`]).join('\n')).toMatch(sentence)
  })
  it('a ring of folders without a ring of files', () => {
    const found = plant(
      ['server/src/builds/a.ts', "import '../photos/b.ts'"],
      ['server/src/photos/b.ts', ''],
      ['server/src/photos/c.ts', "import '../builds/d.ts'"],
      ['server/src/builds/d.ts', ''],
    )
    expect(found.join('\n')).toMatch(/ring of folders in server: builds → photos → builds/)
  })
  it('a test may look down on anything', () => {
    expect(plant(['core/src/records/a.test.ts', "import '../board/board.ts'"])).toEqual([])
  })
  it('and nothing in a clean tree', () => {
    expect(plant(['core/src/units/a.ts', 'export const a = 1'])).toEqual([])
  })
})

describe('formatter and linter find a planted fault', () => {
  const planted = path.join(root, 'scripts', 'planted-by-a-test.ts')
  afterEach(() => rmSync(planted, { force: true }))
  const check = (text: string) => {
    writeFileSync(planted, text)
    return spawnSync(path.join(root, 'node_modules/.bin/biome'), ['check', planted], { cwd: root, encoding: 'utf8' })
  }
  it('in layout', () => {
    expect(check('export const a   =  "b";\n').stderr).toMatch(/format/)
  })
  it('in code', () => {
    expect(check('export const a = () => {\n  debugger\n  return 1\n}\n').stderr).toMatch(/noDebugger/)
  })
  it('and nothing in clean code', () => {
    expect(check('export const a = 1\n').status).toBe(0)
  })
})

describe('the command line of the registry', () => {
  const calc = (name: string | undefined, input: string) =>
    spawnSync(process.execPath, ['--import', 'tsx', path.join(root, 'scripts/calc.ts'), ...(name ? [name] : [])], {
      cwd: root,
      input,
      encoding: 'utf8',
      maxBuffer: 64e6,
    })
  it('answers on standard output', () => {
    const { stdout, status } = calc('dyno.power-torque', '{"speedRpm":6500,"torqueNm":400}')
    expect(status).toBe(0)
    expect(JSON.parse(stdout).value.powerW).toBeCloseTo(272_271.36, 1)
  })
  it('refuses with exit 1 and the same JSON', () => {
    const { stdout, status } = calc('dyno.power-torque', '{"speedRpm":-1,"torqueNm":400}')
    expect(status).toBe(1)
    expect(JSON.parse(stdout)).toMatchObject({ ok: false, error: { code: 'out-of-range', field: 'speedRpm' } })
  })
  it('lists all without a name', () => {
    expect(JSON.parse(calc(undefined, '').stdout).length).toBeGreaterThanOrEqual(11)
  })
})

describe('the picture of the floors', () => {
  it('is drawn from the code: a new arrow stands in it', () => {
    plant(['core/src/board/a.ts', "import '../rooms/power/b.ts'"], ['core/src/rooms/power/b.ts', ''])
    expect(drawFloors(folder)).toMatch(/board\s+→ rooms\/power/)
  })
})
