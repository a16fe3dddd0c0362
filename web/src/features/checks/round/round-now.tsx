import type { Due } from '@bold-ballast/core'
import { aboutWords, reasonWords } from '../check-words.ts'
import { type Broke, BrokeFields } from './broke-fields.tsx'

/** What a key of a round says of a check. */
export type Acted = 'ok' | 'bad' | 'skipped' | 'damage'

/** The one check that is looked at, large: a number where it is read, a note where it is bad. */
export function RoundNow({
  due,
  today,
  value,
  setValue,
  note,
  setNote,
  refused,
  broke,
  setBroke,
  act,
  askWhy,
  askBroke,
  noteInput,
  valueInput,
}: {
  due: Due
  today: string
  value: string
  setValue: (text: string) => void
  note: string | null
  setNote: (text: string | null) => void
  refused: string | null
  broke: Broke | null
  setBroke: (next: Broke | null) => void
  act: (result: Acted) => void
  askWhy: () => void
  askBroke: () => void
  noteInput: React.RefObject<HTMLInputElement | null>
  valueInput: React.RefObject<HTMLInputElement | null>
}) {
  const { check } = due
  const isRead = check.reading !== null || check.gap !== null
  const about = aboutWords(check)
  return (
    <section aria-label="The check that is looked at" className="border-2 border-ink p-4">
      <p className="text-3xl leading-tight font-black">{check.name}</p>
      <p className="mt-1 text-lg">
        {about}
        {about && due.reason !== 'asked' ? '; ' : ''}
        {due.reason !== 'asked' && <span className={due.stops ? 'font-semibold text-wait' : 'text-quiet'}>{reasonWords(due, today)}</span>}
        {check.gap?.access ? <span className="block text-quiet">Gets there {check.gap.access}</span> : null}
        {check.note ? <span className="block text-quiet">{check.note}</span> : null}
      </p>
      {isRead && (
        <label className="mt-3 block text-lg">
          Reads
          <input
            ref={valueInput}
            value={value}
            onChange={(event) => setValue(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && act('ok')}
            inputMode="decimal"
            autoComplete="off"
            className="ml-2 w-40 !text-lg"
          />
        </label>
      )}
      {refused && (
        <p role="alert" className="mt-1 text-danger">
          {refused}
        </p>
      )}
      {note !== null && (
        <label className="mt-3 block">
          What is bad, then Enter
          <input
            ref={noteInput}
            value={note}
            onChange={(event) => setNote(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') act('bad')
              if (event.key === 'Escape') setNote(null)
            }}
            autoComplete="off"
            className="mt-1 w-full !text-lg"
          />
        </label>
      )}
      {broke !== null && <BrokeFields broke={broke} type={setBroke} store={() => act('damage')} leave={() => setBroke(null)} input={noteInput} />}
      <div className="mt-4 grid grid-cols-3 gap-2">
        <button type="button" className="button button-strong col-span-3 min-h-16 justify-center text-lg" onClick={() => act('ok')}>
          In order <kbd className="hidden font-mono text-xs min-[700px]:inline">Space</kbd>
        </button>
        <button type="button" className="button min-h-16 justify-center text-lg" onClick={() => (note === null ? askWhy() : act('bad'))}>
          Bad <kbd className="hidden font-mono text-xs min-[700px]:inline">b</kbd>
        </button>
        <button type="button" className="button min-h-16 justify-center text-lg" onClick={() => act('skipped')}>
          Skip <kbd className="hidden font-mono text-xs min-[700px]:inline">s</kbd>
        </button>
        <button type="button" className="button min-h-16 justify-center text-lg" onClick={() => (broke === null ? askBroke() : act('damage'))}>
          Broke <kbd className="hidden font-mono text-xs min-[700px]:inline">d</kbd>
        </button>
      </div>
    </section>
  )
}
