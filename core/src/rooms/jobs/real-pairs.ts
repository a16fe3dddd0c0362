import { daysFrom } from '../../jobs/days.ts'
import type { RealPair, RealPairs } from '../../jobs/optimism.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { Task } from '../../records/workshop-kinds.ts'

/**
 * Hours that a job has had: of several hands together each gives all of them, so theirs are shared out.
 * @example workedHours({ worked: [{ on: '2027-03-01', handId: 'i', hours: 3 }, { on: '2027-03-01', handId: 't', hours: 3 }], whoIds: ['i', 't'] }) // 3
 */
export function workedHours({ worked, whoIds }: Pick<Task, 'worked' | 'whoIds'>): number {
  const crew = Math.max(1, whoIds.length)
  return worked.reduce((sum, { handId, hours }) => sum + (handId === null || !whoIds.includes(handId) ? hours : hours / crew), 0)
}

/** What nobody said: so many days from order to arrival (assumed). */
export const USUAL_LEAD_DAYS = 14

/**
 * Days from order to arrival, as typed, else as promised, else the usual.
 * @example leadDaysOf({ leadDays: null, orderedOn: '2027-03-01', promisedOn: '2027-03-11' }) // 10
 */
export function leadDaysOf({ leadDays, orderedOn, promisedOn }: Pick<Part, 'leadDays' | 'orderedOn' | 'promisedOn'>): number {
  if (leadDays !== null && leadDays !== undefined) return leadDays
  return orderedOn && promisedOn && promisedOn > orderedOn ? daysFrom(orderedOn, promisedOn) : USUAL_LEAD_DAYS
}

const pair = (guess: number | null | undefined, real: number | null | undefined): RealPair[] =>
  guess && real && guess > 0 && real > 0 ? [{ guess, real }] : []

/**
 * Everything that was guessed and came to something. What a catalogue said was no guess, and a job whose scope changed teaches nothing.
 * @example realPairsOf(EXAMPLE).work // []
 */
export function realPairsOf({ tasks, parts, changes, events }: BuildRecords): RealPairs {
  const taught = tasks.filter(({ state, teaches }) => state === 'done' && teaches)
  const arrived = parts.filter(({ orderedOn, cameOn, leadDays, promisedOn }) => orderedOn && cameOn && (leadDays || promisedOn))
  return {
    work: taught.flatMap((task) => (task.kind === 'work' ? pair(task.guessH, workedHours(task)) : [])),
    wait: taught.flatMap((task) => (task.kind === 'wait' ? pair(task.guessDays, task.realDays) : [])),
    arrival: arrived.flatMap((part) => pair(leadDaysOf(part), Math.max(0.5, daysFrom(part.orderedOn as string, part.cameOn as string)))),
    money: [
      ...parts.flatMap(({ cost, paid, costKnown }) => (costKnown === 'catalogue' ? [] : pair(cost, paid))),
      ...[...changes, ...tasks, ...events].flatMap(({ cost, paid }) => pair(cost, paid)),
    ],
  }
}
