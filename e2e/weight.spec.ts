import type { Page } from '@playwright/test'
import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

async function typeLine(page: Page, text: string): Promise<void> {
  await page.locator('#entry').fill(text)
  await page.locator('#entry').press('Enter')
  await expect(page.locator('#entry')).toHaveValue('')
}
const row = (page: Page, name: string) => page.getByRole('row').filter({ hasText: name })

test('an evening at the ledger: a guess before the scale, an unknown, a growing box, a part weighed in its row', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?stage=${stage}`)
  await typeLine(page, 'off rear bench 20 kg guess 18.6 kg @cabin')
  await expect(row(page, 'rear bench')).toContainText('guessed 20.0')
  await typeLine(page, 'off sound mat ? @cabin')
  await expect(row(page, 'sound mat')).toContainText('not known')
  await typeLine(page, 'on cage 41 guess @cabin')

  await row(page, 'cage').getByRole('button', { name: 'Weigh cage' }).click()
  await page.keyboard.type('-3')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/A mass is more than zero/)).toBeVisible()
  await page.getByLabel('What one cage weighs').fill('44.8')
  await page.keyboard.press('Enter')
  await expect(row(page, 'cage')).toContainText('weighed')
  await expect(row(page, 'cage')).toContainText('guessed 41.0')

  await page.getByLabel('Weigh into').selectOption('new')
  await page.getByLabel('Name of the box').fill('crate')
  await page.getByLabel('The scale reads with the empty box').fill('1.2')
  await page.getByRole('button', { name: 'Open the box' }).click()
  await expect(page.getByText('crate: 0 parts in')).toBeVisible()
  await page.locator('#entry').fill('off clock 1.1')
  await expect(page.getByText(/The scale reads no more than before/)).toBeVisible()
  await typeLine(page, 'off clock 3.4')
  await expect(page.getByText('crate: 1 part in')).toBeVisible()
  await typeLine(page, 'off visors 4.1')
  await expect(row(page, 'clock')).toContainText('−2.2')
  await expect(row(page, 'visors')).toContainText('−0.7')

  await page.getByRole('button', { name: 'Score' }).click()
  await expect(page.getByText('not even guessed')).toBeVisible()
  await expect(page.getByText(/by the middle of its zone/)).toBeVisible()
})

test('many lines: pasted from a spreadsheet, changed together, taken back as one', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?stage=${stage}&do=paste`)
  const sheet = [
    'Kind\tPart\tCount\tZone\tMass (lb)\tHow known\tCost',
    'off\tdoor card\t2\tdoors\t7.5\tweighed\t',
    'on\tdoor skin\t2\tdoors\t4\tguess\t120',
    'off\t\t1\tdoors\t3\tweighed\t',
  ]
  await page.getByLabel('Lines', { exact: true }).fill(sheet.join('\n'))
  await expect(page.getByText('2 of 3 lines can be read.')).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: /left out: The part has no name/ })).toBeVisible()
  await page.getByRole('button', { name: 'Store 2 lines, leave out 1' }).click()
  await expect(row(page, 'door card')).toContainText('−6.80')
  await page.getByRole('button', { name: 'Pick several' }).click()
  await page.getByLabel('Pick door card').check()
  await page.getByLabel('Pick door skin').check()
  await page.getByLabel('Zone', { exact: true }).fill('sides')
  await page.getByRole('button', { name: 'Do it' }).click()
  await expect(page.getByRole('cell', { name: 'sides' })).toHaveCount(2)
  await page.locator('[data-notice]').getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('cell', { name: 'doors' })).toHaveCount(2)
})

