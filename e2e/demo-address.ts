import type { Page } from '@playwright/test'

/** The address of a build by its name, asked of the server. */
export async function buildAddress(page: Page, name: string): Promise<string> {
  const entries = (await (await page.request.get('/api/builds')).json()) as { readonly build: { readonly id: string; readonly name: string } }[]
  const found = entries.find((entry) => entry.build.name === name)
  if (!found) throw new Error(`${name} is not in the Garage`)
  return `/builds/${found.build.id}`
}
