import { CalculationError } from '../errors.ts'
import { dayAfter, daysFrom } from './days.ts'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'] as const
const MONTH_NAMES = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'] as const
const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const

const pad = (part: number) => String(part).padStart(2, '0')

function dayOf(year: number, month: number, day: number, field: string): string {
  const text = `${year}-${pad(month)}-${pad(day)}`
  const made = new Date(`${text}T00:00:00Z`)
  if (Number.isNaN(made.getTime()) || made.toISOString().slice(0, 10) !== text)
    throw new CalculationError('out-of-range', field, `${year} has no ${day} ${MONTH_NAMES[month - 1] ?? 'such month'}. Check the day.`)
  return text
}

/** Of the years around today the one that lies nearest. */
function nearest(today: string, month: number, day: number, field: string): string {
  const year = Number(today.slice(0, 4))
  const tries = [year, year + 1, year - 1].flatMap((each) => {
    try {
      return [dayOf(each, month, day, field)]
    } catch {
      return []
    }
  })
  const [best] = tries.sort((a, b) => Math.abs(daysFrom(today, a)) - Math.abs(daysFrom(today, b)))
  return best ?? dayOf(year, month, day, field)
}

/**
 * A day as people write it: 4 Mar, 4 March 2027, Mar 4, 2027-03-04, today, tomorrow, Saturday (the next). Without a year it is the nearest.
 * Errors: `ambiguous` for 3/4, which is two days; `out-of-range` for a day that a month does not have; `unreadable` for anything else.
 * @example readDay('14 Mar', '2027-03-01') // '2027-03-14'
 */
export function readDay(text: string, today: string, field = 'day'): string {
  const words = text.trim().toLowerCase().replace(/[.,]/g, ' ').trim()
  if (words === 'today') return today
  if (words === 'tomorrow') return dayAfter(today, 1)
  const weekday = WEEKDAYS.findIndex((day) => words.length >= 3 && words.startsWith(day) && /^[a-z]+$/.test(words))
  if (weekday >= 0) return dayAfter(today, ((weekday - ((new Date(today).getUTCDay() + 6) % 7) + 6) % 7) + 1)
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(words)
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]), field)
  const slashed = /^(\d{1,2})\s*[/-]\s*(\d{1,2})/.exec(words)
  if (slashed) throw twoDays(text.trim(), Number(slashed[1]), Number(slashed[2]), field)
  const [, first, middle, last] = /^(\d{1,2}|[a-z]+)\s+(\d{1,2}|[a-z]+)(?:\s+(\d{4}))?$/.exec(words) ?? []
  const isMonthFirst = first !== undefined && /^[a-z]/.test(first)
  const [dayText, monthText] = isMonthFirst ? [middle, first] : [first, middle]
  const month = MONTHS.findIndex((name) => monthText?.startsWith(name))
  const day = Number(dayText)
  if (month < 0 || !Number.isInteger(day)) throw new CalculationError('unreadable', field, `“${text.trim()}” is no day. Type it like 14 Mar, or 2027-03-14.`)
  return last ? dayOf(Number(last), month + 1, day, field) : nearest(today, month + 1, day, field)
}

function twoDays(text: string, one: number, other: number, field: string): CalculationError {
  const words = (day: number, month: number) => `${day} ${MONTH_NAMES[month - 1] ?? '?'}`
  const both = one <= 12 && other <= 12 && one !== other ? `${words(one, other)} or ${words(other, one)}` : 'more than one day'
  return new CalculationError('ambiguous', field, `“${text}” can be ${both}. Type the month in letters.`)
}

/**
 * The end of a text that is a day, and what stands before it; null where there is none.
 * @example dayAtEnd('final drives come 14 Mar').day // '14 Mar'
 */
export function dayAtEnd(text: string): { readonly before: string; readonly day: string } | null {
  const found =
    /(?:^|\s)(\d{1,2}\s+[A-Za-z]{3,9}(?:\s+\d{4})?|[A-Za-z]{3,9}\s+\d{1,2}(?:\s+\d{4})?|\d{4}-\d{1,2}-\d{1,2}|\d{1,2}[/-]\d{1,2}(?:[/-]\d{2,4})?|today|tomorrow)$/i.exec(
      text.trim(),
    )
  return found ? { before: text.trim().slice(0, found.index).trim(), day: found[1] as string } : null
}
