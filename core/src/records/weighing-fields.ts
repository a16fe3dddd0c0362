import { BALLAST_OBJECTIVES } from '../mass/ballast-types.ts'
import { z } from '../zod.ts'
import { id, instant, name, note, partKg, placeSchema, spread, typed } from './common-fields.ts'

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
