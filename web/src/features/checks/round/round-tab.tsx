import { attempt, CalculationError, type Due, parseQuantity, ROUNDS, type Round, roundOf, roundTime } from '@bold-ballast/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution } from '../../../ui/states.tsx'
import { aboutWords, RESULT_WORDS, ROUND_WORDS, reasonWords } from '../check-words.ts'
import { EventPicker } from '../event-picker.tsx'
import { makeJob } from '../make-job.ts'
import { PlanDots } from '../plan-dots.tsx'
import type { ChecksTabProps, StoredCheck } from '../tab-props.ts'
import { markCheck } from '../use-marks.ts'

type MarkNow = ChecksTabProps['records']['marks'][number]
const PEOPLE = [1, 2, 3, 4] as const

/** The mark of a check in this round: of this stop on track, else of this event or day. */
function markIn(marks: readonly MarkNow[], checkId: string, round: Round, sessionId: string | null, today: string): MarkNow | undefined {
  return marks.findLast(
    (mark) =>
      mark.checkId === checkId &&
      mark.round === round &&
      (sessionId === null ? mark.trackSessionId === null && mark.at.slice(0, 10) === today : mark.trackSessionId === sessionId),
  )
}

/** The one check that is looked at, large: a number where it is read, a note where it is bad. */
function Now({
  due,
  today,
  value,
  setValue,
  note,
  setNote,
  refused,
  act,
  askWhy,
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
  act: (result: 'ok' | 'bad' | 'skipped') => void
  askWhy: () => void
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
      <div className="mt-4 grid grid-cols-3 gap-2">
        <button type="button" className="button button-strong min-h-16 justify-center text-lg" onClick={() => act('ok')}>
          In order <kbd className="hidden font-mono text-xs min-[700px]:inline">Space</kbd>
        </button>
        <button type="button" className="button min-h-16 justify-center text-lg" onClick={() => (note === null ? askWhy() : act('bad'))}>
          Bad <kbd className="hidden font-mono text-xs min-[700px]:inline">b</kbd>
        </button>
        <button type="button" className="button min-h-16 justify-center text-lg" onClick={() => act('skipped')}>
          Skip <kbd className="hidden font-mono text-xs min-[700px]:inline">s</kbd>
        </button>
      </div>
    </section>
  )
}

