import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

const STAGE_3 = 'c87ced6d-11a6-4ad2-87c7-ac10083d0a2f'

/** The demo's crew begins on the first of March, whatever day it is where the test runs. */
const MARCH = new Date('2027-03-01T08:00:00')

test('from nothing: jobs typed by keyboard, hours logged, a job moved, one done, and all of it taken back', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.clock.install({ time: MARCH })
  await page.goto(`${path}/board?stage=${stage}`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('j')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('List the jobs to the next event; guesses will do.')
  const line = page.getByLabel('A line of the jobs')
  await expect(line).toBeVisible()
  await page.keyboard.press('n')
  await expect(line).toBeFocused()
  await page.keyboard.type('weld seat rails')
  await expect(page.getByText('Say how long it takes: 6 h, or 2 days; a guess will do.')).toBeVisible()
  await page.keyboard.type(' 3 h')
  await expect(page.getByText('Reads as: Weld seat rails, 3 h guessed, 4.5 h likely, anyone. Enter stores.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Stored: Weld seat rails/)).toBeVisible()
  await page.keyboard.type('paint dries 2 days after weld')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Stored: Paint dries/)).toBeVisible()
  await page.keyboard.type('belts in 1.5 h')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('row', { name: /Belts in/ })).toBeVisible()
  await page.keyboard.press('Escape')
  // The row is picked as it was stored: Alt and an arrow move it, h logs hours, x is done.
  await expect(page.getByRole('row', { name: /Belts in/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('row').nth(2)).toContainText('Belts in')
  await page.keyboard.press('h')
  await page.keyboard.type('1')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('row', { name: /Belts in/ })).toContainText('1.5 h, 1 in')
  await page.keyboard.press('x')
  await expect(page.getByLabel('What Belts in took in all')).toHaveValue('1')
  await page.keyboard.type('2.5')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 job done')).toBeVisible()
  await expect(page.getByRole('row', { name: /Belts in/ })).toBeHidden()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('row', { name: /Belts in/ })).toContainText('1.5 h, 1 in')
})

test('the road of the demo: day and chance in the title and on the rail, a part a week late, a job with its lines and parts done', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.clock.install({ time: MARCH })
  await page.goto(`${build}/jobs?stage=${STAGE_3}`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Ready about 2\d Mar, [56] in 10 by Test hour at Skarvholm on 27 Mar$/, { timeout: 20_000 })
  await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText(/planned, 27 Mar, [56] in 10/, { timeout: 30_000 })
  await expect(page.getByText('What helps')).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: 'Fit final drives without Tomas' })).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(/What decides: the sessions that Ilse and Tomas share for fit final drives/)).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(',')
  await expect(page.getByText('Short final a week late')).toBeVisible()
  await expect(page.getByText('It may come 6 days late and cost nothing.')).toBeVisible()
  await expect(page.getByText(/^[23] in 10, $/)).toBeVisible({ timeout: 20_000 })
  await expect(page).toHaveURL(/late=/)
  await page.keyboard.press('.')
  await expect(page.getByText('Short final a week late')).toBeHidden()
  // A line that says when it comes.
  await page.keyboard.press('n')
  await page.keyboard.type('short final comes 3/4')
  await expect(page.getByText('“3/4” can be 3 April or 4 March. Type the month in letters.')).toBeVisible()
  await page.getByLabel('A line of the jobs').fill('short final came')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Stored: Short final came 1 Mar.')).toBeVisible()
  await page.keyboard.press('Escape')
  const first = page.getByRole('row', { name: /Fit final drives/ })
  await first.getByText('6 h', { exact: true }).click()
  await expect(first).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('x')
  await page.keyboard.press('Enter')
  await expect(page.getByText('8 jobs done')).toBeVisible()
  const records = await (await page.request.get(`/api${build}/records`)).json()
  const lines = records.changes.filter((change: { name: string }) => change.name.startsWith('final drives,'))
  expect(lines.map(({ state }: { state: string }) => state)).toEqual(['done', 'done'])
  expect(records.parts.find((part: { name: string }) => part.name === 'Short final')).toMatchObject({
    status: 'fitted',
    fittedOn: '2027-03-01',
    cameOn: '2027-03-01',
  })
  // One batch: one thing to take back.
  await page.keyboard.press('Control+z')
  await expect(page.getByText('7 jobs done')).toBeVisible()
  await page.keyboard.press('Control+z')
})

