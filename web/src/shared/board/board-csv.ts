import { arrivedCell, type Board, fromSi, METRIC_INFO, type QuantityKind, spreadFromSi } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/files/csv-button.tsx'
import { rowWord } from './row-word.ts'

/** The Board as a table: a row for each goal and each of its stages, in the picked units. */
export function boardCsv(board: Board, units: Record<QuantityKind, string>): CsvTable {
  return {
    head: ['Metric', 'Unit', 'Goal', 'Sense', 'Goal value', 'Goal upper value', 'Verdict', 'Chance', 'Stage', 'Stage name', 'Value', 'Spread', 'Proof'],
    rows: board.rows.flatMap((row) => {
      const { metric, goal, cells } = row
      const { kind } = METRIC_INFO[metric]
      const shown = (value: number | null | undefined) => (value === null || value === undefined ? null : fromSi(kind, value, units[kind]))
      const goalCells =
        goal.kind === 'none'
          ? [null, null, null, null, null, null]
          : [
              goal.kind,
              goal.record.sense,
              shown(goal.record.value),
              shown('highValue' in goal.record ? goal.record.highValue : null),
              goal.verdict?.word ?? 'being worked out',
              goal.verdict?.chance ?? null,
            ]
      return board.stages.map((stage) => {
        const cell = arrivedCell(cells[stage.position])
        return [
          rowWord(row),
          units[kind],
          ...goalCells,
          stage.position,
          stage.name,
          shown(cell?.value),
          cell ? spreadFromSi(kind, cell.sd, units[kind]) : null,
          cell?.proof ?? null,
        ]
      })
    }),
  }
}
