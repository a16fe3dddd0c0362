import type { Board, BoardRow } from '@bold-ballast/core'
import { expect, it } from 'vitest'
import { isSettled, shownGroups, shownRows } from './shown-rows.ts'

const row = (metric: string, word: string, isLate = false) =>
  ({ id: `${metric} ${word}`, metric, goal: { kind: 'target', verdict: { word, isLate } } }) as unknown as BoardRow
const board = (rows: BoardRow[]) => ({ rows }) as unknown as Board
const MANY = ['met', 'on course', 'missed', 'doubtful'].flatMap((word) => [row('massReady', word), row('wheelPower', word)])

it('leaves few rows as they come', () => {
  const few = [row('massReady', 'met'), row('massReady', 'missed')]
  expect(shownRows(board(few), true)).toEqual(few)
})

it('puts many rows by subject, the worst first, late before open', () => {
  const rows = shownRows(board([...MANY, row('massReady', 'on course', true)]), false)
  expect(rows.map((entry) => `${entry.metric} ${entry.goal.kind === 'none' ? '' : entry.goal.verdict?.word}`)).toEqual([
    'massReady missed',
    'massReady on course',
    'massReady doubtful',
    'massReady on course',
    'massReady met',
    ...['missed', 'doubtful', 'on course', 'met'].map((word) => `wheelPower ${word}`),
  ])
})

it('narrows many rows to what is not met', () => {
  expect(shownRows(board(MANY), true).some(isSettled)).toBe(false)
  expect(shownRows(board(MANY), true)).toHaveLength(6)
})

it('puts targets before limits among many, and leaves few as they come', () => {
  const limit = (metric: string) => ({ id: metric, metric, place: null, goal: { kind: 'limit', verdict: { word: 'holds' } } }) as unknown as BoardRow
  const order = (rows: BoardRow[]) => shownGroups(board(rows), false).map((group) => group.map(({ goal }) => goal.kind))
  const few = [limit('peakTorque'), row('massReady', 'met')]
  expect(order(few)).toEqual([['limit'], ['target']])
  expect(order([limit('peakTorque'), limit('noise'), ...MANY])).toEqual([...MANY.map(() => ['target']), ['limit'], ['limit']])
})
