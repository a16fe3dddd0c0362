import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

const OUTLINE = {
  frontOverhangM: 0.9,
  rearOverhangM: 1,
  bodyWidthM: 1.74,
  roofHeightM: 1.43,
  roofFrontXM: 1.1,
  roofRearXM: 2.4,
  scuttleXM: 0.5,
  scuttleHeightM: 0.95,
  noseHeightM: 0.6,
  tailHeightM: 1,
  undersideM: 0.12,
  wheelRadiusM: 0.32,
}

test('the side is traced on a picture: too few places, wheels at one place, kept, drawn, and drawn by its tapes again', async ({ page, context }) => {
  const draw = await context.newPage()
  await draw.setViewportSize({ width: 700, height: 300 })
  await draw.setContent('<body style="margin:0"><svg width=700 height=300><circle cx=150 cy=220 r=32 /><circle cx=450 cy=220 r=32 /></svg>')
  const picture = await draw.screenshot()
  await draw.close()
  const { path, stage } = await freshBuild(page)
  const { version, wheelbaseM } = ((await (await page.request.get(`/api${path}/records`)).json()) as { build: { version: number; wheelbaseM: number } }).build
  expect((await page.request.patch(`/api${path}`, { data: { version, outline: OUTLINE } })).status()).toBe(200)
  await page.goto(`${path}/aero?stage=${stage}`)
  await page.getByRole('button', { name: 'Outline and speeds' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByText('Trace its side on a picture of your own').click()
  await dialog.getByLabel('Picture of the side').setInputFiles({ name: 'side.png', mimeType: 'image/png', buffer: picture })
  const frame = dialog.getByRole('application', { name: /^The picture side\.png/ })
  const image = frame.getByRole('img')
  const click = (x: number, y: number) => image.click({ position: { x, y } })
  await expect(dialog.getByText('Place the cross on the middle of the front wheel.')).toBeVisible()
  await click(150, 220)
  await click(160, 220)
  await expect(dialog.getByText('The wheels lie nearly at one place. Click the middle of each wheel.')).toBeVisible()
  await frame.focus()
  await page.keyboard.press('Backspace')
  await click(450, 220)
  await click(60, 200)
  await click(300, 80)
  await expect(dialog.getByRole('button', { name: 'Keep these 2 places' })).toBeDisabled()
  await click(540, 200)
  await dialog.getByRole('button', { name: 'Keep these 3 places' }).click()
  await expect(dialog.getByText('Kept: 3 places of the side.')).toBeVisible()
  const kept = ((await (await page.request.get(`/api${path}/records`)).json()) as { build: { outline: { sidePoints: { xM: number; zM: number }[] } } }).build
  // 300 px between the wheels are the wheelbase; the roof stands 140 px over their middles, half way.
  expect(kept.outline.sidePoints[1]?.xM).toBeCloseTo(wheelbaseM / 2, 1)
  expect(kept.outline.sidePoints[1]?.zM).toBeCloseTo(0.32 + (140 / 300) * wheelbaseM, 1)
  // Tapes that are stored again keep what was traced.
  await dialog.getByLabel('Top of the tail over the ground').fill('1.02 m')
  await dialog.getByRole('button', { name: 'Store the outline' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Outline and speeds' }).click()
  await expect(dialog.getByLabel('Top of the tail over the ground')).toHaveValue('1020 mm')
  await dialog.getByText('Trace its side on a picture of your own').click()
  await expect(dialog.getByText(/3 places are kept/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Draw it by its tapes again' }).click()
  await expect(dialog.getByText('Drawn by its tapes again.')).toBeVisible()
})
