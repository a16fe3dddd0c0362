import type { RecordsAnswer } from '@bold-ballast/contract'
import { fromSi, type WeightRoom } from '@bold-ballast/core'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { useAppSelector } from '../../../data/store.ts'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { BoxPicker, useOpenBox } from './box-picker.tsx'
import { BulkEdit } from './bulk-edit.tsx'
import { ChangeForm } from './change-form.tsx'
import { EntryLine } from './entry-line.tsx'
import { type LedgerLine, type LedgerRow, ledgerRows, lineCount, type StoredChange, stageLines } from './ledger-rows.ts'
import { HOW_WORDS, LedgerTable } from './ledger-table.tsx'
import { LineDatePicker, useLineDate } from './line-date.tsx'
import { lineInstant } from './line-dates.ts'
import { PastePanel } from './paste-panel.tsx'
import { UnlistedStrip } from './unlisted-strip.tsx'
import { ZonesPanel } from './zones-panel.tsx'

/** A filter is offered where a list does not fit on a screen. */
const LONG_LIST = 15

/** The ledger of the picked stage: off with what goes back, on, and the score. */
export function Ledger({ records, room, position, stageId }: { records: RecordsAnswer; room: WeightRoom; position: number; stageId: string }) {
  const [editing, setEditing] = useState<string | null>(null)
  const address = useAddress()
  const [saved, setSaved] = useState<string | null>(null)
  const filter = address.get('filter')
  const shownFilter = useDeferredValue(filter)
  const { take, notice } = useRemoval(records.build.id, 'changes')
  const changes = useWithWaiting(records)
  const openBox = useOpenBox(records, changes)
  const isBoxMissing = openBox === 'missing'
  const box = isBoxMissing ? null : openBox
  const [weighing, setWeighing] = useState<string | null>(null)
  const [isPasting, setIsPasting] = useAsked('paste')
  const [showsZones, setShowsZones] = useAsked('zones')
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null)
  const pick = useCallback(
    (id: string) => setPicked((now) => (now?.has(id) ? new Set([...now].filter((other) => other !== id)) : new Set([...(now ?? []), id]))),
    [],
  )
  const lines = useMemo(() => stageLines(changes, room.lines, stageId), [changes, room.lines, stageId])
  const rows = useMemo(() => ledgerRows(lines, shownFilter), [lines, shownFilter])
  const remove = useCallback((line: LedgerLine) => void take(line.change), [take])
  const total = useMemo(
    () => changes.reduce((count, change) => count + Number(change.stageId === stageId && change.state !== 'dropped'), 0),
    [changes, stageId],
  )
  const { units } = useQuantities()
  const [lineDate, setLineDate] = useLineDate(records.build.id)
  const instant = useCallback(() => lineInstant(lineDate, records.weighings, new Date()), [lineDate, records.weighings])
  if (position === 0)
    return (
      <Empty
        title="Stage 0 holds no changes"
        why="It is the car as it came. Pick a later stage to type what comes off and goes on, or put this one on the scales."
      />
    )
  const score = room.scores[position]
  const edited = records.changes.find((change) => change.id === editing)
  return (
    <>
      <UnlistedStrip records={records} room={room} position={position} stageId={stageId} />
      <LineDatePicker records={records} date={lineDate} setDate={setLineDate} />
      <EntryLine key={stageId} records={records} stageId={stageId} lines={changes} box={box} isBoxMissing={isBoxMissing} instant={instant} onSaved={setSaved} />
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <button type="button" className="word-link" onClick={() => setEditing('new')}>
          Use the form
        </button>
        <button type="button" className="word-link" onClick={() => setIsPasting(true)}>
          Paste lines
        </button>
        {total > 0 && picked === null && (
          <button type="button" className="word-link" onClick={() => setPicked(new Set())}>
            Pick several
          </button>
        )}
        <button type="button" className="word-link" onClick={() => setShowsZones(true)}>
          Zones
        </button>
        <BoxPicker records={records} box={box} isMissing={isBoxMissing} />
        {total > 0 && <CsvButton name={`${records.build.name}-ledger-${position}`} table={() => ledgerCsv(rows, units.mass)} />}
        {total > LONG_LIST && (
          <label className="no-print ml-auto flex items-center gap-2 text-quiet">
            Only lines with
            <input value={filter} onChange={(event) => address.type({ filter: event.target.value })} placeholder="hose, cabin, guess" className="w-[170px]" />
          </label>
        )}
      </div>
      {notice}
      {picked !== null && <BulkEdit records={records} picked={changes.filter((change) => picked.has(change.id))} close={() => setPicked(null)} />}
      {showsZones && <ZonesPanel records={records} onClose={() => setShowsZones(false)} />}
      {isPasting && <PastePanel buildId={records.build.id} stageId={stageId} changes={changes} instant={instant} onClose={() => setIsPasting(false)} />}
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
                ['found', score?.foundKg],
                ['of it banked', score?.bankedKg],
                ['waits', score?.waitsKg],
                ['to come', score?.toComeKg],
                ['net as typed', score?.netKg],
              ] as const
            ).map(([word, kg]) => (
              <div key={word}>
                <dt className={`text-xs ${word === 'waits' && kg ? 'text-wait' : 'text-quiet'}`}>{word}</dt>
                <dd className="text-[20px] font-bold">
                  <Figure kind="mass" value={kg ?? 0} sign={word === 'net as typed'} working={{ of: 'score', id: stageId }} />
                </dd>
              </div>
            ))}
          </dl>
          {rows.length === 0 ? (
            <p>
              None of {total} lines has “{filter}”.{' '}
              <button type="button" className="word-link" onClick={() => address.set({ filter: '' })}>
                Show all
              </button>
            </p>
          ) : (
            <LedgerTable
              rows={rows}
              score={score}
              stageId={stageId}
              marked={saved ?? (address.get('line') || null)}
              edit={setEditing}
              remove={remove}
              weighing={weighing}
              setWeighing={setWeighing}
              buildId={records.build.id}
              picked={picked}
              pick={pick}
            />
          )}
          <p className="mt-2 text-xs text-quiet">
            {lineCount(rows)} of {total} {total === 1 ? 'line' : 'lines'}
          </p>
        </>
      )}
      {editing && (editing === 'new' || edited) && (
        <ChangeForm records={records} stageId={stageId} change={edited ?? null} instant={instant} onClose={() => setEditing(null)} />
      )}
    </>
  )
}

