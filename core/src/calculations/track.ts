import { LAP_HOLDERS, lapOf } from '../track/lap.ts'
import { changedLapCar } from '../track/lap-change.ts'
import { asReference, fitGrip, fitGripAndBraking } from '../track/lap-fit.ts'
import { forecastLap, type UnsureLapInput } from '../track/lap-forecast.ts'
import { LAP_LEVERS, pullLever } from '../track/lap-wish.ts'
import { LAP_STEP_KEYS, lapWorth } from '../track/lap-worth.ts'
import { closureProblems, trackShape } from '../track/track.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_FITTED, EXAMPLE_LAP_CAR, EXAMPLE_RING } from './examples/example-lap.ts'
import { asInput, carOf, changeSchema, lapCarSchema, segmentsOf, stepField, trackFields } from './lap-fields.ts'
import { defineCalculation } from './registry.ts'

const SOURCES = ['H.2, H.3, H.5: a quasi-steady lap over cells, Heun in v²', 'The rules of the Track room']
const NOT_IN_IT = 'Not in it: bars, springs, dampers, kerbs, heat and wear of tyres, the line driven; all of that is in the grip factor'
const ring = { segments: segmentsOf(EXAMPLE_RING), isClosed: true }

const shapeCalculation = defineCalculation({
  name: 'track.shape',
  title: 'A track laid out in the plane',
  formula: 'x′ = cos ψ, y′ = sin ψ, ψ′ = κ; closed: ends meet within 0.5 %, ∫κ ds = ±2π',
  sources: ['H.1', 'Plane geometry: turning of a simple closed curve'],
  assumptions: ['Each piece is an arc; a spiral is cut into pieces of 2 m'],
  validRange: '20 m to 60 km, up to 20,000 segments, radius from 5 m',
  schools: [],
  example: ring,
  input: z.strictObject(trackFields),
  output: z.strictObject({ lengthM: z.number(), gapM: z.number(), turningRad: z.number(), risesM: z.number(), x: z.array(z.number()), y: z.array(z.number()) }),
  run: (track) => {
    const { lengthM, gapM, turningRad, risesM, x, y } = trackShape(track)
    return { value: { lengthM, gapM, turningRad, risesM, x: [...x], y: [...y] }, warnings: closureProblems(track) }
  },
})

const lapCalculation = defineCalculation({
  name: 'track.lap',
  title: 'The lap of a car on a track',
  formula: 'v = min(corner, forward, backward); a = min((F − D − W)/m_e, (eT − D − W)/m); dt = 2 ds/(v + v′)',
  sources: SOURCES,
  assumptions: [NOT_IN_IT, 'The axle that gives up first sets the corner', 'Loads of each axle with half the transfer its weight has'],
  validRange: 'Tracks of 20 m to 60 km; cells of 0.05 to 50 m, under 1 ms of error at 1 m; absolute laps 3 to 5 % without a driven one',
  schools: ['Brakes split as the loads are, or by a fixed share'],
  example: { ...ring, stepM: 4, car: asInput(EXAMPLE_LAP_CAR) },
  input: z.strictObject({ ...trackFields, ...stepField, entryMps: z.number().default(15), car: lapCarSchema }),
  output: z.strictObject({
    lapS: z.number(),
    secondsBy: z.strictObject(Object.fromEntries(LAP_HOLDERS.map((key) => [key, z.number()])) as Record<(typeof LAP_HOLDERS)[number], z.ZodNumber>),
    upshifts: z.number(),
    fastestMps: z.number(),
    slowestMps: z.number(),
    speedMps: z.array(z.number()),
    timeS: z.array(z.number()),
    holder: z.array(z.enum(LAP_HOLDERS)),
    gear: z.array(z.number()),
  }),
  isLong: true,
  run: ({ car, stepM, entryMps, ...track }) => {
    const { lapS, secondsBy, upshifts, fastestMps, slowestMps, speedMps, timeS, holder, gear } = lapOf(track, carOf(car), { stepM, entryMps })
    return {
      value: { lapS, secondsBy, upshifts, fastestMps, slowestMps, speedMps: [...speedMps], timeS: [...timeS], holder: [...holder], gear: [...gear] },
      warnings: closureProblems(track),
    }
  },
})

