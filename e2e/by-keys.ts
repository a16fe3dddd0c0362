import type { Page } from '@playwright/test'

/** Tabs to a control by its name, as a person without a mouse would. */
export async function tabTo(page: Page, name: string | RegExp, role: 'textbox' | 'combobox' | 'button' | 'link' | 'any' = 'any'): Promise<void> {
  for (let i = 0; i < 120; i++) {
    const found = await page.evaluate(() => {
      const element = document.activeElement as HTMLInputElement | null
      const label = element?.labels?.[0]?.textContent ?? element?.getAttribute('aria-label') ?? element?.textContent ?? ''
      return { label: label.trim(), tag: element?.tagName ?? '' }
    })
    const roles = { textbox: 'INPUT', combobox: 'SELECT', button: 'BUTTON', link: 'A', any: found.tag }
    const fits = typeof name === 'string' ? found.label === name : name.test(found.label)
    if (fits && roles[role] === found.tag) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`nothing named ${name} can be reached by Tab`)
}

export async function fill(page: Page, name: string | RegExp, text: string): Promise<void> {
  await tabTo(page, name, 'textbox')
  await page.keyboard.press('Control+A')
  await page.keyboard.type(text)
}

export async function press(page: Page, name: string | RegExp): Promise<void> {
  await tabTo(page, name, 'button')
  await page.keyboard.press('Enter')
}
