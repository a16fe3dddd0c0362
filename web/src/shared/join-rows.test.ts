import { expect, test } from 'vitest'
import { joinRows } from './use-stream.ts'

const row = (timeS: number) => ({ type: 'log-sample' as const, timeS, values: [1] })
const times = (rows: readonly { timeS: number }[]) => rows.map(({ timeS }) => timeS)

test.each([
  ['behind those before', [1, 2], [3, 4], [1, 2, 3, 4]],
  ['none taken twice after the stream was opened again', [1, 2, 3], [2, 3, 4], [1, 2, 3, 4]],
  ['begun anew where it counts from the start again', [60, 61], [0, 1], [0, 1]],
  ['nothing', [1], [], [1]],
])('rows of a logger are joined: %s', (_, before, more, expected) => {
  expect(times(joinRows(before.map(row), more.map(row)))).toEqual(expected)
})
