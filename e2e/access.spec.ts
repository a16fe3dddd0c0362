import { buildAddress } from './demo-address.ts'
import { findings, findingsInBoth } from './findings.ts'
import { expect, test } from './server.ts'

// Each screen is looked at by itself, so that they may run beside each other.
test.describe.configure({ mode: 'parallel' })

const SCREENS = [
  '/',
  '/new',
  '/copies',
  '/join#a-link-that-nobody-made-for-anybody',
  '/shared#a-link-that-nobody-made-for-anybody',
  'crew?tab=people',
  'crew?tab=links',
  'board',
  'plan',
  'plan?tab=goals',
  'plan?tab=expectations',
  'weight',
  'weight?tab=scales',
  'weight?tab=score',
  'weight?tab=finished',
  'weight?tab=centre',
  'weight?tab=balance',
  'weight?tab=ballast',
  'plan?tab=car',
  'devices',
  'power',
  'power?tab=compare',
  'power?tab=plan',
  'power?tab=links',
  'power?tab=hours&stage=c87ced6d-11a6-4ad2-87c7-ac10083d0a2f',
  'power?tab=live',
  'parts',
  'parts?tab=beside',
  'parts?tab=shelf',
  'parts?do=part',
  'aero?stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?tab=speed&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?tab=height&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?tab=proof&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?tab=panel',
  'aero?tab=proof&do=test',
  'aero?tab=setup&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?do=setup&tab=setup',
  'aero?tab=mounts&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'aero?do=outline',
  'track?stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'track?tab=worth&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
  'track?tab=sessions',
  'track?tab=sessions&do=session',
  'track?tab=compare',
  'track?tab=tyres&stage=cd6a4292-f27b-4af9-89bc-15a5956f5c71',
  'track?tab=tracks',
  'track?do=track&tab=tracks',
  'drivetrain',
  'drivetrain?tab=slide',
  'drivetrain?tab=line',
  'drivetrain?tab=shifts',
  'drivetrain?tab=path',
  'drivetrain?tab=finals',
  'drivetrain?tab=whatif',
  'drivetrain?do=course',
  'log',
  'crew?from=0',
  'crew?entry=1',
  '/open',
  '/formulas',
  '/formulas/mass.forecast',
  '/nowhere',
  '/builds/0a3aee49-6666-4879-938d-000000000000/board',
]

test.describe('no accessibility finding, light or dark', () => {
  for (const screen of SCREENS)
    test(`on ${screen}`, async ({ page }) => {
      await page.goto(screen.startsWith('/') ? screen : `${await buildAddress(page, 'Gannet')}/${screen}`)
      await page.locator('h1').first().waitFor()
      await page.waitForLoadState('networkidle')
      expect(await findingsInBoth(page)).toEqual([])
    })
  test('on a form with an error', async ({ page }) => {
    await page.goto(`${await buildAddress(page, 'Gannet')}/weight?tab=scales`)
    await page.getByRole('button', { name: 'Enter a weighing' }).click()
    await page.getByRole('button', { name: 'Store the weighing' }).click()
    await expect(page.getByText('No pad was read')).toBeVisible()
    expect(await findingsInBoth(page)).toEqual([])
  })
})

test('the scan itself finds a planted fault', async ({ page }) => {
  await page.goto('/')
  await page.evaluate(() => document.body.insertAdjacentHTML('beforeend', '<img src="/plates.svg"><input>'))
  expect((await findings(page)).length).toBeGreaterThan(0)
})

test('nothing scrolls sideways on a phone, in no frame', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.addInitScript(() => {
    const seen = { widest: 0 }
    Object.assign(window, { seen })
    const look = () => {
      const root = document.documentElement
      if (root) seen.widest = Math.max(seen.widest, root.scrollWidth - root.clientWidth)
      requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
  })
  const build = await buildAddress(page, 'Gannet')
  const rooms = [
    'board',
    'plan',
    'plan?tab=car',
    'power',
    ...['compare', 'plan', 'links', 'hours', 'live'].map((tab) => `power?tab=${tab}`),
    'parts',
    'parts?tab=beside',
    'parts?tab=shelf',
    'drivetrain',
    'drivetrain?tab=line',
    'drivetrain?tab=path',
    'drivetrain?tab=finals',
    ...[
      'car',
      'speed',
      'height',
      'setup&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
      'mounts&stage=0df0fadc-d339-4b0f-a1d5-51dc51f10900',
      'proof',
      'panel',
    ].map((tab) => `aero?tab=${tab}`),
    'devices',
    'log',
    'crew?from=0',
    'weight',
    ...['score', 'scales', 'finished', 'centre', 'balance', 'ballast'].map((tab) => `weight?tab=${tab}`),
  ]
  for (const room of rooms) {
    await page.goto(`${build}/${room}`)
    await page.locator('h1').first().waitFor()
    await page.waitForLoadState('networkidle')
    const widest = await page.evaluate(() => (window as unknown as { seen: { widest: number } }).seen.widest)
    expect(widest, room).toBe(0)
  }
})
