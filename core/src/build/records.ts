import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { z } from '../zod.ts'

const id = z.string().min(1).max(64)
const name = z.string().trim().min(1).max(120)
const note = z.string().max(2000).nullable().default(null)
/** What was typed, beside the number it was read as; the database keeps nothing as null. */
const typed = z.string().max(80).nullish()
const instant = z.iso.datetime({ offset: true })
const partKg = z.number().positive().max(5000)
const spread = z.number().nonnegative().nullable().default(null)

export const METRICS = ['massReady', 'wheelPower', 'powerToMass', 'frontShare'] as const
export const DISCIPLINES = ['timeAttack', 'track', 'drift'] as const
export const DRIVEN_AXLES = ['front', 'rear', 'all'] as const
export const POWER_PLACES = ['hub', 'roller', 'engine'] as const

export const buildFields = {
  id,
  name,
  discipline: z.enum(DISCIPLINES),
  className: z.string().trim().max(80).nullable().default(null),
  drivenAxles: z.enum(DRIVEN_AXLES),
  wheelbaseM: z.number().positive().max(10),
  trackFrontM: z.number().positive().max(5),
  trackRearM: z.number().positive().max(5),
  reference: z.strictObject({
    driverKg: z.number().nonnegative().max(300),
    fuelL: z.number().nonnegative().max(500),
    fuelKgPerL: z.number().min(0.5).max(1.2),
  }),
  powerBasis: z.strictObject({ place: z.enum(POWER_PLACES), standard: z.enum(STANDARDS), boostSchool: z.enum(BOOST_SCHOOLS) }),
  /** What the car weighs before any weighing, at the reference condition. */
  baselineMass: z
    .strictObject({ massKg: z.number().positive().max(20_000), sdKg: spread, proof: z.enum(['guess', 'catalogue', 'measured']), typed })
    .nullable()
    .default(null),
}

export const stageFields = {
  id,
  position: z.int().nonnegative().max(99),
  name,
  date: z.iso.date().nullable().default(null),
  note,
}

export const limitFields = {
  id,
  metric: z.enum(METRICS),
  sense: z.enum(['atMost', 'atLeast']),
  value: z.number().positive(),
  source: z.enum(['classRule', 'rating', 'own']),
  /** Null: from the last stage on. */
  fromStageId: id.nullable().default(null),
  typed,
}

export const targetFields = {
  id,
  metric: z.enum(METRICS),
  sense: z.enum(['atMost', 'atLeast', 'between']),
  value: z.number().positive(),
  /** The upper bound of "between", else null. */
  highValue: z.number().positive().nullable().default(null),
  /** Null: due at the last stage. */
  dueStageId: id.nullable().default(null),
  typed,
}

export const massValueSchema = z.strictObject({
  massKg: partKg,
  sdKg: spread,
  proof: z.enum(['guess', 'catalogue', 'measured']),
  typed,
  at: instant,
  /** Which scale; two weighings on one scale do not average out its own error. */
  instrument: z.string().max(80).nullable().default(null),
})

export const changeFields = {
  id,
  stageId: id,
  kind: z.enum(['off', 'on', 'transfer']),
  name,
  count: z.int().positive().max(1000).default(1),
  zone: z.string().trim().min(1).max(60).nullable().default(null),
  /** Every value the line ever had, per piece; a guess is never overwritten by a measurement. */
  values: z.array(massValueSchema).min(1).max(50),
  state: z.enum(['planned', 'done', 'dropped']).default('done'),
  doneAt: instant.nullable().default(null),
  touchesPower: z.boolean().default(false),
  /** The part that a transfer's pieces come from, and the replacement they go to. */
  fromChangeId: id.nullable().default(null),
  toChangeId: id.nullable().default(null),
  boxId: id.nullable().default(null),
}

export const expectationFields = {
  id,
  stageId: id,
  metric: z.literal('wheelPower').default('wheelPower'),
  mode: z.enum(['to', 'by', 'times']),
  /** W for `to` and `by` (which may be negative), a factor for `times`. */
  value: z.number(),
  sd: spread,
  proof: z.enum(['guess', 'catalogue', 'calculated']),
  typed,
}

