import { arrivedCell, type BoardRow, formatChance, isMeasured } from '@bold-ballast/core'
import { WorkingLink } from '../../ui/figure.tsx'

/** The verdict in words with its chance; only limits broken or about to break are red. */
export function Verdict({ row }: { row: BoardRow }) {
  if (row.goal.kind === 'none') return null
  const { kind, record, verdict } = row.goal
  if (verdict === null) return <p className="font-bold text-quiet">being worked out</p>
  const isLate = 'isLate' in verdict && verdict.isLate
  const withinDoubt = 'withinDoubt' in verdict && verdict.withinDoubt
  const word = isLate ? `late, ${verdict.word}` : verdict.word
  const cell = arrivedCell(row.cells[verdict.verdictPosition])
  const isOpen = !cell || !isMeasured(cell.proof)
  const isSure = kind === 'target' && !isOpen && !withinDoubt
  const chance =
    verdict.chance === null || isSure || verdict.word === 'broken' || verdict.word === 'holds'
      ? ''
      : withinDoubt
        ? `, within doubt, ${formatChance(verdict.chance)} sure`
        : `, ${formatChance(verdict.chance)}`
  const since = 'missedSincePosition' in verdict && verdict.missedSincePosition !== null ? ` since stage ${verdict.missedSincePosition}` : ''
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
