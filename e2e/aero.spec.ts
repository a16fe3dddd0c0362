import { buildAddress } from './demo-address.ts'
import { freshBuild } from './fresh-build.ts'
import { expect, test } from './server.ts'

const STAGE = '0df0fadc-d339-4b0f-a1d5-51dc51f10900'

test('another notch: two keys to the room, one to look at it, one to keep it, and it is taken back', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/board?stage=${STAGE}`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('e')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Canards, pair 15 mm too wide; downforce acts 27 points behind the weight')
  const notch = page.getByRole('spinbutton', { name: 'Notch of wing 1 400 × 260' })
  await expect(notch).toBeFocused()
  await expect(page.getByText('900 N or more')).toBeVisible()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText('Looked at, not stored.')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('downforce acts 22 points behind the weight')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Looked at, not stored.')).toBeHidden()
  await expect(notch).toHaveAttribute('aria-valuetext', 'hole 3 of 5')
  await page.keyboard.press('Control+z')
  await expect(notch).toHaveAttribute('aria-valuetext', 'hole 4 of 5')
  await page.reload()
  await expect(notch).toHaveAttribute('aria-valuetext', 'hole 4 of 5')
})

test('heights, springs and the spring that holds a height; panels by air and by person', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=height&stage=${STAGE}`)
  await expect(page.getByText('The front sinks 6.7 mm, the rear 17.1 mm.')).toBeVisible()
  await expect(page.getByText('The front rubber is met at 203 km/h by the air alone.')).toBeVisible()
  await page.getByLabel(/^Hold splitter/).fill('61')
  await expect(page.getByRole('status').filter({ hasText: 'ride frequency 1.70 to' })).toBeVisible()
  // A floor that somebody measured at two heights gives more as the car comes down.
  await page.goto(`${build}/aero?stage=${STAGE}`)
  await page.getByRole('button', { name: 'floor and diffuser' }).first().click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel(/^By its height/).fill('80 mm; 1\n30 mm; 1.4')
  await dialog.getByRole('button', { name: /^Save/ }).click()
  await expect(dialog.getByText(/type its sizes first|rise from line to line/)).toBeVisible()
  for (const [label, text] of [
    ['Front end behind the front axle', '0.4 m'],
    ['Rear end behind the front axle', '2.9 m'],
    ['Inner edge from the middle', '0 m'],
    ['Outer edge from the middle', '0.7 m'],
    ['Bottom over the ground', '0.08 m'],
    ['Top over the ground', '0.1 m'],
  ] as const)
    await dialog.getByLabel(label).fill(text)
  await dialog.getByLabel(/^By its height/).fill('30 mm; 1.4\n80 mm; 1')
  await dialog.getByRole('button', { name: /^Save/ }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Ride height' }).click()
  await expect(page.getByText(/^floor and diffuser gives 1\d\d.% of what its value says there, by its height map\.$/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('The front sinks 6.7 mm, the rear 17.1 mm.')).toBeVisible()
  await page.goto(`${build}/aero?tab=panel&stage=${STAGE}`)
  const plywood = page.getByRole('row', { name: /^marine plywood/ })
  await expect(plywood).toContainText('12.7')
  await expect(plywood).toContainText('the person decides')
  await page.getByLabel('From its clamp to the edge').fill('2')
  await expect(page.getByText('From its clamp to the edge is 0.002; it must lie from 0.005 to 3, in m.')).toBeVisible()
})

