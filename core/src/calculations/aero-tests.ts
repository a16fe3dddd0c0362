import { axleDropM } from '../aero/axle-springs.ts'
import { coastDown } from '../aero/coast-down-drag.ts'
import { planCoastDown } from '../aero/coast-down-plan.ts'
import { compareTests } from '../aero/compare-tests.ts'
import { measuredDownforce, pitotFactor } from '../aero/measured-downforce.ts'
import { contactMps, rideHeights, touches } from '../aero/ride-heights.ts'
import { ROLLING_SCHOOL_WORDS, ROLLING_SCHOOLS } from '../aero/rolling-schools.ts'
import { STEADY_READINGS } from '../aero/steady-readings.ts'
import { coilRateNPerM, MOTION_RATIO_READINGS, wheelRates } from '../aero/wheel-rates.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_COAST, EXAMPLE_HEIGHTS } from './examples/example-aero.ts'
import { defineCalculation } from './registry.ts'

const air = z.number().default(1.2)
const springs = z.strictObject({
  springRateNPerM: z.number(),
  motionRatio: z.number(),
  damperMotionRatio: z.number().nullable().default(null),
  tyreRateNPerM: z.number(),
  gapM: z.number().nullable().default(null),
  packerM: z.number().default(0),
  rubber: z
    .array(z.strictObject({ compressionM: z.number(), forceN: z.number() }))
    .max(40)
    .default([]),
})

const wheelRateCalculation = defineCalculation({
  name: 'aero.wheel-rate',
  title: 'Rate at the wheel, with the tyre, and the ride frequency',
  formula: 'k_w = k_s MR²; k_r = k_w k_t/(k_w + k_t); f = √(k_r/m)/2π; k_s = G d⁴/(8 D³ n)',
  sources: ['G.8, closed form'],
  assumptions: ['The motion ratio does not change with travel'],
  validRange: 'motion ratio 0.2 to 2',
  schools: ['Motion ratio as spring over wheel travel (default), or wheel over spring'],
  example: { springRateNPerM: 58_850, motionRatio: 0.94, tyreRateNPerM: 230_000, sprungKg: 371 },
  input: z.strictObject({
    springRateNPerM: z.number().nullable().default(null),
    /** In place of the rate: the coil it is wound as. */
    coil: z
      .strictObject({ shearPa: z.number().default(79e9), wireM: z.number(), coilM: z.number(), turns: z.number() })
      .nullable()
      .default(null),
    motionRatio: z.number(),
    reading: z.enum(MOTION_RATIO_READINGS).default('springOverWheel'),
    tyreRateNPerM: z.number(),
    sprungKg: z.number().nullable().default(null),
  }),
  output: z.strictObject({
    springRateNPerM: z.number(),
    wheelRateNPerM: z.number(),
    rideRateNPerM: z.number(),
    rideFrequencyHz: z.number().nullable(),
    otherReadingNPerM: z.number(),
  }),
  run: ({ springRateNPerM, coil, motionRatio, reading, tyreRateNPerM, sprungKg }) => {
    const rate = coil ? coilRateNPerM(coil) : springRateNPerM
    if (rate === null) throw new CalculationError('missing', 'springRateNPerM', 'Give the rate of the spring, or the coil it is wound as.')
    const ratio = reading === 'springOverWheel' ? motionRatio : 1 / motionRatio
    return { value: { springRateNPerM: rate, ...wheelRates({ springRateNPerM: rate, motionRatio: ratio, tyreRateNPerM, sprungKg }) } }
  },
})

