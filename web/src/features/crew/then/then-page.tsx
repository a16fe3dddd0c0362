import { arrivedCell, type BoardRow, METRIC_INFO } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { rowWord } from '../../../shared/board/row-word.ts'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { LoadError, Loading } from '../../../ui/states.tsx'
import { SENSE_WORDS, verdictText } from '../../../ui/words.ts'

function GoalCell({ row }: { row: BoardRow }) {
  const { text } = useQuantities()
  if (row.goal.kind === 'none') return null
  const { record, verdict } = row.goal
  return (
    <>
      {text(METRIC_INFO[row.metric].kind, record.value, { isGoal: true })} {SENSE_WORDS[record.sense]}{' '}
      {record.sense === 'between' && 'highValue' in record && record.highValue !== null
        ? text(METRIC_INFO[row.metric].kind, record.highValue, { isGoal: true })
        : ''}
      <span className="block text-quiet">{verdictText(verdict)}</span>
    </>
  )
}

/** The Board as it stood behind a line of the log, to be looked at; nothing of it can be written. */
export function ThenPage({ buildId, entryId, close }: { buildId: string; entryId: number; close: () => void }) {
  const { data: board, error, refetch } = api.useBoardThenQuery({ buildId, at: entryId })
  if (error) return <LoadError error={error} retry={refetch} />
  if (!board) return <Loading what="the Board of then" />
  return (
    <>
      <h1 className="mb-1">As it stood behind entry {entryId} of the log</h1>
      <p className="no-print mb-3 flex flex-wrap gap-x-4 text-quiet">
        To be looked at; what is written now goes to the build as it stands.
        <a className="word-link" href={`/api/builds/${buildId}/file?at=${entryId}`} download>
          Build file of then
        </a>
        <button type="button" className="word-link" onClick={close}>
          Back to now
        </button>
      </p>
      <ScrollBox label="The Board as it stood">
        <table className="w-full border-collapse">
          <thead>
            <tr>
              <th className="text-left">Number</th>
              <th className="pl-3 text-left">Goal</th>
              {board.stages.map(({ id, position, name }) => (
                <th key={id} className="pl-3 text-right">
                  {position} {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {board.rows.map((row) => (
              <tr key={row.id} className="border-t border-line align-baseline">
                <td className="py-1.5 font-semibold">{rowWord(row)}</td>
                <td className="py-1.5 pl-3">
                  <GoalCell row={row} />
                </td>
                {row.cells.map((each, i) => {
                  const cell = arrivedCell(each)
                  return (
                    <td key={board.stages[i]?.id} className="py-1.5 pl-3 text-right whitespace-nowrap">
                      {cell ? <Figure kind={METRIC_INFO[row.metric].kind} value={cell.value} sd={cell.sd} proof={cell.proof} /> : '–'}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
    </>
  )
}
