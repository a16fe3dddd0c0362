import { type Board, type BoardRow, isMeasured, METRIC_INFO, WAITING, type WorkingSubject } from '@bold-ballast/core'
import { Link } from 'react-router'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { metricTitle, SENSE_WORDS } from '../../ui/words.ts'
import { Beam } from './beam.tsx'
import { Verdict } from './verdict.tsx'

const LIMIT_WORDS = { classRule: 'limit of the class', rating: 'rating of a part', own: 'our own limit' } as const

/** With many stages: baseline, last proven, picked, next and due; the rest behind a word. */
function shownStages(board: Board, position: number, showsAll: boolean): number[] {
  const all = board.stages.map((_, at) => at)
  if (showsAll) return all
  const lastProven = board.stages.findLastIndex((stage) => stage.state === 'proven')
  const due = board.rows.flatMap((row) => (row.goal.kind === 'target' && row.goal.verdict ? [row.goal.verdict.duePosition] : []))
  const wanted = new Set([0, lastProven, position, lastProven + 1, ...due.slice(0, 1), all.length - 1])
  return all.filter((at) => wanted.has(at))
}

export function BoardTable({ board, rows, position, showsAll }: { board: Board; rows: readonly BoardRow[]; position: number; showsAll: boolean }) {
  const { text, units } = useQuantities()
  const shown = shownStages(board, position, showsAll)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="relative overflow-x-auto" aria-label="Targets and limits by stage" tabIndex={0}>
      <table data-rows={rows.length} className="w-full border-collapse max-[639px]:block">
        <thead className="max-[639px]:sr-only">
          <tr className="border-b border-line">
            <th className="p-2">Target</th>
            <th className="bg-page p-2">Goal and verdict</th>
            {shown.map((at) => (
              <th key={at} className={`p-2 ${at === position ? 'bg-picked' : ''}`}>
                {at} {board.stages[at]?.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="max-[639px]:block">
          {rows.map((row, i) => (
            <tr data-goal key={row.id} className="border-b border-line align-top max-[639px]:block max-[639px]:pb-2">
              <th scope="row" className="w-[124px] min-w-[110px] p-2 text-[13px] font-bold text-ink max-[639px]:block max-[639px]:w-full">
                <span className={rows[i - 1]?.metric === row.metric ? 'sr-only max-[639px]:not-sr-only' : ''}>
                  {metricTitle(row.metric, row.basis, row.basis.fuelL === null ? null : text('volume', row.basis.fuelL, { decimals: 0 }))}
                  <span className="block text-xs font-normal text-quiet">{units[METRIC_INFO[row.metric].kind]}</span>
                </span>
              </th>
              <td className="w-[200px] min-w-[190px] bg-page p-2 max-[639px]:block max-[639px]:w-full">
                <Goal row={row} dueText={dueText(board, row)} untilText={untilText(board, row)} />
              </td>
              {shown.map((at) => (
                <td
                  key={at}
                  className={`min-w-[104px] p-2 max-[639px]:flex max-[639px]:justify-between ${at === position ? 'bg-picked' : 'max-[639px]:hidden'}`}
                >
                  <Cell row={row} at={at} stageId={board.stages[at]?.id ?? ''} isPlanned={board.stages[at]?.state === 'planned'} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** When a target is due, where that is not the last stage. */
function dueText(board: Board, { goal }: BoardRow): string {
  if (goal.kind !== 'target' || goal.verdict === null || goal.verdict.duePosition === board.stages.length - 1) return ''
  return `by stage ${goal.verdict.duePosition}`
}

/** Where a limit ends, if it does. */
function untilText(board: Board, { goal }: BoardRow): string {
  if (goal.kind !== 'limit' || goal.record.untilStageId === null) return ''
  const { untilStageId } = goal.record
  return `, until stage ${board.stages.findIndex((stage) => stage.id === untilStageId)}`
}

function Goal({ row, dueText, untilText }: { row: BoardRow; dueText: string; untilText: string }) {
  const { text } = useQuantities()
  if (row.goal.kind === 'none') {
    return (
      <p className="text-quiet">
        No goal set.{' '}
        <Link to="../plan?tab=goals" className="word-link">
          Set a target
        </Link>
      </p>
    )
  }
  const { record } = row.goal
  const { kind } = METRIC_INFO[row.metric]
  const value = text(kind, record.value, { isGoal: true })
  const high = 'highValue' in record && record.highValue !== null ? text(kind, record.highValue, { isGoal: true }) : ''
  return (
    <>
      {row.beam && <Beam beam={row.beam} isDanger={row.goal.kind === 'limit' && /break|broken/.test(row.goal.verdict?.word ?? '')} />}
      <p className="mt-1">
        <strong>{value}</strong> {SENSE_WORDS[record.sense]}
        {high && <strong> {high}</strong>}
        {dueText && <span className="text-quiet">, {dueText}</span>}
        {row.goal.kind === 'limit' && (
          <span className="text-quiet">
            , {row.ratedPart ? `rating of ${row.ratedPart}` : LIMIT_WORDS[row.goal.record.source]}
            {untilText}
          </span>
        )}
      </p>
      <Verdict row={row} />
    </>
  )
}

function Cell({ row, at, stageId, isPlanned }: { row: BoardRow; at: number; stageId: string; isPlanned: boolean }) {
  const { text, format } = useQuantities()
  const cell = row.cells[at]
  const { kind } = METRIC_INFO[row.metric]
  if (cell === WAITING)
    return (
      <span role="status" className="text-quiet">
        being worked out
      </span>
    )
  if (!cell) return <span className="text-faint">–</span>
  const proven = isMeasured(cell.proof)
  const detail =
    cell.fromPosition !== null
      ? `from stage ${cell.fromPosition}`
      : proven
        ? cell.plannedValue === null
          ? `${format(kind, cell.value, { sd: cell.sd }).spread}`
          : `plan said ${text(kind, cell.plannedValue, { sd: cell.sd })}`
        : `${format(kind, cell.lowValue, { sd: cell.sd }).number} to ${text(kind, cell.highValue, { sd: cell.sd })}`
  return (
    <>
      <span className={`text-[18px] leading-6 ${isPlanned && !proven ? 'text-planned-text' : 'font-semibold'}`}>
        <Figure
          kind={kind}
          value={cell.value}
          sd={cell.sd}
          proof={cell.proof}
          showUnit={kind === 'share'}
          working={{ of: METRIC_INFO[row.metric].working as WorkingSubject, id: stageId }}
        />
      </span>
      <span className="block text-xs text-quiet">{detail}</span>
    </>
  )
}
