import { BOOST_SCHOOLS, STANDARDS } from '../dyno/correction.ts'
import { z } from '../zod.ts'
import { id, instant, name, note, spread, typed } from './common-fields.ts'

export const POWER_PLACES = ['hub', 'roller', 'engine'] as const

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
  /** How power under boost is corrected in this session; null: as the build counts it. */
  boostSchool: z.enum(BOOST_SCHOOLS).nullable().default(null),
  tuneNote: note,
}

export const gridCurveSchema = z.strictObject({
  stepRpm: z.number().positive(),
  firstSpeedRpm: z.number().positive(),
  powerW: z.array(z.number()).min(1).max(2000),
})

const besides = z.array(z.number().nullable()).max(2000).optional()
export const alongsideSchema = z.strictObject({ boostPa: besides, lambda: besides, intakeK: besides })

export const pullFields = {
  id,
  sessionId: id,
  position: z.int().nonnegative(),
  label: z.string().max(80),
  peakPowerW: z.number().positive(),
  peakPowerSpeedRpm: z.number().positive(),
  peakTorqueNm: z.number().nonnegative(),
  curve: gridCurveSchema,
  /** Other channels on the same grid, in SI; null where one has a gap. */
  alongside: alongsideSchema.nullable().default(null),
  rowCount: z.int().nonnegative().default(0),
  cutRowCount: z.int().nonnegative().default(0),
  setAside: z.string().trim().min(1).max(300).nullable().default(null),
}

export const standingFields = { id, stageId: id, sessionId: id, pullIds: z.array(id).min(1).max(200) }

export const COLUMN_ROLES = ['speed', 'power', 'torque', 'boost', 'lambda', 'intakeTemperature', 'roadSpeed', 'time', 'pull', 'other'] as const

/** Which column of a dyno's files is what, kept for the next file of that dyno. */
export const dynoMappingFields = {
  id,
  dynoName: name,
  columns: z
    .array(z.strictObject({ heading: z.string().max(200), role: z.enum(COLUMN_ROLES), unit: z.string().max(40) }))
    .min(1)
    .max(200),
}

const seconds = z.number().nonnegative().max(86_400)

/** Hours at the dyno, and what they are for. */
export const pullPlanFields = {
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
}
