import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { printed } from './pdf.ts'
import { expect, test } from './server.ts'

const STAGE_2 = 'cd6a4292-f27b-4af9-89bc-15a5956f5c71'
const STAGE_3 = 'c87ced6d-11a6-4ad2-87c7-ac10083d0a2f'
const MARCH = new Date('2027-03-01T08:00:00')
/** Points: 210 x 297 mm, 8.5 x 11 in. */
const A4 = { widthPt: 595, heightPt: 842 }
const LETTER = { widthPt: 612, heightPt: 792 }

test('a tech sheet on A4 and on Letter: every rule with its page, what is shown and what is not, and that it is no pass', async ({ page }) => {
  const base = await buildAddress(page, 'Gannet')
  await page.clock.install({ time: MARCH })
  await page.goto(`${base}/board?stage=${STAGE_3}`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('r')
  await page.getByRole('button', { name: 'Tech sheet' }).click()
  await expect(page.getByText(/^Shown by a reading: 0 of 6 rules with a number/)).toBeVisible()
  for (const [paper, size] of [
    ['A4', A4],
    ['Letter', LETTER],
  ] as const) {
    await page.getByLabel('Paper').selectOption(paper)
    const { pages, widthPt, heightPt } = await printed(page)
    expect(Math.abs(widthPt - size.widthPt)).toBeLessThan(1)
    expect(Math.abs(heightPt - size.heightPt)).toBeLessThan(1)
    expect(pages).toHaveLength(1)
    for (const words of [
      'Tech sheet',
      'Harbour Open 2027',
      'Test hour at Skarvholm',
      'Least mass as it crosses the line',
      '3.1, p. 6',
      '1 200 kg',
      'would hold, 118.5 kg in hand',
      'planned, not',
      'not shown',
      'A full sheet is no pass',
      'the scrutineer decides',
      'For the crew, day',
      'page 1 of 1',
    ])
      expect(pages[0]).toContain(words)
    for (const control of ['Print, or save', 'Against', 'CSV']) expect(pages[0]).not.toContain(control)
  }
})

test('a stage card is one page, a story has every stage, and both leave as CSV', async ({ page }) => {
  const base = await buildAddress(page, 'Gannet')
  await page.clock.install({ time: MARCH })
  await page.goto(`${base}/report?stage=${STAGE_2}`)
  await expect(page.getByRole('article', { name: 'Stage card' })).toContainText('What was done')
  const card = await printed(page)
  expect(card.pages).toHaveLength(1)
  for (const words of ['Turbo and fuel', 'Stage card', 'Mass', 'Corners', 'left front', 'proven']) expect(card.pages[0]).toContain(words)
  await page.getByRole('button', { name: 'Build story' }).click()
  await expect(page.getByRole('article', { name: 'Build story' })).toContainText('Floor, wing and glass')
  const story = (await printed(page)).pages.join(' ')
  for (const words of ['As bought', 'Strip and cage', 'Turbo and fuel', 'came off', 'Thicker core in front']) expect(story).toContain(words)
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^CSV/ }).click()])
  expect(file.suggestedFilename()).toMatch(/story.*\.csv$/)
})

test('rounds to tick by hand, and an order for a maker', async ({ page }) => {
  const base = await buildAddress(page, 'Gannet')
  await page.clock.install({ time: MARCH })
  await page.goto(`${base}/report?tab=rounds&stage=${STAGE_3}`)
  await expect(page.getByRole('heading', { name: 'Ilse and Tomas, 1 job' })).toBeVisible()
  await expect(page.getByText('Parts to come')).toBeVisible()
  await page.getByRole('button', { name: 'Work order' }).click()
  await page.getByLabel('Job').selectOption({ label: 'Fit final drives' })
  await expect(page.getByRole('article')).toContainText('Reckoned with 6 h')
  const { pages } = await printed(page)
  for (const words of ['Work order', 'Fit final drives', 'What goes along', 'Short final', 'goes on', '27 Mar 2027', 'Done, what was found'])
    expect(pages[0]).toContain(words)
})

test('a build with nothing says of every sheet what it is made of', async ({ page }) => {
  const { path } = await freshBuild(page)
  for (const [tab, words] of [
    ['sheet', 'No rule to show'],
    ['rounds', 'Nothing to tick'],
    ['order', 'No open job'],
    ['card', 'Nothing is listed at this stage.'],
    ['story', 'The path of the build is drawn once'],
  ] as const) {
    await page.goto(`${path}/report?tab=${tab}`)
    await expect(page.getByText(words).first()).toBeVisible()
  }
})
