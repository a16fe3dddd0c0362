import type { StoredRecords } from '@bold-ballast/contract'
import { type LedgerLineFigures, lineMass, type WeightRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { Figure } from '../../ui/figure.tsx'
import { useRemoval } from '../../ui/removal.tsx'
import { Empty } from '../../ui/states.tsx'
import { ChangeForm } from './change-form.tsx'
import { EntryLine } from './entry-line.tsx'

type StoredChange = StoredRecords['changes'][number]
interface Row {
  readonly change: StoredChange
  readonly figures: LedgerLineFigures
}

/** A line that was just typed, until its figures are worked out with all others. */
function previewFigures(change: StoredChange): LedgerLineFigures {
  const { massKg, sdKg, proof, disagreesWith } = lineMass(change)
  return { changeId: change.id, massKg: change.kind === 'off' ? -massKg : massKg, sdKg, proof, saving: null, disagrees: disagreesWith !== undefined }
}

const HOW_WORDS = { guess: 'guess', catalogue: 'catalogue', calculated: 'calculated', measured: 'weighed', confirmed: 'weighed twice' } as const

/** The ledger of the picked stage: off with what goes back, on, and the score. */
export function Ledger({ records, room, position, stageId }: { records: StoredRecords; room: WeightRoom; position: number; stageId: string }) {
  const [editing, setEditing] = useState<string | null>(null)
  const removal = useRemoval(records.build.id, 'changes')
  if (position === 0)
    return (
      <Empty
        title="Stage 0 holds no changes"
        why="It is the car as it came. Pick a later stage to type what comes off and goes on, or put this one on the scales."
      />
    )
  const figuresOf = new Map(room.lines.map((line) => [line.changeId, line]))
  const rows = records.changes.flatMap((change): Row[] => {
    if (change.stageId !== stageId || change.state === 'dropped') return []
    return [{ change, figures: figuresOf.get(change.id) ?? previewFigures(change) }]
  })
  const offs = rows.filter((row) => row.change.kind === 'off')
  const offIds = new Set(offs.map((row) => row.change.id))
  const piecesOf = (id: string) => rows.filter((row) => row.change.kind === 'transfer' && row.change.fromChangeId === id)
  const loose = rows.filter((row) => row.change.kind === 'transfer' && !offIds.has(row.change.fromChangeId ?? ''))
  const ons = rows.filter((row) => row.change.kind === 'on')
  const score = room.scores[position]
  const edited = records.changes.find((change) => change.id === editing)
  const line = (row: Row, isPiece = false) => (
    <LedgerRow key={row.change.id} row={row} isPiece={isPiece} edit={() => setEditing(row.change.id)} remove={() => void removal.take(row.change)} />
  )
  return (
    <>
      <EntryLine records={records} stageId={stageId} />
      <p className="mb-3">
        <button type="button" className="word-link" onClick={() => setEditing('new')}>
          Use the form instead
        </button>
      </p>
      {removal.notice}
      {rows.length === 0 ? (
        <Empty
          title="Nothing typed for this stage"
          why="Weigh each part as it comes off and as it goes on; what is only guessed stays marked as a guess until it is weighed."
        />
      ) : (
        <>
          <dl className="mb-3 flex flex-wrap gap-x-8 gap-y-2">
            {(
              [
                ['out', score?.outKg],
                ['banked', score?.bankedKg],
                ['waiting', score?.waitingKg],
                ['to come', score?.toComeKg],
              ] as const
            ).map(([word, kg]) => (
              <div key={word}>
                <dt className={`text-xs ${word === 'waiting' && kg ? 'text-wait' : 'text-quiet'}`}>{word}</dt>
                <dd className="text-[20px] font-bold">
                  <Figure kind="mass" value={kg ?? 0} working={{ of: 'score', id: stageId }} />
                </dd>
              </div>
            ))}
          </dl>
          <table className="w-full border-collapse">
            <thead>
              <tr>
                <th className="p-2">Part</th>
                <th className="hidden p-2 sm:table-cell">Zone</th>
                <th className="hidden p-2 sm:table-cell">How we know</th>
                <th className="p-2 text-right">Mass</th>
                <th className="no-print p-2">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {offs.length + loose.length > 0 && (
                <GroupRow stageId={stageId} title="Off, less what goes back" kg={-(score ? score.bankedKg + score.waitingKg + score.toComeKg : 0)} />
              )}
              {offs.flatMap((row) => [line(row), ...piecesOf(row.change.id).map((piece) => line(piece, true))])}
              {loose.map((row) => line(row))}
              {ons.length > 0 && <GroupRow stageId={stageId} title="On" kg={(score?.addedDoneKg ?? 0) + (score?.addedPlannedKg ?? 0)} />}
              {ons.map((row) => line(row))}
              <tr className="border-t border-line bg-page font-bold">
                <td className="p-2" colSpan={1}>
                  Net as typed, {rows.length} {rows.length === 1 ? 'line' : 'lines'}
                </td>
                <td className="hidden sm:table-cell" colSpan={2} />
                <td className="p-2 text-right">
                  <Figure kind="mass" value={score?.netKg ?? 0} sign working={{ of: 'score', id: stageId }} />
                </td>
                <td className="no-print" />
              </tr>
            </tbody>
          </table>
        </>
      )}
      {editing && (editing === 'new' || edited) && <ChangeForm records={records} stageId={stageId} change={edited ?? null} onClose={() => setEditing(null)} />}
    </>
  )
}

function GroupRow({ stageId, title, kg }: { stageId: string; title: string; kg: number }) {
  return (
    <tr className="border-t border-line bg-page font-bold">
      <td className="p-2">{title}</td>
      <td className="hidden sm:table-cell" colSpan={2} />
      <td className="p-2 text-right">
        <Figure kind="mass" value={kg} sign working={{ of: 'score', id: stageId }} />
      </td>
      <td className="no-print" />
    </tr>
  )
}

function LedgerRow({ row, isPiece, edit, remove }: { row: Row; isPiece: boolean; edit: () => void; remove: () => void }) {
  const { change, figures } = row
  const waits = figures.saving === 'waiting' && change.kind === 'off'
  return (
    <tr className="border-t border-line align-baseline">
      <td className={`p-2 ${isPiece ? 'pl-8' : ''}`}>
        {change.count > 1 && `${change.count} × `}
        {change.name}
        {isPiece && <span className="text-quiet">, goes back on</span>} {waits && <strong className="text-wait">waiting</strong>}
        {change.state === 'planned' && <span className="text-planned-text"> planned</span>}
        {change.touchesPower && <span className="text-quiet"> touches power</span>}
        {figures.disagrees && <strong className="text-wait"> weighings disagree</strong>}
        <span className="block text-xs text-quiet sm:hidden">{[HOW_WORDS[figures.proof], change.zone].filter(Boolean).join(', ')}</span>
      </td>
      <td className="hidden p-2 text-quiet sm:table-cell">{change.zone ?? ''}</td>
      <td className="hidden p-2 text-quiet sm:table-cell">{HOW_WORDS[figures.proof]}</td>
      <td className="p-2 text-right">
        <Figure kind="mass" value={figures.massKg} sd={figures.sdKg || undefined} sign proof={figures.proof} showUnit={false} />
      </td>
      <td className="no-print p-1 text-right whitespace-nowrap">
        <button type="button" className="word-link mr-3" onClick={edit} aria-label={`Change ${change.name}`}>
          change
        </button>
        <button type="button" className="word-link" onClick={remove} aria-label={`Delete ${change.name}`}>
          delete
        </button>
      </td>
    </tr>
  )
}