/** The stored lines, and after them those that wait in the browser. */
function useWithWaiting(records: RecordsAnswer): readonly StoredChange[] {
  const { items, sent } = useAppSelector((state) => state.outbox)
  return useMemo(() => {
    const known = new Set(records.changes.map((change) => change.id))
    const waiting = [...new Map([...sent, ...items].map((item) => [item.recordId, item])).values()].filter(
      (item) =>
        item.buildId === records.build.id && item.resource === 'changes' && item.kind === 'create' && item.refusal === null && !known.has(item.recordId),
    )
    return waiting.length === 0
      ? records.changes
      : [...records.changes, ...waiting.map((item) => ({ ...NEW_LINE, ...item.body, version: 0 }) as unknown as StoredChange)]
  }, [items, sent, records.changes, records.build.id])
}

const NEW_LINE = { count: 1, zone: null, touchesPower: false, place: null, cost: null, hours: null, waits: false, replacesChangeId: null, partId: null }

const ledgerCsv = (rows: readonly LedgerRow[], unit: string) => ({
  head: [
    'Kind',
    'Part',
    'Count',
    'Zone',
    'State',
    'Done at',
    'How we know',
    `Mass, all pieces (${unit})`,
    `Spread (${unit})`,
    'Typed',
    'Saving',
    'Cost',
    'Hours',
  ],
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
            row.change.cost,
            row.change.hours,
          ],
        ],
  ),
})
