import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { Page } from '@playwright/test'

/** The page as Chromium prints it, read by poppler: the words of each sheet and the size of the first, in points. */
export async function printed(page: Page): Promise<{ pages: string[]; widthPt: number; heightPt: number }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'printed-'))
  const file = path.join(folder, 'page.pdf')
  try {
    writeFileSync(file, await page.pdf({ preferCSSPageSize: true }))
    const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' })
    const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+)/.exec(run('pdfinfo', file)) ?? []
    const pages = run('pdftotext', '-layout', file, '-')
      .split('\f')
      .slice(0, -1)
      .map((text) => text.replace(/\s+/g, ' ').trim())
    return { pages, widthPt: Number(width), heightPt: Number(height) }
  } finally {
    rmSync(folder, { recursive: true })
  }
}
