import { randomUUID } from 'node:crypto'
import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { ovalGpx } from './oval-gpx.ts'
import { expect, test } from './server.ts'

const LAST = '0df0fadc-d339-4b0f-a1d5-51dc51f10900'

test('the lap of a stage: title, what holds the car, seconds to the wish, levers; a corner is picked by keyboard and stands in the address', async ({
  page,
}) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/track?stage=${LAST}`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Skarvholm airfield at stage 4: 1:24\.\d\d planned, 1:23\.50 wanted, unlikely$/, {
    timeout: 20_000,
  })
  await expect(page.getByRole('list', { name: 'What holds the car back' })).toContainText(/tyres hold it 3\d\.\d s/)
  await expect(page.getByText('Driven 10 Oct 2026, best of 11 clean')).toBeVisible()
  await expect(page.getByText(/splitter.*wing.*as a set/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('of any tyre, on this track')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('combobox', { name: /^corner/ }).focus()
  await page.keyboard.type('6')
  await expect(page).toHaveURL(/corner=6/)
  // The Board says the same once it is worked out.
  await page.goto(`${build}/board?stage=${LAST}`)
  await expect(page.getByRole('row', { name: /^Lap/ })).toContainText('unlikely', { timeout: 30_000 })
})

test('what a lap is fitted to is chosen by keyboard, and taken back', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/track?stage=${LAST}`)
  await expect(page.getByText(/By all sessions that stand, the grip alone/)).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Change what it is fitted to' }).press('Enter')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('checkbox')).toHaveCount(4)
  await dialog.getByLabel('By', { exact: true }).selectOption('gripAndBraking')
  await dialog.getByRole('checkbox').first().press('Space')
  await dialog.getByRole('button', { name: 'Fit to these' }).press('Enter')
  await expect(dialog).toBeHidden()
  await expect(page.getByText(/By 3 of 4 sessions, with 8\d.% of the brakes used/)).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('Control+z')
  await expect(page.getByText(/By all sessions that stand, the grip alone/)).toBeVisible({ timeout: 20_000 })
})

test('a goal of laps is of one track: beside the other on the Board, judged by its own laps, and taken back', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/plan?tab=goals&stage=${LAST}`)
  await page.getByLabel('Of', { exact: true }).selectOption('lapTime')
  await page.getByLabel('Value', { exact: true }).fill('1:05')
  await page.getByLabel('Track (goals of laps)').selectOption({ label: 'Tarwick Quarry' })
  await page.getByRole('button', { name: 'Add it' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Lap, Tarwick Quarry' })).toContainText('1:05 or less')
  await page
    .getByRole('link', { name: /^Board/ })
    .first()
    .click()
  const row = page.getByRole('row', { name: /Tarwick Quarry/ })
  await expect(row).toContainText(/on course|doubtful|unlikely/, { timeout: 40_000 })
  await expect(page.getByRole('row', { name: /Skarvholm airfield/ })).toContainText('unlikely')
  await page.keyboard.press('Control+z')
  await expect(row).toHaveCount(0)
})

test('a session on track says what it used up, in the unit of each life', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  const post = async (resource: string, data: object) =>
    expect((await page.request.post(`/api${path}/${resource}`, { data: { id: randomUUID(), ...data } })).status()).toBe(201)
  const [trackId, trackSessionId] = [randomUUID(), randomUUID()]
  await post('tracks', { id: trackId, name: 'Lane', isClosed: false, segments: [{ lengthM: 1500 }] })
  await post('track-sessions', { id: trackSessionId, stageId: stage, trackId, at: '2026-10-10T09:00:00Z' })
  for (const position of [0, 1, 2]) await post('laps', { trackSessionId, position, lapS: 60 })
  for (const [name, unit] of [
    ['front hub', 'hours'],
    ['soft set', 'laps'],
    ['shaft', 'days'],
  ] as const)
    await post('parts', { kind: name, name, life: { amount: 40, unit }, status: 'fitted' })
  await page.goto(`${path}/track?tab=sessions&stage=${stage}`)
  await expect(page.getByText('front hub 0.05 hours, soft set 3 laps, shaft 1 day.')).toBeVisible()
  await page.getByRole('button', { name: 'Log the use of 3 parts' }).click()
  await expect(page.getByText('Logged for all 3 fitted parts that have a life.')).toBeVisible()
  const { partUses } = await (await page.request.get(`/api${path}/records`)).json()
  expect(partUses.map(({ amount, trackSessionId: of }: { amount: number; trackSessionId: string }) => [amount, of]).sort()).toEqual([
    [0.05, trackSessionId],
    [1, trackSessionId],
    [3, trackSessionId],
  ])
})

test('an idea in one line is priced, or refused in words', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/track?tab=worth&stage=${LAST}`)
  await expect(page.getByRole('row', { name: /10 kg less/ })).toContainText(/−0\.\d{3}/, { timeout: 20_000 })
  const idea = page.getByLabel('An idea in one line')
  await idea.fill('-12 stone')
  await expect(page.getByText('“stone” is no unit of an idea')).toBeVisible()
  await idea.fill('-12 kg +8 kW')
  await expect(page.getByText(/^−0\.\d\d s a lap; .*laps a side would show it\.$/)).toBeVisible()
})

