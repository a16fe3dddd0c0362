import { type Beam as BeamShares, type Board, type BoardRow, isMeasured, METRIC_INFO, WAITING, type WorkingSubject } from '@bold-ballast/core'
import { Link } from 'react-router'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { SENSE_WORDS } from '../../ui/words.ts'
import { Beam, type Wall } from './beam.tsx'
import { Verdict } from './verdict.tsx'

const LIMIT_WORDS = { classRule: 'class', rating: 'rating of a part', own: 'our own limit' } as const

/** When a target is due. */
function dueText({ goal }: BoardRow): string {
  if (goal.kind !== 'target' || goal.verdict === null) return ''
  return `by stage ${goal.verdict.duePosition}`
}

/** Where a limit ends, if it does. */
function untilText(board: Board, { goal }: BoardRow): string {
  if (goal.kind !== 'limit' || goal.record.untilStageId === null) return ''
  const { untilStageId } = goal.record
  return `, until stage ${board.stages.findIndex((stage) => stage.id === untilStageId)}`
}

export type Group = readonly [BoardRow, ...BoardRow[]]

/** Rows of one metric that stand beside each other are one row of the table: its numbers are said once. A second target of a metric has a row of its own. */
export function byMetric(rows: readonly BoardRow[]): Group[] {
  const groups: [BoardRow, ...BoardRow[]][] = []
  for (const row of rows) {
    const last = groups.at(-1)
    const isOneMore =
      last?.[0].metric === row.metric && last[0].place === row.place && last[0].goal.kind !== 'none' && row.goal.kind === 'limit' && last.length < 2
    if (isOneMore) last.push(row)
    else groups.push([row])
  }
  return groups
}

/** The conditions that the numbers are quoted in, once for all of them. */
export function basisSentence(rows: readonly BoardRow[], text: ReturnType<typeof useQuantities>['text']): string {
  const power = rows.find(({ basis }) => basis.power !== null)?.basis.power
  const load = rows.find(({ basis }) => basis.driver || basis.fuelL !== null)?.basis
  const loaded = load
    ? [load.driver ? 'driver' : null, load.fuelL === null ? null : text('volume', load.fuelL, { decimals: 0 })].filter(Boolean).join(' and ')
    : ''
  const air = rows.find(({ basis }) => basis.air !== null)?.basis.air
  const aired = air ? `air at ${text('speed', air.speedMps, { decimals: 0 })}, ${air.densityKgM3.toFixed(2)} kg/m³` : ''
  const sentence = [power, loaded, aired].filter(Boolean).join('; ')
  return sentence === '' ? 'Goals and limits' : sentence.charAt(0).toUpperCase() + sentence.slice(1)
}

/** On which side of a limit a value fails, seen along a beam, and where the limit stands on it. */
function wallOn(beam: BeamShares, { sense, value }: { readonly sense: 'atMost' | 'atLeast'; readonly value: number }): Wall {
  const isFalling = beam.mark < beam.start
  return { share: (beam.start - value) / (beam.start - beam.mark), failsBeyond: isFalling === (sense === 'atLeast') }
}

/** What a metric is held against: one beam with every mark on it, and under it each goal with its verdict. */
export function Goals({ group, board }: { group: Group; board: Board }) {
  const [first] = group
  if (first.goal.kind === 'none')
    return (
      <p className="text-quiet">
        No goal set.{' '}
        <Link to="../plan?tab=goals" className="word-link no-print">
          Set a target
        </Link>
      </p>
    )
  const { beam } = first
  const walls = beam ? group.flatMap(({ goal }) => (goal.kind === 'limit' ? [wallOn(beam, goal.record)] : [])) : []
  return (
    <>
      {beam && <Beam beam={beam} hasGoal={first.goal.kind === 'target'} walls={walls} />}
      <div className={group.length > 1 ? 'flex justify-between gap-3' : ''}>
        {group.map((row, i) => (
          <div key={row.id} className={i > 0 ? 'text-right' : ''}>
            <GoalText row={row} dueText={dueText(row)} untilText={untilText(board, row)} />
            <Verdict row={row} />
          </div>
        ))}
      </div>
    </>
  )
}

function GoalText({ row, dueText, untilText }: { row: BoardRow; dueText: string; untilText: string }) {
  const { format } = useQuantities()
  if (row.goal.kind === 'none') return null
  const { record } = row.goal
  const { kind } = METRIC_INFO[row.metric]
  const number = (value: number) => format(kind, value, { isGoal: true }).number
  const high = 'highValue' in record && record.highValue !== null ? number(record.highValue) : ''
  return (
    <p className="mt-0.5 text-[12.5px] leading-[17px]">
      <strong>{number(record.value)}</strong> {SENSE_WORDS[record.sense]}
      {high && <strong> {high}</strong>}
      {record.driverName && <span className="text-quiet">, its number with {record.driverName} in</span>}
      {dueText && <span className="text-quiet">, {dueText}</span>}
      {row.goal.kind === 'limit' && (
        <span className="text-quiet">
          , {row.ratedPart ? `rating of ${row.ratedPart}` : LIMIT_WORDS[row.goal.record.source]}
          {untilText}
        </span>
      )}
    </p>
  )
}

export function Cell({ row, at, stageId, isPlanned }: { row: BoardRow; at: number; stageId: string; isPlanned: boolean }) {
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
      <span className="block text-xs leading-4 text-quiet">{detail}</span>
    </>
  )
}
