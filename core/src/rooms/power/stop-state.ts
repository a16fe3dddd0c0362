import type { PullPlan } from '../../records/power-kinds.ts'

/** What a dyno reads at one moment, in SI; null where it reads none of it. */
export interface PullReading {
  readonly powerW: number
  readonly lambda: number | null
  readonly intakeK: number | null
  readonly coolantK: number | null
  readonly fuelPressurePa: number | null
}

export const STOP_CHANNELS = ['lambda', 'intakeTemperature', 'coolantTemperature', 'fuelPressure', 'headroom'] as const
export type StopChannel = (typeof STOP_CHANNELS)[number]

export interface StopReason {
  readonly of: StopChannel
  readonly value: number
  readonly limit: number
}

export interface StopState {
  readonly reasons: readonly StopReason[]
  /** Limits that are set and that this dyno reads nothing for: a person has to watch them. */
  readonly unread: readonly StopChannel[]
}

/**
 * Which limits of a plan of pulls a reading breaks: lambda, intake and coolant over theirs, fuel pressure under its own, and power over where a part would
 * keep less headroom than asked (`headroomPowerW`, W at the dyno's place; null: nobody knows). It tells the person who stops; it stops nothing.
 * Source: comparison; the limits are the tuner's.
 * @example stopState({ lambdaOver: 0.9, intakeOverK: null, coolantOverK: null, fuelPressureUnderPa: null, headroomUnder: null, knock: null }, { lambda: 0.95 }, null) // { reasons: [{ of: 'lambda', value: 0.95, limit: 0.9 }], unread: [] }
 */
export function stopState(stops: PullPlan['stops'], reading: PullReading, headroomPowerW: number | null): StopState {
  const limits: Record<StopChannel, { value: number | null; limit: number | null; isLeast?: boolean }> = {
    lambda: { value: reading.lambda, limit: stops.lambdaOver },
    intakeTemperature: { value: reading.intakeK, limit: stops.intakeOverK },
    coolantTemperature: { value: reading.coolantK, limit: stops.coolantOverK },
    fuelPressure: { value: reading.fuelPressurePa, limit: stops.fuelPressureUnderPa, isLeast: true },
    headroom: { value: reading.powerW, limit: stops.headroomUnder === null ? null : headroomPowerW },
  }
  const reasons: StopReason[] = []
  const unread: StopChannel[] = []
  for (const of of STOP_CHANNELS) {
    const { value, limit, isLeast = false } = limits[of]
    if (limit === null) continue
    if (value === null) unread.push(of)
    else if (isLeast ? value < limit : value > limit) reasons.push({ of, value, limit })
  }
  return { reasons, unread }
}