test('a dead pad: three readings say what they tell, two placements give all four, the floor gives total and front', async ({ page }) => {
  const { path } = await freshBuild(page)
  const table = page.getByRole('region', { name: 'Weighings' })
  const store = page.getByRole('button', { name: 'Store the weighing' })
  const fill = async (method: string, readings: Record<string, string>) => {
    await page.goto(`${path}/weight?tab=scales&do=weighing`)
    await page.getByLabel('How it stands').selectOption(method)
    for (const [name, text] of Object.entries({ ...readings, 'Driver in the car': '80', 'Fuel in the tank': '20' }))
      await page.getByRole('textbox', { name }).fill(text)
    await store.click()
  }
  const three = { 'Left front': '312', 'Right front': '298' }
  await fill('one', { ...three, 'Right rear': '294' })
  await expect(table).toContainText('No reading from the left rear pad')
  await fill('axlesOnBlocks', { ...three, 'Left rear': '276' })
  await expect(page.getByText('This corner has to be read on a good pad')).toBeVisible()
  await page.getByRole('textbox', { name: 'Right rear' }).fill('294')
  await store.click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(table).toContainText('do not set cross by this weighing')
  await fill('otherAxleOnFloor', { ...three, 'Left rear': '276', 'Right rear': '294', 'Height of the pads': '60 mm' })
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(table).toContainText('only total and front share are known')
})

