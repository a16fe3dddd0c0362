import type { Car } from '../../stages/car.ts'
import { median, sampleSd } from '../../stats/moments.ts'
import { type RoomTrackSession, trackSessions } from './track-sessions.ts'

/** What the drift runs of a stage come to. */
export interface DriftDays {
  readonly runs: number
  readonly pairsUsed: number
  readonly days: number
  /** Null where no run has one. */
  readonly entryMps: { readonly value: number; readonly sd: number } | null
  readonly angleRad: { readonly value: number; readonly sd: number } | null
  /** How often a run straightened, of all. */
  readonly straightened: number
  /** Tyres for each day, rear pairs counted twice; null where no pair was counted. */
  readonly tyresPerDay: { readonly value: number; readonly sd: number } | null
}

/** One number alone is known by so much, a share (common practice, no source). */
const LONE_SHARE = 0.03

function middle(values: readonly number[]): { value: number; sd: number } | null {
  if (values.length === 0) return null
  const value = median(values)
  return { value, sd: values.length > 1 ? Math.max(sampleSd(values) / Math.sqrt(values.length), 0.001 * value) : LONE_SHARE * value }
}

/**
 * What some sessions of runs come to; undefined where none holds a run or a pair.
 * @example driftDaysOf([]) // undefined
 */
export function driftDaysOf(sessions: readonly RoomTrackSession[]): DriftDays | undefined {
  const counting = sessions.filter(({ record }) => record.kind === 'runs' && record.setAside === null)
  const runs = counting.flatMap((session) => session.runs).filter(({ setAside }) => setAside === null)
  const pairs = counting.reduce((sum, { record }) => sum + (record.rearPairsUsed ?? 0), 0)
  if (runs.length === 0 && pairs === 0) return undefined
  const byDay = new Map<string, number>()
  for (const { record } of counting) {
    const day = record.at.slice(0, 10)
    byDay.set(day, (byDay.get(day) ?? 0) + 2 * (record.rearPairsUsed ?? 0))
  }
  return {
    runs: runs.length,
    pairsUsed: pairs,
    days: byDay.size,
    entryMps: middle(runs.flatMap(({ entryMps }) => (entryMps === null ? [] : [entryMps]))),
    angleRad: middle(runs.flatMap(({ angleRad }) => (angleRad === null ? [] : [angleRad]))),
    straightened: runs.reduce((sum, run) => sum + run.straightened, 0),
    tyresPerDay: pairs > 0 ? middle([...byDay.values()].filter((tyres) => tyres > 0)) : null,
  }
}

/** What the drift runs entered at a stage come to. */
export const driftAt = (car: Car, position: number): DriftDays | undefined => driftDaysOf(trackSessions(car).filter((session) => session.position === position))
