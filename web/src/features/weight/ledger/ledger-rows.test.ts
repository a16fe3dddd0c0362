import { describe, expect, it } from 'vitest'
import { ledgerRows, lineCount, type StoredChange, stageLines } from './ledger-rows.ts'

const at = '2026-03-01T10:00:00Z'
const change = (id: string, more: Partial<StoredChange>): StoredChange =>
  ({
    id,
    stageId: 's1',
    kind: 'off',
    name: id,
    count: 1,
    zone: null,
    values: [{ massKg: 2, proof: 'measured', at }],
    state: 'done',
    doneAt: at,
    fromChangeId: null,
    ...more,
  }) as StoredChange

const CHANGES = [
  change('tailgate', {}),
  change('cage', { kind: 'on', values: [{ massKg: 41, proof: 'guess', at, sdKg: null, instrument: null }] }),
  change('hinges', { kind: 'transfer', fromChangeId: 'tailgate' }),
  change('bench', { zone: 'cabin' }),
  change('dropped', { state: 'dropped' }),
  change('elsewhere', { stageId: 's2' }),
  change('orphan', { kind: 'transfer', fromChangeId: 'gone' }),
]
const names = (filter = '') =>
  ledgerRows(stageLines(CHANGES, [], 's1'), filter).map((row) =>
    row.kind === 'group' ? `[${row.group} ${row.count}]` : `${row.isPiece ? '  ' : ''}${row.change.name}`,
  )

describe('the rows of a ledger', () => {
  it('stand in groups, each part with what goes back from it', () => {
    expect(names()).toEqual(['[off 4]', 'tailgate', '  hinges', 'bench', 'orphan', '[on 1]', 'cage'])
  })
  it('are narrowed by words of name, zone, kind and proof, and keep the part of a piece that fits', () => {
    expect(names('cabin')).toEqual(['[off 1]', 'bench'])
    expect(names('hinges')).toEqual(['[off 2]', 'tailgate', '  hinges'])
    expect(names('on guess')).toEqual(['[on 1]', 'cage'])
    expect(names('zebra')).toEqual([])
  })
  it('count lines and not their heads', () => {
    expect(lineCount(ledgerRows(stageLines(CHANGES, [], 's1'), ''))).toBe(5)
  })
  it('leave a line out whose values cannot be read', () => {
    expect(
      lineCount(ledgerRows(stageLines([change('broken', { values: [{ massKg: -1, proof: 'measured', at, sdKg: -2, instrument: null }] })], [], 's1'), '')),
    ).toBeLessThanOrEqual(1)
  })
})
