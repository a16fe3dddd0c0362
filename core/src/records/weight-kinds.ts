import { z } from '../zod.ts'
import { id, instant, name, note, optionalPlace, partKg, spread, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { driverName } from './plan-kinds.ts'

export const massValueSchema = z.strictObject({
  massKg: partKg,
  sdKg: spread,
  /** Calculated: worked back from the scales. */
  proof: z.enum(['guess', 'catalogue', 'calculated', 'measured']),
  typed,
  at: instant,
  /** What it was worked back from: two weighings, or the build for its baseline mass. */
  derivedFrom: z.array(id).max(10).nullish(),
  /** Which scale; two weighings on one scale do not average out its own error. */
  instrument: z.string().max(80).nullable().default(null),
  /** Where the mass is a difference of two readings of a growing box: the reading after it went in, and its place among them. */
  box: z
    .strictObject({
      boxId: id,
      position: z.int().nonnegative().max(1000),
      readingKg: z.number().positive().max(5000),
      readingSdKg: z.number().nonnegative().max(5000),
    })
    .nullish(),
})

export type MassValue = z.output<typeof massValueSchema>

/** Stage 0 holds no lines; what is done has a time. */
const standsAtAStage: RecordRule = async (next, { live, now }) => {
  const [stage] = await live('stages', { id: next.stageId })
  if (stage?.position === 0) throw new RecordRefusal('stageId', 'Stage 0 is the car as bought and holds no changes. Pick a later stage.')
  return { ...next, doneAt: next.state === 'done' ? (next.doneAt ?? now) : null }
}

/** What replaces is on, what it replaces is off, and only what is off can wait. */
const fitsItsKind: RecordRule = async (next, { live }) => {
  if (next.waits && next.kind !== 'off') throw new RecordRefusal('waits', 'Only a part that comes off can wait for what goes back. Make it an off line.')
  if (next.partId && next.kind === 'off') throw new RecordRefusal('partId', 'A part of the register goes in with an on line. Make it one, or name no part.')
  if (!next.replacesChangeId) return next
  const [replaced] = await live('changes', { id: next.replacesChangeId })
  if (next.kind !== 'on' || (replaced && replaced.kind !== 'off'))
    throw new RecordRefusal('replacesChangeId', 'An on line replaces an off line. Pick a part that comes off, or name none.')
  return next
}

/** What a part costs stands with the part; what was sold came off. */
const costsOnce: RecordRule = (next, { before }) => {
  for (const field of ['cost', 'paid'] as const)
    if (next.partId && next[field] !== null && next[field] !== undefined && (before?.partId !== next.partId || before?.[field] !== next[field]))
      throw new RecordRefusal(field, "The part's cost counts; the line says it twice. Leave it out here.")
  if (next.fate && next.kind !== 'off') throw new RecordRefusal('fate', 'Only what comes off is kept, sold or scrapped. Make it an off line.')
  return next
}

export const changeKind = defineRecord({
  list: 'changes',
  word: 'a ledger line',
  noun: 'line',
  nameFrom: ['name'],
  isBatchable: true,
  refs: {
    stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has ledger lines. Move or delete them first.' } },
    fromChangeId: { to: 'changes', whenGone: { keepsIt: 'Pieces of this part go to its replacement. Delete those lines first.' } },
    toChangeId: { to: 'changes', whenGone: 'forgets' },
    replacesChangeId: { to: 'changes', whenGone: 'forgets', sentence: 'What this line replaces is not in this build. Pick an off line of it.' },
    partId: { to: 'parts', whenGone: 'forgets', sentence: 'The part this line puts in is not in this build. Pick one of its parts.' },
    boxId: { to: 'boxes', whenGone: { keepsIt: 'Ledger lines were weighed in this box. Delete those lines first.' } },
  },
  fields: {
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
    /** The off line that an on line stands in for. */
    replacesChangeId: id.nullable().default(null),
    /** Off for now: pieces go back, or a replacement comes that nobody knows yet. */
    waits: z.boolean().default(false),
    /** The part of the register that an on line puts in. */
    partId: id.nullable().default(null),
    boxId: id.nullable().default(null),
    /** Of its own; else that of its zone. */
    place: optionalPlace,
    /** In the build's money, all pieces together. */
    cost: z.number().nonnegative().max(1e8).nullable().default(null),
    hours: z.number().nonnegative().max(1e5).nullable().default(null),
    /** What was paid, all pieces together. */
    paid: z.number().nonnegative().max(1e8).nullish(),
    /** What became of what came off. */
    fate: z
      .strictObject({
        is: z.enum(['kept', 'sold', 'scrapped']),
        /** Where it lies, what it is kept for, or who has it. */
        words: z.string().trim().max(200).nullable().default(null),
        /** What it brought back. */
        back: z.number().nonnegative().max(1e8).nullable().default(null),
      })
      .nullish(),
  },
  rules: [standsAtAStage, fitsItsKind, costsOnce],
})
export type Change = RecordOfKind<typeof changeKind>

/** A pad that reads nothing is dead, and is left out; a wheel that stands on one weighs something. */
export const padReadingSchema = z.strictObject({ massKg: z.number().min(0.1).max(5000), sdKg: spread, typed }).nullable()

const padsSchema = z.strictObject({ LF: padReadingSchema, RF: padReadingSchema, LR: padReadingSchema, RR: padReadingSchema })

export const PLACEMENT_METHODS = ['axlesOnBlocks', 'cornerSwapped', 'otherAxleOnFloor'] as const

/** What has to be the same for two weighings to compare; null where nobody noted it. */
export const conditionsSchema = z.strictObject({
  barsDisconnected: z.boolean().nullable().default(null),
  isLevel: z.boolean().nullable().default(null),
  tyrePressurePa: z.number().positive().max(1e6).nullable().default(null),
  rideHeightFrontM: z.number().positive().max(1).nullable().default(null),
  rideHeightRearM: z.number().positive().max(1).nullable().default(null),
  /** Nitrous oxide that was in the bottle. */
  nitrousKg: z.number().nonnegative().max(50).nullish(),
})

const noPads = { LF: null, RF: null, LR: null, RR: null }
const wholeReading = (most: number) => z.strictObject({ massKg: z.number().min(1).max(most), sdKg: spread, typed })

const hasOneKindOfReading: RecordRule = (next) => {
  const pads = Object.values(next.pads as z.output<typeof padsSchema>).some((pad) => pad !== null) || next.secondPlacement !== null
  const kinds = [pads, next.axles !== null, next.total !== null].filter(Boolean).length
  if (kinds > 1) throw new RecordRefusal('total', 'A weighing has pads, or two axle loads, or a total. Keep one of them.')
  if (kinds === 0) throw new RecordRefusal('pads', 'This weighing reads nothing. Type the pads, two axle loads or a total.')
  return next
}

const hasPadHeight: RecordRule = (next) => {
  const second = next.secondPlacement as { readonly method: string; readonly padHeightM: number | null } | null
  if (second?.method === 'otherAxleOnFloor' && second.padHeightM === null)
    throw new RecordRefusal('secondPlacement.padHeightM', 'With the other axle on the bare floor the height of the pads is needed. Measure it and type it.')
  return next
}

export const weighingKind = defineRecord({
  list: 'weighings',
  word: 'a weighing',
  nameFrom: ['at'],
  isBatchable: true,
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has weighings. Move or delete them first.' } } },
  fields: {
    id,
    stageId: id,
    at: instant,
    pads: padsSchema.default(noPads),
    /** In place of pads: the whole car on a weighbridge, or a figure read aloud. */
    total: wholeReading(20_000).nullable().default(null),
    /** In place of pads: one axle after the other. */
    axles: z
      .strictObject({ front: wholeReading(10_000), rear: wholeReading(10_000) })
      .nullable()
      .default(null),
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
    /** Who was in, where it was one of the build's drivers. */
    driverName,
    fuelL: z.number().nonnegative().max(500),
    fuelSdL: spread,
    extras: z
      .array(z.strictObject({ name, massKg: partKg, sdKg: spread }))
      .max(50)
      .default([]),
    scales: z.string().trim().max(80).nullable().default(null),
    setAside: z.string().trim().min(1).max(300).nullable().default(null),
    note,
  },
  rules: [hasOneKindOfReading, hasPadHeight],
})
export type Weighing = RecordOfKind<typeof weighingKind>

/** A correction of what was in the car at a weighing. */
export const inCarKind = defineRecord({
  list: 'inCars',
  word: 'what was in the car',
  refs: { weighingId: { to: 'weighings', whenGone: 'goesWith' }, changeId: { to: 'changes', whenGone: 'goesWith' } },
  fields: {
    id,
    weighingId: id,
    changeId: id,
    inCar: z.boolean(),
  },
})
export type InCar = RecordOfKind<typeof inCarKind>

/** A part of the car as the ledger’s @zone names it, with the place that its lines have unless they have one of their own. */
export const zoneKind = defineRecord({
  list: 'zones',
  word: 'a zone',
  nameFrom: ['name'],
  onePer: ['name'],
  isBatchable: true,
  fields: {
    id,
    name: z.string().trim().min(1).max(60),
    place: optionalPlace,
  },
})
export type Zone = RecordOfKind<typeof zoneKind>

/** A box on a scale that grows part by part; the readings stand with the lines that went in. */
export const boxKind = defineRecord({
  list: 'boxes',
  word: 'a box',
  nameFrom: ['name'],
  isBatchable: true,
  fields: {
    id,
    name,
    instrument: z.string().trim().max(80).nullable().default(null),
    /** One standard deviation of a reading; null: the default of a part on a scale. */
    readingSdKg: spread,
    /** What the scale read before the first part went in. */
    emptyKg: z.number().nonnegative().max(5000),
    typed,
  },
})
export type Box = RecordOfKind<typeof boxKind>
