import type { LedgerScore } from '@bold-ballast/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useEffect, useRef } from 'react'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import type { LedgerLine, LedgerRow } from './ledger-rows.ts'
import { WeighField } from './weigh-field.tsx'

export const HOW_WORDS = { guess: 'guess', catalogue: 'catalogue', calculated: 'worked out', measured: 'weighed', confirmed: 'weighed twice' } as const

/** Longer lists draw only the rows that are seen, in a scroller of their own. */
const MOST_DRAWN = 200
const ROW_PX = 38

interface TableProps {
  readonly rows: readonly LedgerRow[]
  readonly score: LedgerScore | undefined
  readonly stageId: string
  /** The line to bring into view and mark. */
  readonly marked: string | null
  readonly edit: (id: string) => void
  readonly remove: (line: LedgerLine) => void
  /** The line whose weighing is being typed. */
  readonly weighing: string | null
  readonly setWeighing: (id: string | null) => void
  readonly buildId: string
  /** Ids of the picked lines while lines are picked for changing together, else null. */
  readonly picked: ReadonlySet<string> | null
  readonly pick: (id: string) => void
}

/** Stays as drawn while the filter is only being typed: its rows come after the letters. */
export const LedgerTable = memo(function LedgerTable({ rows, score, stageId, marked, edit, remove, weighing, setWeighing, buildId, picked, pick }: TableProps) {
  const { units } = useQuantities()
  const scroller = useRef<HTMLElement>(null)
  const isLong = rows.length > MOST_DRAWN
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: isLong,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
    getItemKey: (i) => keyOf(rows[i] as LedgerRow),
  })
  const markedAt = marked === null ? -1 : rows.findIndex((row) => row.kind === 'line' && row.change.id === marked)
  useEffect(() => {
    if (markedAt < 0) return
    if (isLong) virtual.scrollToIndex(markedAt, { align: 'center' })
    else document.getElementById(`line-${marked}`)?.scrollIntoView({ block: 'nearest' })
  }, [markedAt, marked, isLong, virtual])
  const seen = isLong ? virtual.getVirtualItems() : rows.map((_, index) => ({ index }))
  const above = isLong ? (virtual.getVirtualItems()[0]?.start ?? 0) : 0
  const below = isLong ? virtual.getTotalSize() - (virtual.getVirtualItems().at(-1)?.end ?? 0) : 0
  return (
    <section
      ref={scroller}
      data-ledger
      aria-label="Ledger of the stage"
      tabIndex={isLong ? 0 : -1}
      className={isLong ? 'max-h-[68vh] overflow-y-auto border-b border-line' : ''}
    >
      <table className="w-full border-collapse sm:table-fixed" aria-rowcount={rows.length + 2}>
        <thead className={isLong ? 'sticky top-0 z-10 bg-sheet' : ''}>
          <tr>
            <th className="p-2">Part</th>
            <th className="hidden p-2 sm:table-cell sm:w-[92px]">Zone</th>
            <th className="hidden p-2 sm:table-cell sm:w-[104px]">How we know</th>
            <th className="p-2 text-right sm:w-[130px]">Mass, {units.mass}</th>
            <th className="no-print p-2 sm:w-[166px]">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {above > 0 && <Spacer px={above} />}
          {seen.map(({ index }) => {
            const row = rows[index] as LedgerRow
            if (row.kind === 'group') return <GroupRow key={row.group} row={row} stageId={stageId} score={score} />
            const { id } = row.change
            return (
              <LineRow
                key={id}
                row={row}
                isMarked={id === marked}
                edit={edit}
                remove={remove}
                isWeighing={id === weighing}
                setWeighing={setWeighing}
                buildId={buildId}
                isPicked={picked === null ? null : picked.has(id)}
                pick={pick}
              />
            )
          })}
          {below > 0 && <Spacer px={below} />}
        </tbody>
      </table>
    </section>
  )
})

const keyOf = (row: LedgerRow) => (row.kind === 'group' ? row.group : row.change.id)

const Spacer = ({ px }: { px: number }) => (
  <tr style={{ height: px }}>
    <td colSpan={5} className="p-0" />
  </tr>
)

