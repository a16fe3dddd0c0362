import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { median } from '../stats/moments.ts'
import { type LoggedLap, lapsFromLog, type TimingLine } from './laps-from-log.ts'
import type { LogReport } from './log-report.ts'
import { type Origin, toPlane } from './plane.ts'

/** Where a track lies, and how long it is. */
export interface TrackPlace {
  readonly origin: Origin | null
  readonly bearingRad: number | null
  readonly lengthM: number | null
}

type LapSource = Pick<LogReport, 'timeS' | 'origin' | 'east' | 'north' | 'lap'>

/** Laps between changes of the count that the logger kept; what runs before the first change and behind the last is none. */
function lapsByCount({ timeS }: LapSource, lap: ArrayLike<number>): LoggedLap[] {
  const changes: number[] = []
  for (let i = 1; i < lap.length; i++) if (itemAt(lap, i) !== itemAt(lap, i - 1) && !Number.isNaN(itemAt(lap, i - 1))) changes.push(itemAt(timeS, i))
  return changes.slice(1).map((at, i) => ({ fromS: itemAt(changes, i), lapS: at - itemAt(changes, i) }))
}

/** How far the timing line reaches to either side of a driven line, m (common practice, no source). */
const LINE_HALF_WIDTH_M = 15

/** Way of a lap by its positions, m. */
function wayOf({ timeS, east, north }: LapSource, { fromS, lapS }: LoggedLap): number {
  if (!east || !north) return 0
  let way = 0
  let last = -1
  for (let i = 0; i < timeS.length; i++) {
    if (itemAt(timeS, i) < fromS || itemAt(timeS, i) > fromS + lapS || Number.isNaN(itemAt(east, i))) continue
    if (last >= 0) way += Math.hypot(itemAt(east, i) - itemAt(east, last), itemAt(north, i) - itemAt(north, last))
    last = i
  }
  return way
}

/** Laps of another length than the track's are not of it. */
const LEAST_FACTOR = 0.97
const MOST_FACTOR = 1.03

/** Positions that were sampled, from the track's own origin. */
function pathFrom(log: LapSource, origin: Origin): { timeS: number[]; x: number[]; y: number[] } {
  const shift = toPlane(origin, [log.origin as Origin])
  const path = { timeS: [] as number[], x: [] as number[], y: [] as number[] }
  for (let i = 0; i < log.timeS.length; i++) {
    const [x, y] = [itemAt(log.east as Float64Array, i), itemAt(log.north as Float64Array, i)]
    if (Number.isNaN(x) || Number.isNaN(y)) continue
    path.timeS.push(itemAt(log.timeS, i))
    path.x.push(x + itemAt(shift.x, 0))
    path.y.push(y + itemAt(shift.y, 0))
  }
  return path
}

/**
 * The laps of a log on a track: by its positions where the track has a place on the Earth, else by the count that the logger kept.
 * Rejects a log without either, one that never crosses the line, and one whose laps are not as long as the track.
 * @example lapsOfLog(LOG, { origin: null, bearingRad: null, lengthM: null }).length // 1
 */
export function lapsOfLog(log: LapSource, { origin, bearingRad, lengthM }: TrackPlace): readonly LoggedLap[] {
  const laps = lapsWithin(log, origin, bearingRad)
  const factor = lengthM === null || !log.origin ? 1 : median(laps.map((lap) => wayOf(log, lap))) / lengthM
  if (factor < LEAST_FACTOR || factor > MOST_FACTOR)
    throw new CalculationError(
      'inconsistent',
      'file',
      `A lap of the log is ${(factor * (lengthM ?? 0)).toFixed(0)} m long, the track ${(lengthM ?? 0).toFixed(0)} m: another track, or another way round it. Pick the track it was driven on.`,
    )
  return laps
}

function lapsWithin(log: LapSource, origin: Origin | null, bearingRad: number | null): readonly LoggedLap[] {
  if (log.origin && origin && bearingRad !== null) {
    const line: TimingLine = { x: 0, y: 0, headingRad: bearingRad, halfWidthM: LINE_HALF_WIDTH_M }
    return lapsFromLog(pathFrom(log, origin), line)
  }
  if (log.lap) {
    const laps = lapsByCount(log, log.lap)
    if (laps.length === 0) throw new CalculationError('missing', 'file', 'The count of laps changes less than twice: no whole lap in it.')
    return laps
  }
  throw new CalculationError(
    'missing',
    'file',
    'The track was drawn in words and has no place on the Earth, and the log counts no laps. Import the track out of a trace, or export the log with its laps.',
  )
}
