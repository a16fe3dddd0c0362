import type { Check, CheckReading } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { checksInCar, marksByCheck } from '../checks/states.ts'

/** An alarm that cried in more than this share of good runs cries for nothing (common practice, no source). */
export const MOST_CRIES = 0.1

export interface AlarmView {
  readonly check: Check & { readonly reading: CheckReading }
  /** Good runs whose log has its channel. */
  readonly runs: number
  /** Of them those in which a limit was passed; by the extremes of the log, for how long is not known. */
  readonly cried: number
  readonly last: { readonly value: number; readonly at: string; readonly isOver: boolean } | null
  /** What must not fail unseen has one sensor. */
  readonly wantsSecond: boolean
}

const isReading = (check: Check): check is Check & { reading: CheckReading } => check.reading !== null
/** Roles without which an engine dies unseen. */
const VITAL_ROLES = new Set(['oilPressure', 'fuelPressure', 'coolant'])

/**
 * Whether a value lies past the stops.
 * @example isOverStop(COOLANT.reading, 380) // true
 */
export const isOverStop = ({ stopLow, stopHigh }: CheckReading, value: number): boolean =>
  (stopHigh !== null && value > stopHigh) || (stopLow !== null && value < stopLow)

/** Limits of the readings of a stage, with what they would have cried in runs in which nothing was wrong. */
export function alarmsAtStage(
  records: Pick<BuildRecords, 'checks' | 'marks' | 'parts' | 'stages' | 'trackLogs' | 'trackSessions'>,
  position: number,
): AlarmView[] {
  const marks = marksByCheck(records.marks)
  const good = new Set(records.trackSessions.filter(({ setAside }) => setAside === null).map(({ id }) => id))
  const logs = records.trackLogs.filter(({ trackSessionId }) => good.has(trackSessionId))
  return checksInCar(records, position)
    .filter(isReading)
    .map((check): AlarmView => {
      const { reading } = check
      const { role, warnHigh, stopHigh, warnLow, stopLow, secondSensor } = reading
      const [low, high] = [warnLow ?? stopLow, warnHigh ?? stopHigh]
      const channels = role === null ? [] : logs.flatMap((log) => log.channels.filter((channel) => channel.role === role && channel.count > 0))
      const cried = channels.filter(({ min, max }) => (high !== null && max > high) || (low !== null && min < low)).length
      const last = (marks.get(check.id) ?? []).find(({ value }) => value !== null)
      return {
        check,
        runs: channels.length,
        cried,
        last: last?.value == null ? null : { value: last.value, at: last.at, isOver: isOverStop(reading, last.value) },
        wantsSecond: role !== null && VITAL_ROLES.has(role) && !secondSensor,
      }
    })
}