function GroupRow({ row, stageId, score }: { row: Extract<LedgerRow, { kind: 'group' }>; stageId: string; score: LedgerScore | undefined }) {
  const isOff = row.group === 'off'
  const kg = !score ? 0 : isOff ? -score.offLessPiecesKg : score.addedDoneKg + score.addedPlannedKg
  return (
    <tr className="h-[38px] border-t border-line bg-page font-bold">
      <td className="p-2">
        {isOff ? 'Off, less what goes back' : 'On'}, {row.count}
      </td>
      <td className="hidden sm:table-cell" colSpan={2} />
      <td className="p-2 text-right">
        <Figure kind="mass" value={kg} sign working={{ of: 'score', id: stageId }} showUnit={false} align={3} />
        <span className="inline-block w-[29px]" />
      </td>
      <td className="no-print" />
    </tr>
  )
}

interface LineProps {
  readonly row: LedgerLine
  readonly isMarked: boolean
  readonly edit: (id: string) => void
  readonly remove: (line: LedgerLine) => void
  readonly isWeighing: boolean
  readonly setWeighing: (id: string | null) => void
  readonly buildId: string
  readonly isPicked: boolean | null
  readonly pick: (id: string) => void
}

/** Whether a row would be drawn the same: figures are worked out anew after every write, and mostly say the same. */
function looksAlike(a: LineProps, b: LineProps): boolean {
  const sameFigures = (Object.keys(a.row.figures) as (keyof typeof a.row.figures)[]).every((key) => a.row.figures[key] === b.row.figures[key])
  const rest = (Object.keys(a) as (keyof LineProps)[]).every((key) => key === 'row' || a[key] === b[key])
  return a.row.change === b.row.change && a.row.isPiece === b.row.isPiece && a.row.otherName === b.row.otherName && rest && sameFigures
}

const LineRow = memo(function LineRow({ row, isMarked, edit, remove, isWeighing, setWeighing, buildId, isPicked, pick }: LineProps) {
  const { change, figures, isPiece } = row
  const { text } = useQuantities()
  const waits = figures.saving === 'waits' && change.kind === 'off'
  // Typed here and not with the server yet.
  const isUnsent = change.version === 0
  const how = figures.isUnknown ? 'not weighed' : HOW_WORDS[figures.proof]
  const notWeighed = figures.proof === 'guess' || figures.proof === 'catalogue' || figures.proof === 'calculated'
  return (
    <tr id={`line-${change.id}`} className={`h-[38px] border-t border-line align-baseline ${isMarked ? 'bg-picked' : ''}`}>
      <td data-part className={`p-2 ${isPiece ? 'pl-8' : ''}`}>
        {isPicked !== null && (
          <input type="checkbox" className="mr-2 align-text-bottom" checked={isPicked} onChange={() => pick(change.id)} aria-label={`Pick ${change.name}`} />
        )}
        {change.count > 1 && `${change.count} × `}
        {change.name}
        {isPiece && <span className="text-quiet">, goes back on</span>} {waits && <strong className="text-wait">waits</strong>}
        {row.otherName !== null && <span className="text-quiet"> replaces {row.otherName}</span>}
        {change.state === 'planned' && <span className="text-planned-text"> planned</span>}
        {change.touchesPower && <span className="text-quiet"> touches power</span>}
        {figures.disagrees && <strong className="text-wait"> weighings disagree</strong>}
        {isUnsent && <strong className="text-wait"> not sent yet</strong>}
        <span className="block text-xs text-quiet sm:hidden">{[how, change.zone].filter(Boolean).join(', ')}</span>
      </td>
      <td className="hidden p-2 text-quiet sm:table-cell">{change.zone ?? ''}</td>
      <td className="hidden p-2 text-quiet sm:table-cell">
        {how}
        {figures.guessedKg !== null && <span className="block text-xs">guessed {text('mass', figures.guessedKg)}</span>}
      </td>
      <td className="p-2 text-right">
        {isWeighing ? (
          <WeighField buildId={buildId} line={row} close={() => setWeighing(null)} />
        ) : figures.isUnknown ? (
          <strong className="text-wait">not known</strong>
        ) : (
          <Figure kind="mass" value={figures.massKg} sd={figures.sdKg || undefined} sign proof={figures.proof} showUnit={false} align={3} />
        )}
      </td>
      <td className="no-print p-1 text-right whitespace-nowrap">
        {notWeighed && !isUnsent && (
          <button type="button" className="word-link mr-2" onClick={() => setWeighing(change.id)} aria-label={`Weigh ${change.name}`}>
            weigh
          </button>
        )}
        <button type="button" className="word-link mr-2" disabled={isUnsent} onClick={() => edit(change.id)} aria-label={`Change ${change.name}`}>
          change
        </button>
        <button type="button" className="word-link" disabled={isUnsent} onClick={() => remove(row)} aria-label={`Delete ${change.name}`}>
          delete
        </button>
      </td>
    </tr>
  )
}, looksAlike)
