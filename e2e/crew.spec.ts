import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

const heading = (page: Page) => page.getByRole('heading', { level: 1 })
const as = (person: string) => ({ 'x-person': person })

test('who moved the number: seen, moved by two, a goal moved, a spell taken back by a key, and the build as it stood', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  const api = `/api${path}`
  const post = async (list: string, data: object, person: string) => {
    const answer = await page.request.post(`${api}/${list}`, { data: { id: randomUUID(), ...data }, headers: as(person) })
    expect(answer.status(), await answer.text()).toBe(201)
    return (await answer.json()) as { id: string; version: number }
  }
  const line = (name: string, massKg: number, person: string) =>
    post('changes', { stageId: stage, kind: 'off', name, state: 'planned', values: [{ massKg, proof: 'measured', at: '2026-03-01T10:00:00Z' }] }, person)
  const target = await post('targets', { metric: 'massReady', sense: 'atMost', value: 1150, dueStageId: stage }, 'Ilse')
  await page.goto(`${path}/board?stage=${stage}`)
  await heading(page).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('c')
  await expect(page.getByRole('button', { name: /^I have seen this/ })).toBeVisible()
  await page.keyboard.press('s')
  await expect(heading(page)).toHaveText(/^Nothing changed since /)

  await line('rear bench', 18, 'Tomas')
  await line('door cards', 6, 'Tomas')
  await line('carpets', 9, 'Wen')
  expect((await page.request.patch(`${api}/targets/${target.id}`, { data: { version: target.version, value: 1145 }, headers: as('Ilse') })).status()).toBe(200)
  // Others wrote: the page hears of it by itself.
  await expect(heading(page)).toHaveText(/^Since today \d\d:\d\d 33\.0\skg lighter; the mass goal is /, { timeout: 30_000 })
  const spells = page.getByRole('button', { pressed: false, name: /put \d line|moved the goal/ })
  await expect(spells).toHaveCount(3)
  await expect(page.getByText('car unmoved')).toBeVisible()
  await expect(page.getByRole('img', { name: /^Mass step by step/ })).toBeVisible()
  await expect(page.getByText(/with the old goal/)).toBeVisible()

  // The second spell is picked and taken back by keys; the goal that moved stays moved.
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('heading', { name: 'Tomas, record by record' })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('heading', { name: 'Wen, record by record' })).toBeVisible()
  await page.getByRole('button', { name: 'As it stood behind it' }).click()
  await expect(heading(page)).toHaveText(/^As it stood behind entry \d+ of the log$/)
  await expect(page.getByRole('row', { name: /^Mass 1\s?150/ })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Build file of then' })).toHaveAttribute('href', /file\?at=\d+$/)
  await page.getByRole('button', { name: 'Back to now' }).click()
  await expect(page.getByRole('heading', { name: 'Wen, record by record' })).toBeVisible()
  await page.keyboard.press('u')
  await expect(heading(page)).toHaveText(/24\.0\skg lighter/)
  await expect
    .poll(async () => ((await (await page.request.get(`${api}/changes`)).json()) as { name: string }[]).map(({ name }) => name).includes('carpets'))
    .toBe(false)
  await page.goto(`${path}/log`)
  await page.getByRole('link', { name: /^as it stood here: added door cards/ }).click()
  await expect(heading(page)).toHaveText(/^As it stood behind entry \d+ of the log$/)
})

test('the steps since then can be stopped; then and now stand all the same, and the steps come when they are asked for', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Gannet' }).click()
  await page.getByRole('heading', { name: 'What next' }).waitFor()
  const everyStep = /\/since\?.*ends=no/
  await page.route(everyStep, () => undefined)
  await page.goto(`${page.url().replace(/\/board.*/, '')}/crew?from=0`)
  await expect(page.getByText('The steps between are being worked out.')).toBeVisible()
  await page.getByRole('button', { name: 'Stop it' }).press('Enter')
  await expect(page.getByText('The steps between are not worked out.')).toBeVisible()
  await expect(page.getByText('before the first entry')).toBeVisible()
  await page.unroute(everyStep)
  await page.getByRole('button', { name: 'Work them out' }).press('Enter')
  await expect(page.getByText(/The steps between/)).toHaveCount(0, { timeout: 30_000 })
})
