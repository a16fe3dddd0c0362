import type { StoredRecords } from '@bold-ballast/contract'
import { memo, useState } from 'react'
import { enqueue } from '../../../data/outbox-sender.ts'
import { useAppSelector } from '../../../data/store.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { useFocusByKey } from '../../../ui/hooks/use-focus-by-key.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { lineBody, type NamedLine, type OpenBox, readLine } from './entry-body.ts'
import { LineReading } from './line-reading.tsx'

interface Draft {
  readonly id: string
  readonly text: string
}

const HOW =
  'off, on or transfer, the name, its mass (2 x 8 kg for two; ? for not known); then guess, catalogue, weighed, worked out or waits, from or replaces a part, and @zone. Enter saves.'

interface Props {
  readonly records: StoredRecords
  readonly stageId: string
  /** The lines of the build, those that wait in the browser too. */
  readonly lines: readonly NamedLine[]
  readonly box: OpenBox | null
  /** The address names a box that is not there: what the scale reads is not what a part weighs, and no line is saved as if it were. */
  readonly isBoxMissing: boolean
  /** The time that a line saved now gets. */
  readonly instant: () => string
  readonly onSaved: (id: string) => void
}

/** One line, read while it is typed; Enter saves and the focus stays. What the server has not got yet waits in the browser. */
export const EntryLine = memo(function EntryLine({ records, stageId, lines, box, isBoxMissing, instant, onSaved }: Props) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.entry`
  const [draft, setDraft] = useState<Draft>(() => readStored(key, { id: crypto.randomUUID(), text: '' }))
  const [sent, setSent] = useState<{ readonly itemId: string; readonly text: string; readonly words: string } | null>(null)
  const { units, text, decimalMark } = useQuantities()
  const item = useAppSelector((state) => state.outbox.items.find((entry) => entry.id === sent?.itemId))
  const input = useFocusByKey<HTMLInputElement>()
  const keep = (next: Draft) => {
    setDraft(next)
    writeStored(key, next.text === '' ? undefined : next)
  }
  const line = readLine(draft.text, units.mass, decimalMark, { stageId, box, lines })
  const save = () => {
    const { read } = line
    if (!read || isBoxMissing) return
    const body = lineBody(draft.id, line, { stageId, box }, instant())
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
        {line.read && isBoxMissing ? (
          'The box that this page weighs into is not there. Pick another box, or none, and press Enter: the line is kept.'
        ) : line.read ? (
          <>
            Reads as: <LineReading line={line} box={box} />. Enter saves.
          </>
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
})
