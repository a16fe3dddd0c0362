import { PAD_WORDS } from '../../mass/corners.ts'
import { TREAD_SCHOOLS } from '../../tyres/tread.ts'
import { z } from '../../zod.ts'
import { id, instant, note } from '../common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from '../define-record.ts'
import { SURFACES, TIMINGS } from '../drive-kinds.ts'
import { ambientSchema } from '../power-kinds.ts'
import { optional, setAside, shortText, within } from './track-fields.ts'

export const TRACK_SESSION_KINDS = ['laps', 'runs', 'shakedown', 'straight'] as const
export type TrackSessionKind = (typeof TRACK_SESSION_KINDS)[number]
export const LOGGER_STATES = ['recorded', 'partly', 'nothing', 'none'] as const
export type LoggerState = (typeof LOGGER_STATES)[number]

const kelvin = optional(240, 1300)
const cornerSchema = z
  .strictObject({
    coldPa: optional(10_000, 1_000_000),
    coldK: kelvin,
    hotPa: optional(10_000, 1_000_000),
    /** Bled while hot: no pair to work from. */
    isBled: z.boolean().default(false),
    /** Inner edge, middle, outer edge. */
    treadK: z
      .tuple([within(240, 500), within(240, 500), within(240, 500)])
      .nullable()
      .default(null),
    discK: kelvin,
  })
  .nullable()
  .default(null)

const wheelsSchema = z.strictObject({ LF: cornerSchema, RF: cornerSchema, LR: cornerSchema, RR: cornerSchema }).nullable().default(null)
export type TrackWheels = NonNullable<z.output<typeof wheelsSchema>>

/** Fuel falls, a tyre that was not bled rises. */
const holdsTogether: RecordRule = (next) => {
  const { fuelStartL, fuelEndL, corners } = next as unknown as TrackSession
  if (fuelStartL !== null && fuelEndL !== null && fuelEndL > fuelStartL)
    throw new RecordRefusal('fuelEndL', 'More fuel came back than went out. Swap the two, or close the session at the refill and begin another.')
  for (const key of ['LF', 'RF', 'LR', 'RR'] as const) {
    const wheel = corners?.[key]
    if (wheel?.hotPa != null && wheel.coldPa != null && wheel.hotPa < wheel.coldPa && !wheel.isBled)
      throw new RecordRefusal(`corners.${key}.hotPa`, `The ${PAD_WORDS[key]} is under its cold pressure when hot. Say that it was bled, or check the two.`)
  }
  return next
}

/** A setting is one of the dyno session that it names. */
const ranOnASettingOfIt: RecordRule = async (next, { live }) => {
  if (!next.dynoSettingId) return next
  if (!next.dynoSessionId) return { ...next, dynoSettingId: null }
  const [session] = await live('sessions', { id: next.dynoSessionId })
  if (session && !(session.settings as readonly { readonly id: string }[]).some((setting) => setting.id === next.dynoSettingId))
    throw new RecordRefusal('dynoSettingId', 'The dyno session has no such setting. Pick one of its settings.')
  return next
}

/** A spell on a track: with one car, one driver, one set of tyres. */
export const trackSessionKind = defineRecord({
  list: 'trackSessions',
  word: 'a session on track',
  noun: 'track session',
  isBatchable: true,
  nameFrom: ['at'],
  rules: [holdsTogether, ranOnASettingOfIt],
  refs: {
    stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has sessions on track. Move or delete them first.' } },
    trackId: { to: 'tracks', whenGone: { keepsIt: 'Sessions were driven on this track. Delete them first.' } },
    dynoSessionId: { to: 'sessions', whenGone: 'forgets' },
    frontTyresPartId: { to: 'parts', whenGone: 'forgets' },
    rearTyresPartId: { to: 'parts', whenGone: 'forgets' },
  },
  fields: {
    id,
    stageId: id,
    trackId: id,
    at: instant,
    kind: z.enum(TRACK_SESSION_KINDS).default('laps'),
    /** Which step of the plan of a first drive it was, from 0. */
    step: z.int().min(0).max(59).nullable().default(null),
    driver: z.string().trim().min(1).max(60).nullable().default(null),
    ambient: ambientSchema.nullable().default(null),
    /** Of the asphalt. */
    trackK: optional(240, 360),
    surface: z.enum(SURFACES).default('dry'),
    windMps: optional(0, 40),
    /** What the engine ran on: a setting of a dyno session. Null: the one that stands for its stage. */
    dynoSessionId: id.nullish(),
    dynoSettingId: z.string().min(1).max(80).nullish(),
    fuelStartL: optional(0, 500),
    fuelEndL: optional(0, 500),
    frontTyresPartId: id.nullable().default(null),
    rearTyresPartId: id.nullable().default(null),
    /** Rear pairs that were used up in it. */
    rearPairsUsed: optional(0, 200),
    /** What was turned since the session before. */
    turned: z
      .array(
        z.strictObject({
          what: z.string().trim().min(1).max(60),
          from: z.string().trim().max(60).nullable().default(null),
          to: z.string().trim().min(1).max(60),
        }),
      )
      .max(20)
      .default([]),
    aim: shortText,
    words: note,
    /** How the driver felt in the car, 1 to 5; its mean of his own counts. */
    ease: z.int().min(1).max(5).nullable().default(null),
    corners: wheelsSchema,
    treadBy: z.enum(TREAD_SCHOOLS).default('probe'),
    logger: z.enum(LOGGER_STATES).default('none'),
    timing: z.enum(TIMINGS).default('watch'),
    /** Why it counts nowhere; null: it counts. */
    setAside,
  },
})
export type TrackSession = RecordOfKind<typeof trackSessionKind>
