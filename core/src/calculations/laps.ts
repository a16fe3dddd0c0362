import { abaEffect } from '../stats/a-b-a.ts'
import { bestLaps, LAP_SCHOOLS, sessionLap } from '../stats/best-laps.ts'
import { compareLaps, LAP_VERDICTS } from '../stats/compare-laps.ts'
import { LAP_TEST_SCHOOLS, lapsNeeded, smallestDifferenceS } from '../stats/laps-needed.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { defineCalculation } from './registry.ts'

const laps = z.array(z.number()).max(2000)
const interval = z.strictObject({ from: z.number(), to: z.number() })
const RULES = 'The rules of the Track room'
const ALIKE = 'Laps follow one another: fuel, tyres and driver tie them, so p is hopeful'

const compareCalculation = defineCalculation({
  name: 'stats.compare-laps',
  title: 'Whether laps of two sides truly differ',
  formula: 'median of b_j − a_i; ends: k-th differences, P(U ≤ k − 1) ≤ 2.5 %, widened by 1.96 √2 s_b',
  sources: ['H.9', RULES],
  assumptions: [ALIKE, 'What lies between two outings is in s_b'],
  validRange: '1 to 2,000 laps a side; no interval under 4 a side',
  schools: ['Ranks of all clean laps (default); the best lap alone and means with odd laps cut find other winners'],
  example: { aS: [82.91, 82.6, 83.05, 82.74, 82.66, 82.88], bS: [82.31, 82.52, 82.12, 82.4, 82.27, 82.45], betweenSdS: 0.124 },
  input: z.strictObject({ aS: laps, bS: laps, betweenSdS: z.number().max(1e6).default(0) }),
  output: z.strictObject({ differenceS: z.number(), intervalS: interval.nullable(), p: z.number(), isExact: z.boolean(), verdict: z.enum(LAP_VERDICTS) }),
  isLong: true,
  run: (input) => ({ value: compareLaps(input) }),
})

const neededCalculation = defineCalculation({
  name: 'stats.laps-needed',
  title: 'Laps that show a difference, and what so many laps show',
  formula: 'n = 2 ((z_α + z_β) s/Δ)², times π/3 by ranks; Δ = (z_α + z_β) s √(2/n)',
  sources: ['H.10'],
  assumptions: ['5 % to see what is not there, 20 % to miss what is', ALIKE],
  validRange: 'Spread and difference over zero',
  schools: ['By ranks (default), or by means'],
  example: { sdS: 0.25, differenceS: 0.15, lapsASide: 8, school: 'ranks' },
  input: z.strictObject({
    sdS: z.number(),
    differenceS: z.number(),
    lapsASide: z.number().max(1e9).default(5),
    school: z.enum(LAP_TEST_SCHOOLS).default('ranks'),
  }),
  output: z.strictObject({ lapsASide: z.number(), smallestDifferenceS: z.number() }),
  run: ({ lapsASide, ...input }) => ({ value: { ...lapsNeeded(input), smallestDifferenceS: smallestDifferenceS({ ...input, lapsASide }) } }),
})

const abaCalculation = defineCalculation({
  name: 'stats.a-b-a',
  title: 'A change put in and taken out again',
  formula: 'T = a + b i + e [B] by least squares, N − 3 degrees of freedom',
  sources: ['H.10'],
  assumptions: ['What drifts is straight in the number of the lap', 'One outing after the other'],
  validRange: 'Three stints or more, five laps or more',
  schools: [],
  example: {
    stintsS: [
      [82.91, 82.6, 83.05, 82.74],
      [82.31, 82.52, 82.12, 82.4],
      [82.79, 82.93, 82.7, 83.01],
    ],
  },
  input: z.strictObject({ stintsS: z.array(laps).max(40) }),
  output: z.strictObject({ effectS: z.number(), standardErrorS: z.number(), degreesOfFreedom: z.number(), intervalS: interval, driftSPerLap: z.number() }),
  run: ({ stintsS }) => ({ value: abaEffect(stintsS) }),
})

const bestCalculation = defineCalculation({
  name: 'stats.best-laps',
  title: 'What a session comes to: best, theoretical, rolling, spread',
  formula: 'theoretical Σ min sector; rolling: least run of sectors once round; sd of the best s b(n), of the median 1.253 s/√n',
  sources: ['H.11', 'Order statistics of the normal distribution', `One lap alone 0.5 % (${PRACTICE})`],
  assumptions: ['A theoretical best falls with the number of sectors, and nobody drove it'],
  validRange: '1 to 2,000 clean laps',
  schools: ['Best clean lap, or the median of the clean laps'],
  example: {
    lapsS: [92.5, 92.6, 92.3],
    sectorsS: [
      [28.1, 35.4, 29],
      [28.3, 35, 29.3],
      [27.9, 35.6, 28.8],
    ],
    school: 'best',
  },
  input: z.strictObject({ lapsS: laps, sectorsS: z.array(z.array(z.number()).max(60)).max(2000).default([]), school: z.enum(LAP_SCHOOLS).default('best') }),
  output: z.strictObject({
    lapS: z.number(),
    sdS: z.number(),
    bestS: z.number(),
    theoreticalS: z.number().nullable(),
    rollingS: z.number().nullable(),
    lapSdS: z.number().nullable(),
    trendSPerLap: z.number().nullable(),
  }),
  isLong: true,
  run: ({ lapsS, sectorsS, school }) => {
    const { lapS, sdS } = sessionLap(lapsS, school)
    return { value: { ...bestLaps(lapsS, sectorsS), lapS, sdS } }
  },
})

export const LAP_CALCULATIONS = [compareCalculation, neededCalculation, abaCalculation, bestCalculation]
