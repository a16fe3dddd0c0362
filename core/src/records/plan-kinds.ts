import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { LOSS_SCHOOLS } from '../dyno/wheel-to-crank.ts'
import { z } from '../zod.ts'
import { aeroOfBuildFields, outlineSchema } from './aero-schemas.ts'
import { day, id, name, note, optionalPlace, spread, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { lapBasisSchema } from './lap-basis.ts'
import { EXPECTED, EXPECTED_METRICS, type ExpectedMetric, METRIC_GOALS, METRICS, type Metric, TAPE_METRICS, whyNoGoal } from './metric-keys.ts'
import { spaceSchema, supplySchema } from './supply-and-space.ts'

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

/** What a build counts power in: one standard, or what each printout says. */
export const BASIS_STANDARDS = [...STANDARDS, 'asPrinted'] as const
export const POWER_PLACES = ['hub', 'roller', 'engine'] as const
export const CROSS_CONVENTIONS = ['rfLr', 'lfRr', 'wedge'] as const
export const GUESS_PAIR_SOURCES = ['build', 'garage'] as const

const geometryFields = {
  wheelbaseM: z.number().min(1).max(5),
  trackFrontM: z.number().min(0.5).max(3),
  trackRearM: z.number().min(0.5).max(3),
}

/** Where the wheels stand. */
export const geometrySchema = z.strictObject(geometryFields)
export type Geometry = z.output<typeof geometrySchema>

/** The driver that a weighing or a goal names, of those of the build; null: the reference driver. */
export const driverName = z.string().trim().min(1).max(60).nullish()

/** The track that a goal of laps is of; null: the build's control track. */
const trackId = id.nullish()

export const buildFields = {
  id,
  name,
  discipline: z.enum(DISCIPLINES),
  className: z.string().trim().max(80).nullable().default(null),
  drivenAxles: z.enum(DRIVEN_AXLES),
  ...geometryFields,
  reference: z.strictObject({
    driverKg: z.number().nonnegative().max(300),
    fuelL: z.number().nonnegative().max(500),
    fuelKgPerL: z.number().min(0.5).max(1.2),
    /** Nitrous oxide in its bottle, where the car carries one. */
    nitrousKg: z.number().nonnegative().max(50).nullish(),
  }),
  powerBasis: z.strictObject({ place: z.enum(POWER_PLACES), standard: z.enum(BASIS_STANDARDS), boostSchool: z.enum(BOOST_SCHOOLS) }),
  /** People who drive it, with what they weigh in their gear, and their seat and belts where these differ. */
  drivers: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(60),
        massKg: z.number().positive().max(300),
        seat: z.string().trim().max(120).nullable().default(null),
        belts: z.string().trim().max(120).nullable().default(null),
      }),
    )
    .max(20)
    .refine((list) => new Set(list.map(({ name }) => name.toLowerCase())).size === list.length, 'names one driver twice. Give each a name of its own.')
    .default([]),
  /** What the car weighs before any weighing. */
  baselineMass: z
    .strictObject({
      massKg: z.number().min(1).max(20_000),
      sdKg: spread,
      proof: z.enum(['guess', 'catalogue', 'measured']),
      typed,
      /** Whether the reference driver and fuel are in it. */
      hasDriver: z.boolean().default(true),
      hasFuel: z.boolean().default(true),
    })
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
  /** The air of every planned number. */
  airDensityKgM3: z.number().min(0.6).max(1.5).default(1.2),
  /** How yardsticks are clocked, what surfaces leave of grip, and the course of the Board. */
  driveBasis: z
    .strictObject({
      rollOutM: z.number().min(0).max(1).default(0),
      dampShare: z.number().min(0.1).max(1).default(0.7),
      wetShare: z.number().min(0.1).max(1).default(0.55),
      courseId: id.nullable().default(null),
    })
    .nullable()
    .default(null),
  ...aeroOfBuildFields,
  lapBasis: lapBasisSchema,
  /** What the build is counted in, what it may cost, and what an hour is worth. */
  money: z
    .strictObject({
      currency: z.string().trim().min(1).max(8),
      budget: z.number().positive().max(1e9).nullable().default(null),
      hourWorth: z.number().nonnegative().max(1e5).nullable().default(null),
    })
    .nullish(),
  /** When an evening's work and a day at the weekend begin. */
  sessionStartH: z.strictObject({ weekday: z.number().min(0).max(23), weekend: z.number().min(0).max(23) }).nullish(),
  /** Alternator and battery. */
  supply: supplySchema.nullish(),
  /** Spaces that parts are held against before they are ordered. */
  spaces: z
    .array(spaceSchema)
    .max(60)
    .refine((list) => new Set(list.map(({ name: own }) => own.toLowerCase())).size === list.length, 'names one space twice. Give each a name of its own.')
    .default([]),
}

