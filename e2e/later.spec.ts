import { buildAddress } from './demo-address.ts'
import { expect, test } from './server.ts'

interface Row {
  readonly metric: string
  readonly cells: unknown[]
  readonly goal: { readonly kind: string; verdict?: unknown }
  beam: unknown
}

// The answer of the server is made to wait on its way, so that the pauses can be counted.
test('a cell that is being worked out says so, gives no verdict, and arrives by itself', async ({ page }) => {
  const build = await buildAddress(page, 'Gannet')
  let left = 3
  const asked: number[] = []
  await page.route('**/api/builds/*/board?*', async (route) => {
    const answer = await route.fetch()
    const board = (await answer.json()) as { rows: Row[]; isWaiting?: true }
    asked.push(Date.now())
    if (left-- > 0) {
      board.isWaiting = true
      for (const row of board.rows.filter((each) => each.metric === 'frontShare')) {
        row.cells.fill('waiting')
        row.beam = null
        if (row.goal.kind !== 'none') row.goal.verdict = null
      }
    }
    // What truly waits is no matter of this test.
    else delete board.isWaiting
    await route.fulfill({ response: answer, json: board })
  })
  await page.goto(`${build}/board`)
  const row = page.locator('tr', { hasText: 'Front share' }).first()
  await expect(row.getByText('being worked out').first()).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(row.getByText('being worked out')).toHaveCount(0)
  await expect(row).toContainText('%')
  // After half a second, one and two, and not again once nothing waits.
  const pauses = asked.slice(1).map((at, i) => at - (asked[i] ?? 0))
  expect(pauses.length).toBe(3)
  for (const [i, least] of [400, 900, 1900].entries()) expect(pauses[i]).toBeGreaterThan(least)
  await page.waitForTimeout(4500)
  expect(asked).toHaveLength(4)
})

test('a yardstick that was read has its row, worked out away from the answer, and its later stages arrive by themselves', async ({ page }) => {
  await page.goto(`${await buildAddress(page, 'Osprey')}/board`)
  const row = page.locator('tr', { hasText: '0 to 100 km/h' }).first()
  await expect(row.getByText('being worked out')).toHaveCount(0, { timeout: 20_000 })
  // Two days that agree at stage 1, a later stage carried from them.
  await expect(row).toContainText('7.890')
})
