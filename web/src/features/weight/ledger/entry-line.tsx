import type { StoredRecords } from '@bold-ballast/contract'
import { scaleSdKg } from '@bold-ballast/core'
import { useRef, useState } from 'react'
import { enqueue } from '../../../data/outbox-sender.ts'
import { useAppSelector } from '../../../data/store.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { lineBody, type OpenBox, type ReadLine, readLine } from './entry-body.ts'

interface Draft {
  readonly id: string
  readonly text: string
}

const PROOF_WORDS = { guess: 'a guess', catalogue: 'from a catalogue', measured: 'on a scale' } as const
const HOW = 'off, on or transfer, the name, its mass (or ?); then guess, catalogue or weighed, and @zone. Enter saves.'

/** One line, read while it is typed; Enter saves and the focus stays. What the server has not got yet waits in the browser. */
export function EntryLine({ records, stageId, box, onSaved }: { records: StoredRecords; stageId: string; box: OpenBox | null; onSaved: (id: string) => void }) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.entry`
  const [draft, setDraft] = useState<Draft>(() => readStored(key, { id: crypto.randomUUID(), text: '' }))
  const [sent, setSent] = useState<{ readonly itemId: string; readonly text: string; readonly words: string } | null>(null)
  const { units, text, decimalMark } = useQuantities()
  const item = useAppSelector((state) => state.outbox.items.find((entry) => entry.id === sent?.itemId))
  const input = useRef<HTMLInputElement>(null)
  const keep = (next: Draft) => {
    setDraft(next)
    writeStored(key, next.text === '' ? undefined : next)
  }
  const line = readLine(draft.text, units.mass, decimalMark, box)
  const lastOff = records.changes.findLast((change) => change.stageId === stageId && change.kind === 'off')
  const save = () => {
    const { read } = line
    if (!read) return
    const body = lineBody(draft.id, line, { stageId, box, lastOffId: lastOff?.id ?? null }, new Date().toISOString())
    const kg = line.differenceKg ?? read.mass?.massKg
    const words = `${read.kind} ${read.name}, ${kg === undefined ? 'not weighed' : text('mass', kg)}`
    const itemId = enqueue({ buildId, kind: 'create', resource: 'changes', recordId: draft.id, body, words, typed: draft.text })
    onSaved(draft.id)
    setSent({ itemId, text: draft.text, words })
    keep({ id: crypto.randomUUID(), text: '' })
    input.current?.focus()
  }
  return (
    <form
      className="no-print mb-4"
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      <label htmlFor="entry" className="sr-only">
        New ledger line
      </label>
      <input
        id="entry"
        ref={input}
        value={draft.text}
        onChange={(event) => keep({ ...draft, text: event.target.value })}
        autoComplete="off"
        spellCheck={false}
        placeholder={box ? 'off clock 14.6: what the scale reads with it in the box' : 'off rear bench 18.6 kg weighed @cabin'}
        aria-describedby="entry-reading"
        className="w-full !border-2 !border-ink !px-3 !py-2 text-[16px] font-semibold placeholder:font-normal placeholder:text-faint"
      />
      <p id="entry-reading" role="status" className="mt-1.5 min-h-5 px-1 text-quiet">
        {line.read ? (
          <Reading line={line} box={box} from={line.read.kind === 'transfer' ? (lastOff?.name ?? null) : null} />
        ) : line.refusal ? (
          line.refusal
        ) : item?.refusal ? (
          <span className="text-danger">
            {item.refusal.message} The line is kept above.{' '}
            <button type="button" className="word-link" onClick={() => keep({ id: crypto.randomUUID(), text: sent?.text ?? '' })}>
              Put it back here
            </button>
          </span>
        ) : item ? (
          <span className="text-wait">Kept here and sent again by itself: {sent?.words}.</span>
        ) : sent ? (
          `Saved: ${sent.words}.`
        ) : (
          HOW
        )}
      </p>
    </form>
  )
}

function Reading({ line, box, from }: { line: ReadLine; box: OpenBox | null; from: string | null }) {
  const { text } = useQuantities()
  const { read, differenceKg } = line
  if (!read) return null
  const { mass, guess } = read
  const shown = differenceKg ?? mass?.massKg
  const sd = differenceKg !== null ? null : (mass?.sdKg ?? (mass?.proof === 'measured' ? scaleSdKg(mass.massKg) : null))
  return (
    <>
      Reads as:{' '}
      <strong className="text-ink">
        {read.kind}, {read.count > 1 ? `${read.count} pieces of ` : ''}
        {read.name}, {shown === undefined ? 'not weighed' : text('mass', shown, { decimals: 2 })}
        {read.count > 1 && shown !== undefined && differenceKg === null ? ' each' : ''}
      </strong>
      {box && mass && differenceKg !== null
        ? `: the box went from ${text('mass', box.lastKg, { decimals: 2 })} to ${text('mass', mass.massKg, { decimals: 2 })}`
        : mass
          ? `, ${PROOF_WORDS[mass.proof]}`
          : '; it stays in sight and counts for nothing'}
      {sd !== null && `, ± ${text('mass', sd, { decimals: 2 })}`}
      {guess && `; the guess of ${text('mass', guess.massKg, { decimals: 1 })} is kept beside it`}
      {read.zone && `, zone ${read.zone}`}
      {from && `, goes back on from ${from}`}. Enter saves.
    </>
  )
}
