import { lapGap } from '../tracklog/lap-gap.ts'
import { lapsFromLog } from '../tracklog/laps-from-log.ts'
import { cornerGrip } from '../tracklog/log-grip.ts'
import { powerFromAcceleration, USUAL_SLIP } from '../tracklog/log-power.ts'
import { toPlane } from '../tracklog/plane.ts'
import { tracedTrack, USUAL_CUT_OFF_M } from '../tracklog/traced-track.ts'
import { whittaker } from '../tracklog/whittaker.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { defineCalculation } from './registry.ts'

const RULES = 'The rules of the Track room'
const MOST = 20_000
const numbers = z.array(z.number()).max(MOST)
const place = z.strictObject({ latitudeDeg: z.number(), longitudeDeg: z.number(), heightM: z.number().nullable().default(null) })

/** A ring of 80 m round a place; invented. */
const RING = Array.from({ length: 60 }, (_, i) => ({
  latitudeDeg: 59 + (80 / 111_400) * Math.sin((2 * Math.PI * i) / 60),
  longitudeDeg: 18 + (80 / 57_480) * Math.cos((2 * Math.PI * i) / 60),
}))

const smoothingCalculation = defineCalculation({
  name: 'track.smoothing',
  title: 'A noisy list smoothed by its second differences',
  formula: '(I + λ D′D) z = y; gain 1/(1 + λ (2 − 2 cos ω)²)',
  sources: ['H.1: Whittaker’s smoother'],
  assumptions: ['Even steps'],
  validRange: '5 to 20,000 places; weight 0 to 1,000,000',
  schools: ['Round a ring, or along a line with free ends'],
  example: { values: [0, 1, 0.2, 0.9, 0.1, 1.1, 0, 1], weight: 1, isRing: true },
  input: z.strictObject({ values: numbers, weight: z.number(), isRing: z.boolean().default(false) }),
  output: z.strictObject({ values: z.array(z.number()) }),
  isLong: true,
  run: ({ values, weight, isRing }) => ({ value: { values: [...whittaker(values, weight, isRing)] } }),
})

const projectCalculation = defineCalculation({
  name: 'track.project',
  title: 'Positions on the Earth as a track in the plane',
  formula: 'x = Δλ N cos φ, y = Δφ M (WGS 84); steps of 5 m, smoothed with λ = 1/(2 − 2 cos(2π step/cut-off))²',
  sources: ['H.1', 'WGS 84 radii of curvature (from memory)'],
  assumptions: ['A longer cut-off makes corners look faster: it is stated with every corner speed'],
  validRange: 'Within half a degree; 20 to 20,000 places; cut-off 12 to 200 m',
  schools: [`Cut-off 25 m (${PRACTICE})`],
  example: { places: RING, isClosed: true },
  input: z.strictObject({ places: z.array(place).max(MOST), isClosed: z.boolean().default(true), cutOffM: z.number().default(USUAL_CUT_OFF_M) }),
  output: z.strictObject({
    x: z.array(z.number()),
    y: z.array(z.number()),
    lengthM: z.number(),
    gapM: z.number(),
    turningRad: z.number(),
    segments: z.array(z.strictObject({ lengthM: z.number(), curvaturePerM: z.number(), grade: z.number() })),
  }),
  isLong: true,
  run: ({ places, isClosed, cutOffM }) => {
    const track = tracedTrack(places, { isClosed, cutOffM })
    const plane = toPlane(places[0] as (typeof places)[number], places)
    const segments = track.segments.map(({ lengthM, curvaturePerM, grade = 0 }) => ({ lengthM, curvaturePerM, grade }))
    const { lengthM, gapM, turningRad } = track
    return { value: { x: [...plane.x], y: [...plane.y], lengthM, gapM, turningRad, segments }, warnings: track.problems }
  },
})

const lapsCalculation = defineCalculation({
  name: 'track.laps-from-log',
  title: 'Laps of a log by a line across the track',
  formula: 'forward crossings within the width, straight between samples',
  sources: [RULES, `20 ms of doubt at 10 a second (${PRACTICE})`],
  assumptions: ['The clock runs forward', 'The way out and the way in are no laps'],
  validRange: '2 to 20,000 samples; half width 0.5 to 200 m; no lap under 5 s',
  schools: [],
  example: {
    timeS: [0, 5, 10, 15, 20, 25, 30],
    x: [-10, 40, 40, -10, 40, 40, -10].map((x) => x + 0),
    y: [0, 0, 60, 0, 0, 60, 0],
    line: { x: 0, y: 0, headingRad: 0, halfWidthM: 10 },
  },
  input: z.strictObject({
    timeS: numbers,
    x: numbers,
    y: numbers,
    line: z.strictObject({ x: z.number(), y: z.number(), headingRad: z.number(), halfWidthM: z.number() }),
  }),
  output: z.strictObject({ laps: z.array(z.strictObject({ fromS: z.number(), lapS: z.number() })) }),
  run: ({ line, ...path }) => ({ value: { laps: [...lapsFromLog(path, line)] } }),
})