/** A round gone through check by check round the car: large, one hand, kept in the browser until the server has it. */
export function RoundTab({ records, today, event, position, stageId }: ChecksTabProps) {
  const { get, set } = useAddress()
  const { units, decimalMark } = useQuantities()
  const round = ROUNDS.find((each) => each === get('round')) ?? (event?.kind === 'scrutineering' ? 'scrutineering' : 'event')
  const sessionId = get('session') || null
  const people = Math.min(PEOPLE.length, Math.max(1, Number(get('people') || '1') || 1))
  const who = Math.min(people, Math.max(1, Number(get('who') || '1') || 1))
  const list = useMemo(() => {
    const began = {
      ...records,
      marks: records.marks.filter((mark) => !(mark.round === round && (sessionId ? mark.trackSessionId === sessionId : mark.at.slice(0, 10) === today))),
    }
    return roundOf(began as never, { event, position, today, round })
  }, [records, event, position, today, round, sessionId])
  const shares = useMemo(
    () =>
      roundTime(
        list.map(({ minutes }) => minutes),
        people,
      ),
    [list, people],
  )
  const mine = people === 1 ? list : (shares.shares[who - 1]?.checks ?? []).toSorted((a, b) => a - b).flatMap((i) => list[i] ?? [])
  const markOf = (due: Due) => markIn(records.marks, due.check.id, round, sessionId, today)
  const open = mine.filter((due) => !markOf(due))
  const now = mine.find(({ check }) => check.id === get('check') && !markOf({ check } as Due)) ?? open[0] ?? null
  const [value, setValue] = useState('')
  const [note, setNote] = useState<string | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const noteInput = useRef<HTMLInputElement | null>(null)
  const valueInput = useRef<HTMLInputElement | null>(null)
  const nowId = now?.check.id
  const isRead = now ? now.check.reading !== null || now.check.gap !== null : false
  // biome-ignore lint/correctness/useExhaustiveDependencies: another check begins anew
  useEffect(() => {
    setValue('')
    setNote(null)
    setRefused(null)
    if (isRead) valueInput.current?.focus()
    else (document.activeElement as HTMLElement | null)?.blur()
  }, [nowId])
  const askWhy = () => {
    // At once: the next key is meant for the note.
    flushSync(() => setNote(''))
    noteInput.current?.focus()
  }
  const act = (result: 'ok' | 'bad' | 'skipped') => {
    if (!now) return
    const quantity = now.check.reading?.quantity ?? (now.check.gap ? 'length' : null)
    const read =
      quantity && value.trim() !== ''
        ? attempt(() => parseQuantity(value, quantity, { defaultUnit: units[quantity], decimalMark, field: now.check.name }))
        : null
    if (read instanceof CalculationError) return setRefused(read.message)
    if (quantity && result === 'ok' && !read) return setRefused('Type what it reads, or skip it: nobody goes faster on a reading that is missing.')
    if (quantity === 'length' && read && !/[a-z"]/i.test(value)) return setRefused(`${value} what? Type its unit: ${value} mm.`)
    markCheck(records.build.id, stageId, now.check as StoredCheck, {
      result,
      round,
      eventId: event?.id ?? null,
      trackSessionId: sessionId,
      value: read ? read.value : null,
      typed: read ? value.trim() : null,
      note: result === 'bad' ? note?.trim() || null : null,
    })
    setSaid(`${now.check.name}: ${RESULT_WORDS[result]}.`)
    set({ check: '' })
  }
  useTabKeys((key) => {
    if (!now) return false
    if (key === ' ') act('ok')
    else if (key === 'b') askWhy()
    else if (key === 's') act('skipped')
    else if (key === 'j') setSaid(makeJob(records, now.check as StoredCheck, stageId, null))
    else return false
    return true
  })
  const counted = (result: string) => mine.filter((due) => markOf(due)?.result === result).length
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div className="grid content-start gap-3">
        <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2">
          <label className="flex items-center gap-2">
            Round
            <select value={round} onChange={(change) => set({ round: change.target.value, check: '' })}>
              {ROUNDS.map((each) => (
                <option key={each} value={each}>
                  {ROUND_WORDS[each]}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2">
            People
            <select value={String(people)} onChange={(change) => set({ people: change.target.value, who: '1' })}>
              {PEOPLE.map((count) => (
                <option key={count} value={count}>
                  {count}
                </option>
              ))}
            </select>
          </label>
          {people > 1 && (
            <label className="flex items-center gap-2">
              This one is
              <select value={String(who)} onChange={(change) => set({ who: change.target.value, check: '' })}>
                {PEOPLE.slice(0, people).map((count) => (
                  <option key={count} value={count}>
                    number {count}
                  </option>
                ))}
              </select>
            </label>
          )}
          {sessionId === null && <EventPicker records={records} event={event} />}
        </div>
        <p className="text-lg font-semibold" role="status">
          {mine.length - open.length} of {mine.length} looked at
          <span className="font-normal text-quiet">
            , {counted('bad')} bad, {counted('skipped')} skipped; {Number(shares.minutes.toFixed(1))} min for {people === 1 ? 'one' : people}
          </span>
        </p>
        {now ? (
          <Now
            due={now}
            today={today}
            value={value}
            setValue={setValue}
            note={note}
            setNote={setNote}
            refused={refused}
            act={act}
            askWhy={askWhy}
            noteInput={noteInput}
            valueInput={valueInput}
          />
        ) : mine.length === 0 ? (
          <p>No check stands in this round. Give checks this round under Ready.</p>
        ) : (
          <p className="text-2xl font-black">Round done.</p>
        )}
        {said && (
          <p role="status" className="text-quiet">
            {said}
          </p>
        )}
        <Caution>A jacked car stands on stands before a hand goes under it. Never open a hot cooling system.</Caution>
      </div>
      <div className="grid content-start gap-3">
        <PlanDots
          records={records}
          dots={mine.map((due, i) => {
            const mark = markOf(due)
            return { check: due.check, number: i + 1, state: mark ? (mark.result === 'bad' ? 'bad' : 'done') : due.check.id === nowId ? 'now' : 'open' }
          })}
          pick={(id) => set({ check: id })}
        />
        <ol>
          {mine.map((due, i) => {
            const mark = markOf(due)
            return (
              <li key={due.check.id} className={`flex items-baseline gap-3 border-t border-line py-1 ${due.check.id === nowId ? 'bg-picked' : ''}`}>
                <span className="w-6 text-right tabular-nums">{i + 1}</span>
                <button type="button" className="flex-1 text-left" disabled={mark !== undefined} onClick={() => set({ check: due.check.id })}>
                  {due.check.name}
                </button>
                <span className={mark?.result === 'bad' ? 'font-semibold text-danger' : 'text-quiet'}>
                  {mark ? `${RESULT_WORDS[mark.result]}${mark.typed ? `, ${mark.typed}` : ''}` : ''}
                  {mark?.result === 'bad' && (
                    <button type="button" className="word-link ml-2" onClick={() => setSaid(makeJob(records, due.check as StoredCheck, stageId, mark.note))}>
                      make a job
                    </button>
                  )}
                </span>
              </li>
            )
          })}
        </ol>
      </div>
    </div>
  )
}
