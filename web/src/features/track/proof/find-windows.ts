import type { BatchWrite } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  type LogCarInputs,
  type LogChannelRole,
  lapGripUsed,
  type PowerWindow,
  type RoomLog,
  type RoomTrackSession,
  type TrackRoom,
} from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker, type FetchSamples } from '../use-lap.ts'
import { type LoggedRoomLap, layLap, samplesByRole } from '../use-lap-log.ts'

/** What a log was found to hold; why not, where it holds none. */
export interface FoundWindows {
  readonly log: RoomLog
  readonly power: readonly PowerWindow[]
  readonly grip: readonly { readonly fromS: number; readonly toS: number; readonly grip: number; readonly lap: number }[]
  readonly told: readonly string[]
}

/** The part of a log that is read at once: a lap of it, or so much of a log without laps. */
interface Part {
  readonly fromS: number
  readonly toS: number
  readonly logged: LoggedRoomLap | null
}

const MOST_ROWS = 18_000
const POWER: readonly LogChannelRole[] = ['speed', 'engineSpeed', 'throttle']
const LAID: readonly LogChannelRole[] = ['wheelSpeed', 'east', 'north', 'along', 'across']

/** The laps of a log, or a log without any in pieces that are read whole. */
export function partsOf(log: RoomLog, laps: readonly LoggedRoomLap[]): readonly Part[] {
  if (laps.length > 0) return laps.map((logged) => ({ fromS: logged.lap.fromS, toS: logged.lap.fromS + logged.lap.lapS, logged }))
  const stepS = (MOST_ROWS * log.durationS) / Math.max(MOST_ROWS, log.rowCount)
  return Array.from({ length: Math.ceil(log.durationS / stepS) }, (_, i) => ({ fromS: i * stepS, toS: Math.min(log.durationS, (i + 1) * stepS), logged: null }))
}

/** Windows of full throttle and of corners in a log: its clean laps one by one, or all of it where it has none. Says why where a kind is not there. */
export async function findWindows({
  log,
  laps,
  track,
  inputs,
  fetchSamples,
}: {
  log: RoomLog
  laps: readonly LoggedRoomLap[]
  track: TrackRoom['tracks'][number]
  inputs: LogCarInputs
  fetchSamples: FetchSamples
}): Promise<FoundWindows> {
  const channels = log.channels.flatMap(({ role }, i) => (POWER.includes(role) || LAID.includes(role) ? [i] : []))
  const thread = beginTrackWorker()
  const worker = wrap<TrackWorker>(thread) as Remote<TrackWorker>
  const found = { power: [] as PowerWindow[], grip: [] as FoundWindows['grip'][number][], why: new Set<string>() }
  try {
    for (const { fromS, toS, logged } of partsOf(log, laps)) {
      const samples = await fetchSamples({ channels, fromS, toS, most: 20_000 })
      const { timeS, of } = samplesByRole(samples)
      const laid = logged ? attempt(() => layLap(samples, logged, track)) : null
      const road = laid && !(laid instanceof CalculationError) && logged ? { track, trace: laid.trace, fromS: logged.lap.fromS } : null
      const [speedMps, engineRpm] = [of('speed') ?? of('wheelSpeed'), of('engineSpeed')]
      if (speedMps && engineRpm) {
        const windows = await worker.windows({ timeS, speedMps, engineRpm, throttle: of('throttle') }, inputs, road)
        if ('refused' in windows) found.why.add(windows.refused)
        // Fetched with some seconds around: what begins before the part is of the one before it.
        else found.power.push(...windows.filter((window) => window.fromS >= fromS && window.fromS < toS))
      } else found.why.add('Power needs a speed and an engine speed: the log lacks one of them.')
      const [along, across] = [of('along'), of('across')]
      if (logged && along && across && speedMps) {
        const within = timeS.flatMap((t, i) => (t >= fromS && t <= toS ? [i] : []))
        const pick = (list: readonly number[]) => within.map((i) => list[i] as number)
        const car = { massKg: inputs.car.massKg, downforceM2: inputs.downforceM2, airDensityKgM3: inputs.car.airDensityKgM3 }
        const grip = attempt(() => lapGripUsed({ speedMps: pick(speedMps), alongMps2: pick(along), acrossMps2: pick(across) }, car))
        if (grip instanceof CalculationError) found.why.add(grip.message)
        else found.grip.push({ fromS, toS, grip, lap: logged.lap.position + 1 })
      }
    }
  } finally {
    thread.terminate()
  }
  if (!log.channels.some(({ role }) => role === 'across')) found.why.add('Grip of corners needs accelerations along and across: the log has none.')
  return { log, power: found.power, grip: found.grip, told: found.power.length > 0 && found.grip.length > 0 ? [] : [...found.why] }
}

/** Windows as they are stored, as one entry of the log; those of the log that were kept before go. */
export function windowWrites(
  { log, power, grip }: FoundWindows,
  before: readonly { readonly id: string; readonly version: number; readonly logId: string }[],
  newId: () => string,
): BatchWrite[] {
  return [
    ...before.flatMap(({ id, version, logId }): BatchWrite[] => (logId === log.id ? [{ kind: 'remove', resource: 'log-windows', id, version }] : [])),
    ...power.map(
      ({ fromS, toS, gear, points }): BatchWrite => ({
        kind: 'create',
        resource: 'log-windows',
        body: {
          id: newId(),
          logId: log.id,
          fromS,
          toS,
          of: 'power',
          gear,
          points: points.map(({ speedRpm, powerW, sdW }) => ({ speedRpm, powerW: Math.max(0, powerW), sdW })),
        },
      }),
    ),
    ...grip.map(
      ({ fromS, toS, grip: value }): BatchWrite => ({
        kind: 'create',
        resource: 'log-windows',
        body: { id: newId(), logId: log.id, fromS, toS, of: 'grip', grip: value },
      }),
    ),
  ]
}

/** Logs of a stage's sessions, the latest first, with the clean laps that stand in each. */
export const logsOfStage = (sessions: readonly RoomTrackSession[], position: number): readonly { log: RoomLog; session: RoomTrackSession }[] =>
  sessions
    .filter((session) => session.position === position)
    .flatMap((session) => session.logs.map((log) => ({ log, session })))
    .reverse()
