import type { PullPlan } from '../build/records.ts'

/** What a dyno reads at one moment, in SI; null where it reads none of it. */
export interface PullReading {
  readonly lambda: number | null
  readonly intakeK: number | null
  readonly coolantK?: number | null | undefined
  readonly fuelPressurePa?: number | null | undefined
}

export interface StopReason {
  readonly of: 'lambda' | 'intakeTemperature' | 'coolantTemperature' | 'fuelPressure'
  readonly value: number
  readonly limit: number
}

/**
 * Which limits of a plan of pulls a reading breaks: lambda, intake and coolant over theirs, fuel pressure under its own. It tells the person who
 * stops; it stops nothing. A reading that is not there breaks nothing. Source: comparison; the limits are the tuner's.
 */
export function stopReasons(stops: PullPlan['stops'], reading: PullReading): StopReason[] {
  const over = (of: StopReason['of'], value: number | null | undefined, limit: number | null): StopReason[] =>
    value === null || value === undefined || limit === null || value <= limit ? [] : [{ of, value, limit }]
  const { fuelPressurePa: pressure } = reading
  const least = stops.fuelPressureUnderPa
  return [
    ...over('lambda', reading.lambda, stops.lambdaOver),
    ...over('intakeTemperature', reading.intakeK, stops.intakeOverK),
    ...over('coolantTemperature', reading.coolantK, stops.coolantOverK),
    ...(pressure === null || pressure === undefined || least === null || pressure >= least
      ? []
      : [{ of: 'fuelPressure', value: pressure, limit: least } as const]),
  ]
}
