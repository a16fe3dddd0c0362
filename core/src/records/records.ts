import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { LOSS_SCHOOLS } from '../dyno/wheel-to-crank.ts'
import { z } from '../zod.ts'
import { id, instant, name, note, optionalPlace, partKg, type placeSchema, spread, typed } from './common-fields.ts'
import { enginePlanFields } from './engine-plan-fields.ts'
import { partFields, partUseFields } from './part-fields.ts'
import { dynoMappingFields, expectationFields, POWER_PLACES, pullFields, pullPlanFields, sessionFields, standingFields } from './power-fields.ts'
import { balanceStepFields, ballastAimFields, boxFields, inCarFields, liftFields, siteFields, weighingFields } from './weighing-fields.ts'

export const METRICS = ['massReady', 'wheelPower', 'peakTorque', 'powerToMass', 'frontShare'] as const
export const DISCIPLINES = ['timeAttack', 'track', 'drift'] as const
export const DRIVEN_AXLES = ['front', 'rear', 'all'] as const

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
  /** How crank power is reckoned from wheel power, with the numbers of each school that are known; null: a usual one, and it says so. */
  drivelineLoss: z
    .strictObject({
      school: z.enum(LOSS_SCHOOLS),
      lossShare: z.number().min(0).lt(0.5).nullable().default(null),
      fixedLossW: z.number().nonnegative().max(2e5).nullable().default(null),
      proportionalShare: z.number().min(0).lt(0.5).nullable().default(null),
      coastDownLossW: z.number().nonnegative().max(5e5).nullable().default(null),
    })
    .nullable()
    .default(null),
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

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const

/** A picture that hangs on a record; its bytes stand beside. */
export const photoFields = {
  id,
  recordId: id,
  name: z.string().trim().min(1).max(200),
  mediaType: z.enum(PHOTO_TYPES),
  byteCount: z.int().positive().max(10_485_760),
}

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
  parts: z.array(z.object(partFields)).default([]),
  partUses: z.array(z.object(partUseFields)).default([]),
  enginePlans: z.array(z.object(enginePlanFields)).default([]),
  pullPlans: z.array(z.object(pullPlanFields)).default([]),
  dynoMappings: z.array(z.object(dynoMappingFields)).default([]),
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
export type Part = BuildRecords['parts'][number]
export type PartUse = BuildRecords['partUses'][number]
export type EnginePlan = BuildRecords['enginePlans'][number]
export type PullPlan = BuildRecords['pullPlans'][number]
export type DynoMapping = BuildRecords['dynoMappings'][number]
export type Place = z.infer<typeof placeSchema>
export type MassValue = z.infer<typeof massValueSchema>
