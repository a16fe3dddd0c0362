// npm test: installs what is missing, then type check, lint, layers, unit and API tests on a PostgreSQL of their own, and the interface in Chromium.
//   npm test -- core web/src/ui e2e/weight.spec.ts   only the tests of these workspaces, folders or files
//   npm run check                                    types, lint, layers and the unit tests, without PostgreSQL and Chromium
// Ends with "N passed, N failed" alone on the last line; the first four count as one each.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, statSync } from 'node:fs'
import path from 'node:path'
import { buildAll, findChromium, findPdfToText, installPackages, Refusal, root } from './install.mjs'
import { PgError, startPostgres } from './postgres.mjs'

const total = { passed: 0, failed: 0, skipped: 0 }
const bin = (name) => path.join(root, 'node_modules', '.bin', name)
const environment = { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' }
delete environment.PG_BIN

const run = (command, args) => spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env: environment }).status

/** Checks that run beside each other; what each says is printed when it ends. */
const checkTogether = (checks) =>
  Promise.all(
    checks.map(
      ([name, command, args]) =>
        new Promise((resolve) => {
          const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], env: environment })
          const said = []
          for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk))
          const end = (isGood) => {
            console.log(`\n== ${name}\n${Buffer.concat(said)}`)
            total[isGood ? 'passed' : 'failed']++
            if (!isGood) console.error(`${name}: failed`)
            resolve()
          }
          child.once('error', () => end(false))
          child.once('close', (code) => end(code === 0))
        }),
    ),
  )

function suite(name, command, args, report, count) {
  console.log(`\n== ${name}`)
  rmSync(path.join(root, report), { force: true })
  const status = run(command, args)
  let found = { passed: 0, failed: 0, skipped: 0 }
  try {
    found = count(JSON.parse(readFileSync(path.join(root, report), 'utf8')))
  } catch (error) {
    console.error(`${name}: no report (${error.message})`)
  }
  // A runner that fails without a failed test, or that ran nothing, is one failure.
  if (found.failed === 0 && (status !== 0 || found.passed === 0)) {
    found.failed = 1
    console.error(`${name}: ended with ${status} after ${found.passed} tests`)
  }
  for (const key of Object.keys(total)) total[key] += found[key]
}

const isInterface = (wanted) => wanted.startsWith('e2e')
/** What needs a database: the API tests and the interface. */
const needsDatabase = (wanted) => isInterface(wanted) || wanted.startsWith('server')

async function checkAll() {
  await checkTogether([
    ['type check', bin('tsc'), ['-b']],
    ['promises', bin('eslint'), ['.']],
  ])
  await checkTogether([
    ['format and lint', bin('biome'), ['check', '.']],
    ['layers', process.execPath, [path.join(root, 'scripts/check-layers.mjs')]],
  ])
}

const runUnits = (name, args) =>
  suite(name, bin('vitest'), ['run', ...args], '.out/vitest.json', (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests,
    skipped: report.numPendingTests + report.numTodoTests,
  }))

function runInterface(paths) {
  environment.CHROMIUM = findChromium()
  findPdfToText()
  buildAll()
  suite('interface', bin('playwright'), ['test', ...paths], '.out/playwright.json', ({ stats }) => ({
    passed: stats.expected + stats.flaky,
    failed: stats.unexpected,
    skipped: stats.skipped,
  }))
}

/** Brings a database for what is done, where it is needed. */
async function withDatabase(isNeeded, work) {
  if (!isNeeded) return work()
  const database = await startPostgres({ temporary: true, fast: true })
  environment.DATABASE_URL = database.url
  try {
    work()
  } finally {
    await database.stop()
  }
}

/** Paths as the runners take them: from the root, and a workspace alone is its whole folder. */
function readWanted(args) {
  return args.map((arg) => {
    const wanted = path.relative(root, path.resolve(process.env.INIT_CWD ?? root, arg))
    if (!existsSync(path.join(root, wanted))) throw new Refusal(`There is no ${arg}. Name a workspace, a folder or a file of tests.`)
    return statSync(path.join(root, wanted)).isDirectory() ? `${wanted}/` : wanted
  })
}

async function main([first, ...rest]) {
  installPackages()
  mkdirSync(path.join(root, '.out'), { recursive: true })
  if (first === '--check') {
    await checkAll()
    return runUnits('unit tests', ['--project', 'core', '--project', 'web', '--project', 'scripts'])
  }
  const wanted = readWanted(first === undefined ? [] : [first, ...rest])
  if (wanted.length === 0) {
    await checkAll()
    return withDatabase(true, () => {
      runUnits('unit and API tests', [])
      runInterface([])
    })
  }
  const units = wanted.filter((each) => !isInterface(each))
  const projects = [...new Set(units.map((each) => each.split('/')[0]))].flatMap((project) => ['--project', project])
  return withDatabase(wanted.some(needsDatabase), () => {
    if (units.length > 0) runUnits('unit and API tests', [...projects, ...units])
    if (units.length < wanted.length) runInterface(wanted.filter(isInterface).filter((each) => each !== 'e2e/'))
  })
}

try {
  await main(process.argv.slice(2))
} catch (error) {
  console.error(error instanceof Refusal || error instanceof PgError ? error.message : error)
  total.failed++
}
console.log(`${total.passed} passed, ${total.failed} failed${total.skipped ? `, ${total.skipped} skipped` : ''}`)
process.exit(total.failed > 0 ? 1 : 0)
