import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { formatNumber } from './format-number.ts'
import { parseQuantity } from './parse-quantity.ts'
import { QUANTITIES } from './quantities.ts'
import { findUnit, fromSi, type QuantityKind, quantityOf, spreadFromSi, spreadToSi, toSi } from './units.ts'

const KINDS = QUANTITIES.map((quantity) => quantity.kind)
const everyUnit = KINDS.flatMap((kind) => quantityOf(kind).units.map((unit) => [kind, unit.symbol] as const))
const everyAlias = KINDS.flatMap((kind) => quantityOf(kind).units.flatMap((unit) => unit.aliases.map((alias) => [kind, alias, unit.symbol] as const)))

// NIST SP 811 (2008), appendix B, factors as printed there; horsepower is the 550 ft·lbf/s one. From memory, checked by the exact definitions.
test.each<[QuantityKind, number, string, number, number]>([
  ['mass', 1, 'lb', 0.45359237, 0],
  ['mass', 1, 'oz', 0.02834952, 1e-8],
  ['power', 1, 'hp', 745.6999, 1e-4],
  ['power', 1, 'PS', 735.4988, 1e-4],
  ['torque', 1, 'lb·ft', 1.355818, 1e-6],
  ['torque', 1, 'kgf·m', 9.80665, 0],
  ['pressure', 1, 'psi', 6894.757, 1e-3],
  ['pressure', 1, 'inHg', 3386.389, 1e-3],
  ['pressure', 1013.25, 'hPa', 101_325, 1e-9],
  ['temperature', 0, '°C', 273.15, 0],
  ['temperature', 212, '°F', 373.15, 1e-9],
  ['temperature', -40, '°F', 233.15, 1e-9],
  ['length', 1, 'in', 0.0254, 0],
  ['length', 1, 'ft', 0.3048, 0],
  ['volume', 1, 'US gal', 3.785412, 1e-6],
  ['speed', 1, 'mph', 0.44704, 0],
  ['speed', 90, 'km/h', 25, 1e-12],
  ['springRate', 1, 'lb/in', 175.1268, 1e-4],
  ['force', 1, 'lbf', 4.448222, 1e-6],
  ['share', 51.2, '%', 0.512, 1e-15],
])('%s: %d %s', (kind, value, unit, expected, within) => {
  expect(Math.abs(toSi(kind, value, unit) - expected)).toBeLessThanOrEqual(within)
})

describe('every unit', () => {
  test.each(everyUnit)('%s in %s goes there and back', (kind, unit) => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (value) => {
        const back = fromSi(kind, toSi(kind, value, unit), unit)
        expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(value)))
        const spread = spreadFromSi(kind, spreadToSi(kind, value, unit), unit)
        expect(Math.abs(spread - value)).toBeLessThanOrEqual(1e-12 * Math.max(1, Math.abs(value)))
      }),
      { numRuns: 50, seed: 4600 },
    )
  })
  test.each(everyAlias)('%s: "%s" is %s, in capitals and with blanks too', (kind, alias, symbol) => {
    for (const text of [alias, alias.toUpperCase(), ` ${alias} `]) expect(findUnit(kind, text)?.symbol, text).toBe(symbol)
  })
  test.each(KINDS)('%s: no spelling stands for two units', (kind) => {
    const spellings = quantityOf(kind).units.flatMap(({ symbol, aliases }) => [symbol, ...aliases].map((text) => text.toLowerCase()))
    expect(new Set(spellings).size).toBe(spellings.length)
  })
  test.each(everyUnit.filter(([, unit]) => unit !== ''))('%s in %s: what is shown reads back', (kind, unit) => {
    fc.assert(
      fc.property(fc.integer({ min: -999_999, max: 999_999 }), fc.integer({ min: 0, max: 3 }), (thousandths, decimals) => {
        const value = Number((thousandths / 1000).toFixed(decimals))
        const read = parseQuantity(`${formatNumber(value, decimals)} ${unit}`, kind, { defaultUnit: unit, decimalMark: '.' })
        expect(Math.abs(read.value - toSi(kind, value, unit))).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(read.value)))
      }),
      { numRuns: 50, seed: 4600 },
    )
  })
})

it('a spread of a temperature has no offset', () => {
  expect(spreadToSi('temperature', 2, '°C')).toBe(2)
  expect(spreadToSi('temperature', 9, '°F')).toBeCloseTo(5, 12)
})
it('an unknown unit is refused with those that are known', () => {
  expect(() => toSi('mass', 1, 'stone')).toThrow('"stone" is not a unit of mass known here. Use one of: kg, g, lb, oz.')
})
