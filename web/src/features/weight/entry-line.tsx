import type { StoredRecords } from '@bold-ballast/contract'
import { CalculationError, parseEntryLine, type ReadEntry, scaleSdKg } from '@bold-ballast/core'
import { useRef, useState } from 'react'
import { api } from '../../api/api.ts'
import { useSender } from '../../api/use-sender.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { readStored, writeStored } from '../../ui/stored.ts'

interface Draft {
  readonly id: string
  readonly text: string
}

const PROOF_WORDS = { guess: 'a guess', catalogue: 'from a catalogue', measured: 'on a scale' } as const

/** One line, read while it is typed; Enter saves, the focus stays, and the text stays too when saving fails. */
export function EntryLine({ records, stageId, onSaved }: { records: StoredRecords; stageId: string; onSaved: (id: string) => void }) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.entry`
  const [draft, setDraft] = useState<Draft>(() => readStored(key, { id: crypto.randomUUID(), text: '' }))
  const [saved, setSaved] = useState('')
  const { units, text, decimalMark } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const sender = useSender()
  const input = useRef<HTMLInputElement>(null)
  const keep = (next: Draft) => {
    setDraft(next)
    writeStored(key, next.text === '' ? undefined : next)
  }
  const { read, refusal } = readLine(draft.text, units.mass, decimalMark)
  const lastOff = records.changes.findLast((change) => change.stageId === stageId && change.kind === 'off')
  const save = async () => {
    if (!read) return
    const now = new Date().toISOString()
    const body = {
      id: draft.id,
      stageId,
      kind: read.kind,
      name: read.name,
      count: read.count,
      zone: read.zone,
      values: [{ massKg: read.massKg, sdKg: read.sdKg, proof: read.proof, typed: read.typedMass, at: now }],
      state: read.kind === 'off' || read.proof === 'measured' ? 'done' : 'planned',
      doneAt: read.kind === 'off' || read.proof === 'measured' ? now : null,
      fromChangeId: read.kind === 'transfer' ? (lastOff?.id ?? null) : null,
    }
    onSaved(draft.id)
    const answer = await sender.send(() => create({ buildId, resource: 'changes', body }).unwrap())
    if (answer === null) return
    setSaved(`Saved: ${read.kind} ${read.name}, ${text('mass', read.massKg)}.`)
    keep({ id: crypto.randomUUID(), text: '' })
    input.current?.focus()
  }
  const isBusy = sender.state.status === 'sending' || sender.state.status === 'waiting'
  return (
    <form
      className="no-print mb-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (!isBusy) void save()
      }}
    >
      <label htmlFor="entry" className="sr-only">
        New ledger line
      </label>
      <input
        id="entry"
        ref={input}
        value={draft.text}
        onChange={(event) => {
          setSaved('')
          keep({ ...draft, text: event.target.value })
        }}
        readOnly={isBusy}
        autoComplete="off"
        spellCheck={false}
        placeholder="off rear bench 18.6 kg weighed @cabin"
        aria-describedby="entry-reading"
        className="w-full !border-2 !border-ink !px-3 !py-2 text-[16px] font-semibold placeholder:font-normal placeholder:text-faint"
      />
      <p id="entry-reading" role="status" className="mt-1.5 min-h-5 px-1 text-quiet">
        {sender.state.status === 'waiting' ? (
          <span className="text-wait">{sender.state.message}</span>
        ) : sender.state.status === 'failed' ? (
          <span className="text-danger">{sender.state.failure.message} Your line is still here; press Enter to send it again.</span>
        ) : read ? (
          <Reading read={read} from={read.kind === 'transfer' ? (lastOff?.name ?? null) : null} />
        ) : (
          refusal || saved || 'off, on or transfer, the name, its mass; then guess, catalogue or weighed, and @zone. Enter saves.'
        )}
      </p>
    </form>
  )
}

function readLine(line: string, massUnit: string, decimalMark: '.' | ','): { read: ReadEntry | null; refusal: string } {
  if (line.trim() === '') return { read: null, refusal: '' }
  try {
    return { read: parseEntryLine(line, { massUnit, decimalMark }), refusal: '' }
  } catch (error) {
    if (error instanceof CalculationError) return { read: null, refusal: error.message }
    throw error
  }
}

function Reading({ read, from }: { read: ReadEntry; from: string | null }) {
  const { text } = useQuantities()
  const sd = read.sdKg ?? (read.proof === 'measured' ? scaleSdKg(read.massKg) : null)
  return (
    <>
      Reads as:{' '}
      <strong className="text-ink">
        {read.kind}, {read.count > 1 ? `${read.count} pieces of ` : ''}
        {read.name}, {text('mass', read.massKg, { decimals: 2 })}
        {read.count > 1 ? ' each' : ''}
      </strong>
      , {PROOF_WORDS[read.proof]}
      {sd !== null && `, ± ${text('mass', sd, { decimals: 2 })}`}
      {read.zone && `, zone ${read.zone}`}
      {from && `, goes back on from ${from}`}. Enter saves.
    </>
  )
}
