import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']

/** Findings of every rule, or of contrast alone. */
export async function findings(page: Page, onlyContrast = false): Promise<string[]> {
  const scan = new AxeBuilder({ page })
  const { violations } = await (onlyContrast
    ? scan.withRules(['color-contrast'])
    : scan.options({ runOnly: { type: 'tag', values: TAGS }, rules: { 'target-size': { enabled: true } } })
  ).analyze()
  return violations.map((entry) => `${entry.id} ${entry.nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`)
}

/** Findings of the page as it stands, in both themes: the second changes colours and nothing else. */
export async function findingsInBoth(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const theme of ['light', 'dark']) {
    await page.evaluate((chosen) => {
      document.documentElement.dataset.theme = chosen
    }, theme)
    found.push(...(await findings(page, theme === 'dark')).map((finding) => `${theme}: ${finding}`))
  }
  return found
}
