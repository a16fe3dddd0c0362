// npm test: installs what is missing, then type check, lint, layers, unit and API tests on a PostgreSQL of their own, and the interface in Chromium.
// Ends with "N passed, N failed" alone on the last line; the first three count as one each.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'
import { buildAll, findChromium, installPackages, Refusal, root } from './install.mjs'
import { PgError, startPostgres } from './postgres.mjs'

const total = { passed: 0, failed: 0, skipped: 0 }
const bin = (name) => path.join(root, 'node_modules', '.bin', name)
const environment = { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' }
delete environment.PG_BIN

const run = (command, args) => spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env: environment }).status

function check(name, command, args) {
  console.log(`\n== ${name}`)
  const isGood = run(command, args) === 0
  total[isGood ? 'passed' : 'failed']++
  if (!isGood) console.error(`${name}: failed`)
}

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

async function main() {
  installPackages()
  environment.CHROMIUM = findChromium()
  mkdirSync(path.join(root, '.out'), { recursive: true })
  check('type check', bin('tsc'), ['-b'])
  check('format and lint', bin('biome'), ['check', '.'])
  check('promises', bin('eslint'), ['.'])
  check('layers', process.execPath, [path.join(root, 'scripts/check-layers.mjs')])
  const database = await startPostgres({ temporary: true, fast: true })
  environment.DATABASE_URL = database.url
  try {
    suite('unit and API tests', bin('vitest'), ['run'], '.out/vitest.json', (report) => ({
      passed: report.numPassedTests,
      failed: report.numFailedTests,
      skipped: report.numPendingTests + report.numTodoTests,
    }))
    buildAll()
    suite('interface', bin('playwright'), ['test'], '.out/playwright.json', ({ stats }) => ({
      passed: stats.expected + stats.flaky,
      failed: stats.unexpected,
      skipped: stats.skipped,
    }))
  } finally {
    await database.stop()
  }
}

try {
  await main()
} catch (error) {
  console.error(error instanceof Refusal || error instanceof PgError ? error.message : error)
  total.failed++
}
console.log(`${total.passed} passed, ${total.failed} failed${total.skipped ? `, ${total.skipped} skipped` : ''}`)
process.exit(total.failed > 0 ? 1 : 0)