const rideHeightCalculation = defineCalculation({
  name: 'aero.ride-height',
  title: 'How downforce lowers the car, and what touches at which speed',
  formula: 'P(z) = k_s MR² z + MR_d R(MR_d z − gap + packer); drop = z + P/k_t at P = N/2',
  sources: ['G.8; piecewise linear in v², solved exactly'],
  assumptions: ['Steady speed; dampers do not hold it up', 'Bump rubbers by their own curve, its last slope going on'],
  validRange: 'speeds to 150 m/s, air 0.6 to 1.5 kg/m³, motion ratios 0.2 to 2',
  schools: [],
  example: {
    ...EXAMPLE_HEIGHTS,
    front: { ...EXAMPLE_HEIGHTS.front, rubber: [...EXAMPLE_HEIGHTS.front.rubber] },
    rear: { ...EXAMPLE_HEIGHTS.rear, rubber: [] },
    points: [...EXAMPLE_HEIGHTS.points],
    speedsMps: [30, 50, 70],
  },
  input: z.strictObject({
    front: springs,
    rear: springs,
    wheelbaseM: z.number(),
    airDensityKgM3: air,
    downforceFrontM2: z.number(),
    downforceRearM2: z.number(),
    points: z
      .array(z.strictObject({ name: z.string().max(80), xM: z.number(), zM: z.number() }))
      .max(40)
      .default([]),
    speedsMps: z.array(z.number()).min(1).max(400),
  }),
  output: z.strictObject({
    heights: z.array(
      z.strictObject({ speedMps: z.number(), frontDropM: z.number(), rearDropM: z.number(), rakeChangeRad: z.number(), pointsM: z.array(z.number()) }),
    ),
    contactFrontMps: z.number().nullable(),
    contactRearMps: z.number().nullable(),
    touches: z.array(z.strictObject({ name: z.string(), touchMps: z.number().nullable(), leastM: z.number(), leastAtMps: z.number() })),
  }),
  run: ({ speedsMps, ...input }) => ({
    value: {
      heights: speedsMps.map((speed) => {
        const { speedMps, frontDropM, rearDropM, rakeChangeRad, pointsM } = rideHeights(input, speed)
        return { speedMps, frontDropM, rearDropM, rakeChangeRad, pointsM: [...pointsM] }
      }),
      contactFrontMps: contactMps(input, 'front'),
      contactRearMps: contactMps(input, 'rear'),
      touches: Math.max(...speedsMps) > 0 ? touches(input, Math.max(...speedsMps)) : [],
    },
  }),
})

const series = z.array(z.number()).max(20_000)
const run = z.strictObject({ timeS: series, speedMps: series })

const coastdownCalculation = defineCalculation({
  name: 'aero.coastdown',
  title: 'Drag area and rolling from coasting both ways',
  formula: 'm_e v′ = −(A + C (v + s w)² + s m g i); CdA = 2 C/ρ; sd = hypot(s/√k, what m, m_e and ρ bring)',
  sources: ['G.9; a pair is fitted at once, wind and slope with it', `One pair 5 %, what rotates 4 ± 1 % of the mass (${PRACTICE})`],
  assumptions: ['Out of gear, brakes free, wind and slope the same for both runs of a pair', 'Doubt is never read from the residual: gusts go through the fit'],
  validRange: '8 points a run at least, speed falling over 1.5 to 1; A and C over zero',
  schools: Object.values(ROLLING_SCHOOL_WORDS),
  example: EXAMPLE_COAST,
  input: z.strictObject({
    pairs: z.array(z.strictObject({ out: run, back: run })).max(40),
    massKg: z.number(),
    massSdKg: z.number().min(0).default(0),
    rotatingKg: z.number().nullable().default(null),
    airDensityKgM3: z.number(),
    airDensitySd: z.number().min(0).default(0.005),
    rollingSchool: z.enum(ROLLING_SCHOOLS).default('asRoadShows'),
    rollingSpeedMps: z.number().default(120),
  }),
  output: z.strictObject({
    dragAreaM2: z.number(),
    dragAreaSdM2: z.number(),
    rollingCoefficient: z.number(),
    systematicSdM2: z.number(),
    pairs: z.array(z.strictObject({ dragAreaM2: z.number(), windMps: z.number(), grade: z.number(), residualMps: z.number() })),
  }),
  isLong: true,
  run: (input) => {
    const { fits, ...value } = coastDown(input)
    return {
      value: { ...value, pairs: fits.map(({ dragAreaM2, windMps, grade, residualMps }) => ({ dragAreaM2, windMps, grade, residualMps })) },
      warnings: [
        ...(fits.length === 1 ? ['One pair counts for 5 %: drive more, gusts differ.'] : []),
        ...(fits.some(({ windMps }) => Math.abs(windMps) > 5) ? ['Wind over 5 m/s: usual practice stops there.'] : []),
      ],
    }
  },
})

const planCalculation = defineCalculation({
  name: 'aero.coastdown-plan',
  title: 'What a coast-down can tell, before it is driven',
  formula: 's = m_e/2C · ln((A + C v₀²)/(A + C v₁²)); cov = J⁺ (response to gusts + reading) J⁺ᵀ',
  sources: ['The room’s page, by linear propagation over 80 points a run', `Gusts last 6 s; speed read to 0.05 m/s ten times a second (${PRACTICE})`],
  assumptions: ['Runs meet gusts of their own', 'Steady wind and slope go into the fit'],
  validRange: 'from 5 to 100 m/s, down to two thirds at least; gusts to 6 m/s',
  schools: [],
  example: { dragAreaM2: 0.742, rollingCoefficient: 0.0138, massKg: 1342, airDensityKgM3: 1.185, fromMps: 50, toMps: 15, gustMps: 1, pairs: 4 },
  input: z.strictObject({
    dragAreaM2: z.number(),
    rollingCoefficient: z.number().default(0.014),
    massKg: z.number(),
    rotatingShare: z.number().default(0.04),
    massSdKg: z.number().min(0).default(0),
    airDensityKgM3: air,
    airDensitySd: z.number().min(0).default(0.005),
    fromMps: z.number(),
    toMps: z.number(),
    gustMps: z.number(),
    pairs: z.int(),
  }),
  output: z.strictObject({
    roadM: z.number(),
    timeS: z.number(),
    onePairRelativeSd: z.number(),
    meanRelativeSd: z.number(),
    wholeRelativeSd: z.number(),
    systematicRelativeSd: z.number(),
    smallestDifferenceRelative: z.number().nullable(),
  }),
  isLong: true,
  run: (input) => ({ value: planCoastDown(input) }),
})

