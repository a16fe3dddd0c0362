import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { ovalGpx } from './oval-gpx.ts'
import { expect, test } from './server.ts'

/** A car that goes round the same oval at an even 20 m/s, ten samples a second, from before the line. */
function ovalLog(seconds: number): string {
  const rows = ['time,latitude,longitude']
  const half = 150 + Math.PI * 60
  for (let i = 0; i < 10 * seconds; i++) {
    const m = (2 * i + 2 * half - 40) % (2 * half)
    const [side, along] = [m < half ? 1 : -1, m % half]
    const turn = along > 150 ? (along - 150) / 60 : 0
    const x = along > 150 ? 75 + 60 * Math.sin(turn) : along - 75
    const y = along > 150 ? -60 * Math.cos(turn) : -60
    rows.push(`${(i / 10).toFixed(1)},${59 + (side * y) / 111_412},${18 + (side * x) / 57_478}`)
  }
  return rows.join('\n')
}

test('a traced track takes laps out of a log; one of another kind, and a logger that recorded nothing, say so', async ({ page }) => {
  const { path } = await freshBuild(page)
  await page.goto(`${path}/track?tab=tracks&do=track`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('A trace that was driven').setInputFiles({ name: 'oval.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(ovalGpx()) })
  await dialog.getByLabel('Name of the track').fill('Oval')
  await dialog.getByRole('button', { name: 'Store the track' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Sessions' }).click()
  await page.getByRole('button', { name: 'New session' }).click()
  await page.getByRole('button', { name: 'Store the session' }).click()
  const log = page.getByRole('region', { name: 'Logs of the session' })
  const give = (name: string, text: string) => log.getByLabel('A log as CSV').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await give('pull.csv', 'rpm,torque\n3000,300')
  await expect(page.getByText('No line heads a time with positions, a speed or a lap number. Found "rpm", "torque".')).toBeVisible()
  await give('short.csv', 'time,latitude,longitude\n0,59,18')
  await expect(page.getByText(/The log holds 1 samples: the logger recorded nothing/)).toBeVisible()
  await give('oval.csv', ovalLog(125))
  // Once round is 677 m: 33.85 s at 20 m/s.
  await expect(page.getByText(/33\.8\d\ss · 33\.8\d\ss · 33\.8\d\ss/)).toBeVisible()
  await page.getByRole('button', { name: 'Store it with these 3 laps' }).click()
  await expect(page.getByRole('row', { name: /^1 33\.8/ })).toBeVisible()
  await expect(log.getByText('oval.csv').first()).toBeVisible()
  await give('oval.csv', ovalLog(125))
  await expect(page.getByText(/The session has 3 laps already and they agree with the log/)).toBeVisible()
})

test('a log whose columns nobody can guess is read by what a person says, and remembered for its logger', async ({ page }) => {
  const build = await buildAddress(page, 'Petrel')
  await page.goto(`${build}/track?tab=sessions`)
  const log = page.getByRole('region', { name: 'Logs of the session' })
  await log.getByLabel('of the logger').fill('grey box')
  const odd = ['A,B,C', ...Array.from({ length: 600 }, (_, i) => `${i / 10},${(25 + Math.sin(i / 9)).toFixed(2)},90`)].join('\n')
  const give = () => log.getByLabel('A log as CSV').setInputFiles({ name: 'odd.csv', mimeType: 'text/csv', buffer: Buffer.from(odd) })
  await give()
  await expect(log.getByText(/No line heads a time/)).toBeVisible()
  await log.getByLabel('A is', { exact: true }).selectOption('time')
  await log.getByLabel('B is', { exact: true }).selectOption('speed')
  await log.getByLabel('B is in', { exact: true }).selectOption('m/s')
  await expect(log.getByText(/600 samples over 1\.0 min, 10 a second/)).toBeVisible()
  await log.getByRole('button', { name: 'Store the log' }).click()
  await expect(log.getByText('grey box, 3 channels')).toBeVisible()
  await give()
  await expect(log.getByText(/600 samples over 1\.0 min/)).toBeVisible()
  await log.getByRole('button', { name: 'Delete odd.csv' }).click()
  await expect(log.getByText('grey box, 3 channels')).toBeHidden()
})

test('two laps along the track: where B gains and loses; power and grip out of the logs for Proof', async ({ page }) => {
  const gannet = await buildAddress(page, 'Gannet')
  const sessions = (await (await page.request.get(`/api${gannet}/track-sessions`)).json()) as { id: string; aim: string | null }[]
  const idOf = (aim: string) => sessions.find((each) => each.aim?.startsWith(aim))?.id ?? ''
  await page.goto(`${gannet}/track?tab=compare&a=${idOf('Rear bar: soft')}&b=${idOf('Rear bar one hole')}`)
  const laps = page.getByRole('region', { name: 'Two laps along the track' })
  await expect(laps.getByRole('img', { name: /at the end -0\.0[89] s/ })).toBeVisible()
  await laps.getByRole('combobox').nth(1).selectOption({ index: 1 })
  await expect(laps.getByRole('img', { name: /at the end 0\.0[78] s/ })).toBeVisible()
  await expect(page).toHaveURL(/lapB=/)
  await expect(laps.getByRole('row')).toHaveCount(13)
  await page.goto(`${gannet}/track?tab=compare&a=${idOf('A day on')}&b=${idOf('Rear bar: soft')}`)
  await expect(page.getByText(/once session A has a log with clean laps/)).toBeVisible()
  const stages = (await (await page.request.get(`/api${gannet}/stages`)).json()) as { id: string; position: number }[]
  await page.goto(`${gannet}/track?tab=proof&stage=${stages.find(({ position }) => position === 2)?.id}`)
  await expect(page.getByText('Road and dyno agree.')).toBeVisible()
  await expect(page.getByText('The slope of the road is not known')).toBeVisible()
  await page.getByRole('button', { name: 'Read it again 2026-10-10-1140.csv' }).click()
  await expect(page.getByText(/\d+ full-throttle windows, corners of 4 laps/)).toHaveCount(3)
  await expect(page.getByText('Reading …')).toHaveCount(0)
  await expect(page.getByText('Road and dyno agree.')).toBeVisible()
  await page.getByRole('button', { name: /^Hand its drag and load to Aero\s+of 2026-10-10-1140\.csv/ }).click()
  await expect(page.getByText(/The car rolled freely both ways on no straight of it/)).toBeVisible({ timeout: 30_000 })
  await page.goto(`${gannet}/track?tab=proof&stage=${stages.find(({ position }) => position === 4)?.id}`)
  await expect(page.getByText('No log of this stage')).toBeVisible()
})

/** A runway driven both ways at ten rows a second: pulled up, held for six seconds, rolled out of gear down to 20 m/s, held there; dampers sink with the square of the speed. */
function runwayLog(): string {
  const rows = ['time,speed [m/s],throttle [%],rpm,latitude,longitude,damper LF [mm],damper RF [mm],damper LR [mm],damper RR [mm]']
  let [i, along] = [0, 0]
  const put = (v: number, way: number, throttle: number, rpm: number) => {
    along += (way * v) / 10
    const sunk = (perSquare: number) => (perSquare * v * v + Math.sin(2.1 * i)).toFixed(2)
    const dampers = [sunk(0.004), sunk(0.004), sunk(0.006), sunk(0.006)]
    rows.push([(i / 10).toFixed(1), v.toFixed(3), throttle, rpm, (59 + along / 111_412).toFixed(7), 18, ...dampers].join(','))
    i++
  }
  for (const way of [1, -1, 1, -1]) {
    for (let v = 5; v < 50; v += 0.6) put(v, way, 100, 5000)
    for (let k = 0; k < 60; k++) put(50, way, 60, 5200)
    for (let v = 50; v > 20; v -= 0.1 * (0.14 + (0.5 * 1.2 * 0.8 * v * v) / 1360)) put(v, way, 0, 900)
    for (let k = 0; k < 60; k++) put(20, way, 20, 2600)
    for (let v = 20; v > 0.5; v -= 0.7) put(v, way, 0, 900)
    for (let k = 0; k < 20; k++) put(0.1, way, 0, 900)
  }
  return rows.join('\n')
}

test('a log of a runway hands Aero its coasting and what the axles carried, and one entry of the log takes both back', async ({ page }) => {
  const gannet = await buildAddress(page, 'Gannet')
  const list = async (name: string) => (await (await page.request.get(`/api${gannet}/${name}`)).json()) as { id: string; kind: string; version: number }[]
  const stages = (await (await page.request.get(`/api${gannet}/stages`)).json()) as { id: string; position: number }[]
  const stage = stages.find(({ position }) => position === 2)?.id
  const before = { tests: await list('aero-tests'), sessions: await list('track-sessions') }
  await page.goto(`${gannet}/track?tab=sessions&stage=${stage}&do=session`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('What it is', { exact: true }).selectOption('straight')
  await dialog.getByRole('button', { name: 'Store the session' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('button', { name: /^a straight, both ways/ })).toHaveAttribute('aria-pressed', 'true')
  const logs = page.getByRole('region', { name: 'Logs of the session' })
  await logs.getByLabel('A log as CSV').setInputFiles({ name: 'runway.csv', mimeType: 'text/csv', buffer: Buffer.from(runwayLog()) })
  await logs.getByRole('button', { name: 'Store the log' }).click()
  await expect(logs.getByText('runway.csv').first()).toBeVisible()
  await page.goto(`${gannet}/track?tab=proof&stage=${stage}`)
  await page.getByRole('button', { name: /^Hand its drag and load to Aero\s+of runway\.csv/ }).click()
  await expect(page.getByText(/Aero has 2 pairs of coasting and \d+ seconds of load on the axles to test with now/)).toBeVisible({ timeout: 30_000 })
  const made = (await list('aero-tests')).filter(({ id }) => !before.tests.some((test) => test.id === id))
  expect(made.map(({ kind }) => kind).sort()).toEqual(['coastDown', 'steady'])
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await list('aero-tests')).length).toBe(before.tests.length)
  for (const { id, version } of await list('track-sessions'))
    if (!before.sessions.some((session) => session.id === id))
      expect((await page.request.delete(`/api${gannet}/track-sessions/${id}`, { data: { version } })).ok()).toBe(true)
})

test('a simulated logger: it warns before the car goes out, tells laps that are stored, and its silence is told', async ({ page }) => {
  const build = await buildAddress(page, 'Petrel')
  await page.request.post('/api/devices/stand-ins', { data: { kind: 'logger' } })
  await page.goto(`${build}/track?tab=sessions`)
  const logger = page.getByRole('region', { name: 'Logger', exact: true })
  await expect(logger.getByText('recording, ready to go out')).toBeVisible()
  await logger.getByRole('button', { name: 'Forget to record' }).click()
  await expect(logger.getByRole('alert')).toContainText('It is not recording: this session would be lost.')
  await logger.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(logger.getByText('recording, ready to go out')).toBeVisible()
  await logger.getByRole('button', { name: 'Drive five laps' }).click()
  await expect(logger.getByText('Lateral acc')).toBeVisible()
  await logger.getByRole('button', { name: 'Store these 5 laps of the logger' }).click({ timeout: 60_000 })
  await expect(page.getByRole('row', { name: /^13 1:/ })).toBeVisible()
  await logger.getByRole('button', { name: 'Drop out' }).click()
  await expect(logger.getByText(/has said nothing for 2\.5 s/)).toBeVisible()
  await expect(logger.getByText('recording, ready to go out')).toBeVisible({ timeout: 20_000 })
  const devices = (await (await page.request.get('/api/devices')).json()) as { id: string; kind: string }[]
  for (const { id, kind } of devices) if (kind === 'logger') await page.request.delete(`/api/devices/stand-ins/${id}`, { data: {} })
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('row', { name: /^13 1:/ })).toHaveCount(0)
})