export type BuildRecord = z.output<z.ZodObject<typeof buildFields>>

const keepsFirstPlace: RecordRule = (next, { before }) => {
  if (before?.position === 0 && next.position !== 0) throw new RecordRefusal('position', 'Stage 0 is the car as bought and stays first.')
  if (before && next.position !== before.position) throw new RecordRefusal('position', 'Stages change places through the stage order.')
  if (!before && next.position === 0) throw new RecordRefusal('position', 'Stage 0 is made with the build. Give the next free place.')
  return next
}

export const stageKind = defineRecord({
  list: 'stages',
  word: 'a stage',
  nameFrom: ['name'],
  refs: { ruleBookId: { to: 'ruleBooks', whenGone: 'forgets' } },
  fields: {
    id,
    position: z.int().nonnegative().max(99),
    name,
    date: day.nullable().default(null),
    /** Where the wheels stand from this stage on; null: as at the stage before, at last as the build says. */
    geometry: geometrySchema.nullish(),
    /** The car by a tape from this stage on; null: as at the stage before, at last as the build says. */
    outline: outlineSchema.nullish(),
    /** The rules it races by; null: as at the stage before. */
    ruleBookId: id.nullish(),
    note,
  },
  rules: [keepsFirstPlace],
  neverGoes: ({ position }) => (position === 0 ? 'Stage 0 is the car as bought and cannot be deleted.' : null),
  mostInFile: 100,
})
export type Stage = RecordOfKind<typeof stageKind>

const isReachable: RecordRule = (next) => {
  const isBetween = next.sense === 'between'
  const [value, highValue] = [next.value as number, next.highValue as number | null | undefined]
  if (isBetween && !(typeof highValue === 'number' && highValue > value)) {
    throw new RecordRefusal('highValue', 'A range needs an upper value above the lower one.')
  }
  const why = whyNoGoal(METRIC_GOALS[next.metric as Metric], value)
  if (why) throw new RecordRefusal('value', why)
  return isBetween || !('highValue' in next) ? next : { ...next, highValue: null }
}

/** Only what the driver sits in hangs on who drives. */
const namesDriverOfMass: RecordRule = (next) => {
  if (next.driverName && next.metric !== 'massReady')
    throw new RecordRefusal('driverName', 'Only a goal of mass can name its driver. Leave the driver out, or set the goal on mass.')
  return next
}

/** A lap is of a track: of the only one where there is one, else of the build's control track until one is named. */
const isOfATrack: RecordRule = async (next, { live }) => {
  if (next.metric !== 'lapTime') {
    if (next.trackId) throw new RecordRefusal('trackId', 'Only a goal of laps is of a track. Leave the track out, or set the goal on the lap.')
    return next
  }
  if (next.trackId) return next
  const [only, another] = await live('tracks', {})
  return only && !another ? { ...next, trackId: only.id } : next
}

/** What a rule book asks of bodywork is held, not aimed at. */
const isAimedAt: RecordRule = (next) => {
  if ((TAPE_METRICS as readonly unknown[]).includes(next.metric))
    throw new RecordRefusal('metric', 'What a rule book asks of bodywork and noise is a limit. Set it as a limit of the class.')
  return next
}

/** A limit ends no earlier than it begins. */
const runsForward: RecordRule = async (next, { live }) => {
  const [until] = next.untilStageId ? await live('stages', { id: next.untilStageId }) : []
  if (!until) return next
  const [from] = next.fromStageId ? await live('stages', { id: next.fromStageId }) : []
  if (!from) throw new RecordRefusal('fromStageId', 'A limit that ends needs a stage it holds from. Pick the first stage it holds for.')
  if ((until.position as number) < (from.position as number))
    throw new RecordRefusal('untilStageId', 'This limit would end before it begins. Pick the same stage or a later one.')
  return next
}

