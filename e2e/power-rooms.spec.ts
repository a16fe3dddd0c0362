import { randomUUID } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { addSession, dialog } from './power-forms.ts'
import { expect, test } from './server.ts'

/** A sweep of a dyno with headings of its own: 400 N·m from 3 000 rpm on. */
function oddFile(heads: readonly string[], gain = 1): Buffer {
  const rows = Array.from({ length: 40 }, (_, i) => {
    const rpm = 3000 + 100 * i
    return [rpm, (gain * 400 * rpm * Math.PI) / 30_000, gain * 400].map((value) => value.toFixed(2)).join(',')
  })
  return Buffer.from(['Hall east, booth 2', heads.join(','), ...rows].join('\r\n'))
}
const csv = (name: string, buffer: Buffer) => ({ name, mimeType: 'text/csv', buffer })

test('parts: entered, refused in words, compared, used up, out and in as CSV, and shared with another build', async ({ page }) => {
  const { path } = await freshBuild(page)
  await page.goto(`${path}/parts`)
  await page.getByRole('button', { name: 'Enter the first part' }).click()
  await page.getByLabel('Kind', { exact: true }).fill('gearbox')
  await page.getByLabel('Name').fill('five-speed')
  await page.getByLabel('It is').selectOption('fitted')
  await page.getByLabel('Mass of one').fill('41 lb guess')
  await page.getByLabel('What it can take').fill('courage 480')
  await page.getByLabel('Life', { exact: true }).fill('a while')
  await page.getByRole('button', { name: 'Store the part' }).click()
  await expect(dialog(page)).toContainText('does not begin with what is rated')
  await expect(dialog(page)).toContainText('"a while" cannot be read')
  await page.getByLabel('What it can take').fill('crank torque 354 lb·ft measured')
  await page.getByLabel('Life', { exact: true }).fill('4 days')
  await page.getByLabel('On the shelf').check()
  await page.getByRole('button', { name: 'Store the part' }).click()
  await expect(dialog(page)).toBeHidden()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 part, 1 fitted')
  const row = page.getByRole('row', { name: /five-speed/ })
  await expect(row).toContainText('480 N·m torque at the crank')
  await expect(row).toContainText('18.6')
  await row.getByRole('button').click()
  await page.getByLabel('Used, days').fill('3.5')
  await page.getByRole('button', { name: 'Log the use' }).click()
  await expect(dialog(page)).toContainText('Use: 3.5 of 4 days')
  await dialog(page).getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 nearly used up')
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV', exact: false }).first().click()])
  const text = await readFile(await saved.path(), 'utf8')
  expect(text).toContain('crank torque 354 lb·ft measured')
  const other = await freshBuild(page)
  await page.goto(`${other.path}/parts`)
  await page.getByRole('button', { name: 'Read a CSV' }).click()
  await dialog(page)
    .locator('input[type=file]')
    .setInputFiles(csv('parts.csv', Buffer.from(`${text}clutch,,wanted,,1,,,,,,,,,,,,\r\nclutch,single plate,borrowed,,1,,crank torque 500 N·m,,,,,,,,,,\r\n`)))
  await expect(dialog(page)).toContainText('1 of 3 parts can be read')
  await expect(dialog(page)).toContainText('Name is empty')
  await expect(dialog(page)).toContainText('"borrowed" is no status')
  await page.getByRole('button', { name: 'Store 1 part, leave out 2' }).click()
  await expect(page.getByRole('row', { name: /five-speed/ })).toContainText('480 N·m')
  await page.getByRole('button', { name: 'Shared shelf' }).click()
  await page.getByRole('button', { name: 'Take five-speed into this build' }).click()
  await expect(page.getByText('five-speed is in the register of this build as wanted.')).toBeVisible()
  await page.getByRole('button', { name: 'Side by side' }).click()
  await expect(page.getByRole('region', { name: 'gearbox side by side' }).getByRole('columnheader')).toHaveCount(3)
})

