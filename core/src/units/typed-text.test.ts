import { describe, expect, it, test } from 'vitest'
import { parseEntryLine } from '../rooms/weight/entry-line.ts'
import { decimalsForSpread, formatChance, formatNumber } from './format-number.ts'
import { parseNumber } from './parse-number.ts'
import { parseQuantity } from './parse-quantity.ts'

describe('typed numbers', () => {
  test.each([
    ['12.5', '.', 12.5],
    ['12,5', '.', 12.5],
    ['12.345', '.', 12.345],
    ['12,345', ',', 12.345],
    ['1.2e-3', '.', 0.0012],
    ['\u221212.5', '.', -12.5],
    ['1\u202f389.4', '.', 1389.4],
    ['0,125', '.', 0.125],
    ['1,2000', '.', 1.2],
    ['.5', '.', 0.5],
  ] as const)('%s with mark %s is %d', (text, mark, expected) => {
    expect(parseNumber(text, mark)).toBe(expected)
  })
  test.each([
    ['1,200', '.', /1200 or 1.200/],
    ['1.200', ',', /1200 or 1,200/],
    ['1,234.5', '.', /one decimal mark/],
    ['12,5,1', '.', /one decimal mark/],
    ['', '.', /empty/],
    ['0x10', '.', /plain number/],
    ['Infinity', '.', /plain number/],
    ['twelve', '.', /plain number/],
  ] as const)('refuses %s with mark %s', (text, mark, sentence) => {
    expect(() => parseNumber(text, mark)).toThrow(sentence)
  })
  test.each([
    ['41 lb', 18.59728717, undefined],
    ['9,2 kg', 9.2, undefined],
    ['18.6', 18.6, undefined],
    ['500 g', 0.5, undefined],
    ['10 kg ± 0.5', 10, 0.5],
    ['10 kg max error 0.5', 10, 0.5 / Math.sqrt(3)],
  ] as const)('mass %s', (text, value, sd) => {
    const read = parseQuantity(text, 'mass', { defaultUnit: 'kg' })
    expect(read.value).toBeCloseTo(value, 8)
    if (sd === undefined) expect(read.sd).toBeUndefined()
    else expect(read.sd).toBeCloseTo(sd, 9)
  })
  it('refuses a unit nobody knows and names those it knows', () => {
    expect(() => parseQuantity('12 stone', 'mass', { defaultUnit: 'kg' })).toThrow(/"stone".*kg/)
  })
})

describe('entry line', () => {
  test.each([
    ['off rear bench 18.6 kg weighed @cabin', { kind: 'off', count: 1, name: 'rear bench', zone: 'cabin', mass: { massKg: 18.6, proof: 'measured' } }],
    ['on 2 x front seat 8.0 catalogue @left side', { kind: 'on', count: 2, name: 'front seat', zone: 'left side', mass: { massKg: 8, proof: 'catalogue' } }],
    ['transfer latch and hinges 6,5 kg guess', { kind: 'transfer', name: 'latch and hinges', zone: null, mass: { massKg: 6.5, proof: 'guess' } }],
    ['OFF bolt 8 mm 0.4', { kind: 'off', name: 'bolt 8 mm', mass: { massKg: 0.4, proof: 'measured' } }],
    ['off cage 41 ± 3 guess', { name: 'cage', mass: { massKg: 41, sdKg: 3, proof: 'guess' }, guess: null }],
    ['off heater box ? @cabin', { kind: 'off', name: 'heater box', zone: 'cabin', mass: null }],
    ['off bench 20 kg guess 41 lb @cabin', { name: 'bench', mass: { proof: 'measured', typed: '41 lb' }, guess: { massKg: 20, proof: 'guess' } }],
    ['on 2 x seat 9 guess 8.2 weighed', { count: 2, name: 'seat', mass: { massKg: 8.2 }, guess: { massKg: 9 } }],
    ['off second guess 3 kg', { name: 'second guess', mass: { massKg: 3 }, guess: null }],
  ] as const)('%s', (line, expected) => {
    expect(parseEntryLine(line, { massUnit: 'kg' })).toMatchObject(expected)
  })
  it('reads a mass without a unit in the picked one', () => {
    expect(parseEntryLine('off towing bar 41', { massUnit: 'lb' }).mass?.massKg).toBeCloseTo(18.597, 3)
  })
  test.each([
    ['rear bench 18.6', /off, on or transfer/],
    ['off rear bench', /No mass/],
    ['off 18.6 kg', /No name/],
    ['off bench -3 kg', /more than zero/],
    ['off bench 0 kg', /more than zero/],
    ['off bench 9000 kg', /over 5 000 kg/],
    ['off bench 1,200 kg', /two ways/],
    ['off bench 12 stone', /unit|No mass/],
  ] as const)('refuses %s', (line, sentence) => {
    expect(() => parseEntryLine(line, { massUnit: 'kg' })).toThrow(sentence)
  })
})

describe('numbers for reading', () => {
  test.each([
    [1.82, 1],
    [0.39, 2],
    [12, 0],
    [0.026, 3],
    [0, 1],
    [9.96, 0],
  ])('a spread of %d shows %d decimals', (sd, decimals) => {
    expect(decimalsForSpread(sd)).toBe(decimals)
  })
  test.each([
    [1469.1, 1, false, '1\u202f469.1'],
    [-12.44, 1, false, '\u221212.4'],
    [-0.04, 1, true, '0.0'],
    [3.2, 1, true, '+3.2'],
  ] as const)('%d', (value, decimals, sign, text) => {
    expect(formatNumber(value, decimals, { sign })).toBe(text)
  })
  test.each([
    [0.57, '6 in 10'],
    [0.999, 'over 99 in 100'],
    [0.05, '1 in 20'],
    [0.79, '3 in 4'],
    [0.8, '8 in 10'],
    [0.001, 'under 1 in 100'],
  ])('a chance of %d is %s', (chance, text) => {
    expect(formatChance(chance)).toBe(text)
  })
})
