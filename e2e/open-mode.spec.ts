import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

/** What each page asked the server for before anybody could sign in, recorded then; it stays so as long as nobody can. */
const RECORDED = JSON.parse(readFileSync(new URL('./open-mode.json', import.meta.url), 'utf8')) as Record<string, readonly string[]>

const masked = (address: string) => address.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, 'ID').replace(/day=[0-9-]+/, 'day=DAY')

/** Every request of a page to the server's own addresses, once each, until nothing more is under way. */
async function requestsOf(page: Page, work: () => Promise<unknown>, leaves = true): Promise<string[]> {
  const seen = new Set<string>()
  // The page before asks no more, such as again for what is being worked out.
  if (leaves) await page.goto('about:blank')
  const note = (request: { method: () => string; url: () => string; headers: () => Record<string, string> }) => {
    const { pathname, search } = new URL(request.url())
    // How often a page looks whether anything moved depends on how long it takes.
    if (pathname.startsWith('/api/') && !pathname.endsWith('/revision'))
      seen.add(`${request.method()} ${masked(pathname + search)}${request.headers().cookie ? ' with a cookie' : ''}`)
  }
  page.on('request', note)
  await work()
  await page.waitForLoadState('networkidle')
  page.off('request', note)
  return [...seen].sort()
}

const ROOMS = ['board', 'plan', 'weight', 'power', 'drivetrain', 'aero', 'track', 'parts', 'jobs', 'systems', 'checks', 'devices', 'log', 'crew', 'report']

test('as long as nobody signs in, no page asks for more than it did', async ({ page }) => {
  const gannet = await buildAddress(page, 'Gannet')
  const found: Record<string, readonly string[]> = { garage: await requestsOf(page, () => page.goto('/')) }
  for (const room of ROOMS) found[room] = await requestsOf(page, () => page.goto(`${gannet}/${room}`))
  await page.goto(`${gannet}/weight`)
  found.write = await requestsOf(
    page,
    async () => {
      await page.locator('#entry').fill('off ashtray 0.4 kg')
      const stored = page.waitForResponse((answer) => answer.request().method() === 'POST' && answer.url().endsWith('/changes'))
      await page.keyboard.press('Enter')
      await stored
      // What rests on the line is read again a moment later.
      await page.waitForResponse((answer) => answer.url().includes('/board'))
    },
    false,
  )
  if (process.env.SHOW_REQUESTS) console.log(JSON.stringify(found, null, 1))
  // A page that is left early has asked for less; what it never asked for before is what counts.
  for (const [page, asked] of Object.entries(found)) {
    expect(asked.length, page).toBeGreaterThan(0)
    expect(
      asked.filter((request) => !RECORDED[page]?.includes(request)),
      page,
    ).toEqual([])
  }
  expect(await page.context().cookies()).toEqual([])
})
