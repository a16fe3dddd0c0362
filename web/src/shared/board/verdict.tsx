import type { BoardRow } from '@bold-ballast/core'
import { WorkingLink } from '../../ui/figure.tsx'
import { verdictText } from '../../ui/words.ts'

const TONES: Readonly<Record<string, string>> = {
  broken: 'text-danger',
  'would break': 'text-danger',
  met: 'text-pine',
  holds: 'text-pine',
  'on course': 'text-pine',
  'would hold': 'text-pine',
  'holds if nothing goes in': 'text-pine',
  doubtful: 'text-wait',
  missed: 'text-wait',
}

/** The verdict in words with its chance; only limits broken or about to break are red. */
export function Verdict({ row }: { row: BoardRow }) {
  if (row.goal.kind === 'none') return null
  const { kind, record, verdict } = row.goal
  if (verdict === null) return <p className="font-bold text-quiet">being worked out</p>
  const isLate = 'isLate' in verdict && verdict.isLate
  return (
    <p className={`text-[13px] leading-[17px] font-bold ${isLate ? 'text-wait' : (TONES[verdict.word] ?? 'text-ink')}`}>
      <WorkingLink of={kind} id={record.id}>
        {verdictText(verdict)}
      </WorkingLink>
    </p>
  )
}
