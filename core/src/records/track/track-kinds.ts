import { CalculationError } from '../../errors.ts'
import { closureProblems, lengthOfTrack, MOST_CURVATURE_PER_M, MOST_SEGMENTS, requireTrack, type TrackLine } from '../../track/track.ts'
import { z } from '../../zod.ts'
import { id, name } from '../common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from '../define-record.ts'
import { optional, within } from './track-fields.ts'

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