test('hands, their days away out of a calendar, an event as the deadline, and the money', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.clock.install({ time: MARCH })
  await page.goto(`${path}/jobs?tab=dates&do=hand&stage=${stage}`)
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill('Ilse')
  await dialog.getByLabel('Hours of a week').fill('Tuesday 30')
  await dialog.getByRole('button', { name: 'Store the hand' }).click()
  await expect(dialog.getByText('30 h is more than a day of work has: up to 16 h.')).toBeVisible()
  await dialog.getByLabel('Hours of a week').fill('Tue 3, Sat 6')
  await dialog.getByLabel('Away, a line each').fill('6 Mar')
  await dialog.getByRole('button', { name: 'Store the hand' }).click()
  await expect(page.getByText('away 6 Mar')).toBeVisible()
  const calendar = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//x//EN',
    'BEGIN:VEVENT',
    'UID:1',
    'DTSTART;VALUE=DATE:20270313',
    'DTEND;VALUE=DATE:20270315',
    'SUMMARY:away',
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n')
  await page.getByLabel('A calendar of days away').evaluate(() => undefined)
  await page.getByRole('button', { name: 'Days away from a calendar' }).click()
  await page.getByLabel('A calendar of days away').setInputFiles({ name: 'away.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar) })
  await expect(page.getByText('1 time away of Ilse out of away.ics.')).toBeVisible()
  await page.getByLabel('A calendar of days away').setInputFiles({ name: 'photo.ics', mimeType: 'text/calendar', buffer: Buffer.from('no calendar') })
  await expect(page.getByText(/photo\.ics is no calendar that can be read/)).toBeVisible()
  await page.getByRole('button', { name: 'Enter an event' }).click()
  await dialog.getByLabel('Event', { exact: true }).fill('First test')
  await dialog.getByLabel('First day').fill('2027-03-20')
  await dialog.getByLabel('The car it is for').selectOption({ label: '1 Strip' })
  await dialog.getByLabel('Cost').fill('120')
  await dialog.getByRole('button', { name: 'Store the event' }).click()
  await expect(page.getByRole('row', { name: /First test/ })).toContainText('20 Mar 2027')
  await page.goto(`${path}/jobs?tab=road&stage=${stage}`)
  await page.getByLabel('A line of the jobs').fill('weld 4 h Ilse')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Ready about \d+ Mar, .* by First test on 20 Mar$/, { timeout: 20_000 })
  await page.goto(`${path}/jobs?tab=money&do=budget&stage=${stage}`)
  await dialog.getByLabel('Money it is counted in').fill('€')
  await dialog.getByLabel('Budget for the whole build').fill('£100')
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(dialog.getByText('The budget is in £, and this build is counted in €.')).toBeVisible()
  await dialog.getByLabel('Budget for the whole build').fill('100')
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('budget 100 €')).toBeVisible()
  await expect(page.getByRole('row', { name: /First test/ })).toContainText('120 €')
})

