// One picture of each main view, from the demo of a running server: npm run screenshots [-- http://127.0.0.1:4600] [folder]
import { mkdirSync } from 'node:fs'
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
const [entry] = await (await fetch(`${base}/api/builds`)).json()
const build = `${base}/builds/${entry.build.id}`
const views = [
  ['garage', base],
  ['board', `${build}/board`],
  ['plan', `${build}/plan?tab=goals`],
  ['weight', `${build}/weight`],
  ['scales', `${build}/weight?tab=scales`],
  ['power', `${build}/power`],
  ['working', `${build}/board?working=mass:${(await (await fetch(`${build.replace('/builds', '/api/builds')}/board`)).json()).stages.at(-1).id}`],
  ['board-dark', `${build}/board`, { theme: 'dark' }],
  ['weight-phone', `${build}/weight`, { width: 390, height: 844 }],
  ['board-phone', `${build}/board`, { width: 390, height: 844 }],
]
for (const [name, url, { theme = 'light', width = 1280, height = 800 } = {}] of views) {
  if (only && !only.split(',').includes(name)) continue
  const page = await browser.newPage({ viewport: { width, height } })
  await page.addInitScript((chosen) => localStorage.setItem('bold-ballast.preferences', JSON.stringify({ theme: chosen, person: 'Ilse' })), theme)
  const faults = []
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()))
  await page.goto(url)
  await page.locator('h1').first().waitFor()
  if (name === 'power') await page.locator('.main-svg').first().waitFor()
  await page.waitForTimeout(400)
  await page.screenshot({ path: path.join(folder, `${name}.png`) })
  if (faults.length > 0) console.error(name, faults)
  await page.close()
}
await browser.close()
