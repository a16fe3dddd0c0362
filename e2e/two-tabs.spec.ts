import { freshBuild, stopDevices } from './fresh-build.ts'
import { expect, test } from './server.ts'

test('a Board in an open tab shows soon what somebody else wrote', async ({ page }) => {
  const { path, stage } = await freshBuild(page)
  await page.goto(`${path}/board`)
  await expect(page.getByText('Strip').first()).toBeVisible()
  await page.request.patch(`/api${path}/stages/${stage}`, { data: { version: 1, name: 'Renamed elsewhere' } })
  await expect(page.getByText('Renamed elsewhere').first()).toBeVisible({ timeout: 8000 })
})

test('six tabs of Devices hear one stream and leave a seventh page its answers', async ({ context, page }) => {
  const { path } = await freshBuild(page)
  await stopDevices(page)
  await page.goto(`${path}/devices`)
  await page.getByRole('button', { name: 'Start simulated scales' }).click()
  const hears = (tab: typeof page) => expect(tab.locator('main').getByText(/kg/).first()).toBeVisible({ timeout: 15_000 })
  await hears(page)
  const tabs: (typeof page)[] = []
  for (let i = 0; i < 6; i++) {
    const tab = await context.newPage()
    await tab.goto(`${path}/devices`)
    tabs.push(tab)
  }
  for (const tab of tabs) await hears(tab)
  const seventh = await context.newPage()
  await seventh.goto(`${path}/board`)
  await expect(seventh.getByText('Strip').first()).toBeVisible({ timeout: 10_000 })
  // The tab that kept the stream open goes; another takes over.
  await page.close()
  await seventh.goto(`${path}/devices`)
  await hears(seventh)
  await stopDevices(seventh)
})
