import http from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Browser, BrowserContext, Page } from '@playwright/test'
import { findingsInBoth } from './findings.ts'
import { freshBuild } from './fresh-build.ts'
import { expect, type Served, test } from './server.ts'

const PASSWORD = 'four words do it'
const heading = (page: Page) => page.getByRole('heading', { level: 1 })

/** Stands on the field first: keys that come before a page listens are lost. */
async function typeInto(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(text)
}

async function makeOwner(page: Page, path: string, name: string): Promise<void> {
  await page.goto(`${path}/crew?tab=people`)
  await expect(heading(page)).toHaveText('Anyone at this machine may write')
  await typeInto(page, 'Your name', name)
  await typeInto(page, 'Sign-in name', name.toLowerCase())
  await typeInto(page, 'Password', 'too short')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('Use 12 characters or more; four words do.')
  await typeInto(page, 'Password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: `${name} change hands` })).toBeVisible()
}

async function inviteTo(page: Page, what: string): Promise<string> {
  await page.getByLabel('What the link is for').selectOption({ label: what })
  await page.getByRole('button', { name: 'Make the link' }).click()
  const link = page.getByRole('textbox', { name: 'The link' })
  await expect(link).toHaveValue(/\/join#/)
  const made = await link.inputValue()
  await page.reload()
  return made
}

async function join(context: BrowserContext, link: string, name: string): Promise<Page> {
  const page = await context.newPage()
  await page.goto(link)
  await typeInto(page, 'Your name', name)
  await typeInto(page, 'Sign-in name', name.toLowerCase())
  await typeInto(page, 'Password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: `${name} change hands` })).toBeVisible()
  return page
}

const contextOf = (browser: Browser, served: Served) => browser.newContext({ baseURL: served.address, viewport: { width: 1280, height: 800 }, locale: 'en-GB' })

/** Takes over by the keys of Find or do: Ctrl K, two letters, Enter, the secret, Enter. */
async function takeOver(page: Page, name: string, secret: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await expect(page.locator('[data-find] input')).toBeFocused()
  await page.keyboard.type('ha')
  await expect(page.getByRole('option').first()).toHaveText(/^Hand over/)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel(new RegExp(`^${name}’s`))).toBeFocused()
  await page.keyboard.type(secret)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: `${name} change hands` })).toBeVisible()
}

test('three people on one tablet, a phone beside it, a guest who looks, and a link for a sponsor', async ({ browser, page, served }) => {
  const { path, stage } = await freshBuild(page)
  await makeOwner(page, path, 'Ilse')

  // The tuner comes in by a link on his phone, and sits down at the tablet too.
  const phone = await contextOf(browser, served)
  const maro = await join(phone, await inviteTo(page, 'to write'), 'Maro')
  await page.getByRole('button', { name: 'Ilse change hands' }).click()
  await page.getByRole('button', { name: 'Somebody else signs in' }).click()
  await typeInto(page, 'Sign-in name', 'maro')
  await typeInto(page, 'Password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Maro change hands' })).toBeVisible()
  await page.getByRole('button', { name: 'Maro change hands' }).click()
  await page.getByRole('button', { name: 'My code' }).click()
  await typeInto(page, 'Code', '4711')
  await typeInto(page, 'Your password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Ilse’s password')).toBeVisible()
  await page.keyboard.press('Escape')

  // A line begun by one waits for him while another is at the tablet.
  await page.goto(`${path}/weight?stage=${stage}`)
  await page.locator('#entry').fill('off half a thou')
  await takeOver(page, 'Ilse', PASSWORD)
  await expect(page.locator('#entry')).toHaveValue('')
  await takeOver(page, 'Maro', '4711')
  await expect(page.locator('#entry')).toHaveValue('off half a thou')
  await takeOver(page, 'Ilse', PASSWORD)

  // What the phone writes is on the tablet within a moment, with who is where; focus and what is typed stay.
  await maro.goto(`${path}/weight?stage=${stage}`)
  await page.locator('#entry').fill('off door ca')
  await expect(page.getByLabel('Also here: Maro')).toBeVisible()
  await expect(page.getByLabel('Here: Maro', { exact: true })).toBeVisible()
  await maro.locator('#entry').fill('off rear bench 18.6 kg')
  await maro.locator('#entry').press('Enter')
  await expect(page.getByRole('row').filter({ hasText: 'rear bench' })).toBeVisible()
  await expect(page.locator('#entry')).toHaveValue('off door ca')
  await expect(page.locator('#entry')).toBeFocused()
  await page.locator('#entry').fill('')
  await page.goto(`${path}/log`)
  await expect(heading(page)).toHaveText(/^Maro added rear bench/)

  // A guest who may look is told so; what he types is refused with who can store it, and kept.
  await page.goto(`${path}/crew?tab=people`)
  expect(await findingsInBoth(page)).toEqual([])
  const wen = await join(await contextOf(browser, served), await inviteTo(page, 'to look'), 'Wen')
  await wen.goto(`${path}/weight?stage=${stage}`)
  await expect(wen.getByText('You look at this build.')).toBeVisible()
  await wen.locator('#entry').fill('off carpets 9 kg')
  await wen.locator('#entry').press('Enter')
  await expect(wen.getByText(/You may only look at Knot .* since \d\d:\d\d\. Your entry is kept here; Ilse can store it\./)).toBeVisible()
  await wen.getByRole('button', { name: 'Give it up' }).click()

  // The mark of what was seen goes with the person, from browser to browser.
  await page.goto(`${path}/crew`)
  await expect(page.getByRole('button', { name: /^I have seen this/ })).toBeVisible()
  await page.keyboard.press('s')
  await expect(heading(page)).toHaveText(/^Nothing changed since /)
  await expect(page.getByText('with your name, on every browser')).toBeVisible()

  // A sponsor holds a link: numbers with proof and verdicts, nothing else, and no way to write.
  await page.goto(`${path}/crew?tab=links`)
  await page.getByRole('button', { name: 'Make the link' }).click()
  const shared = await page.getByRole('textbox', { name: 'The link' }).inputValue()
  const sponsor = await (await contextOf(browser, served)).newPage()
  const answer = await sponsor.goto(shared)
  expect(answer?.headers()['x-robots-tag']).toBe('noindex')
  await expect(heading(sponsor)).toHaveText(/^Knot /)
  await expect(sponsor.getByRole('row').filter({ hasText: 'Mass' })).toContainText('kg')
  await expect(sponsor.getByText('rear bench')).toHaveCount(0)
  expect(await findingsInBoth(sponsor)).toEqual([])
  await sponsor.goto(`${path}/board`)
  await expect(heading(sponsor)).toHaveText('Sign in')
  expect(await findingsInBoth(sponsor)).toEqual([])
  expect(await findingsInBoth(page)).toEqual([])
  await page.getByRole('button', { name: 'withdraw' }).click()
  await sponsor.goto('/')
  await sponsor.goto(shared)
  await expect(sponsor.getByRole('alert')).toContainText('It is used up or too old')

  // Signed out, a page asks who takes over; what was open is there again for who sits down.
  await page.getByRole('button', { name: 'Ilse change hands' }).click()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.getByRole('button', { name: 'Sign out here' }).click()
  await expect(heading(page)).toHaveText('Who takes over?')
  await typeInto(page, 'Maro’s code or password', '0000')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('That is not right. 4 tries are left.')
  await typeInto(page, 'Maro’s code or password', '4711')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Maro change hands' })).toBeVisible()
})

