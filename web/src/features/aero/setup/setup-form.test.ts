import { type SetupSheet, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../../ui/forms/form-reader.ts'
import { setupBody, setupDefaults, setupFieldSpecs } from './setup-form.ts'
import { comparedRows, spanOf } from './sheet-rows.ts'

const made = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => {
  const read = new FormReader({ ...setupDefaults(null, UNIT_SETS[set]), ...values }, UNIT_SETS[set], '.')
  return { body: setupBody(read) as { corners: Record<string, Record<string, unknown>> | null; bars: unknown }, errors: read.errors }
}
const DEG = Math.PI / 180
const TYPED = {
  camberRadWanted: '-3.2 -3.1 -2 -2.1',
  camberRadRead: '-3.3 - - -2.1',
  bumpClicksWanted: '8 10',
  coldPaWanted: '160 160 155 155',
  barFront: '2nd hole',
}
const closely = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(6)) : each)))

describe('what is turned, in a form', () => {
  it('reads four values, or two for the axles; - is unknown', () => {
    const { body, errors } = made(TYPED)
    expect(errors).toEqual({})
    expect(body.corners?.LF).toMatchObject({ camberRad: { wanted: expect.closeTo(-3.2 * DEG, 9), read: expect.closeTo(-3.3 * DEG, 9) }, toeRad: null })
    expect(body.corners?.RF).toMatchObject({ camberRad: { read: null }, bumpClicks: { wanted: 8 } })
    expect(body.corners?.RR).toMatchObject({ bumpClicks: { wanted: 10, read: null }, coldPa: { wanted: 155_000 } })
    expect(body.bars).toEqual({ front: '2nd hole', rear: null })
  })
  it('of nothing makes nothing', () => {
    expect(made({}).body).toEqual({ corners: null, bars: null })
  })
  test.each(['metric', 'imperial'] as const)('fills the form again with the same in %s', (set) => {
    const stored = made(TYPED).body
    const again = made(setupDefaults(stored as never, UNIT_SETS[set]), set)
    expect(again.errors).toEqual({})
    expect(closely(again.body)).toEqual(closely(stored))
  })
  test.each([
    ['three values', { camberRadWanted: '-3 -3 -2' }, 'camberRadWanted', /Camber has 3 values/],
    ['a word', { toeRadRead: 'in in out out' }, 'toeRadRead', /cannot be read/],
  ] as const)('refuses %s at its field', (_, values, field, message) => {
    expect(made(values).errors[field]).toMatch(message)
    expect(setupFieldSpecs.map(({ name }) => name)).toContain(field)
  })
})

describe('two sheets side by side', () => {
  const row = (key: string, ...wanted: (number | null)[]) => ({
    key,
    word: key,
    kind: 'pressure' as const,
    cells: (['LF', 'RF', 'LR', 'RR'] as const).map((at, i) => ({ at, cell: { wanted: wanted[i] ?? null, read: i === 0 ? 165_000 : null } })),
  })
  const sheet = (...rows: ReturnType<typeof row>[]): SetupSheet => ({ rows, cornersFrom: 0 })
  it('mark what differs and what was read off what is wanted', () => {
    const [only] = comparedRows(sheet(row('cold', 160_000, 160_000)), sheet(row('cold', 160_000, 158_000)))
    expect([...(only?.differs ?? [])]).toEqual(['RF'])
    expect([...(only?.off ?? [])]).toEqual(['LF'])
    expect(comparedRows(sheet(row('cold', 160_000)), null)[0]?.differs.size).toBe(0)
  })
  it('keep a row that the other alone has, with nothing here', () => {
    const rows = comparedRows(sheet(), sheet(row('cold', 160_000)))
    expect(rows).toHaveLength(1)
    expect(rows[0]?.row.cells.every(({ cell }) => cell.wanted === null && cell.read === null)).toBe(true)
    expect(rows[0]?.differs.has('LF')).toBe(true)
  })
  it('fill four columns a row', () => {
    expect((['LF', 'front', 'car'] as const).map(spanOf)).toEqual([1, 2, 4])
  })
})
