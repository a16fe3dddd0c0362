// One picture of each main view that a room declares, from the demo of a running server: npm run screenshots [-- http://127.0.0.1:4600] [folder]
// Those of a crew are taken from the demo that a crew works on (DEMO=crew), with SIGN_IN="name:password".
import { existsSync, mkdirSync, readdirSync } from 'node:fs'
import path from 'node:path'
import { chromium } from '@playwright/test'
import { findChromium, root } from './install.mjs'

const base = process.argv[2] ?? 'http://127.0.0.1:4600'
const folder = process.argv[3] ?? path.join(root, 'docs', 'screenshots')
const only = process.argv[4]
mkdirSync(folder, { recursive: true })
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
})
const signIn = process.env.SIGN_IN
const context = await browser.newContext({ baseURL: base })
if (signIn) {
  const [login, password] = signIn.split(':')
  const answer = await context.request.post('/api/sign-in', { data: { login, password }, headers: { origin: base } })
  if (!answer.ok()) throw new Error(await answer.text())
}
const entries = await (await context.request.get('/api/builds')).json()
const folders = readdirSync(path.join(root, 'web/src/features')).filter((name) => existsSync(path.join(root, 'web/src/features', name, 'room.ts')))
const rooms = await Promise.all(folders.map(async (name) => (await import(`../web/src/features/${name}/room.ts`)).room))
const idOf = (name) => entries.find((entry) => entry.build.name === name).build.id
const lastStage = async (id) => (await (await context.request.get(`/api/builds/${id}/board`)).json()).stages.at(-1).id
const views = signIn ? [] : [{ name: 'garage', url: base }]
for (const room of rooms.sort((a, b) => a.place - b.place))
  for (const { build = 'Gannet', query = '', atLastStage, ...picture } of room.pictures.filter(({ ofCrew = false }) => ofCrew === (signIn !== undefined))) {
    const last = await lastStage(idOf(build))
    const parts = [query.replace('LAST', last), atLastStage ? `stage=${last}` : ''].filter(Boolean)
    views.push({ ...picture, url: `${base}/builds/${idOf(build)}/${room.path}${parts.length > 0 ? `?${parts.join('&')}` : ''}` })
  }
for (const { name, url, theme = 'light', width = 1280, height = 800, press, until, hasCurves, day } of views) {
  if (only && !only.split(',').includes(name)) continue
  const page = await context.newPage()
  await page.setViewportSize({ width, height })
  await page.addInitScript((chosen) => localStorage.setItem('bold-ballast.preferences', JSON.stringify({ theme: chosen, person: 'Ilse' })), theme)
  const faults = []
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()))
  if (day) await page.clock.install({ time: new Date(`${day}T08:00:00`) })
  await page.goto(url)
  await page.locator('h1').first().waitFor()
  if (hasCurves) await page.locator('.main-svg').first().waitFor()
  if (press) {
    await page.getByRole('button', { name: press }).click()
    await page.getByText(until, { exact: true }).waitFor()
  } else if (until) await page.getByText(until).first().waitFor()
  await page.waitForTimeout(400)
  await page.screenshot({ path: path.join(folder, `${name}.png`) })
  if (faults.length > 0) console.error(name, faults)
  await page.close()
}
await browser.close()
