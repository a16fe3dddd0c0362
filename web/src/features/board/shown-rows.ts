import type { Board, BoardRow } from '@bold-ballast/core'
import { byMetric, type Group } from '../../shared/board/board-marks.tsx'

/** From this many rows on they can be narrowed to those that are not met, and stand worst first within a subject. */
export const MANY_ROWS = 8

const WORST_FIRST = [
  'broken',
  'would break',
  'missed',
  'unlikely',
  'doubtful',
  'no plan',
  'on course',
  'would hold',
  'holds if nothing goes in',
  'holds',
  'met',
] as const

const wordOf = ({ goal }: BoardRow) => (goal.kind === 'none' || goal.verdict === null ? 'no plan' : goal.verdict.word)
/** Late comes before anything that is only open. */
const badness = (row: BoardRow) => WORST_FIRST.indexOf(wordOf(row)) - (row.goal.kind === 'target' && row.goal.verdict?.isLate ? 3.5 : 0)

export const isSettled = (row: BoardRow): boolean => ['met', 'holds', 'would hold', 'holds if nothing goes in'].includes(wordOf(row))

/** The rows of the Board: as they come while they are few; with many by subject, the worst first, and without the settled ones where asked. */
export function shownRows(board: Board, onlyOpen: boolean): readonly BoardRow[] {
  if (board.rows.length < MANY_ROWS) return board.rows
  const rows = onlyOpen ? board.rows.filter((row) => !isSettled(row)) : board.rows
  const subjects = [...new Set(board.rows.map((row) => row.metric))]
  return subjects.flatMap((subject) => rows.filter((row) => row.metric === subject).sort((a, b) => badness(a) - badness(b)))
}

/** The rows of the table, one a metric with the limit that it shares a beam with; among many, what is to be reached stands before what only holds. */
export function shownGroups(board: Board, onlyOpen: boolean): readonly Group[] {
  const groups = byMetric(shownRows(board, onlyOpen))
  if (board.rows.length < MANY_ROWS) return groups
  const isTarget = ([row]: Group) => row.goal.kind === 'target'
  return [...groups.filter(isTarget), ...groups.filter((group) => !isTarget(group))]
}
