import type { Page } from '@playwright/test'
import { expect } from './server.ts'

export const dialog = (page: Page) => page.getByRole('dialog')

/** Stores a session and leaves its form for pulls open. */
export async function addSession(page: Page, path: string, dynoName: string, more: Record<string, string> = {}): Promise<void> {
  await page.goto(`${path}/power?do=session`)
  await page.getByLabel('Dyno', { exact: true }).fill(dynoName)
  for (const [label, text] of Object.entries(more)) await page.getByLabel(label, { exact: true }).fill(text)
  await page.getByRole('button', { name: 'Store the session' }).click()
  await expect(dialog(page)).toContainText(`Pulls of ${dynoName}`)
}
