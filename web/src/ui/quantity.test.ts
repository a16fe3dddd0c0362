import { parseNumber, type QuantityKind, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { makeFormatter, numberText, typedAgain, typedText, usualText } from './quantity.ts'

describe('a usual value in a hint is said in the picked units', () => {
  test.each<[QuantityKind, number, number | undefined, string, string]>([
    ['mass', 5, undefined, '5 kg', '11 lb'],
    ['length', 0.3, undefined, '300 mm', '11.8 in'],
    ['springRate', 200_000, undefined, '200 N/mm', '1140 lb/in'],
    ['volume', 42, undefined, '42 L', '11.1 US gal'],
    ['pressure', 5000, 15_000, '5 to 15 kPa', '0.725 to 2.18 psi'],
    ['power', 5000, 20_000, '5 to 20 kW', '6.71 to 26.8 hp'],
  ])('%s %d', (kind, value, upTo, metric, imperial) => {
    expect(usualText(UNIT_SETS.metric, kind, value, upTo)).toBe(metric)
    expect(usualText(UNIT_SETS.imperial, kind, value, upTo)).toBe(imperial)
  })
})

describe('a stored value as text for a form', () => {
  test.each<[string, Parameters<typeof typedAgain>[1], string, string]>([
    ['stays as typed with its unit', { value: 41 * 0.45359237, typed: '41 lb' }, 'kg', '41 lb'],
    ['stays as typed without a unit while that unit is picked', { value: 312, typed: '312' }, 'kg', '312'],
    ['is written anew where the number alone would be read as something else', { value: 312, typed: '312' }, 'lb', '687.8423 lb'],
    ['keeps its spread when written anew', { value: 312, sd: 0.5, typed: '312 ± 0.5' }, 'lb', '687.8423 lb ± 1.102311 lb'],
    ['is written anew where the decimal mark decides', { value: 1.25, typed: '1,250' }, 'kg', '1.25 kg'],
    ['is written where nothing was typed', { value: 4.5, sd: 0.1 }, 'kg', '4.5 kg ± 0.1 kg'],
    ['is written where what was typed is unreadable today', { value: 4.5, typed: 'about four and a half' }, 'kg', '4.5 kg'],
  ])('%s', (_, stored, unit, text) => expect(typedAgain('mass', stored, unit)).toBe(text))
})

describe('numbers in the picked units', () => {
  test.each<[QuantityKind, number, Parameters<ReturnType<typeof makeFormatter>>[2], string]>([
    ['mass', 1240.04, { sd: 6.2 }, '1 240.0 ± 6.2 kg'],
    ['mass', 1240.04, { sd: 62 }, '1 240 ± 62 kg'],
    ['mass', -12, { sign: true }, '−12.0 kg'],
    ['power', 300_000, { isGoal: true }, '300 kW'],
    ['power', 300_400, { isGoal: true }, '300.4 kW'],
    ['massToPower', 0.00535, { isGoal: true }, '5.35 kg/kW'],
    ['mass', 1334.5, { isGoal: true }, '1 334.5 kg'],
  ])('%s %d', (kind, value, options, text) => {
    const { number, spread, unit } = makeFormatter(UNIT_SETS.metric)(kind, value, options)
    expect(
      [number, spread, unit]
        .filter(Boolean)
        .join(' ')
        .replace(/[\u00a0\u202f\u2009]/g, ' '),
    ).toBe(text)
  })
})

describe('a number that a form starts with', () => {
  test.each([1.305, -12.345, 999.999, 0.123, 1234.567, 12, 1e-7, 1.2])('%d is read as itself with either decimal mark', (value) => {
    for (const mark of ['.', ','] as const) expect(parseNumber(numberText(value), mark)).toBeCloseTo(value, 9)
  })
  it('has no digits that nobody asked for', () => {
    expect(typedText('length', 1.305, 'm')).toBe('1.3050 m')
    expect(typedText('length', 1.3, 'm')).toBe('1.3 m')
  })
})
