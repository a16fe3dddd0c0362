import { type SlowDrift, slowDrift } from '../../checks/slow-drift.ts'
import type { Check } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'

type Records = Pick<BuildRecords, 'checks' | 'marks' | 'trackSessions' | 'laps'>

/** A reading that drifts: over hours of laps, or over days where no laps lie between. */
export interface CheckDrift {
  readonly check: Check
  readonly drift: SlowDrift
  readonly per: 'hour' | 'day'
}

const DAY_MS = 86_400_000

/** Hours of laps that were driven before a moment. */
function hoursBy({ trackSessions, laps }: Records): (atMs: number) => number {
  const startOf = new Map(trackSessions.map(({ id, at }) => [id, Date.parse(at)]))
  const driven = laps.map(({ trackSessionId, lapS }) => ({ atMs: startOf.get(trackSessionId) ?? 0, hours: lapS / 3600 }))
  return (atMs) => driven.reduce((sum, lap) => (lap.atMs <= atMs ? sum + lap.hours : sum), 0)
}

/**
 * Readings that drift with use towards a limit: each mark of one check with its value, over the hours of laps driven by then; over days where none were driven
 * between. It runs towards where it warns, else where it stops.
 * @example checkDrifts({ checks: [], marks: [], trackSessions: [], laps: [] }) // []
 */
export function checkDrifts(records: Records): CheckDrift[] {
  const read = new Map<string, { readonly atMs: number; readonly value: number }[]>()
  for (const { checkId, at, value } of records.marks) if (value !== null) read.set(checkId, [...(read.get(checkId) ?? []), { atMs: Date.parse(at), value }])
  const hours = hoursBy(records)
  return records.checks.flatMap((check): CheckDrift[] => {
    const [reading, marks] = [check.reading, read.get(check.id) ?? []]
    if (!reading || marks.length === 0) return []
    const limits = { low: reading.warnLow ?? reading.stopLow, high: reading.warnHigh ?? reading.stopHigh }
    const used = marks.map(({ atMs, value }) => ({ use: hours(atMs), value }))
    const isDriven = new Set(used.map(({ use }) => use)).size > 1
    const drift = slowDrift(isDriven ? used : marks.map(({ atMs, value }) => ({ use: atMs / DAY_MS, value })), limits)
    return drift && drift.useLeft !== null ? [{ check, drift, per: isDriven ? 'hour' : 'day' }] : []
  })
}
