import { randomUUID } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import type { Download, Page } from '@playwright/test'
import Papa from 'papaparse'
import { makeLargeBuild } from '../scripts/large-build.mjs'
import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

const textOf = async (download: Download) => readFile(await download.path(), 'utf8')
const notice = (page: Page) => page.locator('[data-notice]')

/** Types a line and waits until it stands in the ledger. */
async function typeLine(page: Page, text: string, name: string): Promise<void> {
  await page.locator('#entry').fill(text)
  await page.locator('#entry').press('Enter')
  await expect(page.getByRole('cell', { name, exact: true })).toBeVisible()
}

async function findAndDo(page: Page, text: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await expect(page.locator('[data-find] input')).toBeFocused()
  await page.keyboard.type(text)
  await expect(page.locator(`[data-found-for="${text}"]`)).toBeVisible()
  await page.keyboard.press('Enter')
}

async function importFile(page: Page, file: object): Promise<string> {
  const answer = await page.request.post(`/api/build-files?mode=import&as=new&importId=${randomUUID()}`, { data: file })
  expect(answer.status(), await answer.text()).toBe(201)
  return `/builds/${(await answer.json()).buildId}`
}

const withoutSamples = (options: object) => {
  const { file } = makeLargeBuild(options)
  for (const pull of file.pulls) Object.assign(pull, { samples: null })
  return file
}

test.describe('taking back', () => {
  test('a stored line is taken back by its notice, by Ctrl Z outside a field, and from the log', async ({ page }) => {
    const build = await buildAddress(page, 'Petrel')
    await page.goto(`${build}/weight`)
    const cell = (name: string) => page.getByRole('cell', { name, exact: true })
    await typeLine(page, 'on horn 0.6 kg', 'horn')
    await expect(notice(page)).toContainText('Added horn')
    await notice(page).getByRole('button', { name: 'Undo' }).click()
    await expect(cell('horn')).toHaveCount(0)
    await typeLine(page, 'on mirror 0.4 kg', 'mirror')
    await typeLine(page, 'on tow eye 0.5 kg', 'tow eye')
    // In the field Ctrl Z is the browser's own and takes nothing stored back.
    await page.locator('#entry').press('Control+z')
    await expect(cell('tow eye')).toBeVisible()
    await page.locator('h1').click()
    await page.keyboard.press('Control+z')
    await expect(cell('tow eye')).toHaveCount(0)
    await page.keyboard.press('Control+z')
    await expect(cell('mirror')).toHaveCount(0)
    await page.keyboard.press('g')
    await page.keyboard.press('o')
    await expect(page.locator('main li').first()).toContainText('took back: deleted a ledger line mirror')
    await page.getByRole('button', { name: 'Undo: deleted mirror' }).click()
    await expect(page.locator('main li').first()).toContainText('took back: put back a ledger line mirror')
    await page.keyboard.press('g')
    await page.keyboard.press('w')
    await expect(cell('mirror')).toBeVisible()
  })

  test('what somebody built on stays, with the reason', async ({ page }) => {
    const build = await buildAddress(page, 'Petrel')
    await page.goto(`${build}/weight`)
    await typeLine(page, 'on door bar 3.1 kg', 'door bar')
    const lines = (await (await page.request.get(`/api${build}/changes`)).json()) as { id: string; name: string; version: number }[]
    const line = lines.find((entry) => entry.name === 'door bar')
    await page.request.patch(`/api${build}/changes/${line?.id}`, { data: { version: line?.version, name: 'longer door bar' }, headers: { 'x-person': 'Odd' } })
    await notice(page).getByRole('button', { name: 'Undo' }).click()
    await expect(notice(page)).toContainText('It stays as it is. Odd has changed "longer door bar" since')
  })
})

test.describe('finding and doing', () => {
  test('goes anywhere and does anything by keyboard alone', async ({ page }) => {
    const build = await buildAddress(page, 'Gannet')
    await page.goto(`${build}/board`)
    await page.getByRole('heading', { name: 'What next' }).waitFor()
    const find = (text: string) => findAndDo(page, text)
    await find('tailgate with glass')
    await expect(page).toHaveURL(/weight\?stage=.*line=/)
    await expect(page.getByRole('cell', { name: /^tailgate with glass/ })).toBeVisible()
    await find('tarwick hub')
    await expect(page.getByRole('dialog')).toContainText('Tarwick hub dyno')
    await page.keyboard.press('Escape')
    await find('density of moist')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Density of moist air')
    await find('osprey')
    await expect(page.getByRole('heading', { level: 1 })).toContainText('not there yet')
    await find('pit light')
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
    await page.keyboard.press('Control+k')
    await expect(page.locator('[data-find] input')).toBeFocused()
    await page.keyboard.type('no such thing at all')
    await expect(page.getByText('Nothing here has every word of that')).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog')).toBeHidden()
  })

  for (const [what, place] of [
    ['enter a weighing', 'Store the weighing'],
    ['enter a dyno session', 'Store the session'],
  ] as const)
    test(`can ${what}`, async ({ page }) => {
      await page.goto(`${await buildAddress(page, 'Gannet')}/board`)
      await page.getByRole('heading', { name: 'What next' }).waitFor()
      await findAndDo(page, what)
      await expect(page.getByRole('button', { name: place })).toBeVisible()
    })
})

