import type { Page } from '@playwright/test'
import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

type Devices = readonly { id: string; kind: string }[]

/** Both simulated devices, new for each test. */
test.beforeEach(async ({ page }) => {
  for (const kind of ['weather', 'logger']) expect((await page.request.post('/api/devices/stand-ins', { data: { kind } })).status()).toBe(201)
})
test.afterEach(async ({ page }) => {
  for (const { id } of (await (await page.request.get('/api/devices')).json()) as Devices)
    await page.request.delete(`/api/devices/stand-ins/${id}`, { data: {} })
})

/** A stored test is taken back where it was stored: other files read the tests of this build too. */
async function takenBack(page: Page, where: string) {
  await page.keyboard.press('Control+z')
  await expect(page.getByText(where)).toHaveCount(0)
}

const STAGE = 'cd6a4292-f27b-4af9-89bc-15a5956f5c71'
const STAGE_4 = '0df0fadc-d339-4b0f-a1d5-51dc51f10900'

test('a simulated logger coasts a car down: its runs fill the test, the air comes from a weather station by one key, and the drag it was given is found again', async ({
  page,
}) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/devices`)
  await expect(page.getByText(/kPa, .* humid, wind/)).toBeVisible()
  await page.getByRole('button', { name: 'A hot afternoon' }).click()
  await expect(page.getByText(/^100\.1.kPa, 3[01]\.\d.°C, 34.% humid/)).toBeVisible()
  await page.goto(`${build}/aero?tab=proof&stage=${STAGE}`)
  await page.getByRole('button', { name: 'New test' }).click()
  const dialog = page.getByRole('dialog')
  const runs = dialog.getByRole('region', { name: 'Runs of the logger' })
  await expect(runs.getByText('It told of no run yet.')).toBeVisible()
  await expect(runs.getByRole('button', { name: /^Take the runs/ })).toBeDisabled()
  await runs.getByLabel('Drag area').fill('0.9 m²')
  await runs.getByLabel('Slope of the way out').fill('steep')
  await runs.getByRole('button', { name: 'Coast 4 times both ways' }).click()
  await expect(runs.getByText(/"steep" cannot be read as a number/)).toBeVisible()
  await runs.getByLabel('Slope of the way out').fill('0.3 %')
  await runs.getByRole('button', { name: 'Coast 4 times both ways' }).click()
  await expect(runs.getByText('8 runs told: 4 pairs.')).toBeVisible({ timeout: 60_000 })
  await runs.getByRole('button', { name: /^Take the runs/ }).click()
  await dialog.getByLabel('Where', { exact: true }).fill('Tarwick, by the logger')
  await dialog.getByLabel('When').fill('2026-11-08T09:00')
  await dialog.getByLabel('Mass, as it rolled').press('Alt+a')
  await expect(dialog.getByLabel('Air pressure there')).toHaveValue(/^100\.\d+ kPa$/)
  await expect(dialog.getByLabel('Air temperature')).toHaveValue(/^3[01](\.\d+)?.°C$/)
  await dialog.getByRole('button', { name: 'Store the test' }).click()
  await expect(dialog).toBeHidden({ timeout: 20_000 })
  const detail = page.getByRole('region', { name: 'The test', exact: true })
  await expect(detail).toContainText('Tarwick, by the logger, 8 Nov 2026, stage 2')
  await expect(detail.getByRole('row')).toHaveCount(5)
  // It was driven in the build's air of 1.20; the hot air of the day is thinner, so that the same forces are of more area: 0.90 x 1.20 / 1.142.
  await expect(detail).toContainText(/0\.9[2-7]\dm²± 0\.0[1-4]/)
  await takenBack(page, 'Tarwick, by the logger')
})

test('held speeds by ride height and a pitot tube, out and back, from the car at rest', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=proof&stage=${STAGE_4}`)
  await page.getByRole('button', { name: 'New test' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('The test').selectOption('steady')
  const runs = dialog.getByRole('region', { name: 'Runs of the logger' })
  await runs.getByRole('button', { name: 'Hold four speeds both ways' }).click()
  await expect(runs.getByText('2 runs told: 8 held speeds, by ride height from the car at rest.')).toBeVisible({ timeout: 60_000 })
  await runs.getByRole('button', { name: /^Take the runs/ }).click()
  await expect(dialog.getByLabel('Driven out, a line each')).toHaveValue(/^7[12]\S* km\/h; .* mm; .* mm; ; \d+ Pa\n/)
  await dialog.getByLabel('Where', { exact: true }).fill('Tarwick, held by the logger')
  await dialog.getByLabel('When').fill('2026-11-08T15:00')
  await dialog.getByRole('button', { name: 'Store the test' }).click()
  await expect(dialog).toBeHidden({ timeout: 20_000 })
  const detail = page.getByRole('region', { name: 'The test', exact: true })
  await expect(detail).toContainText('Tarwick, held by the logger')
  await expect(detail).toContainText(/pitot/i)
  await takenBack(page, 'Tarwick, held by the logger')
})

test('the air of a station fills a dyno session and a day on track too', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/devices`)
  await page.getByRole('button', { name: 'In the hills' }).click()
  await expect(page.getByText(/^89\.3.kPa, 1[78]\.\d.°C/)).toBeVisible()
  await page.goto(`${build}/power?tab=pulls&do=session&stage=${STAGE}`)
  await page.getByRole('button', { name: /^Take the air of/ }).click()
  await expect(page.getByLabel('Air pressure', { exact: true })).toHaveValue(/^89\.\d+ kPa$/)
  await page.goto(`${build}/track?tab=sessions&do=session&stage=${STAGE}`)
  await page.getByRole('button', { name: /^Take the air of/ }).click()
  await expect(page.getByLabel('Air pressure there')).toHaveValue(/^89\.\d+ kPa$/)
  // Whoever lets the station go is offered its air no more.
  await page.goto(`${build}/devices`)
  await page.getByRole('button', { name: 'Stop it' }).click()
  await expect(page.getByText('One device, 1 connected')).toBeVisible()
  await page.goto(`${build}/track?tab=sessions&do=session&stage=${STAGE}`)
  await expect(page.getByLabel('Air pressure there')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Take the air of/ })).toBeHidden()
})
