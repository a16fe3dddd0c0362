import { CalculationError, requirePositive } from '../errors.ts'

/** Why a check is due; the first that holds is told. */
export const DUE_REASONS = ['bad', 'never', 'touched', 'interval', 'expires', 'asked'] as const
export type DueReason = (typeof DUE_REASONS)[number]

/** What is known of a check before an event; days as they are written, 2027-03-20. */
export interface CheckState {
  readonly name: string
  readonly isSafety: boolean
  readonly minutes: number
  /** When it was last found in order; null: never marked so. */
  readonly okOn: string | null
  /** When it was last found bad; null: never. Bad stands until it is in order again. */
  readonly badOn: string | null
  /** When its part, else its zone, was last worked on. */
  readonly touchedOn: string | null
  /** What it may run between two checks, what it ran since the last one, and what the event adds, in one unit; null: no interval. */
  readonly interval: { readonly every: number; readonly since: number; readonly adds: number } | null
  readonly expiresOn: string | null
  readonly isAsked: boolean
  /** How often it was marked, and how often bad. */
  readonly marks: number
  readonly bads: number
}

export interface DueCheck {
  readonly name: string
  readonly reason: DueReason
  /** Without it the event is not fit. */
  readonly stops: boolean
}

function reasonOf({ okOn, badOn, touchedOn, interval, expiresOn, isAsked }: CheckState, lastDay: string): DueReason | null {
  if (badOn !== null && (okOn === null || badOn > okOn)) return 'bad'
  if (okOn === null) return 'never'
  if (touchedOn !== null && touchedOn > okOn) return 'touched'
  if (interval && interval.since + interval.adds > interval.every) return 'interval'
  if (expiresOn !== null && expiresOn < lastDay) return 'expires'
  return isAsked ? 'asked' : null
}

const STOPS: readonly DueReason[] = ['bad', 'never', 'touched', 'expires']
const DAY = /^\d{4}-\d{2}-\d{2}$/

/**
 * What is due before an event that ends on a day, why, and what stops it: a safety check that is bad, was never marked, was touched since or expires before the last
 * day. Short of time: safety first, then what goes bad most often for its minutes, (bad + 0.5)/(marks + 1) a minute. No check that is not safety stops an event.
 * Rejects a day that is none and minutes of zero or less.
 * @example dueChecks([], '2027-03-28').length // 0
 */
export function dueChecks(checks: readonly CheckState[], lastDay: string): DueCheck[] {
  if (!DAY.test(lastDay)) throw new CalculationError('bad-input', 'lastDay', `"${lastDay}" is no day. Write it as 2027-03-28.`)
  const urgency = ({ bads, marks, minutes }: CheckState) => (bads + 0.5) / (marks + 1) / minutes
  return checks
    .flatMap((check) => {
      requirePositive(check.minutes, `${check.name}, minutes`)
      const reason = reasonOf(check, lastDay)
      return reason ? [{ check, reason }] : []
    })
    .sort((a, b) => Number(b.check.isSafety) - Number(a.check.isSafety) || urgency(b.check) - urgency(a.check))
    .map(({ check, reason }) => ({ name: check.name, reason, stops: check.isSafety && STOPS.includes(reason) }))
}
