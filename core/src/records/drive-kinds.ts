import { GEAR_WORDS, requireRatios } from '../drivetrain/drive-car.ts'
import { DRIVE_USES, SHOCK_SCHOOLS } from '../drivetrain/torque-path.ts'
import { tyreSize } from '../drivetrain/tyre.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { id, instant, name, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { KNOWN, knownNumber, type PartDrive } from './drive-schemas.ts'
import { TAPE_METRICS } from './metric-keys.ts'

/** A refusal of a sum as one of a field of the record. */
function refuse(field: string, error: unknown): never {
  if (error instanceof CalculationError) throw new RecordRefusal(field, error.message)
  throw error
}

/** What a part says of the driveline holds together: ratios that fall, a tyre's code that is one. */
export const isDriveline: RecordRule = (next) => {
  const drive = next.drive as PartDrive | null | undefined
  if (drive?.role === 'gearbox')
    try {
      requireRatios(drive.ratios)
    } catch (error) {
      refuse('drive.ratios', error)
    }
  if (drive?.role === 'tyre' && drive.code !== null)
    try {
      tyreSize(drive.code)
    } catch (error) {
      refuse('drive.code', error)
    }
  return next
}

export const SURFACES = ['dry', 'damp', 'wet'] as const
export type Surface = (typeof SURFACES)[number]
export const TIMINGS = ['beacon', 'gps', 'film', 'watch'] as const
export type Timing = (typeof TIMINGS)[number]

/** Metrics that are timed and replace what is worked out. */
export const TIMED_METRICS = ['zeroTo100', 'zeroTo60Mph', 'from100To200', 'sixtyFoot', 'quarterMile', 'quarterMileSpeed', 'topSpeed'] as const
/** Metrics that are read with an instrument: timed, or with a tape and a level. */
export const READ_METRICS = [...TIMED_METRICS, ...TAPE_METRICS] as const

/** What was timed is more than nothing; a reach may be none, a wing may stand under the roof. */
const isReadable: RecordRule = (next) => {
  const value = next.value as number
  if ((TIMED_METRICS as readonly unknown[]).includes(next.metric) && !(value > 0))
    throw new RecordRefusal('value', 'What was timed is more than zero. Check the number.')
  if (next.metric !== 'wingOverRoof' && value < 0)
    throw new RecordRefusal('value', 'A reach inside of the body is read as 0. Only a wing under the roof is read below zero.')
  if (next.metric === 'noise' && !next.atM) throw new RecordRefusal('atM', 'Say how far off it was read, such as noise 98.5 dB at 0.5 m.')
  return next.metric === 'noise' ? next : { ...next, atM: null }
}

/** One metric read with an instrument: a timed start, a speed. */
export const readingKind = defineRecord({
  list: 'readings',
  word: 'a reading',
  nameFrom: ['metric'],
  isBatchable: true,
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has readings. Move or delete them first.' } } },
  rules: [isReadable],
  fields: {
    id,
    stageId: id,
    metric: z.enum(READ_METRICS),
    at: instant,
    value: z.number().min(-1000).max(1000),
    sd: z.number().nonnegative().max(100).nullable().default(null),
    instrument: z.string().trim().max(80).nullable().default(null),
    timing: z.enum(TIMINGS).nullable().default(null),
    surface: z.enum(SURFACES).default('dry'),
    /** How far off noise was read. */
    atM: z.number().positive().max(200).nullish(),
    /** How far the car rolled before the clock began. */
    rollOutM: z.number().min(0).max(1).default(0),
    /** Why it counts nowhere; null: it counts. */
    setAside: z.string().trim().max(200).nullable().default(null),
    typed,
  },
})
export type Reading = RecordOfKind<typeof readingKind>

/** What is chosen for a stage and not bolted to the car; a null field takes the stage before's, at last the default. */
export const driveSettingKind = defineRecord({
  list: 'driveSettings',
  word: 'settings of the drivetrain',
  noun: 'drivetrain setting',
  isBatchable: true,
  nameFrom: ['stageId'],
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    topRpm: z.number().min(500).max(25_000).nullable().default(null),
    launchRpm: z.number().min(300).max(20_000).nullable().default(null),
    /** Of a quick change: which pair is in, and which way round. */
    pair: z
      .strictObject({ first: z.int().min(1).max(200), second: z.int().min(1).max(200) })
      .nullable()
      .default(null),
    use: z.enum(DRIVE_USES).nullable().default(null),
    shockFactor: z.number().min(1).max(5).nullable().default(null),
    shockSchool: z.enum(SHOCK_SCHOOLS).nullable().default(null),
    reserveWanted: z.number().min(0).max(1).nullable().default(null),
    engineInertiaKgM2: knownNumber(0, 5),
    gripUse: knownNumber(0.2, 1.2),
    frontSlipRad: knownNumber(0, 0.5),
    clutchHolding: knownNumber(0.5, 3),
    centreHeightM: knownNumber(0.1, 1.2),
    dragAreaM2: knownNumber(0.05, 5),
    rollingCoefficient: knownNumber(0, 0.1),
  },
})
export type DriveSetting = RecordOfKind<typeof driveSettingKind>

const cornersHoldTogether: RecordRule = (next) => {
  const corners = next.corners as readonly { name: string; speedMps?: number | null; radiusM?: number | null }[]
  corners.forEach((corner, i) => {
    if ((corner.speedMps ?? null) === null && (corner.radiusM ?? null) === null)
      throw new RecordRefusal(`corners.${i}`, `${corner.name} has neither a speed nor a radius. Type one of them.`)
  })
  return next
}

/** Corners of a place, for gears and slides; a drawn track is another thing. */
export const courseKind = defineRecord({
  list: 'courses',
  word: 'a course',
  nameFrom: ['name'],
  onePer: ['name'],
  rules: [cornersHoldTogether],
  fields: {
    id,
    name,
    isShared: z.boolean().default(false),
    /** The last straight leads to the first corner. */
    isClosed: z.boolean().default(true),
    brakingMps2: z.number().min(2).max(30).default(9),
    corners: z
      .array(
        z.strictObject({
          name: z.string().trim().min(1).max(60),
          speedMps: z.number().min(1).max(120).nullable().default(null),
          sd: z.number().min(0).max(30).nullable().default(null),
          known: z.enum(KNOWN).default('guess'),
          radiusM: z.number().min(5).max(500).nullable().default(null),
          slideAngleRad: z.number().min(0.03).max(1.4).nullable().default(null),
          /** After it. */
          straightM: z.number().positive().max(20_000).nullable().default(null),
        }),
      )
      .min(1)
      .max(60),
  },
})
export type Course = RecordOfKind<typeof courseKind>

/** What a gear is called in a sentence. @example gearWord(3) // 'third' */
export const gearWord = (gear: number): string => GEAR_WORDS[gear - 1] ?? `gear ${gear}`
