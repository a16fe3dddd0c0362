import { CalculationError } from '../errors.ts'
import { PAD_WORDS } from '../mass/corners.ts'
import { closureProblems, lengthOfTrack, MOST_CURVATURE_PER_M, MOST_SEGMENTS, requireTrack, type TrackLine } from '../track/track.ts'
import { TREAD_SCHOOLS } from '../tyres/tread.ts'
import { z } from '../zod.ts'
import { id, instant, name, note, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule, type Row } from './define-record.ts'
import { SURFACES, TIMINGS } from './drive-kinds.ts'
import { ambientSchema } from './power-kinds.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const optional = (least: number, most: number) => within(least, most).nullable().default(null)
const setAside = z.string().trim().min(1).max(300).nullable().default(null)
const shortText = z.string().trim().min(1).max(300).nullable().default(null)

export const TRACK_MARKS = ['corner', 'sector', 'speed', 'zone', 'line'] as const
/** What a mark of a track is: a corner's name, the end of a sector, a place whose speed is asked, a zone where drifting is judged, the timing line. */
export type TrackMarkKind = (typeof TRACK_MARKS)[number]

const segmentSchema = z.strictObject({
  lengthM: z.number().positive().max(60_000),
  /** Left positive. */
  curvaturePerM: within(-MOST_CURVATURE_PER_M, MOST_CURVATURE_PER_M).default(0),
  /** Null: as at its begin; else straight between the two. */
  endCurvaturePerM: optional(-MOST_CURVATURE_PER_M, MOST_CURVATURE_PER_M),
  grade: within(-0.4, 0.4).default(0),
  /** Leaning inward positive. */
  camberRad: within(-0.6, 0.6).default(0),
  gripFactor: within(0.3, 1.2).default(1),
})

const markSchema = z.strictObject({ atM: within(0, 60_000), toM: optional(0, 60_000), kind: z.enum(TRACK_MARKS), name: z.string().trim().min(1).max(60) })

/** What a sum refuses of a track, told of its field. */
function asRefusal(error: unknown): never {
  if (error instanceof CalculationError) throw new RecordRefusal(error.field, error.message)
  throw error
}

/** A track can be driven, closes where it says so, and its marks lie on it. */
const isDrivable: RecordRule = (next) => {
  const track = next as unknown as Track
  try {
    requireTrack(track)
  } catch (error) {
    asRefusal(error)
  }
  const [problem] = closureProblems(track as TrackLine)
  if (problem) throw new RecordRefusal('segments', problem)
  const lengthM = lengthOfTrack(track.segments)
  const off = track.marks.find(({ atM, toM }) => atM > lengthM + 0.01 || (toM ?? 0) > lengthM + 0.01)
  if (off) throw new RecordRefusal('marks', `${off.name} lies beyond the end of the track, ${lengthM.toFixed(0)} m. Give it a place on it.`)
  return next
}

/** A drawn place, corner by corner: what laps are worked out on. Courses are corners for gears alone. */
export const trackKind = defineRecord({
  list: 'tracks',
  word: 'a track',
  nameFrom: ['name'],
  onePer: ['name'],
  rules: [isDrivable],
  mostInFile: 200,
  fields: {
    id,
    name,
    isShared: z.boolean().default(false),
    isClosed: z.boolean().default(true),
    /** Drawn along its middle, or along a line that was driven. */
    line: z.enum(['centre', 'driven']).default('centre'),
    segments: z.array(segmentSchema).min(1).max(MOST_SEGMENTS),
    origin: z
      .strictObject({ latitudeDeg: within(-85, 85), longitudeDeg: within(-180, 180) })
      .nullable()
      .default(null),
    /** Heading of its begin, from east to north. */
    bearingRad: optional(-7, 7),
    altitudeM: optional(-500, 6000),
    marks: z.array(markSchema).max(200).default([]),
    /** Of the smoothing that a trace went through; null: drawn by hand. */
    cutOffM: optional(1, 1000),
  },
})
export type Track = RecordOfKind<typeof trackKind>

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

export const LAP_KINDS = ['clean', 'out', 'in', 'traffic', 'flag', 'mistake', 'slow'] as const
/** What a lap was; clean ones alone count. */
export type LapKind = (typeof LAP_KINDS)[number]

/** Faster round a track no car is, m/s. */
const FASTEST_MEAN_MPS = 110
/** How far sectors may miss their lap, s: each was rounded. */
const SECTOR_SLACK_S = 0.06

/** The session that a record names is of the kinds that hold it. */
async function sessionOf(next: Row, live: Parameters<RecordRule>[1]['live'], kinds: readonly TrackSessionKind[], words: string): Promise<Row | undefined> {
  const [session] = await live('trackSessions', { id: next.trackSessionId })
  if (session && !kinds.includes(session.kind as TrackSessionKind)) throw new RecordRefusal('trackSessionId', words)
  return session
}

