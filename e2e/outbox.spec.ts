import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import knexPackage from 'knex'
import { freshBuild } from './fresh-build.ts'
import { expect, type Served, test } from './server.ts'

/** Numbers from a seed (mulberry32), so that a moment that went wrong can be tried again. */
function seeded(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

const stored = async (page: Page, path: string) => (await (await page.request.get(`/api${path}/changes`)).json()) as { id: string; name: string }[]

async function openLedger(page: Page): Promise<string> {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?stage=${stage}`)
  await page.locator('#entry').waitFor()
  return path
}

async function type(page: Page, text: string): Promise<void> {
  await page.locator('#entry').fill(text)
  await page.locator('#entry').press('Enter')
}

test('over 20 seeded moments of killing server, database and network, each entry is stored once and in order', async ({ page, context, served }) => {
  test.setTimeout(240_000)
  const admin = knexPackage.knex({ client: 'pg', connection: process.env.DATABASE_URL as string })
  const random = seeded(20_261_125)
  const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
  const path = await openLedger(page)
  const names: string[] = []
  for (let moment = 0; moment < 20; moment++) {
    const kind = ['server', 'database', 'network'][moment % 3]
    const before = Math.floor(random() * 60)
    const between = Math.floor(random() * 250)
    const down = 150 + Math.floor(random() * 700)
    const add = async (part: number) => {
      const name = `clip ${moment} ${part}`
      names.push(name)
      await type(page, `off ${name} 0.${part + 1} kg`)
    }
    await add(0)
    await wait(before)
    if (kind === 'server') await served.kill()
    else if (kind === 'network') await context.setOffline(true)
    else {
      await admin.raw(`ALTER DATABASE ${served.databaseName} WITH ALLOW_CONNECTIONS false`)
      await admin.raw('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = ?', [served.databaseName])
    }
    await wait(between)
    await add(1)
    await wait(down)
    if (kind === 'server') await served.start()
    else if (kind === 'network') await context.setOffline(false)
    else await admin.raw(`ALTER DATABASE ${served.databaseName} WITH ALLOW_CONNECTIONS true`)
    // Every fifth moment the page itself is closed and opened again while entries wait.
    if (moment % 5 === 4) await page.reload()
    await expect.poll(() => page.evaluate(() => localStorage.getItem('bold-ballast.outbox')), { timeout: 30_000, message: `moment ${moment}` }).toBe('[]')
  }
  const mine = (await stored(page, path)).map(({ name }) => name).filter((name) => name.startsWith('clip '))
  expect(mine).toEqual(names)
  await admin.destroy()
})

test('what waits survives a closed tab and goes out when one is opened again', async ({ context, page, served }) => {
  const path = await openLedger(page)
  await served.kill()
  await type(page, 'off tow hook 1.4 kg')
  await type(page, 'off tow hook cover 0.1 kg')
  await expect(page.getByText('2 entries wait for the server.')).toBeVisible()
  const address = page.url()
  await page.close()
  await served.start()
  const again = await context.newPage()
  await again.goto(address)
  await expect(again.getByRole('cell', { name: 'tow hook', exact: true })).toHaveCount(1, { timeout: 20_000 })
  await expect(again.getByRole('cell', { name: 'tow hook cover', exact: true })).toHaveCount(1)
  expect((await stored(again, path)).filter(({ name }) => name.startsWith('tow hook'))).toHaveLength(2)
})

test('what is refused stays in sight with the reason, and can be given up', async ({ page, served }) => {
  const path = await openLedger(page)
  await served.kill()
  await type(page, 'off jack point 0.9 kg')
  await expect(page.getByText('1 entry waits for the server.')).toBeVisible()
  // The stage goes while the entry waits.
  await page.evaluate((stageId) => {
    const items = JSON.parse(localStorage.getItem('bold-ballast.outbox') ?? '[]')
    items[0].body.stageId = stageId
    localStorage.setItem('bold-ballast.outbox', JSON.stringify(items))
  }, randomUUID())
  await served.start()
  await expect(page.getByText(/Not stored: off jack point/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('alert').filter({ hasText: 'no such stage' })).toBeVisible()
  await page.getByRole('button', { name: 'Give it up' }).click()
  await expect(page.getByText(/Not stored/)).toHaveCount(0)
  expect((await stored(page, path)).some(({ name }) => name === 'jack point')).toBe(false)
})

/** A weighing of a line that waits while the server is away, and what somebody else did to the line meanwhile. */
async function weighedBehind(page: Page, served: Served, theirs: string): Promise<void> {
  const path = await openLedger(page)
  await type(page, 'on skid plate 4 kg guess')
  await expect(page.getByRole('cell', { name: /^skid plate/ })).toBeVisible()
  await expect.poll(async () => (await stored(page, path)).some(({ name }) => name === 'skid plate')).toBe(true)
  const line = (await stored(page, path)).find(({ name }) => name === 'skid plate')
  await page.getByRole('button', { name: 'Weigh skid plate' }).click()
  await served.kill()
  await page.keyboard.type('4.6')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 entry waits for the server.')).toBeVisible()
  await served.query(`update changes set version = version + 1, updated_by = 'Odd', ${theirs} where id = $1`, [line?.id ?? ''])
  await served.start()
}

test('an edit that waited while somebody changed another field of it: both are kept, and it is said', async ({ page, served }) => {
  await weighedBehind(page, served, `name = 'longer skid plate'`)
  await expect(page.getByText(/Odd had changed something else of it meanwhile: both are kept/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('Not stored')).toHaveCount(0)
  await expect(page.getByRole('row').filter({ hasText: 'longer skid plate' })).toContainText('weighed')
  await page.getByRole('button', { name: 'Good' }).click()
  await expect(page.getByText(/both are kept/)).toHaveCount(0)
})

test('a conflict of one field that came out of the waiting is shown side by side, with who it was', async ({ page, served }) => {
  await weighedBehind(page, served, `values = jsonb_set(values, '{0,massKg}', '5')`)
  const alert = page.getByRole('alert').filter({ hasText: 'Not stored' })
  await expect(alert).toContainText('Odd changed it in the meantime', { timeout: 20_000 })
  await expect(alert.getByRole('columnheader', { name: /^Odd, / })).toBeVisible()
  await alert.getByRole('button', { name: 'Store mine' }).click()
  await expect(alert).toBeHidden()
  await expect(page.getByRole('row').filter({ hasText: 'skid plate' })).toContainText('weighed')
})

test('two edits of one record that waited go out one after the other, and neither meets the other as a stranger’s', async ({ page, served }) => {
  const path = await openLedger(page)
  await type(page, 'on skid plate 4 kg guess')
  await expect.poll(async () => (await stored(page, path)).some(({ name }) => name === 'skid plate')).toBe(true)
  await expect(page.getByRole('button', { name: 'Weigh skid plate' })).toBeVisible()
  await served.kill()
  for (const kg of ['4.6', '4.8']) {
    await page.getByRole('button', { name: 'Weigh skid plate' }).click()
    await page.keyboard.type(kg)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('2 entries wait for the server.')).toBeVisible()
  await served.start()
  await expect(page.getByText(/wait for the server/)).toHaveCount(0, { timeout: 20_000 })
  await expect(page.getByText('Not stored')).toHaveCount(0)
  const line = async () => (await stored(page, path)).find(({ name }) => name === 'skid plate') as unknown as { values: { massKg: number }[]; version: number }
  await expect.poll(async () => [(await line()).values.at(-1)?.massKg, (await line()).version], { timeout: 20_000 }).toEqual([4.8, 3])
  await expect(page.getByText('Not stored')).toHaveCount(0)
})
