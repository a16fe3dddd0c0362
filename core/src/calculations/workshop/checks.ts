import { DUE_REASONS, dueChecks } from '../../checks/due.ts'
import { hotGap } from '../../checks/hot-gap.ts'
import { chanceToLast, SETS_CHANCE, setsNeeded, USUAL_LIFE_CV } from '../../checks/life-left.ts'
import { paceGate } from '../../checks/pace-gate.ts'
import { roundTime } from '../../checks/round-time.ts'
import { shakedownHour } from '../../checks/shakedown-hour.ts'
import { z } from '../../zod.ts'
import { defineCalculation } from '../registry.ts'

const CHECKS = 'The rules of the workshop, common practice'
const name = z.string().min(1).max(120)
const cv = z.number().max(2).default(USUAL_LIFE_CV)

const lifeCalculation = defineCalculation({
  name: 'parts.life-left',
  title: 'The chance that a part lasts the next events',
  formula: 'Q(1/c², (u + a)/(L c²))/Q(1/c², u/(L c²))',
  sources: ['Gamma distribution, textbook', CHECKS],
  assumptions: ['Lives of one kind are gamma', 'A spread of 30 % until four of the kind wore out (no source)'],
  validRange: 'A life above zero; use and what is to come in its unit',
  schools: ['The maker’s or your own life, or what wore out in this build'],
  example: { life: 4, used: 3.5, more: 2 },
  input: z.strictObject({ life: z.number().max(1e6), used: z.number(), more: z.number(), cv }),
  output: z.strictObject({ chance: z.number() }),
  run: (input) => ({ value: { chance: chanceToLast(input) } }),
})

const setsCalculation = defineCalculation({
  name: 'parts.sets-needed',
  title: 'How many sets do for a season',
  formula: 'least n with Q(n/c², A/(L c²)) ≥ p',
  sources: ['Gamma distribution, textbook', CHECKS],
  assumptions: ['Lives of one kind are gamma and add up', 'Enough in 9 of 10 seasons unless said otherwise'],
  validRange: 'Up to 10,000 sets',
  schools: [],
  example: { life: 22, wanted: 180, cv: 0.25 },
  input: z.strictObject({ life: z.number().max(1e6), wanted: z.number().max(1e6), cv, chance: z.number().default(SETS_CHANCE) }),
  output: z.strictObject({ sets: z.number(), chance: z.number(), chanceOfOneFewer: z.number() }),
  run: (input) => ({ value: setsNeeded(input) }),
})

const roundCalculation = defineCalculation({
  name: 'checks.round',
  title: 'How long a round of checks takes so many people',
  formula: 'longest first to whoever is free first',
  sources: ['Graham 1969', CHECKS],
  assumptions: ['Each check is one person’s', 'Nobody waits for a tool'],
  validRange: 'Up to 500 checks, 1 to 20 people',
  schools: [],
  example: { minutes: [2.5, 2, 2, 1.5, 1.5, 1.5, 1, 1, 1, 1, 1, 1, 0.5, 0.5], people: 2 },
  input: z.strictObject({ minutes: z.array(z.number()).min(1).max(500), people: z.int().min(1).max(20) }),
  output: z.strictObject({ minutes: z.number(), shares: z.array(z.strictObject({ checks: z.array(z.number()), minutes: z.number() })) }),
  run: ({ minutes, people }) => {
    const found = roundTime(minutes, people)
    return { value: { minutes: found.minutes, shares: found.shares.map((share) => ({ checks: [...share.checks], minutes: share.minutes })) } }
  },
})

const hourCalculation = defineCalculation({
  name: 'shakedown.plan',
  title: 'A first drive laid into the time that is booked',
  formula: 's + Σ n_i f_i t + Σ max(c_i, r), steps in order at their least laps, then laps from the lowest step up',
  sources: [CHECKS],
  assumptions: ['No step and no check is ever skipped', 'A stop is the longer of cooling and the round'],
  validRange: 'Up to 12 steps',
  schools: [],
  example: {
    bookedS: 3600,
    setUpS: 480,
    lapS: 75,
    roundS: 540,
    steps: [
      { name: 'bed', factor: 1.5, wantLaps: 4, leastLaps: 3, coolS: 600 },
      { name: '65 %', factor: 1.3, wantLaps: 5, leastLaps: 3, coolS: 300 },
      { name: '80 %', factor: 1.12, wantLaps: 5, leastLaps: 3, coolS: 300 },
      { name: 'full', factor: 1, wantLaps: 4, leastLaps: 3, coolS: 300 },
    ],
  },
  input: z.strictObject({
    bookedS: z.number().max(1e6),
    setUpS: z.number(),
    lapS: z.number(),
    roundS: z.number(),
    steps: z
      .array(
        z.strictObject({
          name,
          factor: z.number(),
          wantLaps: z.int().min(1).max(500),
          leastLaps: z.int().min(1).max(500),
          coolS: z.number().min(0).max(1e5),
        }),
      )
      .min(1)
      .max(12),
  }),
  output: z.strictObject({
    laps: z.array(z.number()),
    stopsS: z.array(z.number()),
    spareS: z.number(),
    wholeS: z.number(),
    lapsLeftOut: z.number(),
  }),
  run: (input) => {
    const found = shakedownHour(input)
    return { value: { ...found, laps: [...found.laps], stopsS: [...found.stopsS] } }
  },
})

