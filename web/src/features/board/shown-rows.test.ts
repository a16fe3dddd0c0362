import type { Board, BoardRow } from '@bold-ballast/core'
import { expect, it } from 'vitest'
import { isSettled, shownRows } from './shown-rows.ts'

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
