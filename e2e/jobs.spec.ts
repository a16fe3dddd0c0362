import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { expect, test } from './server.ts'

// Real jobs from an empty build, with every expected number worked by hand (invented names and numbers).

/** A build made through the form, with stages of these names after the first; answers its address and the ids of its stages. */
async function newBuild(page: Page, name: string, stages: readonly string[], fields: Readonly<Record<string, string>> = {}) {
  await page.goto('/new')
  const values = { 'Name of the build': name, Wheelbase: '2570 mm', 'Front track': '1500 mm', 'Rear track': '1520 mm', ...fields }
  for (const [label, value] of Object.entries(values)) await page.getByLabel(label, { exact: true }).fill(value)
  await page.getByRole('button', { name: 'Make the build' }).click()
  await expect(page).toHaveURL(/\/plan/)
  for (const stage of stages) {
    await page.getByLabel('Name', { exact: true }).fill(stage)
    await page.getByLabel('Name', { exact: true }).press('Enter')
    await expect(page.getByText(stage, { exact: true }).first()).toBeVisible()
  }
  const path = new URL(page.url()).pathname.replace(/\/plan.*/, '')
  const found = (await (await page.request.get(`/api${path}/stages`)).json()) as { id: string; position: number }[]
  return { path, stages: found.sort((a, b) => a.position - b.position).map(({ id }) => id) }
}

async function typeLine(page: Page, text: string): Promise<void> {
  await page.locator('#entry').fill(text)
  await page.locator('#entry').press('Enter')
  await expect(page.locator('#entry')).toHaveValue('')
}

async function weighTotal(page: Page, path: string, stage: string, total: string): Promise<void> {
  await page.goto(`${path}/weight?stage=${stage}&tab=scales&do=weighing`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('How it stands').selectOption('total')
  await dialog.getByLabel('The whole car').fill(total)
  await dialog.getByLabel('Driver in the car').fill('80')
  await dialog.getByLabel('Fuel in the tank').fill('20')
  await dialog.getByRole('button', { name: 'Store the weighing' }).click()
  await expect(dialog).toBeHidden()
}

const massRow = (page: Page) => page.getByRole('row', { name: /^Mass/ })

test('a week of stripping: 15.0 found, 62.0 waits, the goal passed by 1.0', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Dunlin', ['Strip'])
  await page.goto(`${path}/plan?tab=goals`)
  await page.getByLabel('Of', { exact: true }).selectOption('massOff')
  await page.getByLabel('Sense', { exact: true }).selectOption('atLeast')
  await page.getByLabel('Value', { exact: true }).fill('14 kg')
  await page.getByLabel('Value', { exact: true }).press('Enter')
  await expect(page.getByText('14 kg').first()).toBeVisible()
  await page.goto(`${path}/weight?stage=${stages[1]}`)
  await typeLine(page, 'off front seats 2 x 8 kg')
  await typeLine(page, 'on shells 2 x 4 kg guess replaces front seats')
  await typeLine(page, 'off carpet 5 kg')
  await typeLine(page, 'off horn 2 kg')
  await typeLine(page, 'off doors 2 x 31 kg waits')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Stage 1: 15.0 kg found, 62.0 kg waits; goal passed by 1.0 kg')
  await expect(page.getByRole('row').filter({ hasText: 'doors' })).toContainText('waits')
  await page.locator('#entry').fill('off bench 18.6 kg seat 4 kg')
  await expect(page.getByText(/A second mass stands in this line/)).toBeVisible()
})

test('three weighings and nothing listed: each stage has its own mass, the empty last one no plan, and one line explains a difference', async ({ page }) => {
  const papers = { 'Mass before any weighing': '1451.5 kg' }
  const { path, stages } = await newBuild(page, 'Knot', ['Strip', 'Engine', 'Body'], papers)
  await page.goto(`${path}/plan?tab=goals`)
  await page.getByLabel('Value', { exact: true }).fill('1134 kg')
  await page.getByLabel('Value', { exact: true }).press('Enter')
  await expect(page.getByText('1 134 kg').first()).toBeVisible()
  await weighTotal(page, path, stages[1] ?? '', '537.5 kg')
  await weighTotal(page, path, stages[2] ?? '', '691.3 kg')
  await page.goto(path)
  for (const mass of [/1.45\d/, /53[78]/, /691/]) await expect(massRow(page)).toContainText(mass)
  await expect(massRow(page)).toContainText('from stage 2')
  await expect(massRow(page)).toContainText('no plan: stage 3 lists nothing yet')
  await expect(page.getByRole('link', { name: 'Stage 2 Engine lists nothing' })).toBeVisible()
  await expect(page.getByText('Two weighings disagree')).toHaveCount(0)
  await page.getByRole('link', { name: 'Stage 2 Engine lists nothing' }).click()
  await page.getByRole('button', { name: 'List it as one line' }).click()
  await expect(page.getByRole('row').filter({ hasText: 'Not listed' })).toContainText('153.8')
  await expect(page.getByRole('row').filter({ hasText: 'Not listed' })).toContainText('worked out')
  await page.goto(path)
  await expect(page.getByRole('link', { name: 'Stage 2 Engine lists nothing' })).toHaveCount(0)
})

