import type {
  DeviceEntry,
  DeviceEvent,
  DeviceReading,
  DynoSample,
  DynoStatus,
  LoggedTestRun,
  LoggerStatus,
  LogLap,
  LogSample,
  StationAir,
} from '@bold-ballast/contract'
import { useEffect, useState } from 'react'
import { readStored, writeStored } from '../data/stored.ts'
import { sharedStream } from './shared-stream.ts'

/** A pull that a dyno was read through. */
export interface LivePull {
  readonly pullId: string
  readonly samples: readonly DynoSample[]
}

export interface DeviceStream {
  readonly state: DeviceEntry['state'] | 'serverAway' | 'opening'
  /** Of a scale set. */
  readonly reading: DeviceReading | null
  /** Of a dyno. */
  readonly status: DynoStatus | null
  /** Of a dyno: its latest pulls, oldest first. */
  readonly pulls: readonly LivePull[]
  /** Of a logger: itself, its latest rows, and the laps it told, oldest first. */
  readonly logger: LoggerStatus | null
  readonly rows: readonly LogSample[]
  readonly laps: readonly LogLap[]
  /** Of a logger: runs of a test that have ended, oldest first. */
  readonly runs: readonly LoggedTestRun[]
  /** Of a weather station. */
  readonly air: StationAir | null
  /** When it said something last. */
  readonly at: string | null
}

const OPENING: DeviceStream = { state: 'opening', reading: null, status: null, pulls: [], logger: null, rows: [], laps: [], runs: [], air: null, at: null }
/** As many as the server keeps. */
const MOST_PULLS = 12

/** Samples joined to those of the same pull; what was told before, after the stream was opened again, is not taken twice. Another pull comes last. */
export function joinSamples(before: readonly LivePull[], { pullId, samples }: LivePull): readonly LivePull[] {
  if (samples.length === 0) return before
  const known = before.find((pull) => pull.pullId === pullId)
  if (!known) return [...before.slice(1 - MOST_PULLS), { pullId, samples }]
  const last = known.samples.at(-1)?.timeS ?? -1
  const fresh = samples.filter(({ timeS }) => timeS > last)
  return fresh.length === 0 ? before : before.map((pull) => (pull === known ? { pullId, samples: [...known.samples, ...fresh] } : pull))
}

const MOST_ROWS = 600

/** Rows of a logger behind those before; one that counts from the start again begins anew, and none is taken twice. */
export function joinRows(before: readonly LogSample[], more: readonly LogSample[]): readonly LogSample[] {
  return more.reduce<readonly LogSample[]>((rows, row) => {
    const last = rows.at(-1)?.timeS ?? -1
    return row.timeS < last - 1 ? [row] : row.timeS > last ? [...rows.slice(1 - MOST_ROWS), row] : rows
  }, before)
}

function after(now: DeviceStream, event: DeviceEvent): DeviceStream {
  switch (event.type) {
    case 'state':
      return { ...now, state: event.state }
    case 'reading':
      return { ...now, state: 'connected', reading: event.reading, at: event.at }
    case 'status':
      return { ...now, state: 'connected', status: event.status, at: event.at }
    case 'samples':
      return { ...now, state: 'connected', pulls: joinSamples(now.pulls, event), at: event.at }
    case 'logStatus':
      return { ...now, state: 'connected', logger: event.status, at: event.at }
    case 'logSamples':
      return { ...now, state: 'connected', rows: joinRows(now.rows, event.samples), at: event.at }
    case 'laps':
      return { ...now, state: 'connected', laps: event.laps, at: event.at }
    case 'run': {
      const { run } = event
      return { ...now, state: 'connected', runs: now.runs.some(({ runId }) => runId === run.runId) ? now.runs : [...now.runs, run], at: event.at }
    }
    case 'air':
      return { ...now, state: 'connected', air: event.air, at: event.at }
  }
}

const keyOf = (id: string) => `bold-ballast.pulls.${id}`

/**
 * What a device says, live. What it said is kept when the device or the server is lost, and both are looked for again; pulls that have ended are kept
 * in this browser too, so that they outlive a server that was killed and a page that was loaded again.
 */
export function useStream(id: string | null): DeviceStream {
  const [stream, setStream] = useState<DeviceStream>(OPENING)
  useEffect(() => {
    if (id === null) return
    setStream({ ...OPENING, pulls: readStored(keyOf(id), OPENING.pulls) })
    return sharedStream<DeviceEvent>(`/api/devices/${id}/stream`, {
      onEvent: (event) => setStream((now) => after(now, event)),
      onAway: (isRefused) => setStream((now) => ({ ...now, state: isRefused ? 'lost' : 'serverAway' })),
    })
  }, [id])
  const { pulls } = stream
  const isPulling = stream.status?.isPulling ?? true
  useEffect(() => {
    if (id !== null && !isPulling && pulls.length > 0) writeStored(keyOf(id), pulls)
  }, [id, pulls, isPulling])
  return stream
}
