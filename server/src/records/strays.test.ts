import { KINDS, kindOf, listsOf, type RecordList, readBuildRecords } from '@bold-ballast/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { anyBuildFile } from '../../test/random-records.ts'

type Row = Readonly<Record<string, unknown>> & { readonly id: string }
type Stored = Parameters<typeof readBuildRecords>[0]

const REFERENCES = KINDS.flatMap(({ list }) => kindOf(list).refs.map((reference) => ({ list, reference })))
const storedFiles = anyBuildFile().map((file) => ({ ...file, photos: [] }) as unknown as Stored)
const rowsOf = (records: object, list: string) => (records as Record<string, readonly Row[]>)[list] ?? []

/** The same build without the records of some lists that are named in a field of another. */
const without = (stored: Stored, lists: readonly string[], ids: ReadonlySet<unknown>): Stored =>
  ({ ...stored, ...Object.fromEntries(lists.map((list) => [list, rowsOf(stored, list).filter(({ id }) => !ids.has(id))])) }) as Stored

describe('a record whose target is not there', () => {
  test.each(
    REFERENCES.filter(({ list }) => list !== 'photos').map(
      ({ list, reference }) =>
        [`${list}.${reference.field}`, typeof reference.whenGone === 'string' ? reference.whenGone : 'keepsIt', list, reference] as const,
    ),
  )('%s: %s', (_, whenGone, list, reference) => {
    let looked = 0
    fc.assert(
      fc.property(storedFiles, (stored) => {
        const named = rowsOf(stored, list).filter((row) => row[reference.field] !== null)
        // The first stage stays, or nothing could be read; and a record that names itself in another list is looked at there.
        const first = rowsOf(stored, 'stages')[0]?.id
        const ids = new Set(named.map((row) => row[reference.field]).filter((id) => id !== first))
        const seen = readBuildRecords(without(stored, listsOf(reference), ids))
        for (const row of named.filter((each) => ids.has(each[reference.field]) && !ids.has(each.id))) {
          looked++
          const there = rowsOf(seen.records, list).find(({ id }) => id === row.id)
          const brokenIds = seen.broken.map(({ id }) => id)
          if (there) {
            expect(whenGone).toBe('forgets')
            expect(there[reference.field]).toBeNull()
            expect(brokenIds).not.toContain(row.id)
          } else {
            expect(seen.leftOut).toContain(row.id)
            // Whatever else of it is gone says the same, or more.
            if (whenGone === 'broken' && kindOf(list as RecordList).refs.length === 1) expect(brokenIds).toContain(row.id)
            if (whenGone === 'goesWith' && kindOf(list as RecordList).refs.length === 1) expect(brokenIds).not.toContain(row.id)
          }
        }
      }),
      { numRuns: 12, seed: 4600 },
    )
    expect(looked).toBeGreaterThan(0)
  })
})
