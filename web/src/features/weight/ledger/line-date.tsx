import type { StoredRecords } from '@bold-ballast/contract'
import { memo, useCallback, useState } from 'react'
import { readStored, writeStored } from '../../../data/stored.ts'
import { dayText } from '../../../ui/words.ts'
import { type LineDate, TODAY } from './line-dates.ts'

/** The date that new lines of a build get, kept in this browser until it is changed. */
export function useLineDate(buildId: string): [LineDate, (next: LineDate) => void] {
  const key = `bold-ballast.line-date.${buildId}`
  const [date, setDate] = useState<LineDate>(() => readStored(key, TODAY))
  const keep = useCallback(
    (next: LineDate) => {
      setDate(next)
      writeStored(key, next.kind === 'today' ? undefined : next)
    },
    [key],
  )
  return [date, keep]
}

/** Says once, above the entry, which date new lines get: it decides which weighing they were in. */
export const LineDatePicker = memo(function LineDatePicker({
  records,
  date,
  setDate,
}: {
  records: StoredRecords
  date: LineDate
  setDate: (next: LineDate) => void
}) {
  const weighings = [...records.weighings].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  const value = date.kind === 'beforeWeighing' ? date.weighingId : date.kind
  const pick = (next: string) => {
    if (next === 'today') setDate(TODAY)
    else if (next === 'day') setDate({ kind: 'day', day: new Date().toISOString().slice(0, 10) })
    else setDate({ kind: 'beforeWeighing', weighingId: next })
  }
  return (
    <p className="no-print mb-2 flex flex-wrap items-center gap-2">
      <label className={date.kind === 'today' ? 'text-quiet' : 'font-semibold text-wait'}>
        New lines are dated{' '}
        <select value={value} onChange={(event) => pick(event.target.value)} className="ml-1">
          <option value="today">today</option>
          {weighings.map(({ id, at }) => (
            <option key={id} value={id}>
              before the weighing of {dayText(at)}
            </option>
          ))}
          <option value="day">on a day</option>
        </select>
      </label>
      {date.kind === 'day' && (
        <input
          type="date"
          aria-label="Day of new lines"
          value={date.day}
          onChange={(event) => event.target.value && setDate({ kind: 'day', day: event.target.value })}
        />
      )}
    </p>
  )
})
