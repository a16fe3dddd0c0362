import { expect, type Page } from '@playwright/test'
import { choose, countKeys, fill, findOrDo, press, tabTo } from './by-keys.ts'
import { freshBuild } from './fresh-build.ts'
import { test } from './server.ts'

// Two days at Skarvholm, by three crews, each from an empty build and by keyboard alone; what it costs in keys is kept from growing.

/** The airfield out of the garage, as another crew drew it. */
async function takeSkarvholm(page: Page, path: string): Promise<void> {
  await page.goto(`${path}/track?tab=tracks`)
  await page.getByRole('button', { name: 'Take Skarvholm airfield from Gannet' }).waitFor()
  await tabTo(page, /^Take Skarvholm airfield from Gannet/, 'button')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/2.734.m, 12 corners/)).toBeVisible()
}

async function paddock(page: Page, lines: readonly (readonly [typed: string, said: string | RegExp])[]): Promise<void> {
  for (const [typed, said] of lines) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
    await expect(page.getByText(said).first()).toBeVisible()
  }
}

test('a first drive in a booked hour: bedded, 65 and 80 percent, the rear locks, and the logger recorded nothing', async ({ page }) => {
  const keys = await countKeys(page)
  const { path, stage } = await freshBuild(page)
  await takeSkarvholm(page, path)
  await page.goto(`${path}/track?tab=sessions&stage=${stage}`)
  await press(page, 'Plan it')
  await page.getByRole('dialog').waitFor()
  await press(page, /^Store/)
  const plan = page.getByRole('region', { name: 'Plan of a booked spell' })
  await expect(plan.getByRole('listitem')).toHaveCount(4)
  await expect(plan.getByText(/60 minutes; the steps take about \d+/)).toBeVisible()
  const planned = keys()
  await findOrDo(page, 'new session on')
  await page.getByRole('dialog').waitFor()
  await choose(page, 'What it is', 'sha')
  await fill(page, 'What it is for', 'First drive')
  await choose(page, 'Logger', 'recorded n')
  await press(page, 'Store the session')
  const session = page.getByRole('region', { name: 'The session', exact: true })
  await expect(session.getByText(/The logger recorded nothing\./)).toBeVisible()
  await tabTo(page, 'A line of the paddock', 'textbox')
  await paddock(page, [
    ['2:02.4 slow 1:58.1 slow 1:57.7 slow', /Stored: 2:02\.40, slow/],
    ['say rear locked at the hairpin, middling pace', 'Stored: “rear locked at the hairpin, middling pace”.'],
    ['ease 2', 'Stored: ease 2 of 5.'],
    ['set brake bar to two turns front', 'Stored: brake bar to two turns front.'],
  ])
  await expect(session.getByText(/No lap is clean: it says nothing of the car\.|The driver was not at ease/).first()).toBeVisible()
  await expect(plan.getByRole('listitem')).toHaveCount(4)
  const tick = plan.getByRole('checkbox').first()
  await tick.focus()
  await page.keyboard.press('Space')
  await expect(tick).toBeChecked()
  // The hardware says the same as the driver did.
  await findOrDo(page, 'calipers')
  await page.getByRole('dialog').waitFor()
  for (const [name, text] of [
    ['Pistons of one side', '36 40'],
    ['Friction of the pad', '.45'],
    ['Middle of the pad from the hub’s centre', '135'],
    ['Mass of one disc', '9'],
  ] as const)
    await fill(page, name, text)
  for (const [name, text] of [
    ['Pistons of one side', '38 42'],
    ['Friction of the pad', '.45'],
    ['Middle of the pad from the hub’s centre', '130'],
    ['Mass of one disc', '6'],
  ] as const) {
    await page.keyboard.press('Tab')
    await fill(page, name, text)
  }
  await press(page, 'Save the brakes')
  await expect(page.getByText('The rear locks first').first()).toBeVisible()
  // Counted on the day it was written: 80 to the plan, 383 in all.
  expect(planned).toBeLessThan(95)
  expect(keys()).toBeLessThan(430)
})

