import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

const STAGE = 'cd6a4292-f27b-4af9-89bc-15a5956f5c71'

/** A run as a logger writes it: the car gains, coasts in a wind, and is stopped. Small steps, so that it is no closed form of ours. */
function coastCsv(dragAreaM2: number, windMps: number): string {
  const rows = ['time s,speed km/h']
  for (let i = 0; i < 8; i++) rows.push(`${i / 2},${120 + 7 * i}`)
  let speed = 48
  const step = 0.01
  for (let i = 0; speed > 15; i++) {
    if (i % 50 === 0) rows.push(`${(4 + i * step).toFixed(2)},${(3.6 * speed).toFixed(3)}`)
    speed -= (step * (0.0138 * 1342 * 9.80665 + 0.5 * 1.23 * dragAreaM2 * (speed + windMps) ** 2)) / (1342 * 1.04)
  }
  return rows.join('\n')
}
const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })

test('a coast-down out of four files stands for the stage; a pair is set aside and put back; before and after; a wrong file says why', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=proof&stage=${STAGE}`)
  await expect(page.getByText('The devices by their own values said drag 6 % too low, within the spread of both.')).toBeVisible()
  await page.getByRole('button', { name: 'New test' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Where', { exact: true }).fill('Tarwick, main straight')
  await dialog.getByLabel('When').fill('2026-10-25T09:00')
  await dialog.getByLabel('Mass, as it rolled').fill('1342 kg')
  const files = dialog.getByLabel('Files of the logger')
  await files.setInputFiles([file('1 out.csv', coastCsv(0.8, 1)), file('2 back.csv', 'lap,rpm\n1,3000')])
  await expect(dialog.getByText(/2 back\.csv: No line heads a time and a speed\. Found "lap", "rpm"\./)).toBeVisible()
  await dialog.getByRole('button', { name: 'Store the test' }).click()
  await expect(dialog.getByText(/One direction cannot tell wind and slope from drag/).first()).toBeVisible()
  // Columns that nobody can guess are said once; the test's next files are read by it.
  const alien = coastCsv(0.8, 1).replace('time s,speed km/h', 'Chan 1,Chan 2')
  await files.setInputFiles([file('1 out.csv', alien), file('2 back.csv', coastCsv(0.8, -1).replace('time s,speed km/h', 'Chan 1,Chan 2'))])
  await dialog.getByLabel('Chan 1 is').selectOption('time')
  await dialog.getByLabel('Chan 2 is').selectOption('speed over ground')
  await dialog.getByLabel('Chan 2 is in').selectOption('km/h')
  await dialog.getByLabel('Its name').fill('Old box')
  await expect(dialog.getByText(/2 back\.csv: pair 1 back, \d+ points, by "Chan 1" and "Chan 2"/)).toBeVisible()
  await files.setInputFiles([
    file('1 out.csv', coastCsv(0.8, 1)),
    file('2 back.csv', coastCsv(0.8, -1)),
    file('10 back.csv', coastCsv(0.812, -1.5)),
    file('9 out.csv', coastCsv(0.812, 1.5)),
  ])
  await expect(dialog.getByText(/10 back\.csv: pair 2 back, \d+ points, by "time s" and "speed km\/h"; cut off 4 s before it/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Store the test' }).click()
  await expect(dialog).toBeHidden()
  const detail = page.getByRole('region', { name: 'The test', exact: true })
  await expect(detail).toContainText('Tarwick, main straight, 25 Oct 2026, stage 2')
  // The build's air stands in for the day's: areas are told for it.
  await expect(detail).toContainText('this test has no air record')
  await expect(page.getByRole('region', { name: 'Before and after' })).toContainText(/\+0\.\d{3} m²: real/)
  await detail.getByRole('button', { name: 'set aside' }).first().click()
  await page.keyboard.press('Enter')
  await expect(detail.getByText('Say why the pair is set aside, such as: a lorry passed.')).toBeVisible()
  await detail.getByLabel('Why pair 1 is set aside').fill('a lorry passed')
  await page.keyboard.press('Enter')
  await expect(detail.getByText('Pair 1 counts nowhere: a lorry passed.')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Before and after' })).toContainText('Too few')
  await page.keyboard.press('Control+z')
  await expect(detail.getByText('Pair 1 counts nowhere: a lorry passed.')).toBeHidden()
  await page.reload()
  await expect(detail).toContainText('Tarwick, main straight')
  await expect(detail.getByRole('row')).toHaveCount(3)
})

test('a test is planned before it is driven, and what cannot be planned says why', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=proof&stage=${STAGE}`)
  const planner = page.getByRole('region', { name: 'Planner' })
  await expect(planner).toContainText(/Road for a run\s*2\s\d{3}\sm/)
  await planner.getByLabel('pairs').fill('1')
  await expect(planner).toContainText('none: drive two pairs')
  await planner.getByLabel('down to').fill('170')
  await expect(planner.getByRole('alert')).toContainText(
    'Down to: air and rolling are told apart only over a span of 1.5 to 1. Let it roll down to 120 km/h or less.',
  )
})

