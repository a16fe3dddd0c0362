import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { z } from '../zod.ts'
import { id, instant, name, note, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { FIRST_SETTING } from './earlier-editions.ts'
import { POWER_PLACES } from './plan-kinds.ts'

export const ambientSchema = z.strictObject({
  pressurePa: z.number().min(40_000).max(120_000),
  pressureKind: z.enum(['station', 'seaLevel']),
  temperatureK: z.number().min(233.15).max(333.15),
  relativeHumidity: z.number().min(0).max(1),
})

/** What the engine ran on at a dyno: its fuel, how its boost was held, and what was set. */
export const settingSchema = z.strictObject({
  /** Within its session. */
  id,
  name: z.string().trim().min(1).max(80),
  fuel: z.string().trim().max(80).nullable().default(null),
  ethanolShare: z.number().min(0).max(1).nullable().default(null),
  /** What the pressure is above: nothing (an engine control with its own sensor), or the air (a spring). */
  boostControl: z.enum(['none', 'absolute', 'gauge']).default('none'),
  boostPa: z.number().nonnegative().max(1e6).nullable().default(null),
  /** Nitrous oxide sprayed on it, by what its maker calls the shot. */
  nitrousShot: z.strictObject({ powerW: z.number().positive().max(1e6), typed }).nullish(),
  /** Changes made for it, one behind the other with a comma, semicolon or line between. */
  wasSet: z.string().trim().max(500).nullable().default(null),
  /** What the engine's computer was set to: launch, blip, warm-up and rev limits by name. */
  computer: z
    .array(z.strictObject({ name: z.string().trim().min(1).max(60), value: z.string().trim().min(1).max(60) }))
    .max(40)
    .optional(),
})
export type DynoSetting = z.output<typeof settingSchema>

const plainSetting: DynoSetting = { id: FIRST_SETTING, name: 'as it ran', fuel: null, ethanolShare: null, boostControl: 'none', boostPa: null, wasSet: null }

const repeated = (values: readonly string[]) => values.find((value, i) => values.indexOf(value) < i)

/** Settings are told apart by id and by name, and none goes that a pull ran on. */
const keepsItsSettings: RecordRule = async (next, { before, live }) => {
  const settings = (next.settings ?? []) as readonly DynoSetting[]
  const twice = repeated(settings.map(({ id }) => id)) ?? repeated(settings.map(({ name }) => name.trim().toLowerCase()))
  if (twice !== undefined) throw new RecordRefusal('settings', `Two settings are called "${twice}". Give each a name of its own.`)
  if (!before) return next
  const known = new Set(settings.map(({ id }) => id))
  const used = [...(await live('pulls', { sessionId: next.id })), ...(await live('standings', { sessionId: next.id }))]
  const gone = used.find(({ settingId }) => typeof settingId === 'string' && !known.has(settingId))
  if (gone) throw new RecordRefusal('settings', 'A pull of this session ran on a setting that is taken away. Give the pull another setting first.')
  return next
}

/** The setting that a record of a session names is one of it. */
const isSettingOfIt: RecordRule = async (next, { live }) => {
  if (typeof next.settingId !== 'string') return next
  const [session] = await live('sessions', { id: next.sessionId })
  if (session && !(session.settings as readonly DynoSetting[]).some(({ id }) => id === next.settingId))
    throw new RecordRefusal('settingId', 'The session has no such setting. Pick one of its settings.')
  return next
}

/** A visit to a dyno. */
export const sessionKind = defineRecord({
  list: 'sessions',
  word: 'a dyno session',
  noun: 'session',
  nameFrom: ['dynoName'],
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has dyno sessions. Move or delete them first.' } } },
  fields: {
    id,
    stageId: id,
    at: instant,
    dynoName: name,
    place: z.enum(POWER_PLACES),
    gear: z.string().trim().max(40).nullable().default(null),
    /** What the printout was corrected to; "none" is observed power. */
    printedStandard: z.enum(STANDARDS),
    ambient: ambientSchema.nullable().default(null),
    /** In the order they were first run. */
    settings: z.array(settingSchema).min(1).max(20).default([plainSetting]),
    /** How power under boost is corrected in this session; null: as the build counts it. */
    boostSchool: z.enum(BOOST_SCHOOLS).nullable().default(null),
    tuneNote: note,
  },
  rules: [keepsItsSettings],
})
export type DynoSession = RecordOfKind<typeof sessionKind>

export const gridCurveSchema = z.strictObject({
  stepRpm: z.number().min(1).max(1000),
  firstSpeedRpm: z.number().min(1).max(30_000),
  powerW: z.array(z.number().min(-1e7).max(1e7)).min(1).max(2000),
})

const besides = z.array(z.number().nullable()).max(2000).optional()
export const alongsideSchema = z.strictObject({ boostPa: besides, lambda: besides, intakeK: besides })

/** One run on a dyno. */
export const pullKind = defineRecord({
  list: 'pulls',
  word: 'a pull',
  nameFrom: ['label'],
  refs: { sessionId: { to: 'sessions', whenGone: 'goesWith' } },
  fields: {
    id,
    sessionId: id,
    /** Which of the session's settings it ran on; null: the first. */
    settingId: id.nullable().default(null),
    position: z.int().nonnegative(),
    label: z.string().max(80),
    peakPowerW: z.number().min(1).max(1e7),
    /** Null where a peak was read aloud without its speed. */
    peakPowerSpeedRpm: z.number().min(1).max(60_000).nullable(),
    peakTorqueNm: z.number().nonnegative().max(1e6).nullable(),
    /** Null for a peak alone, which has no band. */
    curve: gridCurveSchema.nullable(),
    /** Other channels on the same grid, in SI; null where one has a gap. */
    alongside: alongsideSchema.nullable().default(null),
    rowCount: z.int().nonnegative().default(0),
    cutRowCount: z.int().nonnegative().default(0),
    setAside: z.string().trim().min(1).max(300).nullable().default(null),
  },
  rules: [isSettingOfIt],
})
export type Pull = RecordOfKind<typeof pullKind>

const arePullsOfIt: RecordRule = async (next, { live }) => {
  const pulls = await live('pulls', { sessionId: next.sessionId })
  const known = new Set(pulls.map((pull) => pull.id))
  if (!(next.pullIds as readonly string[]).every((pullId) => known.has(pullId)))
    throw new RecordRefusal('pullIds', 'A pull that stands must be one of the session. Pick among its pulls.')
  return next
}

/** The session and the pulls that stand for a stage. */
export const standingKind = defineRecord({
  list: 'standings',
  word: 'which session stands',
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' }, sessionId: { to: 'sessions', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    sessionId: id,
    settingId: id.nullable().default(null),
    pullIds: z.array(id).min(1).max(200),
  },
  rules: [arePullsOfIt, isSettingOfIt],
})
export type Standing = RecordOfKind<typeof standingKind>

