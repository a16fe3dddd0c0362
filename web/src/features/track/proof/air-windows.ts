import type { BatchWrite, LogSamples } from '@bold-ballast/contract'
import {
  type AeroTestKind,
  axleTravel,
  CalculationError,
  type CoastingSamples,
  type LoadPoint,
  type LogCarInputs,
  type LogChannelRole,
  type RoomLog,
  type RoomTrackSession,
  type SteadyReading,
} from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker, type FetchSamples } from '../use-lap.ts'
import { samplesByRole } from '../use-lap-log.ts'
import { partsOf } from './find-windows.ts'

/** What a log holds for a test of the air: coasting both ways for drag, and what the axles carried by speed. */
export interface AirWindows {
  readonly coasting: Exclude<Awaited<ReturnType<TrackWorker['coasting']>>, { refused: string }>
  readonly loads: { readonly reading: SteadyReading; readonly points: readonly LoadPoint[] } | null
  /** Why no load was read; null: it was. */
  readonly noLoads: string | null
}

const AXLES: readonly LogChannelRole[] = ['damperLF', 'damperRF', 'damperLR', 'damperRR', 'heightFront', 'heightRear']
/** Channels that tell a car that rolls freely, and how far it sinks. */
const WANTED: readonly LogChannelRole[] = ['speed', 'wheelSpeed', 'throttle', 'brakeFront', 'engineSpeed', 'across', 'east', 'north', ...AXLES]

/** Pieces of a log put behind each other, as coasting and loads are looked for in them; no travel where no axle was read. */
export function airSamples(pieces: readonly LogSamples[]): { samples: CoastingSamples; travel: ReturnType<typeof axleTravel> } {
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
  const samples: CoastingSamples = {
    timeS: rows.map((i) => timeS[i] as number),
    speedMps: kept(joined('speed') ?? joined('wheelSpeed')) ?? rows.map(() => Number.NaN),
    throttle: kept(joined('throttle')),
    brakePa: kept(joined('brakeFront')),
    engineRpm: kept(joined('engineSpeed')),
    acrossMps2: kept(joined('across')),
    east: kept(joined('east')),
    north: kept(joined('north')),
  }
  return { samples, travel: axleTravel((role) => kept(joined(role as LogChannelRole))) }
}

/** What a log says of drag and of what the axles carry. Rejects with the sentence of what it lacks for both. */
export async function findAirWindows(log: RoomLog, fetchSamples: FetchSamples): Promise<AirWindows> {
  const channels = log.channels.flatMap(({ role }, i) => (WANTED.includes(role) ? [i] : []))
  if (!log.channels.some(({ role }) => role === 'speed' || role === 'wheelSpeed'))
    throw new CalculationError('missing', 'log', 'Drag and downforce need a speed: the log has none.')
  const pieces: LogSamples[] = []
  for (const { fromS, toS } of partsOf(log, [])) pieces.push(await fetchSamples({ channels, fromS, toS, most: 20_000 }))
  const thread = beginTrackWorker()
  try {
    const worker = wrap<TrackWorker>(thread) as Remote<TrackWorker>
    const { samples, travel } = airSamples(pieces)
    const coasting = await worker.coasting(samples)
    if ('refused' in coasting) throw new CalculationError('bad-input', 'log', coasting.refused)
    if (!travel) return { coasting, loads: null, noLoads: 'What the axles carry needs dampers or heights of both: the log has none.' }
    const { reading, frontM, rearM } = travel
    const points = await worker.loads({ ...samples, frontM, rearM })
    return 'refused' in points ? { coasting, loads: null, noLoads: points.refused } : { coasting, loads: { reading, points }, noLoads: null }
  } finally {
    thread.terminate()
  }
}

/** What a log says of the air as tests of Aero, with the car and the air of its session: one entry of the log. */
export function airWrites(
  { coasting: { pairs }, loads }: AirWindows,
  { record, trackName }: Pick<RoomTrackSession, 'record' | 'trackName'>,
  { car: { massKg, massSdKg } }: LogCarInputs,
  newId: () => string,
): BatchWrite[] {
  const test = (kind: AeroTestKind, runs: readonly object[]): BatchWrite[] => {
    const testId = newId()
    const { stageId, at, ambient } = record
    if (runs.length === 0) return []
    return [
      { kind: 'create', resource: 'aero-tests', body: { id: testId, stageId, at, kind, placeName: trackName, ambient, massKg, massSdKg } },
      ...runs.map((run, position): BatchWrite => ({ kind: 'create', resource: 'aero-runs', body: { id: newId(), testId, position, ...run } })),
    ]
  }
  return [
    ...test(
      'coastDown',
      pairs.map(({ out, back, fit }) => ({ coast: { out, back, fit }, steady: null })),
    ),
    ...test('steady', loads ? [{ coast: null, steady: { reading: loads.reading, points: loads.points.map(({ fromS: _, ...point }) => point) } }] : []),
  ]
}

const counted = (count: number, one: string, more: string) => `${count} ${count === 1 ? one : more}`

/** What was found, in words; what was not, with the reason. */
export function airWords({ coasting: { pairs, left }, loads, noLoads }: AirWindows): { readonly handed: string | null; readonly told: readonly string[] } {
  const over = left === 0 ? '' : ` ${left} more found no run the other way.`
  const found = [
    ...(pairs.length > 0 ? [counted(pairs.length, 'pair of coasting', 'pairs of coasting')] : []),
    ...(loads ? [`${counted(loads.points.length, 'second', 'seconds')} of load on the axles`] : []),
  ]
  return {
    handed: found.length > 0 ? `Aero has ${found.join(' and ')} to test with now.${over}` : null,
    told: [
      ...(pairs.length === 0
        ? [`The car rolled freely both ways on no straight of it: out of gear, no pedal, for 8 s and down to two thirds of the speed.${over}`]
        : []),
      ...(noLoads ? [noLoads] : []),
    ],
  }
}
