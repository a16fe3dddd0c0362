import { expect, test } from 'vitest'
import { itemAt } from './item-at.ts'

test.each([
  [[3, 5, 8], 0, 3],
  [[3, 5, 8], 2, 8],
  [Float64Array.of(0.5, 0.25), 1, 0.25],
  ['gear', 3, 'r'],
  [[0, null, undefined], 2, undefined],
])('of %o at %i stands %s', (list, index, expected) => {
  expect(itemAt(list as ArrayLike<unknown>, index)).toBe(expected)
})

test.each([
  [[], 0],
  [[1, 2], 2],
  [[1, 2], -1],
  [[1, 2], Number.NaN],
])('of %o there is nothing at %d, and no number is made of it', (list, index) => {
  expect(() => itemAt(list, index)).toThrow(RangeError)
})