test('a session that ends in mid-work: what is typed waits, and goes out under the same name', async ({ page, served }) => {
  await page.goto('/')
  await expect(heading(page)).toHaveText('Sign in')
  const login = async (on: Page, name: string) => {
    await typeInto(on, 'Sign-in name', name)
    await typeInto(on, 'Password', PASSWORD)
    await on.keyboard.press('Enter')
    await expect(on.getByRole('button', { name: /change hands$/ })).toBeVisible()
  }
  await login(page, 'ilse')
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/weight?stage=${stage}`)
  await page.locator('#entry').fill('off hood latch 0.7 kg')
  await served.query('UPDATE people SET epoch = epoch + 1 WHERE login = $1', ['ilse'])
  await page.locator('#entry').press('Enter')
  await expect(heading(page)).toHaveText('Sign in')
  await expect(page.getByText(/1 entry waits for the server/)).toBeVisible()
  await login(page, 'ilse')
  await expect(page.getByRole('row').filter({ hasText: 'hood latch' })).toBeVisible()
  const entries = (await (await page.request.get(`/api${path}/log`)).json()) as { entries: { by: string; name: string }[] }
  expect(entries.entries[0]).toMatchObject({ by: 'Ilse', name: 'hood latch' })
})

test('a page of another port, or of another name of this machine, writes nothing with the sign-in of a browser', async ({ page, served }) => {
  await page.goto('/')
  await typeInto(page, 'Sign-in name', 'ilse')
  await typeInto(page, 'Password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Ilse change hands' })).toBeVisible()
  const count = async () => ((await (await page.request.get('/api/builds')).json()) as unknown[]).length
  const before = await count()
  const other = http.createServer((_request, response) => response.setHeader('content-type', 'text/html').end('<title>another page</title>'))
  const port = await new Promise<number>((done) => other.listen(0, () => done((other.address() as AddressInfo).port)))
  const attack = await page.context().newPage()
  // Of the same site, to which a strict cookie is sent, and of another one.
  for (const host of ['127.0.0.1', 'localhost']) {
    await attack.goto(`http://${host}:${port}`)
    const told = await attack.evaluate(async (address) => {
      const body = JSON.stringify({ id: crypto.randomUUID(), name: 'Forged' })
      const tries = [
        fetch(`${address}/api/builds`, { method: 'POST', credentials: 'include', headers: { 'content-type': 'application/json' }, body }),
        fetch(`${address}/api/builds`, { method: 'POST', credentials: 'include', mode: 'no-cors', body }),
        fetch(`${address}/api/builds`, { credentials: 'include' }),
      ]
      return Promise.all(tries.map((each) => each.then((answer) => answer.type, String)))
    }, served.address)
    expect(told.filter((each) => each === 'basic' || each === 'cors')).toEqual([])
    await attack.evaluate((address) => {
      document.body.innerHTML = `<form method="post" enctype="text/plain" action="${address}/api/builds"><input name='{"name":"Forged","x":"' value='"}'></form>`
      document.forms[0]?.submit()
    }, served.address)
    await expect(attack.locator('body')).toContainText(/not-allowed/)
  }
  expect(await count()).toBe(before)
  await new Promise((done) => other.close(done))
})

test('opened again at the terminal, nobody is asked, and the browser forgets who sat there', async ({ page, served }) => {
  await page.goto('/')
  await typeInto(page, 'Sign-in name', 'ilse')
  await typeInto(page, 'Password', PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Ilse change hands' })).toBeVisible()
  // What npm run people -- open does.
  await served.query('DELETE FROM settings WHERE key = $1', ['closed'])
  await expect(async () => {
    await page.goto('/')
    await expect(page.getByRole('button', { name: 'Your name' })).toBeVisible({ timeout: 2000 })
  }).toPass()
})
