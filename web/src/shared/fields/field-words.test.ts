import { KINDS, kindOf } from '@bold-ballast/core'
import { expect, test } from 'vitest'
import { fieldWord, valueText } from './field-words.ts'

test.each([
  ['driverInKg', 'driver in (kg)'],
  ['fuelL', 'fuel (L)'],
  ['stageId', 'stage'],
  ['doneAt', 'done'],
  ['name', 'name'],
  ['boostPa', 'boost (Pa)'],
])('the field %s reads "%s"', (field, words) => {
  expect(fieldWord(field)).toBe(words)
})

test.each([
  ['wheelRateNPerM', 'wheel rate (N/m)'],
  ['fuelKgPerL', 'fuel (kg/L)'],
  ['redlineRpm', 'redline (rpm)'],
  ['peakTorqueNm', 'peak torque (N·m)'],
  ['temperatureK', 'temperature (K)'],
])('the field %s reads "%s"', (field, words) => {
  expect(fieldWord(field)).toBe(words)
})

test.each([
  [null, 'nothing'],
  [[], 'nothing'],
  [true, 'yes'],
  [12.5, '12.5'],
  [
    [
      { massKg: 41, typed: '41 kg guess' },
      { massKg: 43, typed: '43.2 kg' },
    ],
    '41 kg guess, 43.2 kg',
  ],
  [{ driverKg: 80, fuelL: 20, note: null }, 'driver (kg) 80, fuel (L) 20'],
  ['wornOut', 'worn out'],
  ['eBay find', 'eBay find'],
  ['0b3c0c3e-3f6b-4c58-8f1c-1f5a4a4e6a11', 'a record that is gone'],
])('the value %j reads "%s"', (value, words) => {
  expect(valueText(value)).toBe(words)
})

test('another record is read by its name', () => {
  const id = '0b3c0c3e-3f6b-4c58-8f1c-1f5a4a4e6a11'
  expect(valueText([id], (wanted) => (wanted === id ? '2 Turbo' : undefined))).toBe('2 Turbo')
})

test.each(KINDS.flatMap(({ list }) => Object.keys(kindOf(list).fields).map((field) => [list, field] as const)))(
  '%s: the field %s has no raw name',
  (_, field) => {
    expect(fieldWord(field)).toMatch(/^[a-z0-9 ]+( \([^)]+\))?$/)
  },
)
