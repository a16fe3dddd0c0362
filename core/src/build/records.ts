import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { BALLAST_OBJECTIVES } from '../mass/ballast.ts'
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

const coordinateM = z.number().min(-10).max(10)
/** Rearward of the front axle, left of the middle, above the ground. */
export const placeSchema = z.strictObject({ xM: coordinateM, yM: coordinateM, zM: coordinateM })
const optionalPlace = placeSchema.nullable().default(null)

const axleSuspensionSchema = z.strictObject({
  wheelRateNPerM: z.number().positive().max(2e6),
  tyreRateNPerM: z.number().positive().max(2e6).nullable().default(null),
  /** Spring travel over wheel travel. */
  motionRatio: z.number().positive().max(2),
  /** How far a turn moves the perch. */
  threadPitchM: z.number().positive().max(0.02),
})

export const CROSS_CONVENTIONS = ['rfLr', 'lfRr', 'wedge'] as const
export const GUESS_PAIR_SOURCES = ['build', 'garage'] as const

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
  /** Where the fuel's and the driver's mass sit, to bring corners to the reference. */
  fuelPlace: optionalPlace,
  driverPlace: optionalPlace,
  suspension: z.strictObject({ front: axleSuspensionSchema, rear: axleSuspensionSchema }).nullable().default(null),
  /** Which guesses teach how guesses run: this build's, or those of every build in the garage. */
  guessPairsFrom: z.enum(GUESS_PAIR_SOURCES).default('build'),
  /** Which diagonal is called cross, or the wedge in its place. */
  crossConvention: z.enum(CROSS_CONVENTIONS).default('rfLr'),
}

/** A part of the car as the ledger's @zone names it, with the place that its lines have unless they have one of their own. */
export const zoneFields = { id, name: z.string().trim().min(1).max(60), place: optionalPlace }

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
  /** Where the mass is a difference of two readings of a growing box: the reading after it went in, and its place among them. */
  box: z
    .strictObject({ boxId: id, position: z.int().nonnegative().max(1000), readingKg: z.number().positive().max(5000), readingSdKg: z.number().nonnegative() })
    .nullish(),
})

export const changeFields = {
  id,
  stageId: id,
  kind: z.enum(['off', 'on', 'transfer']),
  name,
  count: z.int().positive().max(1000).default(1),
  zone: z.string().trim().min(1).max(60).nullable().default(null),
  /** Every value the line ever had, per piece; a guess is never overwritten by a measurement. */
  values: z.array(massValueSchema).max(50),
  state: z.enum(['planned', 'done', 'dropped']).default('done'),
  doneAt: instant.nullable().default(null),
  touchesPower: z.boolean().default(false),
  /** The part that a transfer's pieces come from, and the replacement they go to. */
  fromChangeId: id.nullable().default(null),
  toChangeId: id.nullable().default(null),
  boxId: id.nullable().default(null),
  /** Of its own; else that of its zone. */
  place: optionalPlace,
  /** In the build's money, all pieces together. */
  cost: z.number().nonnegative().max(1e8).nullable().default(null),
  hours: z.number().nonnegative().max(1e5).nullable().default(null),
}

