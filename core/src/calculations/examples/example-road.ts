import { learnOptimism, USUAL_OPTIMISM } from '../../jobs/optimism.ts'
import type { Road, RoadJob } from '../../jobs/road.ts'

/** Guessed and real hours of seven jobs of the worked example (invented). */
export const HOUR_PAIRS = (
  [
    [20, 38],
    [24, 61],
    [12, 17],
    [14, 27],
    [8, 13],
    [6, 7.5],
    [4, 5],
  ] as const
).map(([guess, real]) => ({ guess, real }))

export const roadJob = (id: string, more: Partial<RoadJob> = {}): RoadJob => ({
  id,
  name: id,
  kind: 'work',
  guess: 1,
  spent: 0,
  stage: 3,
  handIds: [],
  holds: null,
  afterIds: [],
  partIds: [],
  notBeforeDay: null,
  isOptional: false,
  needsCar: true,
  isAway: false,
  ...more,
})

/** The worked example of the Jobs room: Monday 1 March, event on Saturday the 27th (invented). */
export const EXAMPLE_ROAD: Road = {
  weekday: 0,
  starts: { weekdayH: 19, weekendH: 9 },
  hands: [
    { id: 'I', name: 'Ilse', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0], away: [] },
    { id: 'T', name: 'Tomas', hoursByWeekday: [0, 0, 3, 0, 0, 6, 0], away: [{ fromDay: 5, toDay: 5 }] },
  ],
  jobs: [
    roadJob('A', { guess: 6, handIds: ['I', 'T'], holds: 'lift', partIds: ['drives'] }),
    roadJob('B', { guess: 3, spent: 2, handIds: ['I'] }),
    roadJob('C', { guess: 4, handIds: ['I'], afterIds: ['B'], partIds: ['cooler'] }),
    roadJob('D', { guess: 5, handIds: ['T'], holds: 'lift' }),
    roadJob('E', { kind: 'wait', guess: 2, afterIds: ['D'] }),
    roadJob('F', { guess: 2, handIds: ['I'], afterIds: ['A', 'C'] }),
  ],
  parts: [
    { id: 'drives', name: 'final drives', leadDays: 10, orderedDaysAgo: 7 },
    { id: 'cooler', name: 'cooler', leadDays: 12, orderedDaysAgo: 6 },
  ],
  optimism: { ...USUAL_OPTIMISM, work: learnOptimism('work', HOUR_PAIRS) },
  gone: [],
}

/** The event of the worked example, 26 days from today. */
export const EXAMPLE_DEADLINE = { stage: 3, day: 26 }
