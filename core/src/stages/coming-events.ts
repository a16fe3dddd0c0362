import { dayAfter } from '../jobs/days.ts'
import type { WorkshopEvent } from '../records/workshop-kinds.ts'

/**
 * The last day of an event, counted in.
 * @example lastDayOf({ startsOn: '2027-05-08', days: 2 }) // '2027-05-09'
 */
export const lastDayOf = ({ startsOn, days }: Pick<WorkshopEvent, 'startsOn' | 'days'>): string => dayAfter(startsOn, days - 1)

/**
 * Events that are not over on a day, the next first.
 * @example comingEvents([], '2027-03-01') // []
 */
export const comingEvents = (events: readonly WorkshopEvent[], today: string): WorkshopEvent[] =>
  events.filter((event) => lastDayOf(event) >= today).sort((a, b) => (a.startsOn < b.startsOn ? -1 : 1))
