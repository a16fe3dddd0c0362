import fc from 'fast-check'
import { expect, it, test } from 'vitest'
import { parseNumber } from './parse-number.ts'

it('reads digits to the nearest double, however many there are', () => {
  fc.assert(
    fc.property(fc.stringMatching(/^[+-]?\d{1,19}(\.\d{1,19})?$/), (text) => {
      // The language's own reading is the check: correctly rounded by its standard.
      if (!Object.is(parseNumber(text), Number(text))) throw new Error(`${text}: ${parseNumber(text)} is not ${Number(text)}`)
      const comma = text.replace('.', ',')
      if (!Object.is(parseNumber(comma, ','), Number(text))) throw new Error(`${comma}: ${parseNumber(comma, ',')} is not ${Number(text)}`)
    }),
    { numRuns: 3000 },
  )
})

test.each([
  ['5.', 5],
  ['.5', 0.5],
  ['-.25', -0.25],
  ['+12', 12],
  ['-0', -0],
  ['1e3', 1000],
  [' 7 ', 7],
  ['\u22124,5', -4.5],
  ['123456789012345678', 123456789012345680],
] as const)('%j is %d', (text, value) => {
  expect(parseNumber(text)).toBe(value)
})

test.each(['', '-', '+', '1-2', '1.2.3', '12a', '1,234', '--1'])('%j is refused', (text) => {
  expect(() => parseNumber(text)).toThrow()
})
