import type { LogSamples } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  type LapTrace,
  type LogChannelRole,
  lapTrace,
  type RoomLap,
  type RoomLog,
  type RoomTrackSession,
  type TrackRoom,
  toPlane,
  trackShape,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { api, readFailure } from '../../data/api.ts'

/** A lap that stands in a log of its session. */
export interface LoggedRoomLap {
  readonly lap: RoomLap & { readonly fromS: number }
  readonly log: RoomLog
}

/** The laps of a session that stand in a log, in their order. */
export const loggedLaps = (session: RoomTrackSession): LoggedRoomLap[] =>
  session.laps.flatMap((lap) => {
    const log = session.logs.find(({ id }) => id === lap.logId)
    return log && lap.fromS !== null ? [{ lap: { ...lap, fromS: lap.fromS }, log }] : []
  })

/** The best clean lap of a session that stands in a log; undefined where none does. */
export const bestLogged = (session: RoomTrackSession): LoggedRoomLap | undefined =>
  loggedLaps(session)
    .filter(({ lap }) => lap.isClean)
    .sort((a, b) => a.lap.lapS - b.lap.lapS)[0]

const WANTED: readonly LogChannelRole[] = ['speed', 'wheelSpeed', 'east', 'north', 'throttle', 'brakeFront', 'brakeRear', 'along', 'across', 'engineSpeed']
/** A second of samples before and behind, so that nothing of the lap is cut. */
const AROUND_S = 1

/** Samples as lists by what they are; where nothing was sampled, no number. */
export function samplesByRole({ timeS, channels }: LogSamples): { readonly timeS: number[]; readonly of: (role: LogChannelRole) => number[] | null } {
  const numbers = (list: readonly (number | null)[]) => list.map((value) => value ?? Number.NaN)
  const byRole = new Map(channels.map(({ role, least }) => [role, numbers(least)]))
  return { timeS: numbers(timeS), of: (role) => byRole.get(role) ?? null }
}

/** A lap of a log by distance along its track, with what was sampled beside it. */
export interface LaidLap {
  readonly trace: LapTrace
  readonly lapS: number
  readonly lengthM: number
  /** The samples of the trace's own rows. */
  readonly of: (role: LogChannelRole) => number[] | null
}

/** Lays a lap's samples along the track. Rejects what `lapTrace` rejects. */
export function layLap(samples: LogSamples, { lap, log }: LoggedRoomLap, track: TrackRoom['tracks'][number]): LaidLap {
  const shape = trackShape(track)
  const { timeS, of } = samplesByRole(samples)
  const { origin, bearingRad } = track
  const isPlaced = origin !== null && bearingRad !== null && log.origin !== null
  const shift = isPlaced && log.origin ? toPlane(origin, [log.origin]) : null
  const moved = (list: number[] | null, by: number) => list?.map((value) => value + by) ?? null
  const [cos, sin] = [Math.cos(bearingRad ?? 0), Math.sin(bearingRad ?? 0)]
  const x = Array.from(shape.x, (along, i) => along * cos - (shape.y[i] as number) * sin)
  const y = Array.from(shape.x, (along, i) => along * sin + (shape.y[i] as number) * cos)
  const trace = lapTrace(
    { timeS, speedMps: of('speed') ?? of('wheelSpeed'), east: moved(of('east'), shift?.x[0] ?? 0), north: moved(of('north'), shift?.y[0] ?? 0) },
    lap,
    { lengthM: shape.lengthM, line: isPlaced ? { x, y, atM: shape.atM } : null },
  )
  const kept = (role: LogChannelRole) => {
    const list = of(role)
    return list ? trace.rows.map((row) => list[row] as number) : null
  }
  return { trace, lapS: lap.lapS, lengthM: shape.lengthM, of: kept }
}

/** A lap of a log laid along its track; null while it is fetched, a sentence where it cannot be. The lap handed in stays the same object while it is the same. */
export function useLaidLap(buildId: string, logged: LoggedRoomLap | undefined, track: TrackRoom['tracks'][number] | null): LaidLap | string | null {
  const channels = logged?.log.channels.flatMap(({ role }, i) => (WANTED.includes(role) ? [i] : [])) ?? []
  const { data, error } = api.useLogSamplesQuery(
    {
      buildId,
      logId: logged?.log.id ?? '',
      channels,
      fromS: Math.max(0, (logged?.lap.fromS ?? 0) - AROUND_S),
      toS: (logged?.lap.fromS ?? 0) + (logged?.lap.lapS ?? 0) + AROUND_S,
      most: 20_000,
    },
    { skip: !logged || channels.length === 0 },
  )
  return useMemo(() => {
    if (!logged || !track) return null
    if (channels.length === 0) return 'The log has no speed and no positions: it cannot be laid along the track.'
    if (error) return readFailure(error).message
    if (!data) return null
    const laid = attempt(() => layLap(data, logged, track))
    return laid instanceof CalculationError ? laid.message : laid
  }, [data, error, logged, track, channels.length])
}