test('the use that a session was is logged for all fitted parts that live so long, once', async ({ page }) => {
  const { path } = await freshBuild(page)
  for (const [name, life] of [
    ['five-speed', { amount: 4, unit: 'days' }],
    ['belt', { amount: 40, unit: 'hours' }],
    ['plate', null],
  ] as const) {
    const answer = await page.request.post(`/api${path}/parts`, { data: { id: randomUUID(), kind: name, name, life, status: 'fitted' } })
    expect(answer.status(), await answer.text()).toBe(201)
  }
  await addSession(page, path, 'Hall north')
  await expect(page.locator('#pull-file')).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(dialog(page)).toBeHidden()
  await page.getByRole('button', { name: 'Change the session Hall north' }).click()
  await page.getByLabel('Hours at the dyno').fill('a while')
  await page.getByRole('button', { name: 'Log the use of 2 parts' }).click()
  await expect(dialog(page).getByRole('alert')).toContainText('cannot be read')
  await page.getByLabel('Hours at the dyno').fill('2.5')
  await page.getByRole('button', { name: 'Log the use of 2 parts' }).click()
  await expect(dialog(page)).toContainText('Logged for all 2 fitted parts that have a life')
  const { partUses } = await (await page.request.get(`/api${path}/records`)).json()
  expect(partUses.map(({ amount }: { amount: number }) => amount).sort()).toEqual([1, 2.5])
})

test('an engine plan: what physics refuses names its step, the weak link is named with its next step, and its torque stands on the Board', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await addSession(page, path, 'Hub dyno of a friend')
  await page.locator('#pull-file').setInputFiles(csv('pull.csv', oddFile(['rpm', 'power kW', 'torque Nm'])))
  await page.getByRole('button', { name: 'Store 1 pull' }).click()
  await expect(dialog(page)).toBeHidden()
  await page.goto(`${path}/power?tab=plan&stage=${stage}`)
  await page.getByRole('button', { name: 'Plan the engine' }).click()
  await page.getByLabel('Power to reach').fill('320 kW')
  await page.getByLabel('Displacement').fill('1998 cc')
  await page.getByRole('button', { name: 'Store the plan' }).click()
  await expect(page.getByRole('heading', { name: /320 kW at the wheels: refused at pressure/ })).toBeVisible()
  await expect(page.locator('[data-step="pressure"]')).toContainText('come in by themselves')
  await expect(page.locator('[data-step="cooler"]')).toContainText('waits for pressure')
  await page.getByRole('button', { name: 'Change Cooler' }).click()
  await expect(page.getByLabel('Cooler effectiveness')).toBeFocused()
  await page.getByLabel('The engine is').selectOption('boosted')
  await page.getByLabel('Fuel used for each').fill('365')
  await page.getByLabel('Cooler effectiveness').fill('75')
  await page.getByLabel('Volumetric efficiency').fill('3000 0.9\n7500')
  await page.getByRole('button', { name: 'Store the plan' }).click()
  await expect(dialog(page)).toContainText('Put semicolons between')
  await page.getByLabel('Volumetric efficiency').fill('3000 0.9\n6500 rpm; 98 %\n7500 0.92')
  await page.getByRole('button', { name: 'Store the plan' }).click()
  await expect(dialog(page)).toBeHidden()
  await expect(page.locator('[data-step="pressure"]')).toContainText('boost above the air')
  await page.getByRole('button', { name: 'Weak links' }).click()
  await page.getByRole('link', { name: 'To the parts' }).click()
  for (const [name, torque, status, cost] of [
    ['old box', '580 N·m', 'fitted', ''],
    ['strong box', '900 N·m', 'wanted', '4000'],
  ] as const) {
    await page.getByRole('button', { name: 'New part' }).click()
    await page.getByLabel('Kind', { exact: true }).fill('gearbox')
    await page.getByLabel('Name').fill(name)
    await page.getByLabel('It is').selectOption(status)
    await page.getByLabel('What it can take').fill(`gearbox torque ${torque}`)
    await page.getByLabel('Cost of all').fill(cost)
    await page.getByRole('button', { name: 'Store the part' }).click()
    await expect(dialog(page)).toBeHidden()
  }
  await page.goto(`${path}/power?tab=links&stage=${stage}`)
  await expect(page.getByRole('heading', { name: /^old box gives up first, at .* short of the target/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /old box/ })).toContainText('strong box')
  await expect(page.getByRole('row', { name: /old box/ })).toContainText(/costs 4.000, holds/)
  await page.goto(`${path}/board?stage=${stage}`)
  const torque = page.getByRole('row', { name: /Peak torque/ })
  await expect(torque).toContainText('rating of old box')
  await expect(torque).toContainText(/holds/)
  await torque.getByRole('button').first().click()
  await expect(dialog(page)).toContainText('old box carries, at the crank')
})