test('twenty minutes between sessions, by the line alone: laps, pressures, tread, what was turned and said; kept when the server is away', async ({
  page,
  served,
}) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/track?tab=sessions&do=session&stage=${LAST}`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('What it is for').fill('Wing one hole up')
  await dialog.getByLabel('When', { exact: true }).fill('2027-05-08T09:00')
  await dialog.getByLabel('Cold pressures').fill('155 155 150 kPa')
  await dialog.getByRole('button', { name: 'Store the session' }).click()
  await expect(dialog.getByText(/Cold pressures are four numbers/)).toBeVisible()
  await dialog.getByLabel('Cold pressures').fill('155 155 150 150 kPa')
  await dialog.getByLabel('Tyres when cold').fill('12')
  await dialog.getByRole('button', { name: 'Store the session' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('region', { name: 'The session', exact: true })).toContainText('8 May 2027')
  const line = page.getByLabel('A line of the paddock')
  await line.focus()
  for (const [typed, said] of [
    ['1:24.31 1:24.62 traffic 1:24.05', 'Stored: 1:24.31 · 1:24.62, traffic · 1:24.05.'],
    ['hot 198 196 190 188 kPa', /Stored: hot: 198/],
    ['tread LF 78 74 71', /Stored: tread LF: 78/],
    ['set wing hole 5', 'Stored: wing hole to 5.'],
    ['say "calm at last"', 'Stored: “calm at last”.'],
  ] as const) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
    await expect(page.getByText(said)).toBeVisible()
  }
  await line.fill('fast')
  await expect(page.getByText('“fast” is no word of the paddock.')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Four corners' })).toContainText('camber suits')
  await expect(page.getByRole('region', { name: 'The session', exact: true })).toContainText('calm at last')
  // A lap that cannot be, and one typed while the server is down.
  await line.fill('8.1')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/1,215 km\/h\. Typed short\? The line is kept\./)).toBeVisible()
  await served.kill()
  await line.fill('1:24.40')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/The line is kept\./)).toBeVisible({ timeout: 15_000 })
  await served.start()
  await page.reload()
  await expect(line).toHaveValue('1:24.40')
  await line.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Stored: 1:24.40.')).toBeVisible()
  await expect(page.getByRole('row', { name: /1:24\.40/ })).toHaveCount(1)
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('row', { name: /1:24\.40/ })).toHaveCount(0)
})

test('was it faster? one key: within noise beside each other, shown once it was put back', async ({ page }) => {
  const build = await buildAddress(page, 'Petrel')
  await page.goto(`${build}/track?tab=compare`)
  await expect(page.getByText('Nothing to hold beside each other')).toBeVisible()
  const gannet = await buildAddress(page, 'Gannet')
  const sessions = (await (await page.request.get(`/api${gannet}/track-sessions`)).json()) as { id: string; aim: string | null }[]
  const idOf = (aim: string) => sessions.find((each) => each.aim?.startsWith(aim))?.id ?? ''
  await page.goto(`${gannet}/track?tab=compare&a=${idOf('Rear bar: soft')}&b=${idOf('Rear bar one hole')}`)
  await expect(page.getByRole('heading', { name: 'Within noise' })).toBeVisible()
  await expect(page.getByText('rear bar turned from soft to middle')).toBeVisible()
  await expect(page.getByText(/It leaves out zero: the change does that\./)).toBeVisible()
  await page.goto(`${gannet}/track?tab=tracks`)
  await expect(page.getByText('Drawn along its middle').first()).toBeVisible()
  await page.keyboard.press('c')
  await expect(page).toHaveURL(/tab=compare/)
})

test('cold for hot by the car’s own pairs and both schools; brakes that lock the rear first are a danger until the balance moves', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/track?tab=tyres&stage=cd6a4292-f27b-4af9-89bc-15a5956f5c71`)
  await page.getByLabel('Wanted hot, left front').fill('195 kPa')
  await page.getByLabel('Tyres today, cold').fill('2')
  const row = page.getByRole('row', { name: /Left front/ })
  await expect(row).toContainText('151.')
  await page.getByLabel('The gas').selectOption('sameHot')
  await expect(row).not.toContainText('151.')
  await expect(row).toContainText(/14\d\.\d/)
  await expect(page.getByText('The rear locks first')).toBeVisible()
  await page.getByRole('button', { name: 'Edit them' }).click()
  await page.getByLabel('Front share of the bar').fill('75')
  await page.getByRole('button', { name: 'Save the brakes' }).click()
  await expect(page.getByText('The front locks first')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('The rear locks first')).toBeVisible()
})

