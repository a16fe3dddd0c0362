import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

const STAGE_2 = 'cd6a4292-f27b-4af9-89bc-15a5956f5c71'

test('from nothing: circuits typed, a box entered, placed with a key and proven, one that fits nowhere refused with what would help', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/board?stage=${stage}`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('s')
  const title = page.getByRole('heading', { level: 1 })
  await expect(title).toHaveText('Type the circuits; the box fills itself.')
  const line = page.getByLabel('A line of a circuit')
  await line.fill('fan 0 A')
  await expect(page.getByText('0 A draws nothing. Type what it draws.')).toBeVisible()
  for (const [typed, stored] of [
    ['circuit fan 22 A 3.6 m', 'Stored: Fan, 22 A, guess, starts with 3 times, 3.6 m.'],
    ['pump 14.8 A 3.6 m vital measured', 'Stored: Pump, 14.8 A, measured, starts with 3 times, 3.6 m, vital.'],
    ['dash 2.2 A 1.5 m group key', 'Stored: Dash, 2.2 A, guess, 1.5 m, switched with key.'],
  ] as const) {
    await line.fill(typed)
    await line.press('Enter')
    await expect(page.getByText(stored)).toBeVisible()
  }
  await page.getByRole('button', { name: 'Enter the box' }).click()
  await page.getByLabel('Box', { exact: true }).fill('Small module')
  await page.getByLabel(/Outputs, a line each/).fill('1 x 30\n2 x 20\n1 x 10')
  await page.getByLabel(/Carries for a start/).fill('3')
  await page.getByRole('button', { name: 'Store the box' }).click()
  await expect(page.getByText('On no output: Fan, Pump, Dash')).toBeVisible()
  await page.locator('h1').click()
  await page.keyboard.press('o')
  const found = page.getByRole('region', { name: 'The placing that was found' })
  await expect(found).toContainText('60 A of outputs used')
  await expect(found).toContainText('proven')
  await page.keyboard.press('Enter')
  await expect(title).toHaveText('O2 trips first, at 1.35 times its load')
  await line.fill('starter aid 60 A 1 m')
  await line.press('Enter')
  await expect(page.getByText(/^Stored: Starter aid/)).toBeVisible()
  await expect(page.getByText('On no output: Starter aid')).toBeVisible()
  await page.locator('h1').click()
  await page.keyboard.press('o')
  await expect(page.getByText('Starter aid, 60 A, fits no output under these rules. A larger box, or fewer circuits, is needed.')).toBeVisible()

  await page.getByRole('button', { name: 'Enter them' }).click()
  await page.getByLabel('Alternator', { exact: true }).fill('110')
  await page.getByLabel('Battery, Ah').fill('18')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/left when hot/)).toBeVisible()
  await page.getByRole('button', { name: 'Make it a line of the ledger' }).click()
  await expect(page.getByText(/a line of this stage’s ledger/)).toBeVisible()
})

test('a radiator is not judged by its size: the plan is refused until a lap was logged; a gap is typed with its unit', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/systems?tab=cooling&stage=${stage}`)
  await page.getByRole('button', { name: 'Plan it' }).click()
  for (const [label, value] of [
    ['Heat at full pace', '110 kW'],
    ['Face', '0.24'],
    ['Flow through it', '120 L/min'],
    ['Fluid in all', '12'],
    ['Stops over', '105'],
    ['Speed, hot day', '137'],
    ['Air, hot day', '30'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value)
  await page.getByRole('button', { name: 'Store the plan of cooling' }).click()
  await expect(page.getByRole('alert')).toContainText('A radiator cannot be judged by its size. Log one steady lap or type its rating.')
  await page.getByRole('button', { name: 'Alter the plan' }).click()
  await page.getByLabel(/Steady laps that were logged/).fill('137; 98; 30; 110')
  await page.getByRole('button', { name: 'Save the plan of cooling' }).click()
  await expect(page.getByText(/the air is hotter than what it cools/).first()).toBeVisible()
  await page.getByLabel(/Steady laps that were logged/).fill('137; 30; 98; 110')
  await page.getByRole('button', { name: 'Save the plan of cooling' }).click()
  // Another core beside it, of no known rating; then all of them as a decision.
  await page.getByRole('button', { name: 'Put another beside it' }).click()
  for (const [label, value] of [
    ['Called', 'Boot core'],
    ['Face', '0.28'],
    ['Fluid in all', '15'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value)
  await page.getByRole('button', { name: 'Put it beside' }).click()
  const beside = page.getByRole('region', { name: 'Cores and places side by side' })
  await expect(beside.getByRole('row', { name: /Boot core/ })).toContainText('cannot be judged by its size')
  await page.getByRole('button', { name: 'Boot core' }).click()
  await page.getByLabel('Rated', { exact: true }).fill('110 kW')
  await page.getByLabel('at, K of coolant in over air in').fill('60')
  await page.getByLabel('with air at the face of').fill('36 km/h')
  await page.getByLabel('and a flow of').fill('100 L/min')
  await page.getByRole('button', { name: 'Save the core' }).click()
  await expect(beside.getByRole('row', { name: /Boot core/ })).toContainText(/°C ± \d/)
  await page.getByRole('button', { name: 'Open as a decision' }).click()
  await expect(page).toHaveURL(/jobs\?tab=decisions/)
  await expect(page.getByRole('heading', { name: /Which core, and where: as planned or Boot core/ })).toBeVisible()
  await page.goto(`${path}/systems?tab=gaps&stage=${stage}`)
  const line = page.getByLabel('A gap, in one line')
  await line.fill('downpipe to brake pipe 32')
  await expect(page.getByText('32 what? A gap is typed with its unit: 32 mm.')).toBeVisible()
  await line.fill('downpipe to brake pipe 32 mm')
  await line.press('Enter')
  await expect(page.getByRole('row', { name: /Downpipe to brake pipe/ })).toContainText('tight')
  await line.fill('front tyre to strut 8 mm')
  await expect(page.getByText('Reads as: Front tyre to strut, to something fixed, 8 mm cold, follows front wheels, inside. Enter stores.')).toBeVisible()
  await line.press('Enter')
  await expect(page.getByRole('row', { name: /Front tyre to strut/ })).toContainText('holds by this sum')
})

test('the demo: which trips first, how hot it settles, gaps hot, limits for the dash', async ({ page }) => {
  await page.clock.install({ time: new Date('2027-03-01T08:00:00') })
  const path = await buildAddress(page, 'Gannet')
  await page.goto(`${path}/systems?stage=${STAGE_2}`)
  const title = page.getByRole('heading', { level: 1 })
  await expect(title).toHaveText('O3 trips first, at 1.35 times its load')
  await expect(page.getByText('+20.1 A')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Pins and what is on them' }).getByRole('row', { name: /Radio, Wiper/ })).toContainText('8')
  await expect(page.getByText(/Dash \(joined to Engine unit\)/)).toBeVisible()
  await page.getByRole('button', { name: 'Cooling' }).click()
  await expect(title).toHaveText(/^Settled at 101\s°C on a hot day, 6 in 10 under 105\s°C$/)
  await expect(page.getByText('10 mm too large')).toBeVisible()
  await page.getByRole('button', { name: 'Gaps' }).click()
  await expect(title).toHaveText(/^Downpipe to brake pipe: 17\smm hot, 25\smm wanted$/)
  await page.getByRole('button', { name: 'Alarms' }).click()
  await expect(page.getByRole('row', { name: /Coolant/ })).toContainText(/over 105\.0\s°C/)
})
