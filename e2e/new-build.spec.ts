import { fill, press, tabTo } from './by-keys.ts'
import { expect, test } from './server.ts'

const curve = [
  'rpm,power kW,torque Nm',
  ...Array.from({ length: 60 }, (_, i) => `${3000 + 50 * i},${((260 * (3000 + 50 * i) * Math.PI) / 30000).toFixed(2)},260`),
].join('\n')

test('a build from nothing, by keyboard alone, from the first weight to power to weight on the Board', async ({ page }) => {
  await page.goto('/new')
  await fill(page, 'Name of the build', 'Turnstone')
  await fill(page, 'Wheelbase', '2570 mm')
  await fill(page, 'Front track', '59 in')
  await fill(page, 'Rear track', '1520')
  await fill(page, 'Driver with suit and helmet', '80 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 stage')

  await fill(page, 'Name', 'Strip')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Strip', { exact: true }).first()).toBeVisible()

  await press(page, 'Targets and limits')
  await fill(page, 'Value', '1,200 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/two ways: type 1200 or 1.200/)).toBeVisible()
  await fill(page, 'Value', '1200 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByText('by 1 Strip')).toBeVisible()

  await press(page, 'Expected')
  await tabTo(page, 'Stage', 'combobox')
  await page.keyboard.type('1 Strip')
  await fill(page, 'Value', '150 kW ± 6')
  await page.keyboard.press('Enter')
  await expect(page.getByText('to reach', { exact: true }).first()).toBeVisible()

  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('g')
  await page.keyboard.press('w')
  await press(page, 'Scales')
  await press(page, 'Enter a weighing')
  for (const [name, value] of [
    ['Left front', '330'],
    ['Right front', '320'],
    ['Left rear', '290'],
    ['Right rear', '300'],
  ] as const)
    await fill(page, name, value)
  await fill(page, 'Driver in the car', '0')
  await fill(page, 'Fuel in the tank', '20 L ± 1')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(page.getByRole('button', { name: /1.320.*open the working/ }).first()).toBeVisible()

  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press(']')
  await press(page, 'Ledger')
  await fill(page, 'New ledger line', 'off rear bench 41 lb weighed @cabin')
  await expect(page.getByText(/Reads as:.*18\.60/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('cell', { name: 'rear bench', exact: true })).toBeVisible()
  await expect(page.getByLabel('New ledger line')).toBeFocused()
  await page.keyboard.type('on half cage 30 guess @cabin')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('cell', { name: 'half cage planned', exact: true })).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('18.6 kg found')

  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('[')
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await press(page, 'Enter the first session')
  await fill(page, 'Dyno', 'Harbour hub dyno')
  await page.keyboard.press('Enter')
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('CSV file')
  await page.getByLabel('CSV file').setInputFiles({ name: 'pull.csv', mimeType: 'text/csv', buffer: Buffer.from(curve) })
  await expect(dialog).toContainText('Power fits torque and speed')
  await press(page, 'Store 1 pull')
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('measured')

  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('g')
  await page.keyboard.press('b')
  const table = page.getByRole('region', { name: 'Targets and limits by stage' })
  await expect(table).toContainText('Power to weight')
  await expect(table).toContainText(/unlikely/)
  const ratio = table.getByRole('row', { name: /Power to weight/ })
  await expect(ratio.getByRole('img', { name: 'proof: measured' })).toHaveCount(1)
})

test('a wrong file is refused with the cause, and the picked unit cures it', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Gannet' }).click()
  await page.getByRole('heading', { name: 'What next' }).waitFor()
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await page.getByRole('button', { name: 'import pulls' }).first().click()
  const wrong = curve
    .split('\n')
    .map((line, i) => (i === 0 ? line : line.replace(/,([\d.]+),/, (_, power) => `,${(Number(power) / 0.7457).toFixed(2)},`)))
    .join('\n')
  await page.getByLabel('CSV file').setInputFiles({ name: 'pull.csv', mimeType: 'text/csv', buffer: Buffer.from(wrong) })
  await expect(page.getByRole('alert')).toContainText('power is in hp but labelled kW')
  await page.getByLabel('power kW is in').selectOption('hp')
  await expect(page.getByRole('button', { name: 'Store 1 pull' })).toBeEnabled()
})
