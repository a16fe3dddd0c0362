import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'

/** One published or derived value with its source, provenance and tolerance; "from memory" rows say so. */
export interface Row {
  id: string
  quantity: string
  inputs: Record<string, { value: unknown }>
  expected: number
  tolerance: { kind: 'rel' | 'abs'; value: number }
  source: string
}

export const input = (row: Row, key: string): unknown => row.inputs[key]?.value
export const number = (row: Row, key: string) => input(row, key) as number
export const list = (row: Row, key: string) => input(row, key) as number[]

/** Holds every row of a file beside this one against the check of its id. */
export function describeRows(title: string, file: string, checks: Record<string, (row: Row) => number>) {
  const rows = JSON.parse(readFileSync(new URL(`./${file}`, import.meta.url), 'utf8')) as Row[]
  describe(title, () => {
    it('covers every row kept', () => {
      expect(rows.map((row) => row.id).filter((id) => !checks[id])).toEqual([])
    })
    test.each(rows.map((row) => [row.id, row.quantity, row] as const))('%s: %s', (id, _, row) => {
      const found = checks[id]?.(row) as number
      const allowed = row.tolerance.kind === 'rel' ? Math.abs(row.expected) * row.tolerance.value : row.tolerance.value
      expect(Math.abs(found - row.expected), `${found} against ${row.expected}; ${row.source}`).toBeLessThanOrEqual(allowed)
    })
  })
}
