import type { Page } from '@playwright/test'
import { expect, test } from './server.ts'

async function openDemo(page: Page, room = 'board'): Promise<string> {
  await page.goto('/')
  await page.getByRole('link', { name: 'Gannet' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('targets not there yet')
  const build = /builds\/[^/]+/.exec(page.url())?.[0] ?? ''
  if (room !== 'board') await page.goto(`/${build}/${room}`)
  return `/${build}`
}

test('the demo shows its numbers, verdicts and what to do next', async ({ page }) => {
  const faults: string[] = []
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()))
  await openDemo(page)
  const table = page.getByRole('region', { name: 'Targets and limits by stage' })
  await expect(table.getByRole('row')).toHaveCount(20)
  await expect(table.getByRole('row', { name: /Peak torque/ })).toContainText('rating of Six-speed, as bought')
  await expect(page.getByRole('img', { name: 'proof: confirmed' }).first()).toBeVisible()
  await expect(page.getByRole('link', { name: /kg unexplained/ })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Two visits to the dyno disagree' })).toBeVisible()
  await table
    .getByRole('button', { name: /open the working/ })
    .first()
    .click()
  const sheet = page.getByRole('dialog')
  await expect(sheet).toContainText('What it rests on')
  await expect(sheet).toContainText('scales')
  await page.keyboard.press('Escape')
  await expect(sheet).toBeHidden()
  expect(faults).toEqual([])
})

test('the first screen of a long Board holds its title, every target and the first three of What next', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await openDemo(page)
  await expect(page.getByText('being worked out')).toHaveCount(0, { timeout: 20_000 })
  const table = page.getByRole('region', { name: 'Targets and limits by stage' })
  const targets = ['Mass', 'Power', 'Power to weight', 'Front share', 'Downforce', 'Aero balance', 'Lap']
  const heads = table.getByRole('rowheader')
  for (const [i, target] of targets.entries()) await expect(heads.nth(i)).toHaveText(new RegExp(`^${target}`))
  const first = page.getByRole('region', { name: 'What next' }).getByRole('listitem')
  await expect(first).toHaveCount(3)
  await expect(first.first()).toContainText('Peak torque breaks its limit')
  for (const seen of [page.getByRole('heading', { level: 1 }), first.last(), table.locator('tr[data-goal]').nth(targets.length - 1)]) {
    const box = await seen.boundingBox()
    expect((box?.y ?? 1e9) + (box?.height ?? 0)).toBeLessThanOrEqual(800)
  }
  await page.getByRole('button', { name: /^\d+ more$/ }).click()
  await expect(page.getByRole('region', { name: 'After that' }).getByRole('listitem')).toHaveCount(11)
})

test('what the page is made of comes packed', async ({ page, request }) => {
  await page.goto('/')
  const script = await page.locator('script[type=module]').first().getAttribute('src')
  const answer = await request.get(script ?? '', { headers: { 'accept-encoding': 'br' } })
  expect([answer.status(), answer.headers()['content-encoding']]).toEqual([200, 'br'])
})

test('keys move between rooms and stages, and the address keeps the pick', async ({ page }) => {
  await openDemo(page)
  await page.keyboard.press('g')
  await page.keyboard.press('w')
  await expect(page).toHaveURL(/weight/)
  await page.keyboard.press('[')
  await page.keyboard.press('[')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Stage 2')
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Stage 2')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('open Board')
  await page.keyboard.press('Escape')
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('measured')
  await expect(page.locator('.main-svg').first()).toBeVisible()
})

test('units by set and by quantity, and the decimal mark', async ({ page }) => {
  await openDemo(page)
  await expect(page.getByRole('rowheader', { name: /^Mass/ }).first()).toContainText('kg')
  await page.getByRole('button', { name: /^Units/ }).click()
  await page.getByRole('button', { name: 'Imperial' }).click()
  await page.getByRole('combobox', { name: 'Power', exact: true }).selectOption('PS')
  await page.getByText('Comma, 1,5').click()
  await page.keyboard.press('Escape')
  const unitOf = (text: string) => page.getByRole('rowheader', { name: new RegExp(`^${text}`) }).first()
  for (const _ of ['as picked', 'after a reload']) {
    await expect(unitOf('Mass')).toContainText('lb')
    await expect(unitOf('Power')).toContainText('PS')
    await expect(page.getByRole('button', { name: /^2.94\d,\d.*open the working/ }).first()).toBeVisible()
    await page.reload()
  }
})

test('two browsers editing one line see both versions and choose', async ({ page, browser }) => {
  const build = await openDemo(page, 'weight')
  const second = await (await browser.newContext()).newPage()
  await second.goto(`${new URL(page.url()).origin}${build}/weight`)
  for (const one of [page, second]) await one.getByRole('button', { name: 'Change flat floor and diffuser' }).click()
  await page.getByLabel('Zone').fill('floor')
  await page.getByRole('button', { name: 'Store the line' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await second.getByLabel('Zone').fill('below')
  await second.getByRole('button', { name: 'Store the line' }).click()
  await expect(second.getByRole('alert')).toContainText('in the meantime')
  await expect(second.getByRole('alert')).toContainText('floor')
  await second.getByRole('button', { name: 'Store mine' }).click()
  await expect(second.getByRole('dialog')).toBeHidden()
  await expect(second.getByRole('cell', { name: 'below' })).toBeVisible()
})