export const limitKind = defineRecord({
  list: 'limits',
  word: 'a limit',
  nameFrom: ['metric'],
  refs: {
    fromStageId: { to: 'stages', whenGone: { keepsIt: 'A limit holds from this stage on. Give it another stage first.' } },
    untilStageId: { to: 'stages', whenGone: { keepsIt: 'A limit holds until this stage. Give it another stage first.' } },
    trackId: { to: 'tracks', whenGone: { keepsIt: 'A limit is set on laps of this track. Delete it or give it another track first.' } },
  },
  fields: {
    id,
    metric: z.enum(METRICS),
    sense: z.enum(['atMost', 'atLeast']),
    value: z.number(),
    source: z.enum(['classRule', 'rating', 'own']),
    /** Null: from the last stage on. */
    fromStageId: id.nullable().default(null),
    /** The last stage it holds for; null: to the end. */
    untilStageId: id.nullable().default(null),
    trackId,
    driverName,
    typed,
  },
  rules: [isReachable, namesDriverOfMass, isOfATrack, runsForward],
})
export type Limit = RecordOfKind<typeof limitKind>

export const targetKind = defineRecord({
  list: 'targets',
  word: 'a target',
  nameFrom: ['metric'],
  onePer: ['metric', 'dueStageId', 'trackId'],
  refs: {
    dueStageId: { to: 'stages', whenGone: { keepsIt: 'A target is due at this stage. Give it another due stage first.' } },
    trackId: { to: 'tracks', whenGone: { keepsIt: 'A target is set on laps of this track. Delete it or give it another track first.' } },
  },
  fields: {
    id,
    metric: z.enum(METRICS),
    sense: z.enum(['atMost', 'atLeast', 'between']),
    value: z.number(),
    /** The upper bound of "between", else null. */
    highValue: z.number().nullable().default(null),
    /** Null: due at the last stage. */
    dueStageId: id.nullable().default(null),
    trackId,
    driverName,
    typed,
  },
  rules: [isAimedAt, isReachable, namesDriverOfMass, isOfATrack],
})
export type Target = RecordOfKind<typeof targetKind>

const MODE_WORDS = { to: 'to reach a value', by: 'to change by so much', times: 'to be multiplied' } as const

/** Each is expected in its own way, and comes to more than nothing. */
const isExpectable: RecordRule = (next) => {
  const { word, modes } = EXPECTED[next.metric as ExpectedMetric]
  if (!(modes as readonly unknown[]).includes(next.mode))
    throw new RecordRefusal('mode', `Of the ${word} it is said ${modes.map((mode) => MODE_WORDS[mode]).join(' or ')}. Pick that.`)
  if (next.mode !== 'by' && !((next.value as number) > 0)) throw new RecordRefusal('value', `The expected ${word} or factor must be more than zero.`)
  if (next.metric === 'brakingUse' && (next.value as number) > 1) throw new RecordRefusal('value', 'No more than all of the brakes is used: type up to 100 %.')
  return next
}

/** Of one line or of one wished part, not of both. */
const isOfOneThing: RecordRule = (next) => {
  if (next.changeId && next.partId) throw new RecordRefusal('changeId', 'An expectation is of a line or of a wished part. Leave one of them out.')
  return next
}

/** What a stage should give where no ledger can sum it. */
export const expectationKind = defineRecord({
  list: 'expectations',
  word: 'an expectation',
  nameFrom: ['metric'],
  refs: {
    stageId: { to: 'stages', whenGone: 'goesWith' },
    partId: { to: 'parts', whenGone: 'goesWith' },
    changeId: { to: 'changes', whenGone: 'goesWith' },
  },
  fields: {
    id,
    stageId: id,
    /** The one line that gives it: it counts where that line stands. Null: the stage as a whole, or a wished part. */
    changeId: id.nullish(),
    /** The wished part that gives it: it counts for the part's worth, and at no stage. Null: the stage gives it. */
    partId: id.nullable().default(null),
    metric: z.enum(EXPECTED_METRICS).default('wheelPower'),
    mode: z.enum(['to', 'by', 'times']),
    /** In the unit of the metric's kind for `to` and `by` (which may be negative), a factor for `times`. */
    value: z.number(),
    sd: spread,
    proof: z.enum(['guess', 'catalogue', 'calculated']),
    typed,
  },
  rules: [isExpectable, isOfOneThing],
})
export type Expectation = RecordOfKind<typeof expectationKind>
