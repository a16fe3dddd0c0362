import { BALLAST_OBJECTIVES } from '../mass/ballast-types.ts'
import { z } from '../zod.ts'
import { id, instant, note, partKg, placeSchema, spread, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind } from './define-record.ts'

/** A reading with one axle lifted, beside a level weighing of the same car. */
export const liftKind = defineRecord({
  list: 'lifts',
  word: 'a lifted reading',
  nameFrom: ['at'],
  refs: { weighingId: { to: 'weighings', whenGone: { keepsIt: 'Lifted readings rest on this weighing. Delete those first.' } } },
  fields: {
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
  },
})
export type Lift = RecordOfKind<typeof liftKind>

const fourKg = z.strictObject({ LF: partKg, RF: partKg, LR: partKg, RR: partKg })
const turn = z.number().min(-100).max(100)

/** One round of perch turns at the scales: what was read, what was turned, what it read then. */
export const balanceStepKind = defineRecord({
  list: 'balanceSteps',
  word: 'a round of turns',
  nameFrom: ['at'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    at: instant,
    school: z.enum(['heightKept', 'equalTurns', 'byHand']),
    wantedCrossRfLr: z.number().min(0.4).max(0.6),
    before: fourKg,
    turns: z.strictObject({ LF: turn, RF: turn, LR: turn, RR: turn }),
    after: fourKg.nullable().default(null),
    note,
  },
})
export type BalanceStep = RecordOfKind<typeof balanceStepKind>

/** A place where ballast can be bolted down. */
export const siteKind = defineRecord({
  list: 'sites',
  word: 'a place for ballast',
  nameFrom: ['name'],
  isBatchable: true,
  fields: {
    id,
    name: z.string().trim().min(1).max(60),
    place: placeSchema,
    limitKg: partKg,
    plates: z
      .array(z.strictObject({ massKg: partKg, count: z.int().positive().max(200) }))
      .min(1)
      .max(10),
  },
})
export type Site = RecordOfKind<typeof siteKind>

const wantedShareSchema = z
  .strictObject({
    value: z.number().min(0.2).max(0.8),
    within: z.number().positive().max(0.2).nullable().default(null),
    weight: z.number().positive().max(1000).default(1),
  })
  .nullable()
  .default(null)

/** What ballast shall reach at a stage. */
export const ballastAimKind = defineRecord({
  list: 'ballastAims',
  word: 'what ballast shall reach',
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
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
  },
})
export type BallastAim = RecordOfKind<typeof ballastAimKind>
