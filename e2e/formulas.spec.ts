import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

test.describe('formulas', () => {
  test('each can be tried, and a refusal names the field', async ({ page }) => {
    await page.goto('/formulas/dyno.power-torque')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('row', { name: /^power, W/ })).toContainText('272\u202f271')
    await page.getByLabel('speed, rpm').fill('fast')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByText('"fast" cannot be read as a number')).toBeVisible()
    await page.getByLabel('speed, rpm').fill('0')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('status')).toContainText('it must be more than 0')
  })

  test('a long one can be stopped, and worked out again', async ({ page }) => {
    await page.goto('/formulas/dyno.power-torque')
    const never = '**/api/calc/dyno.power-torque'
    await page.route(never, () => undefined)
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('button', { name: 'Working it out …' })).toBeDisabled()
    await page.getByRole('button', { name: 'Stop' }).press('Enter')
    await expect(page.getByRole('status').filter({ hasText: 'Stopped. Nothing was worked out.' })).toBeVisible()
    await page.unroute(never)
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('row', { name: /^power, W/ })).toBeVisible()
    await expect(page.getByText('Stopped. Nothing was worked out.')).toHaveCount(0)
  })

  test('a working sheet leads to its formula', async ({ page }) => {
    await page.goto(`${await buildAddress(page, 'Gannet')}/board`)
    await page
      .getByRole('button', { name: /open the working/ })
      .first()
      .click()
    await page.getByRole('link', { name: 'Formula build.mass-at-stage' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mass of the car at a stage')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('row', { name: /^mass, kg/ })).toBeVisible()
  })
})