test('centre height: a lift too small is refused with the least that means something, a good one gives a height with its spread', async ({ page }) => {
  const { path } = await freshBuild(page)
  await page.goto(`${path}/weight?tab=centre`)
  await page.getByRole('button', { name: /lift an axle/ }).click()
  await expect(page.getByRole('dialog')).toContainText('nobody under the car')
  for (const [name, text] of [
    ['Lifted by', '60 mm'],
    ['The rear axle reads', '560'],
    ['Loaded radius, front', '305'],
    ['Loaded radius, rear', '305 mm'],
  ] as const)
    await page.getByLabel(name).fill(text)
  await page.getByRole('button', { name: 'Store the reading' }).click()
  await expect(page.getByText(/too small to mean anything/)).toBeVisible()
  await page.getByLabel('Lifted by').fill('550 mm ± 4')
  await page.getByLabel('The rear axle reads').fill('551.7 kg')
  await page.getByRole('button', { name: 'Store the reading' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(page.getByRole('row').nth(1)).toContainText(/48\dmm/)
  await page.getByRole('button', { name: /^48\d\s*mm/ }).click()
  await expect(page.getByRole('dialog')).toContainText('Height of the centre of mass')
})

test('corner balance: whole quarter turns, both schools, and a log of what it read then', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?tab=balance&stage=${stage}`)
  await expect(page.getByText('48.64 %').first()).toBeVisible()
  await expect(page.getByText('1¼ turns down').first()).toBeVisible()
  await expect(page.getByText('Reaches 49.95 %')).toBeVisible()
  await page.getByLabel(/Wanted cross/).fill('75 %')
  await expect(page.getByRole('alert')).toContainText('0.4 to 0.6')
  await page.getByLabel(/Wanted cross/).fill('50')
  await page.getByRole('button', { name: 'Turned: log this round' }).first().click()
  for (const [name, kg] of [
    ['left front now', '304.5'],
    ['right front now', '305.5'],
    ['left rear now', '283.5'],
    ['right rear now', '286.5'],
  ] as const)
    await page.getByRole('textbox', { name }).fill(kg)
  await page.getByRole('button', { name: 'Store what it reads' }).click()
  await expect(page.getByText('after 49.92 %')).toBeVisible()
  await expect(page.getByText(/From the last round/)).toBeVisible()
})

test('ballast: places, what it shall reach, a proven plan with runners-up, and plates in the ledger', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?tab=ballast&stage=${stage}`)
  for (const [name, x, y] of [
    ['left floor', '300', '350'],
    ['boot', '2400', '0'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a place' }).click()
    await page.getByLabel('Name of the place').fill(name)
    await page.getByLabel('What its mount may carry').fill('30 kg')
    await page.getByLabel('Plates there are for it').fill('5 of 5 kg')
    await page.getByLabel('Behind the front axle').fill(x)
    await page.getByLabel('Left of the middle').fill(y)
    await page.getByLabel('Above the ground').fill('150')
    await page.getByRole('button', { name: 'Add the place' }).click()
    await expect(page.getByText(/Type number x size/)).toBeVisible()
    await page.getByLabel('Plates there are for it').fill('5 x 5 kg')
    await page.getByRole('button', { name: 'Add the place' }).click()
    await expect(page.getByRole('dialog')).toBeHidden()
  }
  await page.getByRole('button', { name: 'Say what it shall reach' }).click()
  await page.getByLabel('Minimum, with driver').fill('1300 kg')
  await page.getByLabel('Front share wanted').fill('51.5 %')
  await page.getByLabel('A mount must hold').fill('20')
  await page.getByRole('button', { name: 'Store it' }).click()
  await expect(page.getByText('120.0 kg under the minimum')).toBeVisible()
  await page.getByRole('button', { name: 'Plan the plates' }).click()
  await expect(page.getByRole('alert')).toContainText(/70 kg short/, { timeout: 20_000 })
  await page.getByRole('button', { name: 'Change it' }).click()
  await page.getByLabel('Minimum, with driver').fill('1210 kg')
  await page.getByRole('button', { name: 'Store it' }).click()
  await expect(page.getByText('30.0 kg under the minimum')).toBeVisible()
  await page.getByRole('button', { name: 'Plan the plates' }).click()
  await expect(page.getByText('Proven: no placement is better.')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('heading', { name: 'Runner-up 1' })).toBeVisible()
  await expect(page.getByText(/\d\u00a0N$/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Put the plates into the ledger' }).click()
  await expect(page.getByText('They stand in the ledger')).toBeVisible()
  await expect(page.getByText('30.0 kg under the minimum')).toBeVisible()
  await page.getByRole('button', { name: 'Ledger', exact: true }).click()
  await expect(page.getByRole('cell', { name: /ballast plate/ }).first()).toBeVisible()
})

test('a scale set: found, read live, a pad that drops out, and a weighing taken from it', async ({ page }) => {
  const path = await buildAddress(page, 'Osprey')
  await page.goto(`${path}/devices`)
  await page.getByRole('button', { name: 'Start simulated scales' }).click()
  await expect(page.getByText('Reading live.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Roll the car on' }).click()
  await expect(page.locator('[data-pad="LF"]')).toHaveText(/39[234]\.\d/, { timeout: 15_000 })
  await page.getByRole('button', { name: 'drops out' }).click()
  await expect(page.locator('[data-pad="LR"]')).toHaveText('no reading')
  await expect(page.getByText('Total unknown while a pad is out.')).toBeVisible()
  await page.getByRole('button', { name: 'comes back' }).click()
  await page.getByRole('button', { name: 'battery low' }).click()
  await expect(page.getByText(/battery low, 8 %/)).toBeVisible()
  await page.getByRole('link', { name: 'Take a weighing from it' }).click()
  await expect(page.getByRole('button', { name: 'Take these readings' })).toBeEnabled({ timeout: 15_000 })
  await page.getByRole('button', { name: 'Take these readings' }).click()
  await expect(page.getByRole('textbox', { name: 'Left front' })).toHaveValue(/^39[234](\.\d)? kg$/)
  await expect(page.getByLabel('Which scales')).toHaveValue(/Simulated/)
  await page.getByLabel('Fuel in the tank').fill('22')
  await page.getByRole('button', { name: 'Store the weighing' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(page.getByRole('region', { name: 'Weighings' })).toContainText('Simulated four-pad scales')
})

test('a picture of the scale hangs on a line, and what is no picture is refused', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?stage=${stage}`)
  await typeLine(page, 'off horn 0.7 kg')
  await page.getByRole('button', { name: 'Change horn' }).click()
  const input = page.getByLabel('Add a picture')
  await input.setInputFiles({ name: 'note.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') })
  await expect(page.getByRole('alert')).toContainText('no JPEG, PNG or WebP picture')
  const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64')
  await input.setInputFiles({ name: 'display.png', mimeType: 'image/png', buffer: png })
  await expect(page.getByRole('img', { name: 'display.png' })).toBeVisible()
})
