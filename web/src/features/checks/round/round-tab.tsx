import { attempt, CalculationError, type Due, isBadMark, parseQuantity, ROUNDS, type Round, roundOf, roundTime } from '@bold-ballast/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution } from '../../../ui/states.tsx'
import { RESULT_WORDS, ROUND_WORDS } from '../check-words.ts'
import { EventPicker } from '../event-picker.tsx'
import { makeJob } from '../make-job.ts'
import { PlanDots } from '../plan-dots.tsx'
import type { ChecksTabProps, StoredCheck } from '../tab-props.ts'
import { markCheck } from '../use-marks.ts'
import { type Broke, NOTHING_BROKE, readBroke } from './broke-fields.tsx'
import { type Acted, RoundNow } from './round-now.tsx'

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
  const [broke, setBroke] = useState<Broke | null>(null)
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
    setBroke(null)
    setRefused(null)
    if (isRead) valueInput.current?.focus()
    else (document.activeElement as HTMLElement | null)?.blur()
  }, [nowId])
  // At once: the next key is meant for the note.
  const askWhy = () => {
    flushSync(() => {
      setNote('')
      setBroke(null)
    })
    noteInput.current?.focus()
  }
  const askBroke = () => {
    flushSync(() => {
      setNote(null)
      setBroke(NOTHING_BROKE)
    })
    noteInput.current?.focus()
  }
  const act = (result: Acted) => {
    if (!now) return
    const damage = result === 'damage' ? readBroke(broke ?? NOTHING_BROKE, decimalMark) : null
    if (typeof damage === 'string') return setRefused(damage)
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
      damage,
      note: { bad: note, damage: broke?.what, ok: null, skipped: null }[result]?.trim() || null,
    })
    setSaid(`${now.check.name}: ${RESULT_WORDS[result]}.`)
    set({ check: '' })
  }
  useTabKeys((key) => {
    if (!now) return false
    if (key === ' ') act('ok')
    else if (key === 'b') askWhy()
    else if (key === 's') act('skipped')
    else if (key === 'd') askBroke()
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
            , {counted('bad')} bad, {counted('skipped')} skipped{counted('damage') > 0 ? `, ${counted('damage')} broken` : ''};{' '}
            {Number(shares.minutes.toFixed(1))} min for {people === 1 ? 'one' : people}
          </span>
        </p>
        {now ? (
          <RoundNow
            due={now}
            today={today}
            value={value}
            setValue={setValue}
            note={note}
            setNote={setNote}
            refused={refused}
            broke={broke}
            setBroke={setBroke}
            act={act}
            askWhy={askWhy}
            askBroke={askBroke}
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
            return { check: due.check, number: i + 1, state: mark ? (isBadMark(mark) ? 'bad' : 'done') : due.check.id === nowId ? 'now' : 'open' }
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
                <span className={mark && isBadMark(mark) ? 'font-semibold text-danger' : 'text-quiet'}>
                  {mark ? `${RESULT_WORDS[mark.result]}${mark.typed ? `, ${mark.typed}` : ''}` : ''}
                  {mark && isBadMark(mark) && (
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
