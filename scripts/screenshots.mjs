// One picture of each main view that a room declares, from the demo of a running server: npm run screenshots [-- http://127.0.0.1:4600] [folder]
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
const entries = await (await fetch(`${base}/api/builds`)).json()
const folders = readdirSync(path.join(root, 'web/src/features')).filter((name) => existsSync(path.join(root, 'web/src/features', name, 'room.ts')))
const rooms = await Promise.all(folders.map(async (name) => (await import(`../web/src/features/${name}/room.ts`)).room))
const idOf = (name) => entries.find((entry) => entry.build.name === name).build.id
const lastStage = async (id) => (await (await fetch(`${base}/api/builds/${id}/board`)).json()).stages.at(-1).id
const views = [{ name: 'garage', url: base }]
for (const room of rooms.sort((a, b) => a.place - b.place))
  for (const { build = 'Gannet', query = '', atLastStage, ...picture } of room.pictures) {
    const last = await lastStage(idOf(build))
    const parts = [query.replace('LAST', last), atLastStage ? `stage=${last}` : ''].filter(Boolean)
    views.push({ ...picture, url: `${base}/builds/${idOf(build)}/${room.path}${parts.length > 0 ? `?${parts.join('&')}` : ''}` })
  }
for (const { name, url, theme = 'light', width = 1280, height = 800, press, until, hasCurves, day } of views) {
  if (only && !only.split(',').includes(name)) continue
  const page = await browser.newPage({ viewport: { width, height } })
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
