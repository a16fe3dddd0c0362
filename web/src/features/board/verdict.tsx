import { type BoardRow, formatChance, isMeasured } from '@bold-ballast/core'
import { WorkingLink } from '../../ui/figure.tsx'

/** The verdict in words with its chance; only limits broken or about to break are red. */
export function Verdict({ row }: { row: BoardRow }) {
  if (row.goal.kind === 'none') return null
  const { kind, record, verdict } = row.goal
  const word = kind === 'target' && verdict.isLate ? `late, ${verdict.word}` : verdict.word
  const cell = row.cells[verdict.verdictPosition]
  const isOpen = !cell || !isMeasured(cell.proof)
  const isSure = kind === 'target' && !isOpen && !verdict.withinDoubt
  const chance =
    verdict.chance === null || isSure || verdict.word === 'broken' || verdict.word === 'holds'
      ? ''
      : kind === 'target' && verdict.withinDoubt
        ? `, within doubt, ${formatChance(verdict.chance)} sure`
        : `, ${formatChance(verdict.chance)}`
  const since = kind === 'target' && verdict.missedSincePosition !== null ? ` since stage ${verdict.missedSincePosition}` : ''
  const tone =
    word === 'broken' || word === 'would break'
      ? 'text-danger'
      : word === 'met' || word === 'holds' || word === 'on course' || word === 'would hold'
        ? 'text-pine'
        : word.startsWith('late') || word === 'doubtful' || word === 'missed'
          ? 'text-wait'
          : 'text-ink'
  return (
    <p className={`font-bold ${tone}`}>
      <WorkingLink of={kind} id={record.id}>
        {word}
        {since}
        {chance}
      </WorkingLink>
    </p>
  )
}
