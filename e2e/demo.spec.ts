import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']

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
  await expect(table.getByRole('row')).toHaveCount(7)
  await expect(table.getByRole('row', { name: /Peak torque/ })).toContainText('rating of Six-speed, as bought')
  await expect(page.getByRole('img', { name: 'proof: confirmed' }).first()).toBeVisible()
  await expect(page.getByRole('link', { name: /kg unexplained/ })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Two dyno sessions disagree' })).toBeVisible()
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
  await expect(page.locator('th', { hasText: 'Mass, driver' }).first()).toContainText('kg')
  await page.getByRole('button', { name: /^Units/ }).click()
  await page.getByRole('button', { name: 'Imperial' }).click()
  await page.getByRole('combobox', { name: 'Power', exact: true }).selectOption('PS')
  await page.getByText('Comma, 1,5').click()
  await page.keyboard.press('Escape')
  const unitOf = (text: string) => page.locator('th', { hasText: text }).first()
  for (const _ of ['as picked', 'after a reload']) {
    await expect(unitOf('Mass, driver')).toContainText('lb')
    await expect(unitOf('Power, at the hubs')).toContainText('PS')
    await expect(page.getByRole('button', { name: /^2.945,\d.*open the working/ }).first()).toBeVisible()
    await page.reload()
  }
})

const SCREENS = [
  '/',
  '/new',
  'board',
  'plan',
  'plan?tab=goals',
  'plan?tab=expectations',
  'weight',
  'weight?tab=scales',
  'weight?tab=score',
  'weight?tab=finished',
  'weight?tab=centre',
  'weight?tab=balance',
  'weight?tab=ballast',
  'plan?tab=car',
  'devices',
  'power',
  'power?tab=compare',
  'power?tab=plan',
  'power?tab=links',
  'power?tab=hours&stage=c87ced6d-11a6-4ad2-87c7-ac10083d0a2f',
  'power?tab=live',
  'parts',
  'parts?tab=beside',
  'parts?tab=shelf',
  'parts?do=part',
  'log',
  '/open',
  '/formulas',
  '/formulas/mass.forecast',
  '/nowhere',
  '/builds/0a3aee49-6666-4879-938d-000000000000/board',
]

/** Findings of every rule, or of contrast alone. */
async function findings(page: Page, onlyContrast = false): Promise<string[]> {
  const scan = new AxeBuilder({ page })
  const { violations } = await (onlyContrast ? scan.withRules(['color-contrast']) : scan.withTags(TAGS)).analyze()
  return violations.map((entry) => `${entry.id} ${entry.nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`)
}

/** Findings of the page as it stands, in both themes: the second changes colours and nothing else. */
async function findingsInBoth(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const theme of ['light', 'dark']) {
    await page.evaluate((chosen) => {
      document.documentElement.dataset.theme = chosen
    }, theme)
    found.push(...(await findings(page, theme === 'dark')).map((finding) => `${theme}: ${finding}`))
  }
  return found
}

test.describe('no accessibility finding, light or dark', () => {
  for (const screen of SCREENS)
    test(`on ${screen}`, async ({ page }) => {
      await page.goto(screen.startsWith('/') ? screen : `${await buildAddress(page, 'Gannet')}/${screen}`)
      await page.locator('h1').first().waitFor()
      await page.waitForLoadState('networkidle')
      expect(await findingsInBoth(page)).toEqual([])
    })
  test('on a form with an error', async ({ page }) => {
    await page.goto(`${await buildAddress(page, 'Gannet')}/weight?tab=scales`)
    await page.getByRole('button', { name: 'Enter a weighing' }).click()
    await page.getByRole('button', { name: 'Store the weighing' }).click()
    await expect(page.getByText('No pad was read')).toBeVisible()
    expect(await findingsInBoth(page)).toEqual([])
  })
})

test('the scan itself finds a planted fault', async ({ page }) => {
  await page.goto('/')
  await page.evaluate(() => document.body.insertAdjacentHTML('beforeend', '<img src="/plates.svg"><input>'))
  expect((await findings(page)).length).toBeGreaterThan(0)
})

test('nothing scrolls sideways on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const build = await openDemo(page)
  const rooms = [
    'board',
    'plan',
    'plan?tab=car',
    'power',
    ...['compare', 'plan', 'links', 'hours', 'live'].map((tab) => `power?tab=${tab}`),
    'parts',
    'parts?tab=beside',
    'parts?tab=shelf',
    'devices',
    'log',
    'weight',
    ...['score', 'scales', 'finished', 'centre', 'balance', 'ballast'].map((tab) => `weight?tab=${tab}`),
  ]
  for (const room of rooms) {
    await page.goto(`${build}/${room}`)
    await page.locator('h1').first().waitFor()
    await page.waitForLoadState('networkidle')
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
    expect(wide, room).toBeLessThanOrEqual(0)
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
