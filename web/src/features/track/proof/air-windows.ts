import type { BatchWrite, LogSamples } from '@bold-ballast/contract'
import { CalculationError, type CoastingSamples, type LogCarInputs, type LogChannelRole, type RoomLog, type RoomTrackSession } from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker, type FetchSamples } from '../use-lap.ts'
import { samplesByRole } from '../use-lap-log.ts'
import { partsOf } from './find-windows.ts'

type Coasting = Exclude<Awaited<ReturnType<TrackWorker['coasting']>>, { refused: string }>

/** Channels that tell a car that rolls freely. */
const WANTED: readonly LogChannelRole[] = ['speed', 'wheelSpeed', 'throttle', 'brakeFront', 'engineSpeed', 'across', 'east', 'north']

/** Pieces of a log put behind each other, as coasting is looked for in them. */
export function coastingSamples(pieces: readonly LogSamples[]): CoastingSamples {
  const read = pieces.map(samplesByRole)
  const joined = (role: LogChannelRole) => {
    const lists = read.map(({ timeS, of }) => of(role) ?? timeS.map(() => Number.NaN))
    return lists.some((list) => list.some((value) => !Number.isNaN(value))) ? lists.flat() : null
  }
  const timeS = read.flatMap((piece) => piece.timeS)
  // Pieces are fetched with some seconds around: a time stands once.
  let latest = Number.NEGATIVE_INFINITY
  const rows = timeS.flatMap((t, i) => {
    if (t <= latest) return []
    latest = t
    return [i]
  })
  const kept = (list: readonly number[] | null) => list && rows.map((i) => list[i] as number)
  return {
    timeS: rows.map((i) => timeS[i] as number),
    speedMps: kept(joined('speed') ?? joined('wheelSpeed')) ?? rows.map(() => Number.NaN),
    throttle: kept(joined('throttle')),
    brakePa: kept(joined('brakeFront')),
    engineRpm: kept(joined('engineSpeed')),
    acrossMps2: kept(joined('across')),
    east: kept(joined('east')),
    north: kept(joined('north')),
  }
}

/** Every stretch of a log that the car rolled freely, in pairs. Rejects with the sentence of what it lacks. */
export async function findCoasting(log: RoomLog, fetchSamples: FetchSamples): Promise<Coasting> {
  const channels = log.channels.flatMap(({ role }, i) => (WANTED.includes(role) ? [i] : []))
  if (!log.channels.some(({ role }) => role === 'speed' || role === 'wheelSpeed'))
    throw new CalculationError('missing', 'log', 'Coasting needs a speed: the log has none.')
  const pieces: LogSamples[] = []
  for (const { fromS, toS } of partsOf(log, [])) pieces.push(await fetchSamples({ channels, fromS, toS, most: 20_000 }))
  const thread = beginTrackWorker()
  try {
    const worker = wrap<TrackWorker>(thread) as Remote<TrackWorker>
    const found = await worker.coasting(coastingSamples(pieces))
    if ('refused' in found) throw new CalculationError('bad-input', 'log', found.refused)
    return found
  } finally {
    thread.terminate()
  }
}

/** The pairs of a log as a test of Aero, with the car and the air of its session: one entry of the log. */
export function coastingWrites(
  { pairs }: Coasting,
  { record, trackName }: Pick<RoomTrackSession, 'record' | 'trackName'>,
  { car: { massKg, massSdKg } }: LogCarInputs,
  newId: () => string,
): BatchWrite[] {
  const testId = newId()
  return [
    {
      kind: 'create',
      resource: 'aero-tests',
      body: { id: testId, stageId: record.stageId, at: record.at, kind: 'coastDown', placeName: trackName, ambient: record.ambient, massKg, massSdKg },
    },
    ...pairs.map(
      ({ out, back, fit }): BatchWrite => ({ kind: 'create', resource: 'aero-runs', body: { id: newId(), testId, coast: { out, back, fit }, steady: null } }),
    ),
  ]
}
