import { lengthOfTrack } from '../../track/track.ts'
import { z } from '../../zod.ts'
import { id, typed } from '../common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule, type Row } from '../define-record.ts'
import { optional, setAside, shortText, within } from './track-fields.ts'
import type { Track } from './track-kinds.ts'
import type { TrackSessionKind } from './track-session-kinds.ts'

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