test('from an empty build: a track drawn and refused, one out of a trace, and a lap that is named a guess', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/track?stage=${stage}`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Draw or import a track; the lap stands here')
  await page.getByRole('link', { name: 'Draw or import a track' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name of the track').fill('Bent')
  await dialog.getByLabel('Pieces, a line each').fill('100\nleft 30 180\n110\nleft 30 180')
  await expect(dialog.getByText(/the ends miss each other by 10\.0/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Store the track' }).click()
  await expect(dialog.getByText('The ends miss each other by 10.0 m. Close it, or say it is no circuit.')).toBeVisible()
  await dialog.getByLabel('A trace that was driven').setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('a,b\n1,2') })
  await expect(dialog.getByText('No columns of latitude and longitude were found')).toBeVisible()
  await dialog.getByLabel('A trace that was driven').setInputFiles({ name: 'oval.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(ovalGpx()) })
  await expect(dialog.getByText(/\d+ of \d+ places, 67\d m, ends .* closed/)).toBeVisible()
  await dialog.getByLabel('Name of the track').fill('Oval')
  await dialog.getByRole('button', { name: 'Store the track' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByText(/A driven line, smoothed over 25 m/)).toBeVisible()
  await page.getByRole('button', { name: 'Lap', exact: true }).click()
  await expect(page.getByRole('link', { name: /^its power/ })).toBeVisible()
  const buildId = path.split('/').at(-1) as string
  const records = (await (await page.request.get(`/api/builds/${buildId}/stages`)).json()) as { id: string; position: number }[]
  const made = await page.request.post(`/api/builds/${buildId}/expectations`, {
    data: {
      id: randomUUID(),
      stageId: records.find(({ position }) => position === 0)?.id,
      metric: 'wheelPower',
      mode: 'to',
      value: 180_000,
      sd: 9000,
      proof: 'guess',
    },
  })
  expect(made.status()).toBe(201)
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Oval at stage \d: .* to .*, a guess$/, { timeout: 20_000 })
  await expect(page.getByText('Nothing was driven: a guess of')).toBeVisible()
})

test('drift: runs come first, a run by its line, and what a season needs', async ({ page }) => {
  const build = await buildAddress(page, 'Osprey')
  await page.goto(`${build}/track`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('31 runs on 12 rear pairs, entry 94 km/h')
  await page.getByLabel('rear tyres in stock').fill('30')
  await expect(page.getByText(/78 rear tyres/)).toBeVisible()
  await expect(page.getByText(', 48 short')).toBeVisible()
  const line = page.getByLabel('A line of the paddock')
  await line.fill('run 96 km/h 40 deg 3rd')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Stored: a run: 96 km/h, 40 °, gear 3.')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^32 runs/)
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^31 runs/)
})

test('a stopwatch keeps its laps in the browser and stores them in the session', async ({ page }) => {
  const build = await buildAddress(page, 'Petrel')
  await page.clock.install({ time: new Date('2027-03-27T09:00:00Z') })
  await page.goto(`${build}/track?tab=sessions`)
  // The clock stands but for what is said here: a slow machine adds nothing to a lap.
  await page.getByRole('button', { name: 'Start the watch' }).focus()
  await page.clock.pauseAt(new Date('2027-03-27T09:10:00Z'))
  await page.keyboard.press('Space')
  await page.clock.fastForward(93_400)
  await page.keyboard.press('Space')
  await page.clock.fastForward(92_900)
  await page.keyboard.press('Space')
  await expect(page.getByText(/1:33\.40 · 1:32\.90/)).toBeVisible()
  await page.clock.resume()
  await page.reload()
  await expect(page.getByText(/1:33\.40 · 1:32\.90/)).toBeVisible()
  await page.getByRole('button', { name: 'Store these 2 laps' }).click()
  await expect(page.getByRole('row', { name: /^9 1:33/ })).toBeVisible()
  await page.getByRole('button', { name: 'Delete lap 10' }).click()
  await page.getByRole('button', { name: 'Delete lap 9' }).click()
  await expect(page.getByRole('row', { name: /^9 1:33/ })).toHaveCount(0)
})