test('three pads and a total: the pads prove nothing, the total gives the mass, and the weighing can be moved', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Ruff', ['Strip'])
  await page.goto(`${path}/weight?stage=${stages[1]}&tab=scales&do=weighing`)
  const dialog = page.getByRole('dialog')
  for (const [pad, kg] of Object.entries({ 'Left front': '322.5', 'Right front': '311', 'Left rear': '286.5' }))
    await dialog.getByLabel(pad, { exact: true }).fill(kg)
  await dialog.getByLabel('Fuel in the tank').fill('20')
  await dialog.getByRole('button', { name: 'Store the weighing' }).click()
  await expect(page.getByText(/Three readings are kept/).first()).toBeVisible()
  await page.goto(path)
  await expect(
    page
      .getByText(/0 of 1 proven/)
      .and(page.locator(':visible'))
      .first(),
  ).toBeVisible()
  await weighTotal(page, path, stages[1] ?? '', '1195 kg ± 2')
  await expect(page.getByRole('button', { name: /^1.195.*open the working/ }).first()).toBeVisible()
  await page
    .getByRole('button', { name: /^Change the weighing/ })
    .first()
    .click()
  await page
    .getByRole('dialog')
    .getByLabel('The car was at')
    .selectOption(stages[0] ?? '')
  await page.getByRole('dialog').getByRole('button', { name: 'Store the weighing' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(page.getByText('stage 0 As bought').first()).toBeVisible()
})

test('a box that grows, in pounds and ounces: each part is the difference, and the box adds up', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Snipe', ['Loom'])
  await page.goto(`${path}/weight?stage=${stages[1]}`)
  await page.getByLabel('Weigh into').selectOption('new')
  await page.getByLabel('Name of the box').fill('crate')
  await page.getByLabel('The scale reads with the empty box').fill('2 lb')
  await page.getByRole('button', { name: 'Open the box' }).click()
  await expect(page.getByText(/crate: 0 parts in/)).toBeVisible()
  await typeLine(page, 'off dash loom 9 lb 8 oz')
  await typeLine(page, 'off fuse boxes 12 lb')
  await typeLine(page, 'off brackets 16 lb 5 oz')
  // 7.5, 2.5 and 4.3125 lb.
  await expect(page.getByRole('row').filter({ hasText: 'dash loom' })).toContainText('−3.40')
  await expect(page.getByRole('row').filter({ hasText: 'fuse boxes' })).toContainText('−1.13')
  await expect(page.getByRole('row').filter({ hasText: 'brackets' })).toContainText('−1.96')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('6.5 kg found')
  // A box that is not there: what the scale reads never becomes what the part weighs.
  await page.goto(`${path}/weight?stage=${stages[1]}&box=${crypto.randomUUID()}`)
  await page.locator('#entry').fill('off clock 20 lb')
  await page.locator('#entry').press('Enter')
  await expect(page.getByText(/box that this page weighs into is not there/)).toBeVisible()
  await expect(page.locator('#entry')).toHaveValue('off clock 20 lb')
  await expect(page.getByRole('row').filter({ hasText: 'clock' })).toHaveCount(0)
  await page.getByLabel('Weigh into').selectOption({ label: 'crate' })
  await page.locator('#entry').fill('off clock 20 lb')
  await page.locator('#entry').press('Enter')
  await expect(page.getByRole('row').filter({ hasText: 'clock' })).toContainText('−1.67')
})