const calibrateCalculation = defineCalculation({
  name: 'track.calibrate',
  title: 'Grip that drives the lap that was driven',
  formula: 'T(f) = T_driven; with three sectors also the use of the brakes, by least squares',
  sources: SOURCES,
  assumptions: [NOT_IN_IT, 'Never a third factor'],
  validRange: 'Factors of 0.7 to 1.3',
  schools: ['Grip alone, or grip and brakes where sectors were taken'],
  example: { ...ring, stepM: 10, car: asInput(EXAMPLE_LAP_CAR), drivenS: 14.4, drivenSdS: 0.15 },
  input: z.strictObject({
    ...trackFields,
    ...stepField,
    car: lapCarSchema,
    drivenS: z.number(),
    drivenSdS: z.number(),
    sectors: z.strictObject({ marksM: z.array(z.number()).max(40), drivenS: z.array(z.number()).max(41), sdS: z.number() }).optional(),
  }),
  output: z.strictObject({
    gripFactor: z.number(),
    slopeS: z.number(),
    gripFactorSd: z.number(),
    sectors: z
      .strictObject({
        gripFactor: z.number(),
        brakingUse: z.number(),
        gripFactorSd: z.number(),
        brakingUseSd: z.number(),
        leftS: z.array(z.number()),
        odd: z.array(z.number()),
      })
      .nullable(),
  }),
  isLong: true,
  run: ({ car, drivenS, drivenSdS, sectors, stepM, ...track }) => {
    const reference = asReference(carOf(car))
    const fit = fitGrip({ track, car: reference, drivenS, drivenSdS, options: { stepM } })
    const both =
      sectors &&
      fitGripAndBraking({
        track,
        car: { ...reference, gripFactor: fit.gripFactor },
        marksM: sectors.marksM,
        drivenS: sectors.drivenS,
        sectorSdS: sectors.sdS,
        options: { stepM },
      })
    return { value: { ...fit, sectors: both ? { ...both, leftS: [...both.leftS], odd: [...both.odd] } : null } }
  },
})

/** Numbers of a lap car that may be unsure by themselves. */
const UNSURE = [
  'massKg',
  'frontShare',
  'centreHeightM',
  'friction',
  'loadSensitivity',
  'brakingUse',
  'dragAreaM2',
  'downforceFrontM2',
  'downforceRearM2',
  'rollingCoefficient',
  'brakeFrontShare',
] as const

const unsure = z.strictObject({ key: z.enum(UNSURE), sd: z.number().min(0).max(1000), isShared: z.boolean().default(true) })

const toInput = ({ key, sd, isShared }: z.output<typeof unsure>): UnsureLapInput => ({
  key,
  isGuess: false,
  isShared,
  isGrip: key === 'friction',
  moved: (car, spreads) => ({ ...car, [key]: (car[key] ?? 0) + spreads * sd }),
})