export const padReadingSchema = z.strictObject({ massKg: z.number().nonnegative().max(5000), sdKg: spread, typed }).nullable()

export const weighingFields = {
  id,
  stageId: id,
  at: instant,
  pads: z.strictObject({ LF: padReadingSchema, RF: padReadingSchema, LR: padReadingSchema, RR: padReadingSchema }),
  /** 0 when the driver was out. */
  driverInKg: z.number().nonnegative().max(300),
  fuelL: z.number().nonnegative().max(500),
  fuelSdL: spread,
  extras: z
    .array(z.strictObject({ name, massKg: partKg, sdKg: spread }))
    .max(50)
    .default([]),
  scales: z.string().trim().max(80).nullable().default(null),
  setAside: z.string().trim().min(1).max(300).nullable().default(null),
  note,
}

export const inCarFields = { id, weighingId: id, changeId: id, inCar: z.boolean() }

export const ambientSchema = z.strictObject({
  pressurePa: z.number().min(40_000).max(120_000),
  pressureKind: z.enum(['station', 'seaLevel']),
  temperatureK: z.number().min(233.15).max(333.15),
  relativeHumidity: z.number().min(0).max(1),
})

export const sessionFields = {
  id,
  stageId: id,
  at: instant,
  dynoName: name,
  place: z.enum(POWER_PLACES),
  gear: z.string().trim().max(40).nullable().default(null),
  /** What the printout was corrected to; "none" is observed power. */
  printedStandard: z.enum(STANDARDS),
  ambient: ambientSchema.nullable().default(null),
  fuel: z.string().trim().max(80).nullable().default(null),
  ethanolShare: z.number().min(0).max(1).nullable().default(null),
  boostControl: z.enum(['none', 'absolute', 'gauge']),
  boostPa: z.number().nonnegative().max(1e6).nullable().default(null),
  tuneNote: note,
}

export const gridCurveSchema = z.strictObject({
  stepRpm: z.number().positive(),
  firstSpeedRpm: z.number().positive(),
  powerW: z.array(z.number()).min(1).max(2000),
})

export const pullFields = {
  id,
  sessionId: id,
  position: z.int().nonnegative(),
  label: z.string().max(80),
  peakPowerW: z.number().positive(),
  peakPowerSpeedRpm: z.number().positive(),
  peakTorqueNm: z.number().nonnegative(),
  curve: gridCurveSchema,
  rowCount: z.int().nonnegative().default(0),
  cutRowCount: z.int().nonnegative().default(0),
  setAside: z.string().trim().min(1).max(300).nullable().default(null),
}

export const standingFields = { id, stageId: id, sessionId: id, pullIds: z.array(id).min(1).max(200) }

/** All records of one build, as the calculations take them; extra keys such as versions are left out before. */
export const buildRecordsSchema = z.object({
  build: z.object(buildFields),
  stages: z.array(z.object(stageFields)).min(1),
  limits: z.array(z.object(limitFields)).default([]),
  targets: z.array(z.object(targetFields)).default([]),
  changes: z.array(z.object(changeFields)).default([]),
  expectations: z.array(z.object(expectationFields)).default([]),
  weighings: z.array(z.object(weighingFields)).default([]),
  inCars: z.array(z.object(inCarFields)).default([]),
  sessions: z.array(z.object(sessionFields)).default([]),
  pulls: z.array(z.object(pullFields)).default([]),
  standings: z.array(z.object(standingFields)).default([]),
})

export type BuildRecords = z.infer<typeof buildRecordsSchema>
export type Metric = (typeof METRICS)[number]
export type BuildRecord = BuildRecords['build']
export type Stage = BuildRecords['stages'][number]
export type Limit = BuildRecords['limits'][number]
export type Target = BuildRecords['targets'][number]
export type Change = BuildRecords['changes'][number]
export type Expectation = BuildRecords['expectations'][number]
export type Weighing = BuildRecords['weighings'][number]
export type DynoSession = BuildRecords['sessions'][number]
export type Pull = BuildRecords['pulls'][number]
export type Standing = BuildRecords['standings'][number]
export type MassValue = z.infer<typeof massValueSchema>
