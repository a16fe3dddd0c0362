import { describe, expect, it, test } from 'vitest'
import { formatNumber } from './format-number.ts'
import { chooseUnits, UNIT_CHOICES, UNIT_SETS } from './unit-set.ts'
import { findUnit, fromSi, toSi } from './units.ts'

describe('units by choice', () => {
  it('offers only units that are known, and those of both sets', () => {
    for (const { kind, symbols } of UNIT_CHOICES) {
      for (const symbol of symbols) expect(findUnit(kind, symbol)?.symbol).toBe(symbol)
      for (const set of Object.values(UNIT_SETS)) expect(symbols).toContain(set[kind])
    }
  })
  it('replaces single quantities of a set and leaves out what is not offered', () => {
    expect(chooseUnits('metric', { power: 'PS', mass: 'stone' })).toEqual({ ...UNIT_SETS.metric, power: 'PS' })
  })
  // Exact definitions: SI Brochure 9th ed., NIST SP 811 (the mile of 1959 is 1609.344 m).
  test.each([
    ['speed', 100, 'km/h', 27.77777777777778],
    ['speed', 60, 'mph', 26.8224],
    ['power', 100, 'PS', 73_549.875],
    ['pressure', 1, 'bar', 100_000],
    ['volume', 10, 'US gal', 37.85411784],
    ['temperature', 212, '°F', 373.15],
    ['torque', 100, 'lb·ft', 135.58179483314],
    ['length', 1, 'in', 0.0254],
    // 1 lbf = 4.448 221 615 260 5 N exactly (NIST SP 811, B.8); over an inch of 0.0254 m.
    ['springRate', 200, 'lb/in', 35_025.36704929527],
    ['force', 1, 'lbf', 4.4482216152605],
    // The pound, the hour, the horsepower and the US gallon of 231 cubic inches, all exact (NIST SP 811).
    ['massFlow', 60, 'lb/min', 0.45359237],
    ['volumeFlow', 1000, 'cm³/min', 1.6666666666666667e-5],
    ['volumeFlow', 3600, 'US gal/h', 3.785411784e-3],
    ['duration', 2, 'h', 7200],
  ] as const)('%s: %d %s and back', (kind, value, symbol, expected) => {
    expect(toSi(kind, value, symbol)).toBeCloseTo(expected, 9)
    expect(fromSi(kind, toSi(kind, value, symbol), symbol)).toBeCloseTo(value, 9)
  })
  it('shows the picked decimal mark', () => {
    expect(formatNumber(-1234.56, 1, { mark: ',' })).toBe('\u22121\u202f234,6')
  })
})