test('a file that nobody can guess is read by what a person says, and the next of that dyno by itself; several files at once', async ({ page }) => {
  const { path } = await freshBuild(page)
  await addSession(page, path, 'Odd dyno')
  const input = page.locator('#pull-file')
  await input.setInputFiles(csv('odd.csv', oddFile(['CH1', 'CH2', 'CH3'])))
  await expect(dialog(page).getByRole('alert')).toContainText('no column of engine speed')
  await page.getByLabel('CH1 is', { exact: true }).selectOption('speed')
  await page.getByLabel('CH2 is', { exact: true }).selectOption('power')
  await page.getByLabel('CH2 is in').selectOption('hp')
  await expect(dialog(page).getByRole('button', { name: /^Store 1 pull/ })).toBeVisible()
  await page.getByLabel('CH3 is', { exact: true }).selectOption('torque')
  await page.getByLabel('CH3 is in').selectOption('N·m')
  await expect(dialog(page).getByRole('alert')).toContainText('power is in kW but labelled hp')
  await page.getByLabel('CH2 is in').selectOption('kW')
  await page.getByRole('button', { name: 'Store 1 pull' }).click()
  await expect(dialog(page)).toBeHidden()
  await page.getByRole('button', { name: 'import pulls' }).click()
  await expect(dialog(page)).toContainText('Columns are read as they were for Odd dyno before')
  await input.setInputFiles([csv('a.csv', oddFile(['CH1', 'CH2', 'CH3'], 1.02)), csv('b.csv', oddFile(['CH1', 'CH2', 'CH3'], 1.03))])
  await page.getByRole('button', { name: 'Store 2 pulls of 2 files' }).click()
  await expect(dialog(page)).toBeHidden()
  await expect(page.getByRole('checkbox', { name: /pull 1/ })).toHaveCount(3)
})