test('rules: a book begun, a rule typed with its page and held against the car, refused where it cannot be, and another class beside it', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/plan?tab=rules&stage=${stage}`)
  const dialog = page.getByRole('dialog')
  await page.getByRole('button', { name: 'Begin a rule book' }).click()
  await dialog.getByLabel('Class').fill('Pier Street')
  await dialog.getByRole('button', { name: 'Store the rule book' }).click()
  await expect(page.getByText('This book has no rule yet')).toBeVisible()
  await page.getByRole('button', { name: 'A new rule' }).click()
  await dialog.getByLabel('The rule, in your words').fill('Least mass, driver in')
  await dialog.getByLabel('Short name').fill('mass')
  await dialog.getByLabel('Where it stands').fill('4.2, p. 11')
  await dialog.getByLabel('Number', { exact: true }).fill('1150 kg')
  await dialog.getByRole('button', { name: 'Store the rule' }).click()
  // 1,180 kg on the pads, with the driver in.
  const row = page.getByRole('row', { name: /Least mass, driver in/ })
  await expect(row).toContainText('4.2, p. 11')
  await expect(row).toContainText('30.0 kg in hand')
  await page.getByRole('combobox', { name: 'Stage 1 races by' }).selectOption({ label: 'Pier Street' })
  await page.getByRole('button', { name: 'A new rule' }).click()
  await dialog.getByLabel('The rule, in your words').fill('Mass over power')
  await dialog.getByLabel('Short name').fill('mass')
  await dialog.getByLabel('It is about').selectOption({ label: 'Mass over power by the book' })
  await dialog.getByLabel('Number', { exact: true }).fill('5.3')
  await dialog.getByRole('button', { name: 'Store the rule' }).click()
  await expect(dialog.getByText('Two rules of this book are called mass. Give one another key.')).toBeVisible()
  await dialog.getByLabel('Short name').fill('ratio')
  await dialog.getByRole('button', { name: 'Store the rule' }).click()
  await expect(page.getByRole('row', { name: /Mass over power/ })).toContainText('It takes a mass and a power of this stage.')
  await page.goto(`${path}/board?stage=${stage}`)
  await expect(page.getByRole('row', { name: /Mass/ }).filter({ hasText: '1 150' }).first()).toBeVisible()
  // The demo: what the street class would take from the open one.
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/plan?tab=rules&stage=${STAGE_3}`)
  await page.getByRole('combobox', { name: 'Show' }).selectOption({ label: 'Harbour Street 2026' })
  await expect(page.getByRole('heading', { name: 'From Harbour Open to Harbour Street' })).toBeVisible()
  await expect(page.getByText(/Is forbidden:.*flat floor and diffuser, plastic windows/)).toBeVisible()
})