/** A visit to a dyno with its settings, by the form. */
async function newSession(page: Page, path: string, stage: string, settings: readonly Readonly<Record<string, string>>[]): Promise<void> {
  await page.goto(`${path}/power?stage=${stage}&do=session`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Dyno', { exact: true }).fill('Quay hub dyno')
  for (const [i, fields] of settings.entries()) {
    if (i > 0) await dialog.getByRole('button', { name: 'Another setting of this visit' }).click()
    for (const [label, value] of Object.entries(fields)) {
      const field = dialog.getByLabel(label, { exact: true }).nth(i)
      if (label === 'Boost is held') await field.selectOption(value)
      else await field.fill(value)
    }
  }
  await dialog.getByRole('button', { name: 'Store the session' }).click()
  // The form of pulls opens by itself; peaks are typed beside the session.
  const pulls = page.getByRole('dialog', { name: /^Pulls of Quay hub dyno/ })
  await pulls.getByRole('button', { name: /Close/ }).click()
  await expect(pulls).toBeHidden()
}

async function peak(page: Page, setting: string, text: string): Promise<void> {
  await page.getByLabel('Setting of the peak at Quay hub dyno').selectOption({ label: setting })
  await page.getByLabel('Peak alone').fill(text)
  await page.getByRole('button', { name: 'Store the peak at Quay hub dyno' }).click()
  await expect(page.getByLabel('Peak alone')).toHaveValue('')
}

test('three boost settings on one day: the last stands, and a ladder tells them apart', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Plover', ['Turbo'])
  await newSession(page, path, stages[1] ?? '', [
    { Called: 'spring', 'Boost is held': 'gauge', Boost: '135 kPa' },
    { Called: '1.5 bar', 'Boost is held': 'gauge', Boost: '150 kPa' },
    { Called: 'cams', 'Boost is held': 'gauge', Boost: '150 kPa', 'What was set': 'cams advanced 4 deg' },
  ])
  await peak(page, 'spring', '650 hp')
  await peak(page, '1.5 bar', '670 hp')
  await peak(page, 'cams', '790 hp at 6950')
  // 790 hp is 589.1 kW, with 1 % of the pull and 1 % of the visit: 8.3 kW, 11.2 hp.
  await expect(page.getByRole('heading', { level: 1 })).toContainText('589.1 kW measured')
  await expect(page.getByText('another setting stands: a different engine')).toHaveCount(2)
  await page.getByRole('button', { name: 'Compare' }).click()
  const ladder = page.getByRole('region', { name: 'Ladder of settings' })
  // +20 hp (1.7 to 38.3) and +120 hp (99.7 to 140.3) in kW.
  await expect(ladder).toContainText('+14.9 kW, 19 in 20 within 1.3 to 28.6 real')
  await expect(ladder).toContainText('+89.5 kW, 19 in 20 within 74.3 to 104.6 real')
  await expect(ladder).toContainText('one change: cams advanced 4 deg')
  await page.goto(path)
  await expect(page.getByText('visits to the dyno disagree')).toHaveCount(0)
})

test('two fuels on one day: two engines, the last stands until the other is picked', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Curlew', ['Fuel'])
  await newSession(page, path, stages[1] ?? '', [
    { Called: 'pump', Fuel: 'pump petrol' },
    { Called: 'blend', Fuel: 'ethanol blend', 'Ethanol share': '78' },
  ])
  await peak(page, 'pump', '300 kW')
  await peak(page, 'blend', '345 kW')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('345.0 kW measured')
  await page.getByRole('button', { name: 'let it stand for stage 1: pump' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('300.0 kW measured')
  await page.goto(path)
  await expect(page.getByRole('row', { name: /^Power/ }).first()).toContainText('300.0')
})

test('a front-drive car with a part nearly used up keeps its papers’ mass and its goal in sight', async ({ page }) => {
  const { path, stages } = await newBuild(page, 'Redshank', ['Clutch'], { 'Mass before any weighing': '980 kg' })
  await page.goto(`${path}/weight?stage=${stages[1]}`)
  await typeLine(page, 'off flywheel 9.4 kg')
  await typeLine(page, 'on light flywheel 5.1 kg catalogue replaces flywheel')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('4.3 kg found')
  await page.locator('#entry').fill(`off ${randomUUID().slice(0, 4)} about 12 kg weighed`)
  await expect(page.getByText(/is no reading of a scale/)).toBeVisible()
  await page.goto(`${path}/parts?do=part`)
  const part = page.getByRole('dialog')
  await part.getByLabel('Kind').fill('fifth gear')
  await part.getByLabel('Name', { exact: true }).fill('fine-toothed')
  await part.getByLabel('It is').selectOption('fitted')
  await part.getByLabel('Life').fill('4 track days')
  await part.getByRole('button', { name: 'Store the part' }).click()
  await expect(part).toBeHidden()
  await page.getByRole('button', { name: 'fine-toothed' }).click()
  await part.getByLabel('Used, days').fill('3.5')
  await part.getByRole('button', { name: 'Log the use' }).click()
  await expect(part.getByText('Use: 3.5 of 4 days')).toBeVisible()
  await page.goto(path)
  await expect(massRow(page)).toContainText(/97[56]/)
  const next = page.getByRole('link', { name: 'fine-toothed (fifth gear) is nearly used up' })
  await expect(next).toBeVisible()
  await expect(next.locator('xpath=..')).toContainText('3.5 of 4 days are gone; 0.5 days left')
})