test('a photographed sheet is read by keyboard alone: axes, the curve, and its pull; the picture stays', async ({ page, context }) => {
  // A sheet of 600 by 400: 2 000 rpm at 60 to 7 000 at 560 along the bottom (350), 0 at 350 to 200 kW at 50 up the side.
  const draw = await context.newPage()
  await draw.setViewportSize({ width: 600, height: 400 })
  await draw.setContent('<body style="margin:0"><svg width=600 height=400><path d="M60 350H560M60 350V50M60 320L560 110" stroke="black" fill="none"/></svg>')
  const sheet = await draw.screenshot()
  await draw.close()
  const { path } = await freshBuild(page)
  await addSession(page, path, 'Printed sheet')
  await dialog(page).getByText('Or read it off a photographed sheet').click()
  await page.getByLabel('Add a picture').setInputFiles({ name: 'sheet.png', mimeType: 'image/png', buffer: sheet })
  const picture = page.getByRole('application', { name: /The sheet sheet.png/ })
  await picture.focus()
  let [right, down] = [300, 200]
  const place = async (x: number, y: number) => {
    const steps = async (from: number, to: number, back: string, on: string) => {
      for (let left = Math.abs(to - from); left > 0; ) {
        const far = left >= 25
        await page.keyboard.press(`${far ? 'Shift+' : ''}${to < from ? back : on}`)
        left -= far ? 25 : 2
      }
    }
    await steps(right, x, 'ArrowLeft', 'ArrowRight')
    await steps(down, y, 'ArrowUp', 'ArrowDown')
    ;[right, down] = [x, y]
    await page.keyboard.press('Enter')
  }
  await place(60, 350)
  await place(560, 350)
  await place(60, 350)
  await place(60, 50)
  for (let i = 0; i <= 10; i++) await place(60 + 50 * i, 320 - 2 * Math.round(10.5 * i))
  await page.keyboard.press('Backspace')
  for (const [label, text] of [
    ['Speed, left', '2000'],
    ['Speed, right', '7000'],
    ['Other axis, low', '0'],
    ['Other axis, high', '200 kW'],
  ] as const)
    await page.getByLabel(label).fill(text)
  await page.getByRole('button', { name: 'Read these 10 points' }).click()
  // The last point kept stands at 510, 130: 6 500 rpm and 220 of 300 px of 200 kW.
  await expect(dialog(page)).toContainText(/14[567]\.\d ?kW/)
  await page.getByRole('button', { name: 'Store 1 pull' }).click()
  await expect(dialog(page)).toBeHidden()
  await page.getByRole('button', { name: 'import pulls' }).click()
  await dialog(page).getByText('Or read it off a photographed sheet').click()
  await expect(page.getByRole('img', { name: 'sheet.png', exact: true })).toBeVisible()
})

test('hours at the dyno: an order, what does not fit, and hours that are too short', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/power?tab=hours&stage=${stage}`)
  await page.getByRole('button', { name: 'Plan the hours' }).click()
  await page.getByLabel('Booked').fill('2 h')
  await page.getByLabel(/Changes to try/).fill('boost 120 kPa; 5; 3\nnew turbo; 3 h; 3')
  await page.getByRole('button', { name: 'Store the plan' }).click()
  await expect(page.getByRole('heading', { name: '11 pulls in 2:00 hours, 1 change does not fit' })).toBeVisible()
  await expect(page.getByRole('row').nth(1)).toContainText('Strap down')
  await expect(page.getByText('Does not fit, for another day')).toBeVisible()
  await page.getByRole('button', { name: 'Change the plan' }).click()
  await page.getByLabel('Booked').fill('30')
  await page.getByRole('button', { name: 'Store the plan' }).click()
  await expect(page.getByRole('alert')).toContainText('of the 30 that are booked')
})

test('pulls of one visit are compared with others of it, and samples are drawn close up', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/power?tab=compare&as=sets`)
  const brinehall = await page.getByRole('combobox', { name: 'From' }).locator('option', { hasText: 'Brinehall hub dyno, 12 Sep' }).getAttribute('value')
  await page.goto(`${build}/power?tab=compare&first=${brinehall}&second=${brinehall}&as=sets&firstPulls=3.4&secondPulls=5`)
  await expect(page.getByRole('heading', { name: 'Too few pulls to tell' })).toBeVisible()
  await page.getByRole('group', { name: 'To' }).getByRole('checkbox', { name: '3' }).check()
  await expect(page.getByRole('alert')).toContainText('stands on both sides')
  await page.getByRole('group', { name: 'From' }).getByRole('checkbox', { name: '3' }).uncheck()
  await expect(page.getByText('Both sets are of one visit')).toBeVisible()
  const chart = page.getByRole('img', { name: /Power and torque of both/ })
  await chart.locator('.main-svg').first().waitFor()
  await chart.scrollIntoViewIfNeeded()
  const lines = await chart.locator('.scatterlayer .trace').count()
  const box = await chart.boundingBox()
  if (!box) throw new Error('no chart')
  await page.mouse.move(box.x + 300, box.y + 40)
  await page.mouse.down()
  await page.mouse.move(box.x + 380, box.y + 90, { steps: 5 })
  await page.mouse.up()
  // Both sides as sampled, in power and in torque.
  await expect(chart.locator('.scatterlayer .trace')).toHaveCount(lines + 4)
})