const steadyAxle = z.strictObject({
  springs,
  reading: z.enum(STEADY_READINGS),
  travelM: z.array(z.number()).max(600),
  readingSdM: z.number().default(0.0003),
  rateRelativeSd: z.number().default(0.05),
})
const example = (axle: 'front' | 'rear') => {
  const own = { ...EXAMPLE_HEIGHTS[axle], rubber: [] }
  const areaM2 = axle === 'front' ? 0.9 : 0.75
  return {
    springs: own,
    reading: 'height' as const,
    travelM: [20, 40, 60].map((speed) => Number((axleDropM(own, 0.6 * speed ** 2 * areaM2) + 0.004).toFixed(7))),
  }
}

const measuredCalculation = defineCalculation({
  name: 'aero.measured-downforce',
  title: 'Downforce of each axle from dampers or ride height',
  formula: 'area = 2/ρ · slope of N over v², N = 2 P(z); coasting: front less m a h/L, rear plus',
  sources: ['G.10; least squares with a free intercept'],
  assumptions: ['Steady speed on a level straight', 'Friction of dampers and what hubs carry stay unseen'],
  validRange: 'three speeds at least, the fastest 1.5 times the slowest',
  schools: [],
  example: { speedMps: [20, 40, 60], front: example('front'), rear: example('rear'), massKg: 1336, centreHeightM: 0.5, wheelbaseM: 2.65 },
  input: z.strictObject({
    speedMps: z.array(z.number()).max(600),
    airDensityKgM3: air,
    front: steadyAxle,
    rear: steadyAxle,
    decelerationMps2: z.array(z.number()).max(600).nullable().default(null),
    massKg: z.number(),
    centreHeightM: z.number(),
    wheelbaseM: z.number(),
  }),
  output: z.strictObject({ frontM2: z.number(), frontSdM2: z.number(), rearM2: z.number(), rearSdM2: z.number() }),
  run: (input) => ({ value: measuredDownforce(input) }),
})

const pitotCalculation = defineCalculation({
  name: 'aero.pitot',
  title: 'What a pitot tube reads too much or too little, and the wind',
  formula: '√f = (√q₁ + √q₂)/(2 v √(ρ/2)); w = v (√q₁ − √q₂)/(√q₁ + √q₂)',
  sources: ['Closed form: two directions at one speed over the ground'],
  assumptions: ['The wind is the same both ways'],
  validRange: 'pressures over 0, speed 5 to 150 m/s',
  schools: [],
  example: { firstPa: 1600, secondPa: 1400, speedMps: 50 },
  input: z.strictObject({ firstPa: z.number(), secondPa: z.number(), speedMps: z.number(), airDensityKgM3: air }),
  output: z.strictObject({ factor: z.number(), headWindMps: z.number() }),
  run: (input) => ({ value: pitotFactor(input) }),
})

const compareCalculation = defineCalculation({
  name: 'aero.compare',
  title: 'Whether two tests differ, by their pairs',
  formula: 't = (x̄₂ − x̄₁)/√(s₁²/n₁ + s₂²/n₂), freedom by unequal spreads',
  sources: ['Welch 1947 (from memory)'],
  assumptions: ['Each pair is a draw of its own'],
  validRange: 'two pairs a test at least',
  schools: [],
  example: { before: [0.742, 0.75, 0.738], after: [0.77, 0.781, 0.765] },
  input: z.strictObject({ before: z.array(z.number()).max(100), after: z.array(z.number()).max(100) }),
  output: z.strictObject({ difference: z.number(), low: z.number(), high: z.number(), pValue: z.number(), verdict: z.enum(['real', 'within noise']) }),
  run: ({ before, after }) => ({ value: compareTests(before, after) }),
})

/** The calculations of this file, for the register. */
export const AERO_TEST_CALCULATIONS = [
  wheelRateCalculation,
  rideHeightCalculation,
  coastdownCalculation,
  planCalculation,
  measuredCalculation,
  pitotCalculation,
  compareCalculation,
]