export const COLUMN_ROLES = ['speed', 'power', 'torque', 'boost', 'lambda', 'intakeTemperature', 'roadSpeed', 'time', 'pull', 'other'] as const

/** Which column of a dyno's files is what, kept for the next file of that dyno. */
export const dynoMappingKind = defineRecord({
  list: 'dynoMappings',
  word: 'what a dyno’s columns are',
  nameFrom: ['dynoName'],
  onePer: ['dynoName'],
  fields: {
    id,
    dynoName: name,
    columns: z
      .array(z.strictObject({ heading: z.string().max(200), role: z.enum(COLUMN_ROLES), unit: z.string().max(40) }))
      .min(1)
      .max(200),
  },
})
export type DynoMapping = RecordOfKind<typeof dynoMappingKind>

const seconds = z.number().nonnegative().max(86_400)

/** Hours at the dyno, and what they are for. */
export const pullPlanKind = defineRecord({
  list: 'pullPlans',
  word: 'hours at the dyno',
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    bookedS: seconds,
    /** Strapping down, probes and fan, before the first pull. */
    setUpS: seconds,
    /** One pull from rolling to coasted down, and cooling after it. */
    pullS: seconds,
    coolingS: seconds,
    firstPulls: z.int().nonnegative().max(20),
    /** Pulls of the baseline, and of its return. */
    basePulls: z.int().positive().max(20),
    /** Pull to pull spread of this dyno, where it is known. */
    pullSdW: z.number().positive().max(1e5).nullable().default(null),
    changes: z
      .array(z.strictObject({ name, setUpS: seconds, pulls: z.int().positive().max(20) }))
      .max(30)
      .default([]),
    returnsToBase: z.boolean().default(true),
    /** When a pull is broken off. */
    stops: z.strictObject({
      lambdaOver: z.number().min(0.5).max(1.5).nullable().default(null),
      intakeOverK: z.number().min(250).max(450).nullable().default(null),
      coolantOverK: z.number().min(300).max(450).nullable().default(null),
      fuelPressureUnderPa: z.number().positive().max(2e6).nullable().default(null),
      headroomUnder: z.number().min(0).max(0.9).nullable().default(null),
      knock: z.string().trim().max(120).nullable().default(null),
    }),
  },
})
export type PullPlan = RecordOfKind<typeof pullPlanKind>
