import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Column } from './column.ts'

const columnOf = (values: readonly number[]) => {
  const column = new Column()
  for (const value of values) column.push(value)
  return column
}

it('gives back what was put in, over the bounds of its blocks', () => {
  const values = Array.from({ length: 20_001 }, (_, i) => i / 7)
  const column = columnOf(values)
  expect([column.length, column.at(0), column.at(8191), column.at(8192), column.at(20_000)]).toEqual([20_001, 0, 8191 / 7, 8192 / 7, 20_000 / 7])
  expect(Array.from(column.drain())).toEqual(values)
  expect(column.length).toBe(0)
})

it('cut anywhere, its two parts are the whole', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ noNaN: true }), { maxLength: 50 }), fc.nat(50), (values, cut) => {
      const column = columnOf(values)
      const at = Math.min(cut, values.length)
      const rest = column.takeFrom(at)
      expect([...column.drain(), ...rest]).toEqual(values)
    }),
  )
})
