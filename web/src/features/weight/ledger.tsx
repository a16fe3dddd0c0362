import type { RecordsAnswer } from '@bold-ballast/contract'
import { fromSi, type WeightRoom } from '@bold-ballast/core'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { useRemoval } from '../../ui/removal.tsx'
import { Empty } from '../../ui/states.tsx'
import { ChangeForm } from './change-form.tsx'
import { EntryLine } from './entry-line.tsx'
import { type LedgerLine, type LedgerRow, ledgerRows, lineCount } from './ledger-rows.ts'
import { HOW_WORDS, LedgerTable } from './ledger-table.tsx'

/** A filter is offered where a list does not fit on a screen. */
const LONG_LIST = 15

/** The ledger of the picked stage: off with what goes back, on, and the score. */
export function Ledger({ records, room, position, stageId }: { records: RecordsAnswer; room: WeightRoom; position: number; stageId: string }) {
  const [editing, setEditing] = useState<string | null>(null)
  const [search, setSearch] = useSearchParams()
  const [saved, setSaved] = useState<string | null>(null)
  const filter = search.get('filter') ?? ''
  const shownFilter = useDeferredValue(filter)
  const { take, notice } = useRemoval(records.build.id, 'changes')
  const rows = useMemo(() => ledgerRows(records.changes, room.lines, stageId, shownFilter), [records.changes, room.lines, stageId, shownFilter])
  const remove = useCallback((line: LedgerLine) => void take(line.change), [take])
  const total = useMemo(
    () => records.changes.reduce((count, change) => count + Number(change.stageId === stageId && change.state !== 'dropped'), 0),
    [records.changes, stageId],
  )
  const { units } = useQuantities()
  if (position === 0)
    return (
      <Empty
        title="Stage 0 holds no changes"
        why="It is the car as it came. Pick a later stage to type what comes off and goes on, or put this one on the scales."
      />
    )
  const score = room.scores[position]
  const edited = records.changes.find((change) => change.id === editing)
  const setFilter = (text: string) => {
    const next = new URLSearchParams(search)
    if (text === '') next.delete('filter')
    else next.set('filter', text)
    setSearch(next, { replace: true })
  }
  return (
    <>
      <EntryLine records={records} stageId={stageId} onSaved={setSaved} />
      <p className="mb-3 flex flex-wrap items-center gap-x-5">
        <button type="button" className="word-link" onClick={() => setEditing('new')}>
          Use the form instead
        </button>
        {total > 0 && <CsvButton name={`${records.build.name}-ledger-${position}`} table={() => ledgerCsv(rows, units.mass)} />}
        {total > LONG_LIST && (
          <label className="no-print ml-auto flex items-center gap-2 text-quiet">
            Only lines with
            <input value={filter} onChange={(event) => setFilter(event.target.value)} placeholder="hose, cabin, guess" className="w-[170px]" />
          </label>
        )}
      </p>
      {notice}
      {total === 0 ? (
        <Empty
          title="Nothing typed for this stage"
          why="Weigh each part as it comes off and as it goes on; what is only guessed stays marked as a guess until it is weighed."
        />
      ) : (
        <>
          <dl className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
            {(
              [
                ['out', score?.outKg],
                ['banked', score?.bankedKg],
                ['waiting', score?.waitingKg],
                ['to come', score?.toComeKg],
                ['net as typed', score?.netKg],
              ] as const
            ).map(([word, kg]) => (
              <div key={word}>
                <dt className={`text-xs ${word === 'waiting' && kg ? 'text-wait' : 'text-quiet'}`}>{word}</dt>
                <dd className="text-[20px] font-bold">
                  <Figure kind="mass" value={kg ?? 0} sign={word === 'net as typed'} working={{ of: 'score', id: stageId }} />
                </dd>
              </div>
            ))}
          </dl>
          {rows.length === 0 ? (
            <p>
              None of {total} lines has “{filter}”.{' '}
              <button type="button" className="word-link" onClick={() => setFilter('')}>
                Show all
              </button>
            </p>
          ) : (
            <LedgerTable rows={rows} score={score} stageId={stageId} marked={saved ?? search.get('line')} edit={setEditing} remove={remove} />
          )}
          <p className="mt-2 text-xs text-quiet">
            {lineCount(rows)} of {total} {total === 1 ? 'line' : 'lines'}
          </p>
        </>
      )}
      {editing && (editing === 'new' || edited) && <ChangeForm records={records} stageId={stageId} change={edited ?? null} onClose={() => setEditing(null)} />}
    </>
  )
}

const ledgerCsv = (rows: readonly LedgerRow[], unit: string) => ({
  head: ['Kind', 'Part', 'Count', 'Zone', 'State', 'Done at', 'How we know', `Mass, all pieces (${unit})`, `Spread (${unit})`, 'Typed', 'Saving'],
  rows: rows.flatMap((row) =>
    row.kind === 'group'
      ? []
      : [
          [
            row.change.kind,
            row.change.name,
            row.change.count,
            row.change.zone,
            row.change.state,
            row.change.doneAt,
            HOW_WORDS[row.figures.proof],
            fromSi('mass', row.figures.massKg, unit),
            fromSi('mass', row.figures.sdKg, unit),
            row.change.values.at(-1)?.typed ?? null,
            row.figures.saving,
          ],
        ],
  ),
})
