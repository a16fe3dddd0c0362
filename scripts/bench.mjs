// npm run bench: how fast the slice is on this machine; a table, never a test.
import path from 'node:path'
import { performance } from 'node:perf_hooks'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { buildAll, findChromium, installPackages, root } from './install.mjs'
import { startPostgres } from './postgres.mjs'

const rows = []
const quantile = (list, share) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))]
const times = async (count, work) => {
  const list = []
  for (let i = 0; i < count; i++) {
    const from = performance.now()
    await work(i)
    list.push(performance.now() - from)
  }
  return list
}
const put = (what, list) => rows.push({ what, 'median ms': quantile(list, 0.5).toFixed(1), 'p95 ms': quantile(list, 0.95).toFixed(1), runs: list.length })

installPackages()
const database = await startPostgres({ temporary: true })
buildAll()
const { startServer } = await import('../server/dist/main.js')
const server = await startServer({ databaseUrl: database.url, port: 4650, webRoot: path.join(root, 'web/dist'), demoRoot: path.join(root, 'demo') })
const json = async (address) => (await fetch(`${server.address}${address}`)).json()
const [entry] = await json('/api/builds')
const build = `/api/builds/${entry.build.id}`
for (const room of ['board', 'weight', 'power', 'records']) put(`GET ${room} (demo)`, await times(100, () => json(`${build}/${room}`)))

const parts = Array.from({ length: 300 }, (_, i) => ({ massKg: 1 + (i % 40) }))
const calculation = JSON.stringify({ knownKg: 900, parts })
put(
  'mass.forecast with 300 parts, over HTTP',
  await times(50, () =>
    fetch(`${server.address}/api/calc/mass.forecast`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: calculation }).then((answer) =>
      answer.json(),
    ),
  ),
)

const browser = await chromium.launch({ executablePath: findChromium(), args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
let scripts = []
put(
  'usable Board in a new page (demo)',
  await times(5, async () => {
    const page = await browser.newPage()
    const bodies = []
    page.on('response', (response) => response.url().endsWith('.js') && bodies.push(response.body()))
    await page.goto(`${server.address}/builds/${entry.build.id}/board`)
    await page.locator('table tbody tr').nth(4).waitFor()
    scripts = await Promise.all(bodies)
    await page.close()
  }),
)
const page = await browser.newPage()
await page.goto(`${server.address}/builds/${entry.build.id}/weight`)
await page.locator('#entry').waitFor()
put(
  'ledger line: Enter to row',
  await times(20, async (i) => {
    await page.locator('#entry').fill(`off bracket number${i} 0.4 kg`)
    await page.keyboard.press('Enter')
    await page
      .locator('td', { hasText: `number${i}` })
      .first()
      .waitFor()
  }),
)
await browser.close()
console.table(rows)
const scriptBytes = scripts.reduce((sum, body) => sum + gzipSync(body, { level: 9 }).length, 0)
console.log(`scripts before the Board is usable: ${(scriptBytes / 1000).toFixed(0)} kB gzip`)
await server.stop()
await database.stop()
process.exit(0)