test('loads by steady runs, typed: too few speeds are told, three give both axles', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=proof&do=test&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('The test').selectOption('steady')
  await dialog.getByLabel('Where', { exact: true }).fill('Skarvholm')
  await dialog.getByLabel(/^Driven out, a line each: speed/).fill('60; 1 mm; 2 mm\n180; 6.4 mm; 16 mm')
  await dialog.getByRole('button', { name: 'Store the test' }).click()
  await expect(dialog).toBeHidden()
  const detail = page.getByRole('region', { name: 'The test', exact: true })
  await expect(detail.getByText('A line needs three speeds at least, with a slow one among them. Drive more of them.')).toBeVisible()
  await detail.getByRole('button', { name: 'Edit it, or add runs' }).click()
  await dialog.getByLabel(/^Driven out, a line each: speed/).fill('120; 3.1 mm; 7.5 mm')
  await dialog.getByRole('button', { name: 'Save the test' }).click()
  await expect(dialog).toBeHidden()
  await expect(detail).toContainText('Down on the front tyres')
  await expect(detail).toContainText('was not done by then: the test is not of this stage as it stands.')
})

test('what holds a wing: a lid without a tether is told beside the limits, cured by a tether, and taken back', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  const stage = '0df0fadc-d339-4b0f-a1d5-51dc51f10900'
  await page.goto(`${build}/aero?stage=${stage}`)
  await expect(page.getByText('Wing 1 400 × 260 stands on a lid and has no tether.')).toBeVisible()
  await page.getByRole('link', { name: 'Look at its mount' }).click()
  const wing = page.getByRole('region', { name: 'wing 1 400 × 260' })
  await expect(wing).toContainText(/2\s001\sN down, 144\sN back, factor 2 in it/)
  await wing.getByRole('button', { name: 'Edit the mount' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('When it lets go, it is held by').selectOption('tether')
  await dialog.getByLabel(/^Feet of one upright/).fill('3360 mm; 950 mm')
  await dialog.getByRole('button', { name: 'Store the mount' }).click()
  await expect(dialog.getByText('An upright on one foot carries no moment. Give it two feet, front and rear.')).toBeVisible()
  await dialog.getByLabel(/^Feet of one upright/).fill('3360 mm; 950 mm\n3600 mm; 950 mm')
  await dialog.getByRole('button', { name: 'Store the mount' }).click()
  await expect(dialog).toBeHidden()
  await expect(wing).toContainText('Then held bya tether')
  await page.keyboard.press('Control+z')
  await expect(wing).toContainText('Then held bynothing')
})

test('a set-up sheet: typed in lines, refused in words, held beside another stage, with the drawing saved as a file', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  const stage = '0df0fadc-d339-4b0f-a1d5-51dc51f10900'
  await page.goto(`${build}/aero?tab=setup&stage=${stage}`)
  const sheet = page.getByRole('table')
  await expect(sheet.getByRole('row', { name: /^Camber/ })).toContainText('−3.20')
  await page.getByLabel('beside').selectOption({ label: '2 Turbo and fuel' })
  await expect(sheet.getByRole('row', { name: /^Camber/ })).toContainText('differs')
  await page.getByRole('button', { name: 'Type what is turned' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Tyre, cold, read').fill('155 155 150')
  await dialog.getByRole('button', { name: 'Store what is turned' }).click()
  await expect(dialog.getByText('Tyre, cold has 3 values. Type four, left front first, or two for the axles; - where nobody knows.')).toBeVisible()
  await dialog.getByLabel('Tyre, cold, read').fill('155 160 150 150')
  await dialog.getByRole('button', { name: 'Store what is turned' }).click()
  await expect(dialog).toBeHidden()
  await expect(sheet.getByRole('row', { name: /^Tyre, cold/ })).toContainText('(160')
  await page.keyboard.press('Control+z')
  await expect(sheet.getByRole('row', { name: /^Tyre, cold/ })).not.toContainText('(160')
  await page.goto(`${build}/aero?stage=${stage}`)
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^SVG/ }).click()])
  expect(saved.suggestedFilename()).toMatch(/^gannet-aero-stage-4-\d{4}-\d\d-\d\d\.svg$/)
})
