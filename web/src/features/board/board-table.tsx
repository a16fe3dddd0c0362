import { type Board, METRIC_INFO } from '@bold-ballast/core'
import { basisSentence, Cell, Goals, type Group } from '../../shared/board/board-marks.tsx'
import { useQuantities } from '../../ui/quantity.ts'

/** With many stages: baseline, last proven, picked, next and due; the rest behind a word. */
function shownStages(board: Board, position: number, showsAll: boolean): number[] {
  const all = board.stages.map((_, at) => at)
  if (showsAll) return all
  const lastProven = board.stages.findLastIndex((stage) => stage.state === 'proven')
  const due = board.rows.flatMap((row) => (row.goal.kind === 'target' && row.goal.verdict ? [row.goal.verdict.duePosition] : []))
  const wanted = new Set([0, lastProven, position, lastProven + 1, ...due.slice(0, 1), all.length - 1])
  return all.filter((at) => wanted.has(at))
}

export function BoardTable({ board, groups, position, showsAll }: { board: Board; groups: readonly Group[]; position: number; showsAll: boolean }) {
  const { text, units } = useQuantities()
  const shown = shownStages(board, position, showsAll)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="relative overflow-x-auto" aria-label="Targets and limits by stage" tabIndex={0}>
      <table data-rows={groups.length} className="w-full border-collapse max-[639px]:block">
        <thead className="max-[639px]:sr-only">
          <tr className="border-b border-line">
            <th className="py-2 pr-2 text-[12.5px]" colSpan={2}>
              {basisSentence(groups.flat(), text)}
            </th>
            {shown.map((at) => (
              <th key={at} className={`px-2 py-2 text-[12.5px] ${at === position ? 'bg-picked' : ''}`}>
                {at} {board.stages[at]?.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="max-[639px]:block">
          {groups.map((group) => {
            const [row] = group
            return (
              <tr data-goal key={row.id} className="border-b border-line align-top max-[639px]:block max-[639px]:pb-2">
                <th scope="row" className="w-[112px] min-w-[96px] py-1.5 pr-2 text-[13.5px] font-bold text-ink max-[639px]:block max-[639px]:w-full">
                  {METRIC_INFO[row.metric].word}
                  <span className="block text-xs font-normal text-quiet">{[row.place, units[METRIC_INFO[row.metric].kind]].filter(Boolean).join(', ')}</span>
                </th>
                <td className="w-[256px] min-w-[248px] bg-page px-2.5 py-1.5 max-[639px]:block max-[639px]:w-full">
                  <Goals group={group} board={board} />
                </td>
                {shown.map((at) => (
                  <td
                    key={at}
                    className={`min-w-[104px] px-2 py-1.5 max-[639px]:flex max-[639px]:justify-between ${at === position ? 'bg-picked' : 'max-[639px]:hidden'}`}
                  >
                    <Cell row={row} at={at} stageId={board.stages[at]?.id ?? ''} isPlanned={board.stages[at]?.state === 'planned'} />
                  </td>
                ))}
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}
