import { buildAddress } from './demo-address.ts'
import { printed } from './pdf.ts'
import { expect, test } from './server.ts'

test.describe('on paper', () => {
  for (const screen of ['board', 'weight?tab=centre', 'parts', 'power?tab=links'])
    test(`${screen} is light, says what it is of, and has nothing to press`, async ({ page }) => {
      const base = await buildAddress(page, 'Gannet')
      await page.goto(`${base}/${screen}`)
      await page.locator('h1').first().waitFor()
      await page.evaluate(() => {
        document.documentElement.dataset.theme = 'dark'
      })
      await page.emulateMedia({ media: 'print' })
      expect(await page.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim())).toBe('#fcfdfc')
      for (const control of ['.button', 'input', 'select', 'nav', 'header']) await expect(page.locator(control).locator('visible=true')).toHaveCount(0)
      const underlined = await page
        .locator('a:visible')
        .evaluateAll((links) => links.filter((link) => getComputedStyle(link).textDecorationLine !== 'none').length)
      expect(underlined).toBe(0)
      const { pages } = await printed(page)
      for (const [i, words] of pages.entries()) {
        expect(words).toMatch(/Gannet, stage \d .+, printed \d+ \w+ \d{4}, Bold Ballast \d+\.\d+\.\d+/)
        expect(words).toContain(`page ${i + 1} of ${pages.length}`)
      }
    })
})