/** A box on a scale that grows part by part; the readings stand with the lines that went in. */
export const boxFields = {
  id,
  name,
  instrument: z.string().trim().max(80).nullable().default(null),
  /** One standard deviation of a reading; null: the default of a part on a scale. */
  readingSdKg: spread,
  /** What the scale read before the first part went in. */
  emptyKg: z.number().nonnegative().max(5000),
  typed,
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

const padsSchema = z.strictObject({ LF: padReadingSchema, RF: padReadingSchema, LR: padReadingSchema, RR: padReadingSchema })

export const PLACEMENT_METHODS = ['axlesOnBlocks', 'cornerSwapped', 'otherAxleOnFloor'] as const

/** What has to be the same for two weighings to compare; null where nobody noted it. */
export const conditionsSchema = z.strictObject({
  barsDisconnected: z.boolean().nullable().default(null),
  isLevel: z.boolean().nullable().default(null),
  tyrePressurePa: z.number().positive().max(1e6).nullable().default(null),
  rideHeightFrontM: z.number().positive().max(1).nullable().default(null),
  rideHeightRearM: z.number().positive().max(1).nullable().default(null),
})

export const weighingFields = {
  id,
  stageId: id,
  at: instant,
  pads: padsSchema,
  /** The car put on the pads a second time, because one of them is dead. */
  secondPlacement: z
    .strictObject({
      method: z.enum(PLACEMENT_METHODS),
      pads: padsSchema,
      /** How far a block may stand off the pads' height. */
      blockErrorM: z.number().nonnegative().max(0.1).nullable().default(null),
      /** How much higher the pads stand than the bare floor. */
      padHeightM: z.number().positive().max(0.5).nullable().default(null),
    })
    .nullable()
    .default(null),
  conditions: conditionsSchema.nullable().default(null),
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

/** A reading with one axle lifted, beside a level weighing of the same car. */
export const liftFields = {
  id,
  weighingId: id,
  at: instant,
  lifted: z.enum(['rear', 'front']),
  liftM: z.number().positive().max(2),
  liftSdM: spread,
  rearAxleKg: z.number().positive().max(10_000),
  axleSdKg: spread,
  radiusFrontM: z.number().positive().max(1),
  radiusRearM: z.number().positive().max(1),
  typed,
}

const fourKg = z.strictObject({ LF: partKg, RF: partKg, LR: partKg, RR: partKg })
const turn = z.number().min(-100).max(100)

/** One round of perch turns at the scales: what was read, what was turned, what it read then. */
export const balanceStepFields = {
  id,
  stageId: id,
  at: instant,
  school: z.enum(['heightKept', 'equalTurns', 'byHand']),
  wantedCrossRfLr: z.number().min(0.4).max(0.6),
  before: fourKg,
  turns: z.strictObject({ LF: turn, RF: turn, LR: turn, RR: turn }),
  after: fourKg.nullable().default(null),
  note,
}

/** A place where ballast can be bolted down. */
export const siteFields = {
  id,
  name: z.string().trim().min(1).max(60),
  place: placeSchema,
  limitKg: partKg,
  plates: z
    .array(z.strictObject({ massKg: partKg, count: z.int().positive().max(200) }))
    .min(1)
    .max(10),
}

const wantedShareSchema = z
  .strictObject({
    value: z.number().min(0.2).max(0.8),
    within: z.number().positive().max(0.2).nullable().default(null),
    weight: z.number().positive().max(1000).default(1),
  })
  .nullable()
  .default(null)

/** What ballast shall reach at a stage. */
export const ballastAimFields = {
  id,
  stageId: id,
  /** Weighed as the rules weigh it, with driver. */
  minimumKg: z.number().positive().max(20_000),
  mostOverKg: z.number().nonnegative().max(500).nullable().default(null),
  front: wantedShareSchema,
  left: wantedShareSchema,
  crossRfLr: wantedShareSchema,
  objective: z.enum(BALLAST_OBJECTIVES),
  /** How many times its weight a mount must hold, from the person's rule book. */
  loadFactorG: z.number().positive().max(200).nullable().default(null),
  typed,
}

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const

/** A picture that hangs on a record; its bytes stand beside. */
export const photoFields = {
  id,
  recordId: id,
  name: z.string().trim().min(1).max(200),
  mediaType: z.enum(PHOTO_TYPES),
  byteCount: z.int().positive().max(10_485_760),
}

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
  zones: z.array(z.object(zoneFields)).default([]),
  boxes: z.array(z.object(boxFields)).default([]),
  lifts: z.array(z.object(liftFields)).default([]),
  balanceSteps: z.array(z.object(balanceStepFields)).default([]),
  sites: z.array(z.object(siteFields)).default([]),
  ballastAims: z.array(z.object(ballastAimFields)).default([]),
  photos: z.array(z.object(photoFields)).default([]),
})

/** Pairs of guess and weighing from the other builds of the garage, for a build that learns from them too. */
export const garagePairsSchema = z.array(z.strictObject({ guessKg: z.number().positive(), measuredKg: z.number().positive() })).max(100_000)

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
export type Zone = BuildRecords['zones'][number]
export type Box = BuildRecords['boxes'][number]
export type Lift = BuildRecords['lifts'][number]
export type BalanceStep = BuildRecords['balanceSteps'][number]
export type Site = BuildRecords['sites'][number]
export type BallastAim = BuildRecords['ballastAims'][number]
export type Photo = BuildRecords['photos'][number]
export type Place = z.infer<typeof placeSchema>
export type MassValue = z.infer<typeof massValueSchema>
