import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']

/** Findings of every rule, or of contrast alone. */
export async function findings(page: Page, onlyContrast = false): Promise<string[]> {
  const only = onlyContrast ? ({ type: 'rule', values: ['color-contrast'] } as const) : ({ type: 'tag', values: TAGS } as const)
  // No page has a frame of another origin: one run in the page itself does, without a second page to gather in.
  const scan = new AxeBuilder({ page }).setLegacyMode().options({
    runOnly: { type: only.type, values: [...only.values] },
    rules: onlyContrast ? {} : { 'target-size': { enabled: true } },
    resultTypes: ['violations'],
  })
  const { violations } = await scan.analyze()
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