test.describe('files', () => {
  test('a build goes out as a file and comes in again, as its own and as an update', async ({ page }, info) => {
    const build = await buildAddress(page, 'Osprey')
    await page.goto(`${build}/board`)
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Export the build' }).click()])
    expect(download.suggestedFilename()).toMatch(/^osprey-\d{4}-\d\d-\d\d\.zip$/)
    const file = info.outputPath('osprey.zip')
    await download.saveAs(file)
    await page.goto('/open')
    await page.getByLabel('Build file, .zip or .json').setInputFiles(file)
    await expect(page.getByText('4 stages, 28 ledger lines')).toBeVisible()
    await page.getByText('Update the build that is here; keep').click()
    await expect(page.getByText('Osprey is already as the file says')).toBeVisible()
    await page.getByText('Add it as a build of its own').click()
    await page.getByRole('button', { name: 'Add Osprey to the Garage' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText('targets not there yet')
    expect(page.url()).not.toContain(build)
    await expect(notice(page)).toContainText('Imported Osprey')
    await notice(page).getByRole('button', { name: 'Undo' }).click()
    await expect(notice(page)).toContainText('Taken back: Osprey')
  })

  test('a wrong file is refused with the cause', async ({ page }) => {
    await page.goto('/open')
    const choose = (name: string, text: string) =>
      page.getByLabel('Build file, .zip or .json').setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text) })
    await choose('shopping.json', '{"bread": 2}')
    await expect(page.getByRole('alert')).toContainText('This is no build file')
    await choose('half.zip', 'PK\u0003\u0004 and then nothing')
    await expect(page.getByRole('alert')).toContainText('damaged or cut short')
    await expect(page.getByRole('button', { name: /Garage/ })).toHaveCount(0)
  })

  test('tables come out as CSV with units, full numbers and guarded texts', async ({ page }) => {
    const build = await buildAddress(page, 'Petrel')
    await page.goto(`${build}/weight`)
    await typeLine(page, 'off =cmd|calc 1.25 kg', '=cmd|calc')
    const [ledger] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^CSV/ }).click()])
    const text = await textOf(ledger)
    expect(text).toContain('\r\n')
    const { data, errors } = Papa.parse<string[]>(text.trim())
    expect(errors).toEqual([])
    const [head = [], ...rows] = data
    expect(head).toContain('Mass, all pieces (kg)')
    const row = rows.find((cells) => cells[1]?.includes('cmd'))
    expect(row?.[1]).toBe("'=cmd|calc")
    expect(row?.[head.indexOf('Mass, all pieces (kg)')]).toBe('-1.25')
    expect(new Set(data.map((cells) => cells.length)).size).toBe(1)
    for (const room of ['board', 'log', 'plan', 'plan?tab=goals', 'weight?tab=scales', 'power']) {
      await page.goto(`${build}/${room}`)
      const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^CSV/ }).first().click()])
      expect(Papa.parse((await textOf(download)).trim()).data.length, room).toBeGreaterThan(1)
    }
    const gannet = await buildAddress(page, 'Gannet')
    await page.clock.install({ time: new Date('2027-03-01T08:00:00') })
    for (const room of ['jobs?tab=road', 'jobs?tab=money', 'jobs?tab=decisions', 'jobs?tab=dates', 'plan?tab=rules', 'report?tab=rounds', 'report?tab=story']) {
      await page.goto(`${gannet}/${room}`)
      const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^CSV/ }).first().click()])
      const { data, errors } = Papa.parse<string[]>((await textOf(download)).trim())
      expect(errors, room).toEqual([])
      expect(data.length, room).toBeGreaterThan(1)
      expect(new Set(data.map((cells) => cells.length)).size, room).toBe(1)
    }
  })
})