test('panels: one is kept out of the table and built in the place of another; a sheet of one’s own by two bent strips', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?tab=panel&stage=${STAGE}`)
  const kept = page.getByRole('region', { name: 'Kept panels' })
  await expect(kept.getByRole('row', { name: /plywood/ })).toContainText('built')
  await page.getByRole('button', { name: 'keep aluminium 5052-H32' }).press('Enter')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('Thickness of one sheet')).toHaveValue('6.35 mm')
  await dialog.getByLabel('Held').selectOption({ label: 'clamped at the rear, with cables' })
  await dialog.getByLabel('Held').press('Enter')
  await dialog.getByRole('button', { name: 'Store the panel' }).click()
  await expect(dialog.getByText('Say how far from the clamp the rods stand.').first()).toBeVisible()
  await dialog.getByLabel('Rods or cables, from the clamp').fill('170 mm')
  await dialog.getByRole('button', { name: 'Store the panel' }).click()
  await expect(dialog).toBeHidden()
  const metal = kept.getByRole('row', { name: /aluminium 5052/ })
  await expect(metal).toContainText('clamped at the rear, with cables')
  await metal.getByRole('button', { name: /^build it: splitter/ }).press('Enter')
  await expect(metal).toContainText('built')
  await expect(kept.getByRole('row', { name: /plywood/ })).not.toContainText('built')
  await page.keyboard.press('Control+z')
  await expect(kept.getByRole('row', { name: /plywood/ })).toContainText('built')

  await page.getByRole('button', { name: 'Add a sheet' }).click()
  for (const [label, text] of [
    ['Name', 'shed ply'],
    ['Thicknesses it comes in', '9 mm; 12 mm'],
    ['Density, kg/m³', '610'],
    ['May be asked of it', '18 MPa'],
  ] as const)
    await dialog.getByLabel(label, { exact: true }).fill(text)
  await dialog.getByRole('button', { name: 'Store the sheet' }).click()
  await expect(dialog.getByText('Bend a strip on two spans, or type it.').first()).toBeVisible()
  // 30 N in the middle of 50 mm of 12 mm at 8 GPa, on 200 and on 400 mm.
  await dialog.getByLabel('Strips cut along, bent on two held ends').fill('12 mm; 200 mm; 50 mm; 30 N; 0.0868 mm\n12 mm; 400 mm; 50 mm; 30 N; 0.6944 mm')
  await dialog.getByRole('button', { name: 'Store the sheet' }).click()
  await expect(dialog).toBeHidden()
  await expect(
    page
      .getByRole('region', { name: 'Sheets of your own' })
      .getByRole('row', { name: /shed ply/ })
      .first(),
  ).toContainText('8.0 GPa')
  await expect(page.getByRole('region', { name: 'Materials' }).getByRole('row', { name: /^shed ply/ })).toBeVisible()
})

test('from a stage on the car has another nose: its limits hang on that one, earlier stages keep theirs', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  await page.goto(`${build}/aero?stage=${STAGE}`)
  await expect(page.getByText('Taped as bought.')).toBeVisible()
  const reach = page.getByRole('row', { name: /^Beyond the front bumper/ })
  await expect(reach.first()).toContainText('200')
  await page.getByRole('button', { name: 'Tape it anew from this stage on' }).press('Enter')
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Front axle to the front of standard bodywork').fill('5 m')
  await dialog.getByRole('button', { name: 'Store the outline of this stage' }).click()
  await expect(dialog.getByText(/It lies from 0 mm to/).first()).toBeVisible()
  await dialog.getByLabel('Front axle to the front of standard bodywork').fill('960 mm')
  await dialog.getByRole('button', { name: 'Store the outline of this stage' }).click()
  await expect(page.getByText('Taped at stage 4.')).toBeVisible()
  await expect(reach.first()).toContainText('140')
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Taped as bought.')).toBeVisible()
  await expect(reach.first()).toContainText('200')
})

test('from an empty garage: an outline by tape, a body, a wing by estimate, and a limit that the wing would break', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/aero?stage=${stage}`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Nothing is taped yet')
  await page.getByRole('button', { name: 'Tape the outline' }).first().click()
  const dialog = page.getByRole('dialog')
  const tapes = {
    'Front axle to the front of standard bodywork': '850 mm',
    'Rear axle to its rear end': '1 m',
    'Width of the body, no mirrors': '174',
    'Roof over the ground': '1400 mm',
    'Front axle back to where the roof begins': '1100 mm',
    'Front axle back to where the roof ends': '2500 mm',
    'Front axle back to the foot of the windscreen': '400 mm',
    'Foot of the windscreen over the ground': '930 mm',
    'Top of the nose over the ground': '600 mm',
    'Top of the tail over the ground': '900 mm',
    'Underside over the ground': '120 mm',
    'Radius of a wheel with its tyre': '310 mm',
  }
  for (const [label, value] of Object.entries(tapes)) await dialog.getByLabel(label).fill(value)
  await dialog.getByRole('button', { name: 'Store the outline' }).click()
  await expect(dialog.getByText('It lies from 800 mm to 3000 mm.')).toBeVisible()
  await dialog.getByLabel('Width of the body, no mirrors').fill('1740')
  await dialog.getByRole('button', { name: 'Store the outline' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'New device' }).first().click()
  await dialog.getByLabel('Kind').selectOption('body')
  await dialog.getByLabel('Name', { exact: true }).fill('bare body')
  await dialog.getByLabel('Goes on with').selectOption('')
  await dialog.getByLabel(/^Notches, one a line/).fill('as it is; front -0.02 ± 0.04; rear -0.06 ± 0.05; drag 0.68 ± 0.06; guess')
  await dialog.getByRole('button', { name: 'Store the device' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'New device' }).first().click()
  await dialog.getByLabel('Kind').selectOption('wing')
  await dialog.getByLabel('Name', { exact: true }).fill('rear wing')
  await dialog.getByLabel('What it does is').selectOption('wing')
  await dialog.getByRole('button', { name: 'As big as the box allows' }).click()
  await expect(dialog.getByText('Type where its pivot stands; then it grows from there.')).toBeVisible()
  await dialog.getByLabel(/^Notches, one a line/).fill('low; 0°\nhigh; 20°')
  for (const [label, value] of Object.entries({
    'Angle of no lift of the section': '-4°',
    Span: '1300 mm',
    'Chord of each element': '240 mm',
    'Pivot behind the front axle': '3300 mm',
    'Pivot over the ground': '1380 mm',
  }))
    await dialog.getByLabel(label, { exact: true }).fill(value)
  await dialog.getByRole('button', { name: 'Store the device' }).click()
  await expect(dialog.getByText(/high: The wing is past its stall/)).toBeVisible()
  await dialog.getByLabel(/^Notches, one a line/).fill('low; 0°\nhigh; 5°')
  await dialog.getByRole('button', { name: 'Store the device' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('img', { name: /The car to scale with 2 devices/ })).toBeVisible()
  // Its line came with it, to be weighed.
  await page.goto(`${path}/weight?stage=${stage}`)
  await expect(page.getByRole('row').filter({ hasText: 'rear wing' })).toBeVisible()
  await page.goto(`${path}/plan?tab=goals`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.goto(`${path}/aero?stage=${stage}`)
  await page.getByRole('spinbutton', { name: 'Notch of rear wing' }).focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('Looked at, not stored.')).toBeVisible()
})