const limit = z.number().nullable().default(null)
const word = z.enum(['go', 'watch', 'again', 'no'])

const gateCalculation = defineCalculation({
  name: 'shakedown.go',
  title: 'Whether the next pace may be driven',
  formula: 'X = x₂ + (x₂ − x₁) r, r = (p₃ − p₂)/(p₂ − p₁), spread s √((1 + r)² + r²)',
  sources: [CHECKS],
  assumptions: ['Readings go on straight over the pace', 'Go is no proof that the car is safe: the driver and qualified people decide'],
  validRange: 'Paces as shares of full pace, rising',
  schools: [],
  example: {
    paces: [0.65, 0.8],
    nextPace: 1,
    readings: [
      { name: 'coolant', values: [88, 93.5], sd: 1, stop: 105 },
      { name: 'oil', values: [112, 121], sd: 1, stop: 130 },
    ],
  },
  input: z.strictObject({
    paces: z.array(z.number().min(0).max(2)).min(1).max(12),
    nextPace: z.number().min(0).max(2),
    readings: z.array(z.strictObject({ name, values: z.array(z.number()).max(12), sd: z.number().default(1), warn: limit, stop: limit })).max(60),
  }),
  output: z.strictObject({
    word,
    readings: z.array(z.strictObject({ name, next: z.number().nullable(), nextSd: z.number().nullable(), word })),
  }),
  run: (input) => {
    const found = paceGate(input)
    return { value: { word: found.word, readings: found.readings.map((reading) => ({ ...reading })) } }
  },
})

const gapCalculation = defineCalculation({
  name: 'clearance.hot-gap',
  title: 'What is left of a gap when it is hot',
  formula: 'cold − α l ΔT toward − move',
  sources: ['Linear expansion; α from handbooks, from memory'],
  assumptions: ['It grows towards its neighbour by the share given', 'How hot the neighbour gets is not said: stick on a strip and read it'],
  validRange: 'Gaps up to 2 m',
  schools: [],
  example: { coldM: 0.032, expansionPerK: 17.3e-6, lengthM: 0.9, riseK: 550, moveM: 0.006, needM: 0.025 },
  input: z.strictObject({
    coldM: z.number(),
    expansionPerK: z.number().default(0),
    lengthM: z.number().default(0),
    riseK: z.number().default(0),
    towardShare: z.number().default(1),
    moveM: z.number().default(0),
    needM: z.number(),
  }),
  output: z.strictObject({ hotM: z.number(), headroomM: z.number(), verdict: z.enum(['touches', 'tight', 'holds']) }),
  run: (input) => ({ value: hotGap(input) }),
})

const day = z.string().regex(/^\d{4}-\d{2}-\d{2}$/)
const dayOrNone = day.nullable().default(null)

const dueCalculation = defineCalculation({
  name: 'checks.due',
  title: 'What is due before an event, and what stops it',
  formula: 'first of: bad, never marked, touched since, interval used up, expires, asked; safety first, then (bad + 0.5)/(marks + 1) a minute',
  sources: [CHECKS],
  assumptions: ['Only safety checks stop an event', 'Fit by this list is not safe: qualified people and the event’s rules decide'],
  validRange: 'Up to 2,000 checks',
  schools: [],
  example: {
    lastDay: '2027-03-28',
    checks: [
      { name: 'gearbox bolts', isSafety: true, okOn: '2027-03-12', touchedOn: '2027-03-20' },
      { name: 'seat bolts', isSafety: true, okOn: '2027-03-12' },
      { name: 'belts', isSafety: true, okOn: '2027-03-12', expiresOn: '2027-03-27' },
    ],
  },
  input: z.strictObject({
    lastDay: day,
    checks: z
      .array(
        z.strictObject({
          name,
          isSafety: z.boolean().default(false),
          minutes: z.number().default(0.5),
          okOn: dayOrNone,
          badOn: dayOrNone,
          touchedOn: dayOrNone,
          interval: z
            .strictObject({ every: z.number().positive(), since: z.number().min(0), adds: z.number().min(0) })
            .nullable()
            .default(null),
          expiresOn: dayOrNone,
          isAsked: z.boolean().default(false),
          marks: z.int().min(0).default(0),
          bads: z.int().min(0).default(0),
        }),
      )
      .max(2000),
  }),
  output: z.strictObject({ due: z.array(z.strictObject({ name, reason: z.enum(DUE_REASONS), stops: z.boolean() })) }),
  run: ({ checks, lastDay }) => ({ value: { due: dueChecks(checks, lastDay) } }),
})

export const CHECK_CALCULATIONS = [dueCalculation, lifeCalculation, setsCalculation, roundCalculation, hourCalculation, gateCalculation, gapCalculation]
