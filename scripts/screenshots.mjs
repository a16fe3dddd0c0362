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
const entries = await (await fetch(`${base}/api/builds`)).json()
const addressOf = (name) => `${base}/builds/${entries.find((entry) => entry.build.name === name).build.id}`
const build = addressOf('Gannet')
const light = addressOf('Petrel')
const lastStage = (address) => fetch(`${address.replace('/builds', '/api/builds')}/board`).then(async (answer) => (await answer.json()).stages.at(-1).id)
const views = [
  ['garage', base],
  ['board', `${build}/board`],
  ['plan', `${build}/plan?tab=goals`],
  ['weight', `${build}/weight`],
  ['scales', `${build}/weight?tab=scales`],
  ['finished', `${build}/weight?tab=finished`],
  ['centre', `${build}/weight?tab=centre`],
  ['balance', `${build}/weight?tab=balance&cross=51.2+%25`],
  ['ballast', `${light}/weight?tab=ballast&stage=${await lastStage(light)}`, { press: 'Plan the plates', until: 'The plan' }],
  ['parts', `${build}/parts`],
  ['engine-plan', `${build}/power?tab=plan`],
  ['weak-links', `${build}/power?tab=links`],
  ['hours', `${build}/power?tab=hours&stage=c87ced6d-11a6-4ad2-87c7-ac10083d0a2f`],
  ['power', `${build}/power`],
  ['compare', `${build}/power?tab=compare`],
  ['live', `${build}/power?tab=live`, { press: 'Start a simulated dyno', until: 'Stop the pull', after: 'Run a pull' }],
  ['working', `${build}/board?working=mass:${await lastStage(build)}`],
  ['board-dark', `${build}/board`, { theme: 'dark' }],
  ['board-phone', `${build}/board`, { width: 390, height: 844 }],
]
for (const [name, url, { theme = 'light', width = 1280, height = 800, press, until, after } = {}] of views) {
  if (only && !only.split(',').includes(name)) continue
  const page = await browser.newPage({ viewport: { width, height } })
  await page.addInitScript((chosen) => localStorage.setItem('bold-ballast.preferences', JSON.stringify({ theme: chosen, person: 'Ilse' })), theme)
  const faults = []
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()))
  await page.goto(url)
  await page.locator('h1').first().waitFor()
  if (['power', 'compare', 'weak-links'].includes(name)) await page.locator('.main-svg').first().waitFor()
  if (press) {
    await page.getByRole('button', { name: press }).click()
    await page.getByText(until, { exact: true }).waitFor()
  }
  if (after) {
    await page.getByRole('button', { name: after }).click()
    await page.waitForTimeout(5000)
  }
  await page.waitForTimeout(400)
  await page.screenshot({ path: path.join(folder, `${name}.png`) })
  if (faults.length > 0) console.error(name, faults)
  await page.close()
}
await browser.close()