test('read with a tape and a meter, a line each: refused in words, kept, held against the rule at its own distance', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  const book = {
    id: crypto.randomUUID(),
    name: 'Quiet Cars',
    rules: [{ key: 'noise', text: 'Exhaust', metric: 'noise', sense: 'atMost', value: 78, basis: { atM: 7.5 } }],
  }
  const made = await page.request.post(`/api${path}/rule-books`, { data: book })
  expect(made.status(), await made.text()).toBe(201)
  await page.goto(`${path}/plan?tab=rules&stage=${stage}`)
  await page.getByRole('combobox', { name: /races by/ }).selectOption({ label: 'Quiet Cars' })
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').locator('input')).toBeFocused()
  await page.keyboard.type('tape or a meter')
  await expect(page.locator('[data-found-for="tape or a meter"]')).toBeVisible()
  await page.keyboard.press('Enter')
  const line = page.getByLabel('What was read on the car, in one line')
  await expect(line).toBeFocused()
  await page.keyboard.type('noise 101.5 dB')
  await expect(page.getByText('Say how far off it was read, such as noise 98.5 dB at 0.5 m.')).toBeVisible()
  await page.keyboard.type(' at 0.5 m')
  await expect(page.getByText('Reads as: Noise, 101.5 dB(A) at 0.5 m. Enter saves.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Saved: Noise, 101.5 dB(A) at 0.5 m.')).toBeVisible()
  await page.keyboard.type('front 148')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Delete Beyond the front bumper, 148 mm' })).toBeVisible()
  await page.goto(`${path}/plan?tab=rules&stage=${stage}`)
  const rule = page.getByRole('row', { name: /Exhaust/ })
  await expect(rule).toContainText('78.0')
  await expect(rule).toContainText('holds')
  await page.goto(`${path}/report?tab=sheet&stage=${stage}`)
  await expect(page.getByText('Shown by a reading: 1 of 1 rules with a number.')).toBeVisible()
})
