import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, afterEach, describe, expect, it, test } from 'vitest'
// @ts-expect-error a script without types
import { layerFaults } from './check-layers.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))
const folder = mkdtempSync(path.join(tmpdir(), 'planted-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A tree of the four workspaces with one planted file. */
function plant(file: string, text: string): string[] {
  rmSync(folder, { recursive: true, force: true })
  for (const workspace of ['core', 'contract', 'server', 'web']) mkdirSync(path.join(folder, workspace, 'src'), { recursive: true })
  writeFileSync(path.join(folder, file), text)
  return layerFaults(folder)
}

describe('the layer check finds a planted fault', () => {
  test.each([
    ['core reaching up', 'core/src/a.ts', "import '@bold-ballast/server'", /core may import nothing/],
    ['web reaching the server', 'web/src/a.ts', "import '@bold-ballast/server'", /web may import contract and core/],
    ['core doing input', 'core/src/a.ts', "import 'node:fs'", /core does no input/],
    ['a path out of a workspace', 'web/src/a.ts', "import '../../server/src/x.ts'", /reaches into another workspace/],
    ['a ring', 'core/src/a.ts', "import './a.ts'", /ring/],
  ])('%s', (_, file, text, sentence) => {
    expect(plant(file, text).join('\n')).toMatch(sentence)
  })
  it('and nothing in a clean tree', () => {
    expect(plant('core/src/a.ts', 'export const a = 1')).toEqual([])
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
    spawnSync(process.execPath, ['--import', 'tsx', path.join(root, 'scripts/calc.ts'), ...(name ? [name] : [])], { cwd: root, input, encoding: 'utf8' })
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
