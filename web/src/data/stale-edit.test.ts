import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { mergeStale } from './stale-edit.ts'

const base = { id: 'c', version: 3, name: 'bench', zone: null, values: [{ massKg: 18 }], updatedBy: 'Ilse', deletedAt: null }

describe('an edit that met another one', () => {
  test.each([
    [
      'another field: both are kept',
      { name: 'rear bench', version: 3 },
      { zone: 'cabin' },
      { kind: 'both', body: { name: 'rear bench', version: 4 }, theirFields: ['zone'] },
    ],
    ['the same field: a choice', { name: 'rear bench', version: 3 }, { name: 'seat' }, { kind: 'choice', fields: ['name'] }],
    [
      'the same field, the same way: nothing to choose',
      { name: 'seat', version: 3 },
      { name: 'seat' },
      { kind: 'both', body: { name: 'seat', version: 4 }, theirFields: ['name'] },
    ],
    ['one of two fields: a choice of that one', { name: 'rear bench', zone: 'boot', version: 3 }, { zone: 'cabin' }, { kind: 'choice', fields: ['zone'] }],
    ['it was deleted: a choice', { name: 'rear bench', version: 3 }, { deletedAt: '2026-11-29' }, { kind: 'choice', fields: [] }],
    [
      'a list that both added to: a choice',
      { values: [{ massKg: 18 }, { massKg: 17 }], version: 3 },
      { values: [{ massKg: 18 }, { massKg: 19 }] },
      { kind: 'choice', fields: ['values'] },
    ],
  ])('%s', (_, mine, change, wanted) => {
    expect(mergeStale({ mine, base, theirs: { ...base, ...change, version: 4, updatedBy: 'Wen' } })).toEqual(wanted)
  })
  it('of which nobody knows how the record stood: a choice wherever it differs', () => {
    expect(mergeStale({ mine: { name: 'seat', zone: null }, base: null, theirs: { ...base, version: 4 } })).toEqual({ kind: 'choice', fields: ['name'] })
  })
  it('never writes over what the other changed, and never loses what is mine', () => {
    const fields = fc.record({ a: fc.integer({ max: 3, min: 0 }), b: fc.integer({ max: 3, min: 0 }), c: fc.integer({ max: 3, min: 0 }) })
    const some = fc.record({ a: fc.integer({ max: 3, min: 0 }), b: fc.integer({ max: 3, min: 0 }) }, { requiredKeys: [] })
    fc.assert(
      fc.property(fields, some, some, (was, mine, change) => {
        const theirs = { ...was, ...change, version: 9 }
        const merged = mergeStale({ mine: { ...mine, version: 8 }, base: was, theirs })
        if (merged.kind === 'choice') {
          expect(merged.fields.length).toBeGreaterThan(0)
          return
        }
        const after: Record<string, unknown> = { ...theirs, ...merged.body }
        for (const [field, value] of Object.entries(mine)) expect(after[field]).toBe(value)
        for (const field of ['a', 'b', 'c'] as const) if (theirs[field] !== was[field]) expect(after[field]).toBe(theirs[field])
      }),
    )
  })
})
