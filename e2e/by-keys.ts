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

/** Counts keys that are pressed, from now on and on every page that is opened later. */
export async function countKeys(page: Page): Promise<() => number> {
  let pressed = 0
  await page.exposeFunction('keyWasPressed', () => {
    pressed += 1
  })
  const listen = () => window.addEventListener('keydown', () => void (window as unknown as { keyWasPressed: () => void }).keyWasPressed(), true)
  await page.addInitScript(listen)
  return () => pressed
}

/** Finds or does what is named, as Ctrl K does. */
export async function findOrDo(page: Page, words: string): Promise<void> {
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.keyboard.press('Control+k')
  await page.getByRole('dialog').getByRole('combobox').waitFor()
  await page.keyboard.type(words)
  await page.getByRole('option', { selected: true }).first().waitFor()
  await page.keyboard.press('Enter')
}

/** Picks in a list of choices by the first letters of what it shall be. */
export async function choose(page: Page, name: string | RegExp, letters: string): Promise<void> {
  await tabTo(page, name, 'combobox')
  await page.keyboard.type(letters)
}
