import { LOG_ROLES } from '../../tracklog/log-roles.ts'
import { z } from '../../zod.ts'
import { id, name } from '../common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from '../define-record.ts'

const number = z.number().min(-1e9).max(1e9)
const shortText = z.string().max(200)

const channelSchema = z.strictObject({
  role: z.enum([...LOG_ROLES.filter((role) => role !== 'latitude' && role !== 'longitude'), 'east', 'north'] as const),
  name: shortText,
  unit: z.string().max(40),
  rateHz: z.number().min(0).max(10_000),
  count: z.int().min(0),
  min: number,
  max: number,
  gapShare: z.number().min(0).max(1),
})

/** What a logger recorded in a session on track; its samples stand beside, in pieces. */
export const trackLogKind = defineRecord({
  list: 'trackLogs',
  word: 'a log of a session',
  noun: 'log',
  isBatchable: true,
  nameFrom: ['fileName'],
  refs: { trackSessionId: { to: 'trackSessions', whenGone: 'goesWith' } },
  mostInFile: 2000,
  fields: {
    id,
    trackSessionId: id,
    loggerName: name,
    fileName: z.string().trim().min(1).max(200),
    rowCount: z.int().min(1).max(50_000_000),
    durationS: z.number().positive().max(1e6),
    /** Where its metres east and north are counted from; null: it has no positions. */
    origin: z
      .strictObject({ latitudeDeg: z.number().min(-85).max(85), longitudeDeg: z.number().min(-180).max(180) })
      .nullable()
      .default(null),
    channels: z.array(channelSchema).min(1).max(200),
    /** What its first look told. */
    problems: z.array(z.string().max(400)).max(60).default([]),
  },
})
export type TrackLog = RecordOfKind<typeof trackLogKind>

export const LOG_WINDOW_USES = ['power', 'grip'] as const

const holdsItsFigures: RecordRule = (next) => {
  const { of, points, gear, grip, fromS, toS } = next as unknown as z.output<z.ZodObject<(typeof logWindowKind)['fields']>>
  if (!(toS > fromS)) throw new RecordRefusal('toS', 'The window ends before it begins. Swap the two.')
  if (of === 'power' && (points === null || gear === null)) throw new RecordRefusal('points', 'A window of power holds its points and the gear that was in.')
  if (of === 'grip' && grip === null) throw new RecordRefusal('grip', 'A window of grip holds the grip that was used.')
  return next
}

/** A part of a log that stands for a number: full throttle in one gear, or the corners of a lap. */
export const logWindowKind = defineRecord({
  list: 'logWindows',
  word: 'a window of a log',
  isBatchable: true,
  nameFrom: ['of'],
  refs: { logId: { to: 'trackLogs', whenGone: 'goesWith' } },
  rules: [holdsItsFigures],
  fields: {
    id,
    logId: id,
    fromS: z.number().min(0).max(1e6),
    toS: z.number().min(0).max(1e6),
    of: z.enum(LOG_WINDOW_USES),
    gear: z.int().min(1).max(12).nullable().default(null),
    /** Power at the hubs by engine speed. */
    points: z
      .array(z.strictObject({ speedRpm: z.number().min(100).max(25_000), powerW: z.number().min(0).max(3e6), sdW: z.number().min(0).max(1e6) }))
      .min(2)
      .max(200)
      .nullable()
      .default(null),
    /** The 95th share of the grip that the lap's corners used. */
    grip: z.number().min(0.1).max(5).nullable().default(null),
    /** Why it counts nowhere; null: it counts. */
    setAside: z.string().trim().min(1).max(300).nullable().default(null),
  },
})
export type LogWindow = RecordOfKind<typeof logWindowKind>

/** Which column of a logger's files is what, kept for its next file. */
export const loggerMappingKind = defineRecord({
  list: 'loggerMappings',
  word: 'what a logger’s columns are',
  nameFrom: ['loggerName'],
  onePer: ['loggerName'],
  fields: {
    id,
    loggerName: name,
    columns: z
      .array(z.strictObject({ heading: shortText, role: z.enum(LOG_ROLES), unit: z.string().max(40) }))
      .min(1)
      .max(200),
  },
})
export type LoggerMapping = RecordOfKind<typeof loggerMappingKind>
