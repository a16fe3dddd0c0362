import { describe, expect, it, test } from 'vitest'
import { KINDS } from '../records/kinds.ts'
import { buildFields } from '../records/plan-kinds.ts'
import { z } from '../zod.ts'
import { clockText, readClock } from './clock.ts'
import { fieldUnit } from './field-unit.ts'
import { parseQuantity } from './parse-quantity.ts'
import { QUANTITIES } from './quantities.ts'
import { findUnit, toSi } from './units.ts'

describe.each(QUANTITIES.map((quantity) => [quantity.kind, quantity] as const))('%s', (kind, { metric, imperial, units }) => {
  it('is shown in units that it knows, and begins with its record unit', () => {
    expect(findUnit(kind, metric)?.symbol).toBe(metric)
    expect(findUnit(kind, imperial)?.symbol).toBe(imperial)
    expect(units[0]?.factor).toBe(1)
  })
})

it('no two units share the ending of a field', () => {
  const endings = QUANTITIES.flatMap(({ units }) => units.flatMap((unit) => ('ending' in unit && unit.ending ? [unit.ending] : [])))
  expect(new Set(endings).size).toBe(endings.length)
})

// Exact by definition (SI Brochure 9th ed., NIST SP 811): the foot of 0.3048 m, the pound, the degree of π/180 rad, the psi.
test.each([
  ['angle', 180, '°', Math.PI],
  ['area', 1, 'ft²', 0.09290304],
  ['area', 1, 'in²', 0.00064516],
  ['inertia', 1, 'lb·ft²', 0.0421401100938048],
  ['stress', 1, 'ksi', 6_894_757.293168361],
  ['stress', 250, 'N/mm2', 2.5e8],
  ['stress', 9, 'GPa', 9e9],
  ['voltage', 13_800, 'mV', 13.8],
  ['frequency', 12, 'Hz', 12],
  ['money', 4500, '', 4500],
] as const)('%s: %d %s is %d', (kind, value, symbol, expected) => {
  expect(toSi(kind, value, symbol) / expected).toBeCloseTo(1, 12)
})

describe('a lap time', () => {
  test.each([
    ['1:24.90', 84.9],
    ['84.9', 84.9],
    ['84.9 s', 84.9],
    ['0:59.5', 59.5],
    ['12:00.00', 720],
    ['1:24,90', 84.9],
  ])('"%s" is %d s', (text, expected) => {
    expect(parseQuantity(text, 'lapTime', { defaultUnit: 's' }).value).toBeCloseTo(expected, 9)
  })
  test.each([['1:60.0'], ['1:2:3'], [':30'], ['1:'], ['one']])('"%s" is refused', (text) => {
    expect(() => parseQuantity(text, 'lapTime', { defaultUnit: 's' })).toThrow()
  })
  test.each([
    [84.9, 2, '1:24.90'],
    [59.999, 2, '1:00.00'],
    [59.9, 2, '59.90'],
    [605.04, 1, '10:05.0'],
    [61, 0, '1:01'],
  ])('%d s with %d decimals reads %s', (seconds, decimals, text) => {
    expect(clockText(seconds, decimals)).toBe(text)
  })
  it('is read as it was written', () => {
    for (let ms = 0; ms < 700_000; ms += 1237) expect(readClock(clockText(60 + ms / 1000, 3))).toBeCloseTo(60 + ms / 1000, 9)
  })
})

describe('the unit at the end of a field', () => {
  test.each([
    ['wheelRateNPerM', 'N/m', 'wheelRate'],
    ['fuelKgPerL', 'kg/L', 'fuel'],
    ['displacementM3', 'm³', 'displacement'],
    ['ratedFlowM3PerS', 'm³/s', 'ratedFlow'],
    ['bsfcKgPerJ', 'kg/J', 'bsfc'],
    ['driverInKg', 'kg', 'driverIn'],
  ])('%s ends in %s', (field, symbol, bare) => {
    expect(fieldUnit(field)).toMatchObject({ unit: { symbol }, bare })
  })
  test.each([['name'], ['lambda'], ['Kg'], ['crossShareRfLr'], ['count'], ['L']])('%s says none', (field) => {
    expect(fieldUnit(field)).toBeUndefined()
  })
  it('is known of every field of a record that ends in a capital letter or a unit', () => {
    const names = new Set<string>()
    const walk = (schema: z.core.JSONSchema.JSONSchema) => {
      for (const [name, field] of Object.entries(schema.properties ?? {})) {
        names.add(name)
        walk(field as z.core.JSONSchema.JSONSchema)
      }
      for (const inner of [schema.items, ...(schema.anyOf ?? [])]) if (inner && typeof inner === 'object') walk(inner as z.core.JSONSchema.JSONSchema)
    }
    for (const fields of [buildFields, ...KINDS.map((kind) => kind.fields)]) walk(z.toJSONSchema(z.object(fields)))
    const unread = [...names].filter((name) => /[a-z](Kg|Pa|W|L|M|K|Nm|Rpm|S|A|V|M3|Per[A-Z])$/.test(name) && !fieldUnit(name))
    expect(unread).toEqual([])
  })
})
