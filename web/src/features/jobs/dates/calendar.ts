import { type Hand, type JobsRoom, lengthsAt, sessionsOf } from '@bold-ballast/core'
import { addDays, differenceInCalendarDays, format, parseISO } from 'date-fns'
import ICAL from 'ical.js'
import type { RoadView } from '../jobs.worker.ts'

/** Occasions that come again are followed so far ahead. */
const AHEAD_DAYS = 730
const MOST_OCCASIONS = 5000
const DAY_H = 24

interface Occasion {
  readonly from: Date
  readonly to: Date
  readonly isAllDay: boolean
}

/** Every occasion of an event, those that come again one by one. */
function occasionsOf(event: ICAL.Event, until: Date): Occasion[] {
  const isAllDay = event.startDate.isDate
  const of = (start: ICAL.Time, end: ICAL.Time): Occasion => ({ from: start.toJSDate(), to: end.toJSDate(), isAllDay })
  if (!event.isRecurring()) return [of(event.startDate, event.endDate)]
  const found: Occasion[] = []
  const next = event.iterator()
  for (let i = 0; i < MOST_OCCASIONS; i++) {
    const at = next.next()
    if (!at || at.toJSDate() > until) break
    const { startDate, endDate } = event.getOccurrenceDetails(at)
    found.push(of(startDate, endDate))
  }
  return found
}

/** Days of the calendar, one behind the other, as spans with both days counted in. */
function spans(days: ReadonlySet<string>): { from: string; to: string }[] {
  const found: { from: string; to: string }[] = []
  for (const day of [...days].sort()) {
    const last = found.at(-1)
    if (last && differenceInCalendarDays(parseISO(day), parseISO(last.to)) === 1) last.to = day
    else found.push({ from: day, to: day })
  }
  return found
}

const dayOf = (date: Date): string => format(date, 'yyyy-MM-dd')

/**
 * The days a hand is away by a calendar file (RFC 5545): those of all-day entries, and those on which an entry falls into the hand's own hours. From today
 * on, two years ahead. Throws where the text is no calendar.
 */
export function awayFrom(text: string, hand: Hand, { road, today }: Pick<JobsRoom, 'road' | 'today'>): { from: string; to: string }[] {
  const root = new ICAL.Component(ICAL.parse(text))
  const begin = parseISO(today)
  const until = addDays(begin, AHEAD_DAYS)
  const sessions = sessionsOf({ hand: { ...hand, away: [] }, weekday: road.weekday, starts: road.starts, days: AHEAD_DAYS })
  const hours = new Map(
    sessions.from.map((from, i) => [Math.floor(from / DAY_H), { from: from % DAY_H, to: (sessions.to[i] as number) - Math.floor(from / DAY_H) * DAY_H }]),
  )
  const away = new Set<string>()
  for (const component of root.getAllSubcomponents('vevent')) {
    const event = new ICAL.Event(component)
    if (event.isRecurrenceException()) continue
    for (const { from, to, isAllDay } of occasionsOf(event, until)) {
      const last = isAllDay ? addDays(to, -1) : to
      for (let at = new Date(Math.max(from.getTime(), begin.getTime())); at <= last && at <= until; at = addDays(parseISO(dayOf(at)), 1)) {
        const own = hours.get(differenceInCalendarDays(at, begin))
        if (isAllDay || (own && overlaps(at, from, to, own))) away.add(dayOf(at))
      }
    }
  }
  return spans(away)
}

/** Whether an entry falls into the hours of a day. */
function overlaps(day: Date, from: Date, to: Date, hours: { readonly from: number; readonly to: number }): boolean {
  const midnight = parseISO(dayOf(day)).getTime()
  const at = (hour: number) => midnight + hour * 3_600_000
  return from.getTime() < at(hours.to) && to.getTime() > at(hours.from)
}

/** A day without a time, or a time of the place where it is read. */
const dateOf = (date: Date): ICAL.Time => ICAL.Time.fromData({ year: date.getFullYear(), month: date.getMonth() + 1, day: date.getDate(), isDate: true })
const timeOf = (date: Date): ICAL.Time =>
  ICAL.Time.fromData({ year: date.getFullYear(), month: date.getMonth() + 1, day: date.getDate(), hour: date.getHours(), minute: date.getMinutes() })

function entry(uid: string, summary: string, start: ICAL.Time, end: ICAL.Time, stamp: Date): ICAL.Component {
  const component = new ICAL.Component('vevent')
  component.updatePropertyWithValue('uid', `${uid}@bold-ballast`)
  component.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(stamp, true))
  component.updatePropertyWithValue('dtstart', start)
  component.updatePropertyWithValue('dtend', end)
  component.updatePropertyWithValue('summary', summary)
  return component
}

/** The calendar of a build (RFC 5545): its events, the sessions jobs lie in by the middle of the road, the days parts are likely to come. */
export function calendarOf(room: JobsRoom, view: RoadView, buildName: string, stamp: Date): string {
  const root = new ICAL.Component('vcalendar')
  root.updatePropertyWithValue('version', '2.0')
  root.updatePropertyWithValue('prodid', '-//Bold Ballast//Jobs//EN')
  const begin = parseISO(room.today)
  const at = (hours: number) => new Date(begin.getTime() + Math.round(hours * 60) * 60_000)
  const names = new Map(room.road.hands.map(({ id, name }) => [id, name]))
  for (const { id, name, startsOn, days } of room.events) {
    const first = parseISO(startsOn)
    root.addSubcomponent(entry(id, `${buildName}: ${name}`, dateOf(first), dateOf(addDays(first, days)), stamp))
  }
  view.jobs.forEach(({ laid }, i) => {
    const job = room.road.jobs[i]
    if (!job) return
    const who = laid.handIds.map((hand) => names.get(hand) ?? '').join(' + ')
    laid.pieces.forEach(({ fromH, toH }, n) => {
      root.addSubcomponent(entry(`${job.id}-${n}`, `${job.name}${who ? ` (${who})` : ''}`, timeOf(at(fromH)), timeOf(at(toH)), stamp))
    })
  })
  const { arrivalDays } = lengthsAt(room.road)
  room.road.parts.forEach(({ id, name }, i) => {
    const day = addDays(begin, arrivalDays[i] ?? 0)
    root.addSubcomponent(entry(id, `${name} likely here`, dateOf(day), dateOf(addDays(day, 1)), stamp))
  })
  return root.toString()
}