test('twenty minutes between sessions: A, B and A again by their laps, pressures and words, and whether it was the bar', async ({ page }) => {
  const keys = await countKeys(page)
  const { path, stage } = await freshBuild(page)
  await takeSkarvholm(page, path)
  await page.goto(`${path}/track?tab=sessions&stage=${stage}`)
  const from = keys()
  const stint = async (aim: string, at: string, lines: readonly (readonly [string, string | RegExp])[]) => {
    await findOrDo(page, 'new session on')
    await page.getByRole('dialog').waitFor()
    await fill(page, 'What it is for', aim)
    await page.getByRole('dialog').getByLabel('When', { exact: true }).fill(at)
    await press(page, 'Store the session')
    await expect(page.getByRole('dialog')).toBeHidden()
    await findOrDo(page, 'type laps')
    await expect(page.getByLabel('A line of the paddock')).toBeFocused()
    await paddock(page, lines)
  }
  // The worked laps of the page: A, B and A again.
  await stint('Rear bar soft', '2026-10-10T09:00', [
    ['set rear bar soft', 'Stored: rear bar to soft.'],
    ['82.91 82.60 83.05 82.74', 'Stored: 1:22.91 · 1:22.60 · 1:23.05 · 1:22.74.'],
    ['hot 1.98 1.96 1.90 1.88 bar', /Stored: hot: 198/],
    ['say pushes wide', 'Stored: “pushes wide”.'],
  ])
  const one = keys() - from
  await stint('Rear bar middle', '2026-10-10T09:40', [
    ['set rear bar middle', 'Stored: rear bar to middle.'],
    ['82.31 82.52 82.12 82.40', 'Stored: 1:22.31'],
    ['hot 1.99 1.97 1.92 1.90 bar', /Stored: hot: 199/],
  ])
  await stint('Rear bar soft again', '2026-10-10T10:20', [
    ['set rear bar soft', 'Stored: rear bar to soft.'],
    ['82.79 82.93 82.70 83.01', 'Stored: 1:22.79'],
  ])
  // Was it faster? The last is held against the one before; the stint between two alike ones is asked by name.
  await page.keyboard.press('Escape')
  await page.keyboard.press('c')
  await expect(page).toHaveURL(/tab=compare/)
  await expect(page.getByRole('heading', { name: 'B is slower by 0.51 s' })).toBeVisible()
  await expect(page.getByText('rear bar turned from middle to soft')).toBeVisible()
  await tabTo(page, /^A/, 'combobox')
  await page.keyboard.press('ArrowUp')
  await tabTo(page, /^B/, 'combobox')
  await page.keyboard.press('ArrowUp')
  // Worked out beforehand of these twelve laps: -0.50375 +- 0.1037 s.
  await expect(page.getByText(/rear bar middle: −0\.50.s ±.0\.10/)).toBeVisible()
  await expect(page.getByText(/It leaves out zero: the change does that\./)).toBeVisible()
  expect(one).toBeLessThan(200)
  expect(keys() - from).toBeLessThan(540)
})

test('a drift crew: runs by the line, straightened ones, pairs used up, and what a season needs of tyres', async ({ page }) => {
  const keys = await countKeys(page)
  const { path, stage } = await freshBuild(page)
  await takeSkarvholm(page, path)
  await page.goto(`${path}/track?tab=sessions&stage=${stage}`)
  const from = keys()
  await findOrDo(page, 'new session on')
  await page.getByRole('dialog').waitFor()
  await choose(page, 'What it is', 'drift')
  await fill(page, 'What it is for', 'Apron, second gear or third')
  await press(page, 'Store the session')
  await expect(page.getByRole('dialog')).toBeHidden()
  await findOrDo(page, 'type laps')
  await expect(page.getByLabel('A line of the paddock')).toBeFocused()
  await paddock(page, [
    ['run 92 km/h 34 deg 2nd straightened', 'Stored: a run: 92 km/h, 34 °, gear 2, straightened.'],
    ['run 94 km/h 38 deg 3rd', 'Stored: a run: 94 km/h, 38 °, gear 3.'],
    ['pair', 'Stored: one more rear pair used up.'],
    ['run 95 km/h 39 deg 3rd', 'Stored: a run: 95 km/h, 39 °, gear 3.'],
    ['pair', 'Stored: one more rear pair used up.'],
  ])
  const summary = page.getByRole('region', { name: 'The session', exact: true })
  await expect(summary.getByText('3, 2')).toBeVisible()
  // 90 runs at 1.5 a pair and a tenth to spare: 66 pairs.
  await expect(summary.getByText('132 rear tyres')).toBeVisible()
  expect(keys() - from).toBeLessThan(215)
})
