import knexPackage from 'knex'
import { expect, test } from './server.ts'

async function openLedger(page: import('@playwright/test').Page) {
  await page.goto('/')
  await page.getByRole('link', { name: 'Gannet' }).click()
  await page.getByRole('heading', { name: 'What next' }).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('w')
  await page.getByLabel('New ledger line').waitFor()
}

test('a server killed between the key press and the answer loses nothing and stores once', async ({ page, served }) => {
  await openLedger(page)
  await page.getByLabel('New ledger line').fill('off horn bracket 0.7 kg')
  await served.kill()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Kept here and sent again by itself/)).toBeVisible()
  await expect(page.getByText(/1 entry waits for the server/)).toBeVisible()
  await expect(page.getByRole('cell', { name: 'horn bracket not sent yet' })).toHaveCount(1)
  await served.start()
  await expect(page.getByRole('cell', { name: 'horn bracket', exact: true })).toHaveCount(1, { timeout: 20_000 })
  await expect(page.getByText(/waits for the server/)).toHaveCount(0)
})

test('an answer that was lost is not stored twice', async ({ page }) => {
  await openLedger(page)
  let isFirst = true
  await page.route('**/changes', async (route) => {
    if (route.request().method() === 'POST' && isFirst) {
      isFirst = false
      await route.fetch()
      await route.abort('connectionreset')
    } else await route.continue()
  })
  await page.getByLabel('New ledger line').fill('off tow eye 0.9 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('cell', { name: 'tow eye', exact: true })).toHaveCount(1, { timeout: 15_000 })
  await page.reload()
  await expect(page.getByRole('cell', { name: 'tow eye', exact: true })).toHaveCount(1)
})

test('a database that is cut off in the middle loses nothing and stores once', async ({ page, served }) => {
  await openLedger(page)
  const admin = knexPackage.knex({ client: 'pg', connection: process.env.DATABASE_URL as string })
  const cut = (allow: boolean) => admin.raw(`ALTER DATABASE ${served.databaseName} WITH ALLOW_CONNECTIONS ${allow}`)
  await cut(false)
  await admin.raw('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = ?', [served.databaseName])
  await page.getByLabel('New ledger line').fill('off mud flaps 1.1 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/database does not answer|server does not answer/i).first()).toBeVisible({ timeout: 15_000 })
  await cut(true)
  await expect(page.getByRole('cell', { name: 'mud flaps', exact: true })).toHaveCount(1, { timeout: 25_000 })
  await admin.destroy()
})

test('a line typed and not sent is still there after a reload', async ({ page }) => {
  await openLedger(page)
  await page.getByLabel('New ledger line').fill('off ash tray 0.3')
  await page.reload()
  await expect(page.getByLabel('New ledger line')).toHaveValue('off ash tray 0.3')
})
