import { drawLengths, lookAhead } from '../../jobs/draws.ts'
import { hoursLeft } from '../../jobs/hours-left.ts'
import { learnOptimism, OPTIMISM_KINDS, optimismFactors, USUAL_OPTIMISM } from '../../jobs/optimism.ts'
import { layRoad, lengthsAt, type Road, readyH, readyRoad } from '../../jobs/road.ts'
import { findSlack, slipOf } from '../../jobs/slips.ts'
import { z } from '../../zod.ts'
import { EXAMPLE_DEADLINE, EXAMPLE_ROAD, HOUR_PAIRS } from '../examples/example-road.ts'
import { defineCalculation } from '../registry.ts'

export const RULES = 'The rules of the Jobs room'
export const SHARED = 'Guesses of one kind share the doubt in how guesses run'
export const ASSUMED = 'Until five pairs are known how guesses run is assumed, no source'

export const biasSchema = z.strictObject({
  mu: z.number().min(-5).max(5),
  s: z.number().min(0.001).max(3),
  v: z.number().min(0).max(9),
  pairCount: z.int().min(0).default(0),
  isDefault: z.boolean().default(false),
})
export const key = z.string().min(1).max(120)
const keys = z.array(key).max(60).default([])
const dayCount = z.int().min(-4000).max(4000)
const roadShape = {
  weekday: z.int().min(0).max(6).describe('Today’s, Monday 0'),
  starts: z.strictObject({ weekdayH: z.number().min(0).max(23), weekendH: z.number().min(0).max(23) }).default({ weekdayH: 19, weekendH: 9 }),
  hands: z
    .array(
      z.strictObject({
        id: key,
        name: key,
        hoursByWeekday: z.array(z.number().min(0).max(16)).length(7),
        away: z
          .array(z.strictObject({ fromDay: dayCount, toDay: dayCount }))
          .max(400)
          .default([]),
      }),
    )
    .min(1)
    .max(20),
  jobs: z
    .array(
      z.strictObject({
        id: key,
        name: key,
        kind: z.enum(['work', 'wait']).default('work'),
        guess: z.number().positive().max(2000).describe('Hours of work, days of a wait'),
        spent: z.number().min(0).max(5000).default(0),
        stage: z.int().min(0).max(99).default(0),
        handIds: keys,
        holds: key.nullable().default(null),
        afterIds: keys,
        partIds: keys,
        notBeforeDay: dayCount.nullable().default(null),
        isOptional: z.boolean().default(false),
        needsCar: z.boolean().default(true),
        isAway: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(200),
  parts: z
    .array(
      z.strictObject({ id: key, name: key, leadDays: z.number().min(0.5).max(800), orderedDaysAgo: z.number().min(-4000).max(4000).nullable().default(null) }),
    )
    .max(200)
    .default([]),
  optimism: z.strictObject({ work: biasSchema, wait: biasSchema, arrival: biasSchema, money: biasSchema }).default({ ...USUAL_OPTIMISM }),
  gone: z
    .array(z.strictObject({ fromDay: dayCount, toDay: dayCount }))
    .max(100)
    .default([]),
}
const roadSchema = z.strictObject(roadShape)
const deadlineSchema = z.strictObject({ stage: z.int().min(0).max(99), day: dayCount })
const EXAMPLE = { road: EXAMPLE_ROAD as unknown as z.input<typeof roadSchema>, deadline: EXAMPLE_DEADLINE }
/** A day that never comes is none. */
const finite = (value: number): number | null => (Number.isFinite(value) ? value : null)
export const nullable = z.number().nullable()

const biasCalculation = defineCalculation({
  name: 'jobs.time-bias',
  title: 'How guesses of time and money run',
  formula: 'r = ln(real/guess); mu their mean, s their spread, v = s²/n; middle e^mu, mean e^(mu + s²/2 + v/2)',
  sources: ['E.9: log-normal estimation error', RULES],
  assumptions: [ASSUMED, 'Jobs whose scope changed teach nothing'],
  validRange: 'Five pairs or more learn; guesses and realities above zero',
  schools: [],
  example: { kind: 'work', pairs: HOUR_PAIRS.map((each) => ({ ...each })) },
  input: z.strictObject({ kind: z.enum(OPTIMISM_KINDS), pairs: z.array(z.strictObject({ guess: z.number(), real: z.number() })).max(5000) }),
  output: z.strictObject({ ...biasSchema.shape, median: z.number(), mean: z.number(), low: z.number(), high: z.number() }),
  run: ({ kind, pairs }) => {
    const bias = learnOptimism(kind, pairs)
    return { value: { ...bias, ...optimismFactors(bias) } }
  },
})

const scheduleCalculation = defineCalculation({
  name: 'jobs.schedule',
  title: 'When jobs are ready, and the chance by a day',
  formula:
    'job by job in their order: from the latest of today, what it comes after, its parts and its day, laid into hours that are free of all its hands and of what it holds',
  sources: [RULES, 'Monte Carlo with draws that hang on the id of each job and part'],
  assumptions: [ASSUMED, SHARED, 'Hands keep to their weeks; waits run by day and night', 'Parts come on whole days'],
  validRange: 'To 200 jobs, 20 hands; two years ahead',
  schools: [],
  isLong: true,
  example: { ...EXAMPLE.road, deadline: EXAMPLE.deadline },
  input: z.strictObject({ ...roadShape, deadline: deadlineSchema.nullable().default(null), count: z.int().min(1).max(4000).default(400) }),
  output: z.strictObject({
    medianReadyH: nullable,
    halfDay: nullable,
    eightDay: nullable,
    chance: nullable,
    jobs: z.array(z.strictObject({ id: z.string(), length: z.number(), startH: nullable, endH: nullable, halfDay: nullable, eightDay: nullable })),
  }),
  run: ({ deadline, count, ...road }) => {
    const ready = readyRoad(road as Road)
    const stage = deadline?.stage ?? Math.max(...road.jobs.map((job) => job.stage))
    const { jobs, stages } = lookAhead(ready, drawLengths(road as Road, count), { deadlines: [{ stage, day: deadline?.day ?? 0 }] })
    const own = stages.find((entry) => entry.stage === stage)
    return {
      value: {
        medianReadyH: finite(own?.medianH ?? Number.NaN),
        halfDay: finite(own?.halfDay ?? Number.NaN),
        eightDay: finite(own?.eightDay ?? Number.NaN),
        chance: deadline ? (own?.chance ?? null) : null,
        jobs: jobs.map(({ laid, halfDay, eightDay }) => ({
          id: laid.id,
          length: laid.length,
          startH: finite(laid.startH),
          endH: finite(laid.endH),
          halfDay: finite(halfDay),
          eightDay: finite(eightDay),
        })),
      },
    }
  },
})

const hoursCalculation = defineCalculation({
  name: 'jobs.hours-left',
  title: 'Hours left against hours there are, hand by hand',
  formula: 'E[T | T > w] − w, T log-normal(ln g + mu, s² + v); one log-normal of the sum against the hours before the day',
  sources: ['E.9', RULES],
  assumptions: [SHARED, 'Begun jobs are apart', 'Necessary, not enough: a road through the hours may not be there'],
  validRange: 'As jobs.schedule',
  schools: [],
  example: { ...EXAMPLE.road, deadline: EXAMPLE.deadline },
  input: z.strictObject({ ...roadShape, deadline: deadlineSchema }),
  output: z.strictObject({
    hands: z.array(z.strictObject({ handId: z.string(), meanH: z.number(), sdH: z.number(), thereH: z.number(), chance: z.number() })),
  }),
  run: ({ deadline, ...road }) => {
    const ready = readyRoad(road as Road)
    return { value: { hands: hoursLeft(ready, layRoad(ready, lengthsAt(ready.road)), deadline.stage, deadline.day) } }
  },
})

const slipCalculation = defineCalculation({
  name: 'jobs.slip',
  title: 'What a part or a job that is late does to the day',
  formula: 'the road again with it k days later; the most whole days, half hours or days that leave the day where it is',
  sources: [RULES],
  assumptions: ['By the middle of the road', 'Looked at to 60 days and 60 h'],
  validRange: 'As jobs.schedule',
  schools: [],
  isLong: true,
  example: { ...EXAMPLE.road, stage: 3, id: 'drives', days: 7 },
  input: z.strictObject({ ...roadShape, stage: z.int().min(0).max(99), id: key, days: z.int().min(-400).max(400) }),
  output: z.strictObject({
    readyBeforeH: nullable,
    readyAfterH: nullable,
    parts: z.array(z.strictObject({ id: z.string(), mayBeLateDays: z.number() })),
    jobs: z.array(z.strictObject({ id: z.string(), room: z.number(), moreCostsDays: nullable })),
  }),
  run: ({ stage, id, days, ...road }) => {
    const ready = readyRoad(road as Road)
    const lengths = lengthsAt(ready.road)
    const { parts, jobs } = findSlack({ ready, stage })
    return {
      value: {
        readyBeforeH: finite(readyH(ready.road, layRoad(ready, lengths), stage)),
        readyAfterH: finite(readyH(ready.road, layRoad(ready, lengths, slipOf(ready, id, days)), stage)),
        parts: [...parts],
        jobs: jobs.map(({ moreCostsDays, ...rest }) => ({ ...rest, moreCostsDays: finite(moreCostsDays) })),
      },
    }
  },
})

export const JOBS_CALCULATIONS = [biasCalculation, scheduleCalculation, hoursCalculation, slipCalculation]