test('a decision: weighed by what is typed, one option behind another, a price that makes it count, chosen and taken back', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/jobs?tab=decisions&stage=${stage}`)
  const dialog = page.getByRole('dialog')
  await page.getByRole('button', { name: 'Ask a question' }).click()
  await dialog.getByLabel('The question').fill('Where does the cooler go?')
  await dialog.getByLabel(/^Weighed by/).fill('cost; less; price 1\nair share; more; price dear')
  await dialog.getByRole('button', { name: 'Store the decision' }).click()
  await expect(dialog.getByText('"dear" cannot be read as a number.')).toBeVisible()
  await dialog.getByLabel(/^Weighed by/).fill('cost; less; price 1\nair share; more; price 4000; must 0.15')
  await dialog.getByRole('button', { name: 'Store the decision' }).click()
  await expect(page.getByRole('heading', { name: 'Where does the cooler go?' })).toBeVisible()
  for (const [name, numbers] of [
    ['Thicker core', 'cost; 620; 30\nair share; 0.28; 0.04'],
    ['Laid back', 'cost; 840; 40\nair share; 0.26; 0.05'],
    ['Scoop', 'cost; 300\nair share; 0.12'],
    ['In the boot', 'cost; 500\nair share; 0.2'],
  ] as const) {
    await page.getByRole('button', { name: 'A new option' }).click()
    await dialog.getByLabel('Option').fill(name)
    await dialog.getByLabel(/^Typed numbers/).fill(numbers)
    await dialog.getByRole('button', { name: 'Store the option' }).click()
    await expect(page.getByRole('columnheader', { name: new RegExp(`^${name}`) })).toBeVisible()
  }
  await expect(page.getByRole('columnheader', { name: /Laid back/ })).toContainText('no better than Thicker core anywhere')
  await expect(page.getByRole('columnheader', { name: /Scoop/ })).toContainText('misses the must of air share')
  // 620 − 1,120 against 500 − 800.
  await expect(page.getByRole('row', { name: /In all/ })).toContainText('-500')
  await expect(page.getByText(/Thicker core comes out least; .* that it is really cheaper than In the boot/)).toBeVisible()
  await page.getByRole('button', { name: 'Choose it' }).first().click()
  const chosen = page.getByRole('columnheader', { name: /^Thicker core/ })
  await expect(chosen).toContainText('chosen')
  await page.keyboard.press('Control+z')
  await expect(chosen).not.toContainText('chosen')
})

test('two who never meet are told so, a lesson of another build is told while it is typed, and a book of another build is copied', async ({ page }) => {
  const other = await freshBuild(page)
  const post = async (path: string, resource: string, body: object) => {
    const answer = await page.request.post(`/api${path}/${resource}`, { data: { id: crypto.randomUUID(), ...body } })
    expect(answer.status(), await answer.text()).toBe(201)
    return ((await answer.json()) as { id: string }).id
  }
  await post(other.path, 'lessons', { about: 'flywheel', text: 'Weigh it before it goes in.', isShared: true })
  const rules = [{ key: 'cell', text: 'A fuel cell', sense: 'must' }]
  const name = `Shared class ${other.stage.slice(0, 6)}`
  await post(other.path, 'rule-books', { name, edition: '2027', isShared: true, rules })
  const { path, stage } = await freshBuild(page)
  const whoIds = [
    await post(path, 'hands', { name: 'Ada', hoursByWeekday: [0, 3, 0, 3, 0, 0, 0] }),
    await post(path, 'hands', { name: 'Bo', hoursByWeekday: [3, 0, 3, 0, 0, 0, 0] }),
  ]
  await post(path, 'tasks', { stageId: stage, position: 0, name: 'Drop the engine', guessH: 3, whoIds })
  await page.clock.install({ time: MARCH })
  await page.goto(`${path}/jobs?tab=road&stage=${stage}`)
  await expect(page.getByText('Ada and Bo share no hour in two years: Drop the engine. Give it to one of them or change a week.')).toBeVisible()
  const line = page.getByLabel('A line of the jobs')
  await line.fill('fit flywheel 2 h')
  await expect(page.getByText(/Learned before: Weigh it before it goes in\./)).toBeVisible()
  await page.goto(`${path}/plan?tab=rules&stage=${stage}`)
  await page.getByRole('button', { name: `Take ${name} 2027 from` }).click()
  await expect(page.getByRole('row', { name: /A fuel cell/ })).toBeVisible()
})

test('what a priced change buys, a kilogram and a second of it', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.clock.install({ time: MARCH })
  await page.goto(`${build}/jobs?tab=money&stage=${STAGE_3}`)
  const worth = page.getByRole('region', { name: 'What each change buys for its price' })
  await expect(worth.getByRole('row', { name: /^Water to air/ })).toContainText('−2.4 kg')
  await expect(worth.getByRole('row', { name: /^wing with mounts/ })).toContainText('none')
  // The second is driven beside the page.
  await expect(
    worth
      .getByRole('row', { name: /^Water to air/ })
      .getByRole('cell')
      .last(),
  ).toHaveText(/^\d/)
})

test('parts side by side become a decision by one key, and g d still opens Devices', async ({ page }) => {
  const build = await buildAddress(page, 'Osprey')
  await page.goto(`${build}/parts?tab=beside`)
  await expect(page.getByRole('button', { name: /^Weigh them as a decision/ })).toBeEnabled()
  await page.keyboard.press('g')
  await page.keyboard.press('d')
  await expect(page).toHaveURL(/\/devices/)
  await page.goto(`${build}/parts?tab=beside`)
  await expect(page.getByRole('button', { name: /^Weigh them as a decision/ })).toBeEnabled()
  await page.keyboard.press('d')
  await expect(page).toHaveURL(/tab=decisions/)
  await expect(page.getByRole('heading', { name: /^Which .+\?$/ })).toBeVisible()
  await page.keyboard.press('Control+z')
})