const trace = z.strictObject({ atM: numbers, speedMps: numbers })

const gapCalculation = defineCalculation({
  name: 'track.gap',
  title: 'By how much one lap is behind another along the track',
  formula: 'gap(s) = ∫ (1/v_B − 1/v_A) ds',
  sources: [RULES],
  assumptions: ['Constant acceleration between places'],
  validRange: '2 to 20,000 places, never at a standstill',
  schools: [],
  example: { a: { atM: [0, 100, 200], speedMps: [20, 25, 30] }, b: { atM: [0, 100, 200], speedMps: [20, 27, 30] }, atM: [0, 100, 200] },
  input: z.strictObject({ a: trace, b: trace, atM: numbers }),
  output: z.strictObject({ gapS: z.array(z.number()) }),
  run: ({ a, b, atM }) => ({ value: { gapS: [...lapGap(a, b, atM)] } }),
})

const powerCalculation = defineCalculation({
  name: 'track.power-from-log',
  title: 'Power at the hubs from acceleration',
  formula: 'P = (m_e a + qC + c m g + m g grade) v (1 + slip)',
  sources: ['H.8', `Slip 2 ± 1 % (${PRACTICE})`],
  assumptions: ['One gear, full throttle', 'The slope is known, or the road was driven both ways'],
  validRange: 'Samples at 10 Hz or more; slope to 30 %',
  schools: [],
  example: {
    massKg: 1180,
    massSdKg: 3,
    effectiveMassKg: 1321.54,
    dragAreaM2: 0.7,
    rollingCoefficient: 0.013,
    resistanceSdN: 60,
    airDensityKgM3: 1.19,
    speedMps: 33,
    speedSdMps: 0.15,
    accelerationMps2: 4.15,
    accelerationSdMps2: 0.06,
    grade: 0.004,
  },
  input: z.strictObject({
    massKg: z.number(),
    massSdKg: z.number().min(0),
    effectiveMassKg: z.number(),
    dragAreaM2: z.number(),
    rollingCoefficient: z.number(),
    resistanceSdN: z.number().min(0),
    airDensityKgM3: z.number(),
    speedMps: z.number().max(150),
    speedSdMps: z.number().min(0),
    accelerationMps2: z.number().min(-30).max(30),
    accelerationSdMps2: z.number().min(0),
    grade: z.number().default(0),
    slip: z.number().default(USUAL_SLIP.share),
    slipSd: z.number().min(0).default(USUAL_SLIP.sd),
  }),
  output: z.strictObject({ powerW: z.number(), sdW: z.number(), forceN: z.number() }),
  run: ({ speedMps, speedSdMps, accelerationMps2, accelerationSdMps2, grade, slip, slipSd, ...car }) => ({
    value: powerFromAcceleration({ car, speedMps, speedSdMps, accelerationMps2, accelerationSdMps2, grade, slip: { share: slip, sd: slipSd } }),
  }),
})

const ROUND = Array.from({ length: 24 }, (_, i) => 9.5 + 0.05 * i)

const gripCalculation = defineCalculation({
  name: 'track.grip-from-log',
  title: 'Grip that corners showed',
  formula: 'median over laps of the 95th share of m √(a_x² + a_y²)/(m g + q (A_f + A_r)), a_y > 0.5 g',
  sources: [RULES],
  assumptions: ['Accelerations along and across the car, gravity taken out'],
  validRange: '20 samples a lap or more that turn with over half a g',
  schools: [],
  example: {
    massKg: 1180,
    downforceM2: 0.6,
    airDensityKgM3: 1.19,
    laps: [{ speedMps: ROUND.map(() => 25), alongMps2: ROUND.map(() => 1), acrossMps2: ROUND }],
  },
  input: z.strictObject({
    massKg: z.number().min(50).max(20_000),
    downforceM2: z.number().min(-5).max(40),
    airDensityKgM3: z.number().min(0).max(1.5),
    laps: z.array(z.strictObject({ speedMps: numbers, alongMps2: numbers, acrossMps2: numbers })).max(200),
  }),
  output: z.strictObject({ grip: z.number() }),
  run: ({ laps, ...car }) => ({ value: { grip: cornerGrip(laps, car) } }),
})

export const TRACK_LOG_CALCULATIONS = [smoothingCalculation, projectCalculation, lapsCalculation, gapCalculation, powerCalculation, gripCalculation]
