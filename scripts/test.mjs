// npm test: installs what is missing, then type check, lint, layers, unit and API tests on a PostgreSQL of their own, and the interface in Chromium.
// Ends with "N passed, N failed" alone on the last line; the first four count as one each.
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'
import { buildAll, findChromium, installPackages, Refusal, root } from './install.mjs'
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

async function main() {
  installPackages()
  environment.CHROMIUM = findChromium()
  mkdirSync(path.join(root, '.out'), { recursive: true })
  await checkTogether([
    ['type check', bin('tsc'), ['-b']],
    ['promises', bin('eslint'), ['.']],
  ])
  await checkTogether([
    ['format and lint', bin('biome'), ['check', '.']],
    ['layers', process.execPath, [path.join(root, 'scripts/check-layers.mjs')]],
  ])
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
