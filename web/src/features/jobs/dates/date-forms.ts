import type { RecordsAnswer } from '@bold-ballast/contract'
import { buildFields, CalculationError, type EVENT_KINDS, eventKind, handKind, parseNumber, readDay } from '@bold-ballast/core'
import { localDay } from '../../../data/local-day.ts'
import { choiceOrNone, dayField } from '../../../shared/fields/own-fields.ts'
import { attemptField } from '../../../ui/forms/attempt-field.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'

export const EVENT_WORDS: Readonly<Record<(typeof EVENT_KINDS)[number], string>> = {
  hire: 'hired track time',
  trackDay: 'track day',
  competition: 'competition',
  scrutineering: 'scrutineering',
  other: 'something else',
}
export const WEEKDAY_WORDS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** Seven numbers of hours, Monday first: "0 3 0 3 0 6 0", or "Tue 3, Thu 3, Sat 6". */
const week: OwnKind = {
  read: (read, name) => {
    const raw = read.raw(name)
    const hours = attemptField(read, name, () => readWeek(raw, read.decimalMark))
    return hours ?? []
  },
  begin: (record) => {
    const hours = (record as { hoursByWeekday?: readonly number[] } | null)?.hoursByWeekday
    return hours ? WEEKDAY_WORDS.flatMap((word, day) => ((hours[day] ?? 0) > 0 ? [`${word} ${hours[day]}`] : [])).join(', ') : ''
  },
}

/** Hours of a week as people say them. Errors: `missing`, `unreadable`, `out-of-range`. */
export function readWeek(text: string, mark: '.' | ','): number[] {
  if (text.trim() === '') throw new CalculationError('missing', 'week', 'Say which days and how long, such as Tue 3, Thu 3, Sat 6.')
  const hours = new Array<number>(7).fill(0)
  const plain = text.trim().split(/[\s;]+/)
  if (plain.length === 7 && plain.every((word) => /^[\d.,]+$/.test(word))) return plain.map((word) => within(parseNumber(word, mark, 'hours')))
  for (const piece of text.split(/\s*[,;](?=\s*[A-Za-z])\s*/)) {
    const [, word = '', number = ''] = /^\s*([A-Za-z]{3,})\.?\s+([\d.,]+)\s*h?\s*$/.exec(piece) ?? []
    const day = WEEKDAY_WORDS.findIndex((name) => word.toLowerCase().startsWith(name.toLowerCase()))
    if (day < 0) throw new CalculationError('unreadable', 'week', `“${piece.trim()}” is no day with its hours. Type it like Tue 3, Thu 3, Sat 6.`)
    hours[day] = within(parseNumber(number, mark, 'hours'))
  }
  return hours
}

function within(hours: number): number {
  if (!(hours >= 0 && hours <= 16)) throw new CalculationError('out-of-range', 'week', `${hours} h is more than a day of work has: up to 16 h.`)
  return hours
}

/** Days away, a line each: from, or from - to. */
const away: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).flatMap((line) => {
      const [from = '', to = from] = line.split(/\s+(?:-|–|to|until)\s+/)
      const found = attemptField(read, name, () => ({ from: readDay(from, localDay(), 'away'), to: readDay(to, localDay(), 'away') }))
      return found ? [found] : []
    }),
  begin: (record) =>
    ((record as { away?: readonly { from: string; to: string }[] } | null)?.away ?? [])
      .map(({ from, to }) => (from === to ? from : `${from} to ${to}`))
      .join('\n'),
}

export const handForm = makeForm(handKind.fields, [
  field('name', 'text', { label: 'Name' }),
  field('hoursByWeekday', week, { label: 'Hours of a week', hint: 'Such as Tue 3, Thu 3, Sat 6.' }),
  field('away', away, { label: 'Away, a line each', hint: 'Such as 6 Mar, or 12 Mar to 20 Mar.', isWide: true }),
])

/** An event with the stage it is for and where it is. */
export const eventForm = ({ stages, tracks }: RecordsAnswer) =>
  makeForm(eventKind.fields, [
    field('name', 'text', { label: 'Event' }),
    field('kind', 'choice', { label: 'What it is', words: EVENT_WORDS }),
    field('startsOn', dayField('startsOn'), { label: 'First day' }),
    field('days', 'count', { label: 'Days', begin: 1 }),
    field('stageId', choiceOrNone('stageId'), {
      label: 'The car it is for',
      words: { '': 'the car as it is', ...Object.fromEntries(stages.map(({ id, position, name }) => [id, `${position} ${name}`])) },
    }),
    field('trackId', choiceOrNone('trackId'), {
      label: 'Where',
      words: { '': 'nowhere drawn', ...Object.fromEntries(tracks.map(({ id, name }) => [id, name])) },
    }),
    field('leavesOn', dayField('leavesOn'), { label: 'The car leaves on', hint: 'Where it is loaded or shipped before: the deadline is that day.' }),
    field('bookedS', 'duration', { label: 'Track time that is booked' }),
    field('hoursPerDay', 'number', { label: 'Hours on track a day', begin: 1.5 }),
    field('cost', 'number', { label: 'Cost', section: 'Money' }),
    field('paid', 'number', { label: 'Paid' }),
  ])

const TIME = /^(\d{1,2})(?:[:.](\d{2}))?$/

/** When work begins where nobody said (common practice, no source). */
const USUAL_STARTS = { weekday: 19, weekend: 9 } as const

/** Hours of the day as a clock shows them. */
export const clockText = (hours: number): string => `${Math.floor(hours)}:${String(Math.round((hours % 1) * 60)).padStart(2, '0')}`

/** A time of the day in hours, typed as 19 or 19:30. */
const timeOfDay = (path: 'weekday' | 'weekend', label: string): OwnKind => ({
  read: (read, name) => {
    const [, hours, minutes = '0'] = TIME.exec(read.raw(name)) ?? []
    const value = Number(hours) + Number(minutes) / 60
    if (hours !== undefined && value <= 23 && Number(minutes) <= 59) return value
    read.refuse(name, `${label}: type a time from 0:00 to 23:00, such as 19:30.`)
    return null
  },
  begin: (record) => clockText((record as { sessionStartH?: Record<typeof path, number> | null } | null)?.sessionStartH?.[path] ?? USUAL_STARTS[path]),
})

/** When sessions begin. */
export const startsForm = makeForm(buildFields, [
  field('sessionStartH.weekday', timeOfDay('weekday', 'Evenings'), { label: 'Evenings begin at' }),
  field('sessionStartH.weekend', timeOfDay('weekend', 'The weekend'), { label: 'Days at the weekend begin at' }),
])
