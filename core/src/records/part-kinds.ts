import type { RatingKind } from '../engine/rating-chain.ts'
import { CalculationError } from '../errors.ts'
import { type TakeOffPart, takeOffPlan } from '../jobs/take-off.ts'
import type { QuantityKind } from '../units/units.ts'
import { z } from '../zod.ts'
import { day, id, instant, name, note, optionalPlace, partKg, spread, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { isDriveline } from './drive-kinds.ts'
import { partDriveSchema } from './drive-schemas.ts'

/** What a rating can be about: in words, in which unit it is shown, and which kind of rating it is. */
export const RATING_SUBJECTS = {
  wheelPower: { word: 'power at the wheels', kind: 'power', rating: 'power' },
  crankPower: { word: 'power at the crank', kind: 'power', rating: 'power' },
  crankTorque: { word: 'torque at the crank', kind: 'torque', rating: 'torque' },
  gearboxTorque: { word: 'torque into the gearbox', kind: 'torque', rating: 'torque' },
  axleTorque: { word: 'torque of both axle shafts', kind: 'torque', rating: 'torque' },
  propTorque: { word: 'torque of the prop shaft', kind: 'torque', rating: 'torque' },
  wheelTorque: { word: 'torque at one wheel', kind: 'torque', rating: 'torque' },
  airFlow: { word: 'air flow', kind: 'massFlow', rating: 'airFlow' },
  fuelFlow: { word: 'fuel flow', kind: 'volumeFlow', rating: 'fuelFlow' },
  engineSpeed: { word: 'engine speed', kind: 'engineSpeed', rating: 'speed' },
  boost: { word: 'boost above the air', kind: 'pressure', rating: 'pressure' },
  fuelPressure: { word: 'fuel pressure above the air', kind: 'pressure', rating: 'pressure' },
  outletTemperature: { word: 'air out of the compressor', kind: 'temperature', rating: 'temperature' },
  chargeTemperature: { word: 'charge into the engine', kind: 'temperature', rating: 'temperature' },
  pumpCurrent: { word: 'current of the fuel pumps', kind: 'current', rating: 'current' },
  injectorDuty: { word: 'injector duty', kind: 'share', rating: 'duty' },
} as const satisfies Record<string, { word: string; kind: QuantityKind; rating: RatingKind }>

export type RatingSubject = keyof typeof RATING_SUBJECTS
export const RATING_SUBJECT_NAMES = Object.keys(RATING_SUBJECTS) as [RatingSubject, ...RatingSubject[]]

export const PART_STATUSES = ['wanted', 'ordered', 'here', 'fitted', 'wornOut'] as const
/** What a part does for the engine's fuel. Feed pumps carry the rail, a lift pump fills their pot, a spare one runs when another has failed. */
export const FUEL_ROLES = ['injectors', 'feedPump', 'liftPump', 'sparePump'] as const
export type FuelRole = (typeof FUEL_ROLES)[number]
export const LIFE_UNITS = ['hours', 'days', 'events', 'laps', 'runs'] as const
export type LifeUnit = (typeof LIFE_UNITS)[number]

const money = z.number().nonnegative().max(1e8).nullable().default(null)

export const partRatingSchema = z.strictObject({
  of: z.enum(RATING_SUBJECT_NAMES),
  limit: z.number().positive().max(1e9),
  /** Each piece carries so much, and all of them together the sum. */
  isEach: z.boolean().default(false),
  known: z.enum(['guess', 'catalogue', 'measured']),
  /** The ethanol share of the fuel it holds for, by volume; null: it does not depend on the fuel. */
  ethanolShare: z.number().min(0).max(1).nullable().default(null),
  typed,
})

const isWithinItsMeasure: RecordRule = (next) => {
  for (const [i, { of, limit }] of (next.ratings as readonly { of: string; limit: number }[]).entries())
    if (of === 'injectorDuty' && limit > 1) throw new RecordRefusal(`ratings.${i}.limit`, 'A duty is a share of the time: 100 % at most.')
  return next
}

/** Its days move its status: ordered, here, fitted. */
const isAsFarAsItsDays: RecordRule = (next) => {
  const { orderedOn, cameOn, fittedOn, status } = next as { orderedOn?: string; cameOn?: string; fittedOn?: string; status: string }
  if (orderedOn && cameOn && cameOn < orderedOn) throw new RecordRefusal('cameOn', 'It came before it was ordered. One date is wrong.')
  const least = fittedOn ? 'fitted' : cameOn ? 'here' : orderedOn ? 'ordered' : 'wanted'
  const isBehind = PART_STATUSES.indexOf(status as 'here') < PART_STATUSES.indexOf(least)
  return isBehind ? { ...next, status: least } : next
}

/** What has to come off before what: no ring. */
const standsBehindNoRing: RecordRule = async (next, { live }) => {
  const behind = (next.takeOff as { behindIds?: readonly string[] } | null | undefined)?.behindIds ?? []
  if (behind.length === 0) return next
  const others = (await live('parts', {})).filter(({ id: other }) => other !== next.id)
  try {
    takeOffPlan([...others, next] as unknown as TakeOffPart[], next.id as string)
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    throw new RecordRefusal('takeOff', error.message)
  }
  return next
}

/** A part that is thought about, bought, fitted or worn out, with what it can take. */
export const partKind = defineRecord({
  list: 'parts',
  word: 'a part',
  nameFrom: ['name'],
  isBatchable: true,
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has parts. Move or delete them first.' } } },
  fields: {
    id,
    /** What it does: "injectors". Parts of one kind are compared, and one replaces the other. */
    kind: z.string().trim().min(1).max(60),
    name,
    count: z.int().positive().max(1000).default(1),
    /** Of one piece. */
    mass: z
      .strictObject({ massKg: partKg, sdKg: spread, proof: z.enum(['guess', 'catalogue', 'measured']), typed })
      .nullable()
      .default(null),
    place: optionalPlace,
    /** All pieces together. */
    cost: money,
    ratings: z.array(partRatingSchema).max(20).default([]),
    /** Null: as the words of its kind say. */
    fuelRole: z.enum(FUEL_ROLES).nullable().default(null),
    life: z
      .strictObject({ amount: z.number().positive().max(1e6), unit: z.enum(LIFE_UNITS) })
      .nullable()
      .default(null),
    /** What has to be bought with it. */
    extras: z
      .array(z.strictObject({ name, massKg: partKg.nullable().default(null), cost: money }))
      .max(30)
      .default([]),
    pros: note,
    cons: note,
    status: z.enum(PART_STATUSES).default('wanted'),
    /** What it does in the driveline; null: nothing. */
    drive: partDriveSchema.nullish(),
    /** The day it went in; null: when its line was done, else with its stage. */
    fittedOn: day.nullish(),
    orderedOn: day.nullish(),
    promisedOn: day.nullish(),
    cameOn: day.nullish(),
    /** Days from order to arrival, as guessed or said by whoever sells it. */
    leadDays: z.int().min(0).max(400).nullish(),
    /** What was paid for all pieces together. */
    paid: z.number().nonnegative().max(1e8).nullish(),
    /** How its cost is known. */
    costKnown: z.enum(['guess', 'catalogue']).nullish(),
    /** What it takes to have it off and on again. */
    takeOff: z
      .strictObject({
        minutes: z.number().positive().max(10_000).nullable().default(null),
        people: z.int().min(1).max(20).default(1),
        /** Parts that have to come off before it. */
        behindIds: z.array(id).max(30).default([]),
        tools: z.string().trim().max(300).nullable().default(null),
        /** Fixings that are used up. */
        fixings: z.string().trim().max(300).nullable().default(null),
      })
      .nullish(),
    /** Its outer sizes, with all that sticks out. */
    outer: z.strictObject({ lengthM: z.number().min(0.001).max(10), widthM: z.number().min(0.001).max(10), heightM: z.number().min(0.001).max(10) }).nullish(),
    serial: z.string().trim().max(80).nullable().default(null),
    /** Where it is fitted, or is to be. */
    stageId: id.nullable().default(null),
    /** On the shelf that every build of the garage sees. */
    isShared: z.boolean().default(false),
  },
  rules: [isWithinItsMeasure, isDriveline, isAsFarAsItsDays, standsBehindNoRing],
})
export type Part = RecordOfKind<typeof partKind>

export const USE_KINDS = ['use', 'pulled', 'refitted', 'rebuilt', 'wornOut'] as const
/** What happened to a part: it ran, came out, went in again, was made as new, or was done with. */
export type UseKind = (typeof USE_KINDS)[number]

const isOfAPartThatWears: RecordRule = async (next, { live }) => {
  if (next.kind === 'use' && !((next.amount as number) > 0)) throw new RecordRefusal('amount', 'Say how much it ran; nothing is no use of it.')
  const [part] = await live('parts', { id: next.partId })
  if (next.kind === 'use' && part && !part.life)
    throw new RecordRefusal('partId', 'Nobody has said how long this part lives. Give its life first, in hours, days or events.')
  return next
}

/** Use of a part, in the unit of its life. */
export const partUseKind = defineRecord({
  list: 'partUses',
  word: 'the use of a part',
  nameFrom: ['at'],
  isBatchable: true,
  refs: {
    partId: { to: 'parts', whenGone: 'goesWith' },
    sessionId: { to: 'sessions', whenGone: 'forgets' },
    trackSessionId: { to: 'trackSessions', whenGone: 'forgets' },
  },
  fields: {
    id,
    partId: id,
    /** The dyno session it was used in, where it was one. */
    sessionId: id.nullable().default(null),
    /** The session on track it was used in, where it was one. */
    trackSessionId: id.nullish(),
    at: instant,
    kind: z.enum(USE_KINDS).default('use'),
    /** In the unit of its life; of a pull or a rebuild the hours it took. */
    amount: z.number().nonnegative().max(1e5),
    note,
  },
  rules: [isOfAPartThatWears],
})
export type PartUse = RecordOfKind<typeof partUseKind>
