import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { findings } from './findings.ts'
import { expect, test } from './server.ts'

const folder = mkdtempSync(path.join(tmpdir(), 'ballast-copies-'))
test.use({ copiesFolder: folder })
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

test('a copy is taken, tried out, spoiled and found out, by keys, from the Garage', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Copies' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'No copy was taken yet' })).toBeVisible()
  await expect(page.getByText(folder)).toBeVisible()

  await page.getByRole('button', { name: 'Take a copy now' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'A copy is being taken, or tried out' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take a copy now' })).toBeDisabled()
  await expect(page.getByRole('heading', { name: 'The last whole copy is less than a day old' })).toBeVisible({ timeout: 90_000 })
  const row = page.getByRole('row').nth(1)
  await expect(row).toContainText(/whole, /)
  await expect(row).toContainText(/\d(\.\d)? MB/)

  const taken = readdirSync(folder).find((name) => name !== 'bytes')
  if (!taken) throw new Error('the copy should lie in its folder')
  writeFileSync(path.join(folder, taken, 'database.dump'), 'spoiled')
  await page.getByRole('button', { name: /^Try out again the copy of/ }).focus()
  await page.keyboard.press('Enter')
  await expect(row).toContainText('database.dump is not the file that was written', { timeout: 60_000 })
  await expect(page.getByRole('heading', { name: 'No copy here is whole' })).toBeVisible()
  expect(await findings(page)).toEqual([])
})