test.describe('large, small and broken', () => {
  test('a ledger of a thousand lines scrolls, filters and takes a line, and draws only what is seen', async ({ page }) => {
    const build = await importFile(page, withoutSamples({ name: 'Heron' }))
    await page.goto(`${build}/board`)
    await expect(page.locator('tr[data-goal]')).toHaveCount(17)
    await page.getByRole('button', { name: /^only the \d+ not met/ }).click()
    expect(await page.locator('tr[data-goal]').count()).toBeLessThan(17)
    const stages = (await (await page.request.get(`/api${build}/stages`)).json()) as { id: string }[]
    await page.goto(`${build}/weight?stage=${stages[1]?.id}`)
    const scroller = page.locator('[data-ledger]')
    await expect(page.getByText(/of 1\d\d\d lines/)).toBeVisible()
    expect(await scroller.locator('tbody tr').count()).toBeLessThan(80)
    await scroller.evaluate((element) => element.scrollTo(0, element.scrollHeight))
    await expect(scroller.getByText('On,', { exact: false }).or(scroller.locator('[data-part]').last())).toBeVisible()
    await page.locator('#entry').fill('off lost washer 0.01 kg')
    await page.locator('#entry').press('Enter')
    await expect(page.getByRole('cell', { name: 'lost washer', exact: true })).toBeInViewport()
    await page.getByLabel('Only lines with').fill('lost washer')
    await expect(scroller.locator('[data-part]')).toHaveCount(1)
    await expect(page).toHaveURL(/filter=/)
    await page.reload()
    await expect(scroller.locator('[data-part]')).toHaveCount(1)
    await page.getByLabel('Only lines with').fill('zebra')
    await page.getByRole('button', { name: 'Show all' }).click()
    await expect(page.getByLabel('Only lines with')).toHaveValue('')
  })

  for (const width of [390, 1024])
    test(`nothing scrolls sideways at ${width} px with the large build`, async ({ page }) => {
      await page.setViewportSize({ width, height: 800 })
      const build = await importFile(page, withoutSamples({ name: `Heron ${width}`, lineCount: 600, pullCount: 10 }))
      for (const route of ['board', 'plan', 'plan?tab=goals', 'weight', 'weight?tab=scales', 'power', 'power?tab=links', 'parts', 'parts?tab=beside', 'log']
        .map((room) => `${build}/${room}`)
        .concat('/', '/open', '/formulas/mass.forecast')) {
        await page.goto(route)
        await page.locator('h1').first().waitFor()
        expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), route).toBeLessThanOrEqual(0)
      }
    })

  test('a build with one broken record names it everywhere and shows the rest', async ({ page, served }) => {
    const build = await importFile(page, withoutSamples({ name: 'Cracked', lineCount: 20, pullCount: 5 }))
    const lines = (await (await page.request.get(`/api${build}/changes`)).json()) as { id: string; name: string; version: number }[]
    await served.query('update changes set "values" = \'[{"massKg":-1}]\' where id = $1 and build_id = $2', [lines[3]?.id ?? '', build.split('/').at(-1) ?? ''])
    await page.request.patch(`/api${build}/changes/${lines[4]?.id}`, { data: { version: 1, zone: 'nose' } })
    await served.kill()
    await served.start()
    for (const room of ['board', 'plan', 'weight', 'power']) {
      await page.goto(`${build}/${room}`)
      await expect(page.getByRole('alert').first()).toContainText(`One record is broken`)
      await expect(page.getByRole('alert').first()).toContainText(lines[3]?.name ?? '')
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    }
    await page.goto('/')
    await expect(page.getByText('One record is broken and left out.')).toBeVisible()
  })

  test('an empty build says in every room how to begin', async ({ page }) => {
    const { build, stages } = withoutSamples({ name: 'Empty' })
    const empty = await importFile(page, {
      format: 'bold-ballast-build',
      formatVersion: 1,
      build: { ...build, id: randomUUID() },
      stages: [{ ...stages[0], id: randomUUID() }],
    })
    for (const [room, words] of [
      ['board', 'No goal set'],
      ['weight', 'Stage 0 holds no changes'],
      ['weight?tab=scales', 'scales'],
      ['power', 'No dyno session yet'],
      ['power?tab=compare', 'No dyno session yet'],
      ['power?tab=plan', 'The engine is not planned yet'],
      ['power?tab=links', 'There is no engine plan yet'],
      ['power?tab=hours', 'No hours at the dyno are planned'],
      ['power?tab=live', 'No dyno is connected'],
      ['parts', 'Nothing here yet'],
      ['parts?tab=shelf', 'Five of 1 300 cc'],
      ['plan?tab=goals', 'target'],
      ['log', 'imported the build Empty'],
    ]) {
      await page.goto(`${empty}/${room}`)
      await expect(page.getByText(words as string, { exact: false }).first()).toBeVisible()
    }
  })
})
