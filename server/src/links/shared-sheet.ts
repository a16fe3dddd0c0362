import { type SharedSheet, sharedSheetSchema } from '@bold-ballast/contract'
import { arrivedCell, type Board, type BoardRow, type BuildRecord, type Metric } from '@bold-ballast/core'

/** What a build cost is nobody's business who holds a link. */
const KEPT_BACK: ReadonlySet<Metric> = new Set(['moneyToStage'])

const isOf = (row: BoardRow, position: number | null) => {
  if (position === null || row.goal.kind === 'none') return true
  const { verdict } = row.goal
  if (verdict === null) return false
  return 'duePosition' in verdict ? verdict.duePosition === position : verdict.fromPosition <= position
}

function goalOf({ goal }: BoardRow): SharedSheet['rows'][number]['goal'] {
  if (goal.kind === 'none') return null
  const { kind, record, verdict } = goal
  const position = verdict && ('duePosition' in verdict ? verdict.duePosition : verdict.fromPosition)
  const highValue = 'highValue' in record ? record.highValue : null
  return { kind, sense: record.sense, value: record.value, highValue, position, word: verdict?.word ?? null, chance: verdict?.chance ?? null }
}

/** A Board, or one stage of it, as a stranger may see it; everything is picked by name, and what is not named does not go along. */
export function sharedSheet(build: Pick<BuildRecord, 'name' | 'className'>, board: Board, position: number | null, at: string): SharedSheet {
  const rows = board.rows.filter((row) => !KEPT_BACK.has(row.metric) && isOf(row, position))
  return sharedSheetSchema.parse({
    buildName: build.name,
    className: build.className ?? null,
    position,
    at,
    stages: board.stages.map((stage) => ({ position: stage.position, name: stage.name, date: stage.date, state: stage.state })),
    rows: rows.map((row) => ({
      metric: row.metric,
      place: row.place,
      goal: goalOf(row),
      cells: row.cells.map((each) => {
        const cell = arrivedCell(each)
        return cell ? { value: cell.value, sd: cell.sd, proof: cell.proof } : null
      }),
    })),
  } satisfies SharedSheet)
}
