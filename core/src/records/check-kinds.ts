import { z } from '../zod.ts'
import { day, id, instant, name, note, optionalPlace, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const optional = (least: number, most: number) => within(least, most).nullable().default(null)
const words = (most: number) => z.string().trim().min(1).max(most).nullable().default(null)

export const CHECK_KINDS = ['bolt', 'level', 'look', 'gear', 'take', 'reading', 'gap'] as const
/** What a check is: a bolt with its mark, a fluid, a look, safety gear, what is packed, a reading with its limits, a gap. */
export type CheckKind = (typeof CHECK_KINDS)[number]

export const ROUNDS = ['firstStart', 'beforeRun', 'between', 'afterRun', 'event', 'scrutineering', 'dyno'] as const
/** When checks are gone through together. */
export type Round = (typeof ROUNDS)[number]

export const CHECK_READINGS = ['temperature', 'pressure', 'voltage', 'current', 'speed', 'engineSpeed', 'length', 'mass', 'ratio'] as const
export const GAP_NATURES = ['moving', 'hot', 'fixed', 'service'] as const
/** What a gap is to: something that moves, something hot, something fixed, or room for a hand. */
export type GapNature = (typeof GAP_NATURES)[number]

const boltSchema = z.strictObject({
  count: z.int().min(1).max(200).default(1),
  torqueNm: optional(0.1, 2000),
  /** The page of the maker's manual as it was typed: without it a torque is a guess. */
  from: words(80),
})

const readingSchema = z.strictObject({
  quantity: z.enum(CHECK_READINGS),
  /** The channel of a logger that is it. */
  role: words(40),
  stopLow: z.number().nullable().default(null),
  warnLow: z.number().nullable().default(null),
  warnHigh: z.number().nullable().default(null),
  stopHigh: z.number().nullable().default(null),
  /** How long it has to last before it is told. */
  forS: within(0, 60).default(2),
  /** It counts over this speed alone. */
  aboveMps: optional(0, 120),
  /** Whether a second sensor reads the same. */
  secondSensor: z.boolean().default(false),
  /** How well it is read; null: as usual. */
  sd: optional(0, 1e7),
})
export type CheckReading = z.output<typeof readingSchema>

export const WHEEL_SIDES = ['frontInside', 'frontOutside', 'frontCaliper', 'rearInside', 'rearOutside', 'rearCaliper'] as const
/** Which side of a wheel a gap is at: towards the strut, towards the arch, or between spokes and caliper. */
export type WheelSide = (typeof WHEEL_SIDES)[number]

const gapSchema = z.strictObject({
  neighbour: z.string().trim().min(1).max(120),
  nature: z.enum(GAP_NATURES).default('fixed'),
  /** How a hand gets there, and what comes off first. */
  access: words(200),
  /** Null: what its nature usually wants. */
  needM: optional(0, 0.5),
  /** How the pipe beside it grows. */
  expansionPerK: optional(0, 1e-4),
  lengthM: optional(0, 10),
  riseK: optional(-100, 1500),
  /** How much of the growth goes towards the neighbour. */
  towardShare: within(0, 1).default(1),
  /** How far either of them rocks towards the other. */
  moveM: within(0, 0.5).default(0),
  /** It follows the wheels of a stage on this side. */
  besideWheel: z.enum(WHEEL_SIDES).nullable().default(null),
})
export type CheckGap = z.output<typeof gapSchema>

const everySchema = z
  .strictObject({ amount: z.number().positive().max(1e5), unit: z.enum(['hours', 'days', 'events', 'months']) })
  .nullable()
  .default(null)
export type CheckInterval = NonNullable<z.output<typeof everySchema>>

const OWN_FIELDS = ['bolt', 'level', 'gear', 'take', 'reading', 'gap'] as const
const USUAL_OWN: Readonly<Record<string, object>> = {
  bolt: { count: 1, torqueNm: null, from: null },
  gear: { standard: null, madeOn: null, expiresOn: null },
  take: { count: 1 },
}
const NEEDED: Readonly<Record<string, string>> = {
  level: 'Say which fluid it is.',
  reading: 'Say what is read, such as a temperature.',
  gap: 'Say what the gap is to.',
}

/** A check holds what its kind needs, and nothing of another kind. */
const holdsItsKind: RecordRule = (next) => {
  const kind = next.kind as CheckKind
  const own = kind === 'look' ? null : (next[kind] ?? USUAL_OWN[kind] ?? null)
  if (own === null && NEEDED[kind]) throw new RecordRefusal(kind, NEEDED[kind] as string)
  const others = Object.fromEntries(OWN_FIELDS.map((field) => [field, field === kind ? own : null]))
  return { ...next, ...others }
}

/** Limits lie in their order: stop under warning, warning under the high ones. */
const limitsInOrder: RecordRule = (next) => {
  const reading = next.reading as CheckReading | null
  if (!reading) return next
  const { stopLow, warnLow, warnHigh, stopHigh, quantity } = reading
  if (warnHigh !== null && stopHigh !== null && warnHigh > stopHigh)
    throw new RecordRefusal('reading.warnHigh', 'Warn lies over stop. Swap the two: it warns first.')
  if (warnLow !== null && stopLow !== null && stopLow > warnLow)
    throw new RecordRefusal('reading.warnLow', 'Warn lies under stop. Swap the two: it warns first, higher up.')
  const [low, high] = [warnLow ?? stopLow, warnHigh ?? stopHigh]
  if (low !== null && high !== null && low >= high) throw new RecordRefusal('reading.warnLow', 'The low limit lies over the high one. Swap the two.')
  const least = Math.min(...[stopLow, warnLow, warnHigh, stopHigh].filter((limit) => limit !== null))
  if (quantity === 'temperature' && least < 0) throw new RecordRefusal('reading', 'A limit lies under absolute zero. Check its unit.')
  return next
}

const expiresAfterItsMaking: RecordRule = (next) => {
  const gear = next.gear as { madeOn: string | null; expiresOn: string | null } | null
  if (gear?.madeOn && gear.expiresOn && gear.expiresOn < gear.madeOn)
    throw new RecordRefusal('gear.expiresOn', 'It would expire before it was made. One of the two days is wrong.')
  return next
}

/** What is looked at before, between and after runs, read with limits, packed, or measured as a gap. */
export const checkKind = defineRecord({
  list: 'checks',
  word: 'a check',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name'],
  refs: { partId: { to: 'parts', whenGone: 'forgets' } },
  rules: [holdsItsKind, limitsInOrder, expiresAfterItsMaking],
  mostInFile: 2000,
  fields: {
    id,
    kind: z.enum(CHECK_KINDS),
    name,
    zone: words(60),
    place: optionalPlace,
    /** What is not in the car is not asked. */
    partId: id.nullable().default(null),
    rounds: z.array(z.enum(ROUNDS)).max(ROUNDS.length).default([]),
    /** Null: what its kind usually takes. */
    minutes: optional(0.05, 600),
    tool: words(60),
    /** Without it no event is fit; null: as is usual for such a check. */
    isSafety: z.boolean().nullable().default(null),
    every: everySchema,
    /** Due when its part or its zone was worked on; null: as is usual for its kind. */
    whenTouched: z.boolean().nullable().default(null),
    bolt: boltSchema.nullable().default(null),
    level: z
      .strictObject({ fluid: z.string().trim().min(1).max(60) })
      .nullable()
      .default(null),
    gear: z
      .strictObject({ standard: words(60), madeOn: day.nullable().default(null), expiresOn: day.nullable().default(null) })
      .nullable()
      .default(null),
    take: z
      .strictObject({ count: z.int().min(1).max(1000).default(1) })
      .nullable()
      .default(null),
    reading: readingSchema.nullable().default(null),
    gap: gapSchema.nullable().default(null),
    note,
  },
})
export type Check = RecordOfKind<typeof checkKind>

export const MARK_RESULTS = ['ok', 'bad', 'fixed', 'skipped', 'damage'] as const
export type MarkResult = (typeof MARK_RESULTS)[number]

/** A reading is one that can be; damage says what became of it. */
const isReadable: RecordRule = async (next, { live }) => {
  const [check] = await live('checks', { id: next.checkId })
  const quantity = (check?.reading as CheckReading | null | undefined)?.quantity ?? (check?.gap ? 'length' : null)
  const value = next.value as number | null
  if (value !== null && check && quantity === null)
    throw new RecordRefusal('value', `${check.name} is no reading. Leave the number out, or make a check of kind reading of it.`)
  if (quantity === 'temperature' && value !== null && value <= 0) throw new RecordRefusal('value', 'That lies at absolute zero or under it. Check the unit.')
  if (quantity === 'length' && value !== null && value > 2) throw new RecordRefusal('value', `A gap of ${value} m? Type its unit: 32 mm.`)
  return { ...next, damage: next.result === 'damage' ? (next.damage ?? { isMakeDo: true, hours: null, cost: null }) : null }
}

/** What came of a check: the bolt had not moved, the fluid was low, what a gauge showed. */
export const markKind = defineRecord({
  list: 'marks',
  word: 'a mark',
  isBatchable: true,
  nameFrom: ['at'],
  refs: {
    checkId: { to: 'checks', whenGone: 'goesWith' },
    stageId: { to: 'stages', whenGone: { keepsIt: 'Checks were marked at this stage. Move or delete the marks first.' } },
    eventId: { to: 'events', whenGone: 'forgets' },
    trackSessionId: { to: 'trackSessions', whenGone: 'forgets' },
  },
  rules: [isReadable],
  mostInFile: 50_000,
  fields: {
    id,
    checkId: id,
    stageId: id,
    at: instant,
    eventId: id.nullable().default(null),
    trackSessionId: id.nullable().default(null),
    /** The round it was marked in. */
    round: z.enum(ROUNDS).nullable().default(null),
    result: z.enum(MARK_RESULTS),
    value: z.number().min(-1e9).max(1e9).nullable().default(null),
    sd: optional(0, 1e9),
    /** What became of what broke: mended for now (it stays due) or for good, and what mending took. */
    damage: z
      .strictObject({ isMakeDo: z.boolean().default(true), hours: optional(0, 2000), cost: optional(0, 1e8) })
      .nullable()
      .default(null),
    typed,
    note,
  },
})
export type Mark = RecordOfKind<typeof markKind>