/** A lap is one of a session of laps, no faster than a car can be, and its sectors make it up. */
const isLapped: RecordRule = async (next, { live }) => {
  const { lapS, sectorS, kind } = next as unknown as TrackLap
  const session = await sessionOf(next, live, ['laps', 'shakedown'], 'This session is one of runs. Type laps into a session of laps.')
  const [track] = session ? await live('tracks', { id: session.trackId }) : []
  const lengthM = track ? lengthOfTrack(track.segments as Track['segments']) : 0
  // The way out begins at the pits: it may be shorter than a lap.
  if (kind !== 'out' && kind !== 'in' && lengthM / lapS > FASTEST_MEAN_MPS)
    throw new RecordRefusal('lapS', `That is ${Math.round((3.6 * lengthM) / lapS).toLocaleString('en')} km/h. Typed short?`)
  const sum = sectorS.reduce((total, sector) => total + sector, 0)
  if (sectorS.length > 0 && Math.abs(sum - lapS) > SECTOR_SLACK_S * sectorS.length)
    throw new RecordRefusal('sectorS', `The sectors make ${sum.toFixed(2)} s, the lap ${lapS.toFixed(2)} s. Check them, or leave the sectors out.`)
  return next
}

/** One lap of a session. */
export const lapKind = defineRecord({
  list: 'laps',
  word: 'a lap',
  isBatchable: true,
  nameFrom: ['position'],
  rules: [isLapped],
  refs: { trackSessionId: { to: 'trackSessions', whenGone: 'goesWith' }, logId: { to: 'trackLogs', whenGone: 'forgets' } },
  fields: {
    id,
    trackSessionId: id,
    /** In the order they were driven. */
    position: z.int().min(0).max(5000),
    lapS: within(5, 3600),
    /** The log that it was read from, and where in it it begins. */
    logId: id.nullable().default(null),
    fromS: optional(0, 1e6),
    sectorS: z.array(within(0.5, 3600)).max(60).default([]),
    kind: z.enum(LAP_KINDS).default('clean'),
    typed,
    setAside,
  },
})
export type TrackLap = RecordOfKind<typeof lapKind>

export const ANGLE_SOURCES = ['judged', 'film', 'log'] as const

const isOfRuns: RecordRule = async (next, { live }) => {
  await sessionOf(next, live, ['runs', 'shakedown'], 'This session is one of laps. Type runs into a session of runs.')
  return next
}

/** One drift run. */
export const driftRunKind = defineRecord({
  list: 'driftRuns',
  word: 'a drift run',
  isBatchable: true,
  nameFrom: ['position'],
  rules: [isOfRuns],
  refs: { trackSessionId: { to: 'trackSessions', whenGone: 'goesWith' } },
  fields: {
    id,
    trackSessionId: id,
    position: z.int().min(0).max(5000),
    entryMps: optional(1, 100),
    angleRad: optional(0, 1.6),
    angleBy: z.enum(ANGLE_SOURCES).default('judged'),
    gear: z.int().min(1).max(10).nullable().default(null),
    score: optional(0, 1000),
    /** How often it straightened. */
    straightened: z.int().min(0).max(20).default(0),
    words: shortText,
    typed,
    setAside,
  },
})
export type DriftRun = RecordOfKind<typeof driftRunKind>

export const FIT_FACTORS = ['grip', 'gripAndBraking'] as const
/** What a driven lap says of the car: the grip alone, or the use of the brakes with it. */
export type FitFactors = (typeof FIT_FACTORS)[number]

/** The sessions of a fit were driven on its track. */
const isOfItsTrack: RecordRule = async (next, { live }) => {
  for (const sessionId of next.trackSessionIds as readonly string[]) {
    const [session] = await live('trackSessions', { id: sessionId })
    if (session && session.trackId !== next.trackId) throw new RecordRefusal('trackSessionIds', 'A session of another track is among them. Leave it out.')
  }
  return next
}

/** Which laps of a track the model is fitted to, and by what: the choice alone. */
export const lapFitKind = defineRecord({
  list: 'lapFits',
  word: 'what a lap is fitted to',
  onePer: ['trackId'],
  rules: [isOfItsTrack],
  refs: { trackId: { to: 'tracks', whenGone: 'goesWith' } },
  fields: {
    id,
    trackId: id,
    /** Of each stage the chosen ones among them; of a stage with none of them, and where there are none, all that stand. */
    trackSessionIds: z.array(id).max(200).default([]),
    factors: z.enum(FIT_FACTORS).default('grip'),
  },
})
export type LapFit = RecordOfKind<typeof lapFitKind>