const forecastCalculation = defineCalculation({
  name: 'track.forecast',
  title: 'A driven lap carried to another car, with its doubt',
  formula: 'sd² = Σ[∂T_n/∂y − (∂T_n/∂f)(∂T_k/∂y)/(∂T_k/∂f)]² s_y² + (∂T_n/∂f s_f)² + (0.2 (T_n − T_k))²',
  sources: SOURCES,
  assumptions: [NOT_IN_IT, `The model is off by a fifth of the change (${PRACTICE})`, 'Slopes by one spread either side'],
  validRange: 'A change of the same car on the same track and tyre',
  schools: [],
  example: {
    ...ring,
    stepM: 10,
    car: asInput(EXAMPLE_FITTED),
    gripFactorSd: 0.005,
    change: { massKg: -30, powerW: 12_000 },
    inputs: [{ key: 'centreHeightM', sd: 0.047 }],
  },
  input: z.strictObject({
    ...trackFields,
    ...stepField,
    car: lapCarSchema,
    gripFactorSd: z.number().min(0).max(1),
    change: changeSchema,
    inputs: z.array(unsure).max(20).default([]),
    modelShare: z.number().min(0).max(2).default(0.2),
  }),
  output: z.strictObject({
    lapS: z.number(),
    sdS: z.number(),
    beforeS: z.number(),
    fitSdS: z.number(),
    modelSdS: z.number(),
    inputsAloneSdS: z.number(),
    inputsLeftSdS: z.number(),
    doubts: z.array(z.strictObject({ key: z.string(), isGuess: z.boolean(), aloneS: z.number(), leftS: z.number() })),
  }),
  isLong: true,
  run: ({ car, gripFactorSd, change, inputs, modelShare, stepM, ...track }) => {
    const before = asReference(carOf(car))
    const found = forecastLap({
      track,
      before,
      after: changedLapCar(before, change),
      gripFactorSd,
      inputs: inputs.map(toInput),
      modelShare,
      options: { stepM },
    })
    return { value: { ...found, doubts: [...found.doubts] } }
  },
})

const worthCalculation = defineCalculation({
  name: 'track.worth',
  title: 'What a step is worth on a track, and the laps that show it',
  formula: 'ΔT = T(car + step) − T(car); n = 2 ((z_α + z_β) s/ΔT)² π/3',
  sources: [...SOURCES, 'H.10 by ranks'],
  assumptions: [NOT_IN_IT, 'Whole steps of the whole model'],
  validRange: 'As the lap',
  schools: [],
  example: { ...ring, stepM: 10, car: asInput(EXAMPLE_FITTED), lapSdS: 0.25 },
  input: z.strictObject({ ...trackFields, ...stepField, car: lapCarSchema, lapSdS: z.number() }),
  output: z.strictObject({
    rows: z.array(z.strictObject({ key: z.enum(LAP_STEP_KEYS), differenceS: z.number().nullable(), lapsASide: z.number().nullable() })),
  }),
  isLong: true,
  run: ({ car, lapSdS, stepM, ...track }) => ({ value: { rows: [...lapWorth(track, carOf(car), lapSdS, { stepM })] } }),
})

const wishCalculation = defineCalculation({
  name: 'track.wish',
  title: 'What one lever alone would have to become to reach a lap',
  formula: 'T(lever) = T_wanted by halving, up to the bound',
  sources: SOURCES,
  assumptions: [NOT_IN_IT, 'Each lever alone'],
  validRange: 'As the lap; each lever to its bound',
  schools: [],
  example: { ...ring, stepM: 10, car: asInput(EXAMPLE_FITTED), wantedS: 14, levers: [{ lever: 'grip', bound: 1.2 }] },
  input: z.strictObject({
    ...trackFields,
    ...stepField,
    car: lapCarSchema,
    wantedS: z.number(),
    levers: z.array(z.strictObject({ lever: z.enum(LAP_LEVERS), bound: z.number() })).max(LAP_LEVERS.length),
  }),
  output: z.strictObject({
    levers: z.array(z.strictObject({ lever: z.enum(LAP_LEVERS), from: z.number(), to: z.number().nullable(), bound: z.number(), atBoundS: z.number() })),
  }),
  isLong: true,
  run: ({ car, wantedS, levers, stepM, ...track }) => ({
    value: {
      levers: levers.map(({ lever, bound }) => {
        const found = pullLever({ track, car: carOf(car), wantedS, lever, bound: { value: bound, by: 'the bound given' }, options: { stepM } })
        return { ...found, bound }
      }),
    },
  }),
})

export const TRACK_CALCULATIONS = [shapeCalculation, lapCalculation, calibrateCalculation, forecastCalculation, worthCalculation, wishCalculation]
