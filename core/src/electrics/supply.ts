import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { normalCdf } from '../stats/normal.ts'

/** Volts at which a belt's work is reckoned. */
const CHARGE_V = 14
const MINUTES_PER_HOUR = 60

/**
 * Whether the alternator carries the car: mean current is Σ I duty; margin hot and at idle; what the belt gives it; minutes on the battery alone. Rejects duties and
 * shares outside 0 to 1 and a car that draws nothing. Source: formulas I.1, I.2; shares are common practice, no source.
 * @example supply({ circuits: [{ currentA: 62.4, duty: 1 }], alternatorA: 110, batteryAh: 18 }).idleA // -7.4
 */
export function supply(input: {
  circuits: readonly { currentA: number; duty: number }[]
  alternatorA: number
  hotShare?: number
  idleShare?: number
  batteryAh: number
  usable?: number
  efficiency?: number
}): { meanA: number; hotA: number; idleA: number; shaftW: number; batteryMinutes: number } {
  const { circuits, alternatorA, hotShare = 0.75, idleShare = 0.5, batteryAh, usable = 0.8, efficiency = 0.55 } = input
  requirePositive(alternatorA, 'alternatorA')
  requirePositive(batteryAh, 'batteryAh')
  for (const [field, value] of Object.entries({ hotShare, idleShare, usable })) requireWithin(value, 0.05, 1, field)
  requireWithin(efficiency, 0.2, 0.95, 'efficiency')
  const meanA = circuits.reduce((sum, { currentA, duty }, i) => {
    requireWithin(currentA, 0, 1000, `circuits.${i}.currentA`)
    requireWithin(duty, 0, 1, `circuits.${i}.duty`)
    return sum + currentA * duty
  }, 0)
  if (!(meanA > 0)) throw new CalculationError('missing', 'circuits', '0 A draws nothing. Type what the circuits draw.')
  return {
    meanA,
    hotA: alternatorA * hotShare - meanA,
    idleA: alternatorA * idleShare - meanA,
    shaftW: (meanA * CHARGE_V) / efficiency,
    batteryMinutes: (batteryAh * usable * MINUTES_PER_HOUR) / meanA,
  }
}

/** An output with what runs on it. */
export interface LoadedOutput {
  readonly key: string
  /** What it trips at as set; else its rating. */
  readonly tripA: number
  readonly circuits: readonly { readonly currentA: number; readonly sdA: number }[]
}

export interface TripOutput {
  readonly key: string
  readonly loadA: number
  /** Times its load at which it trips; infinite where nothing runs on it. */
  readonly factor: number
  /** That it trips now. */
  readonly chanceOver: number
  /** The next whole ampere over 1.25 times its load. */
  readonly settingA: number
}

/** A set trip lies this far over the load (common practice, no source). */
const TRIP_OVER_LOAD = 1.25

/**
 * Outputs in the order in which they trip as all currents grow alike: trip over load, the least first; the chance that each trips now; the setting that would do.
 * Rejects trips and currents of zero or less. A fuse and a set trip differ: a set trip is exact, a fuse is not.
 * @example firstToTrip([{ key: '1', tripA: 20, circuits: [{ currentA: 14.8, sdA: 1.48 }] }])[0].factor // 1.351
 */
export function firstToTrip(outputs: readonly LoadedOutput[]): TripOutput[] {
  return outputs
    .map(({ key, tripA, circuits }): TripOutput => {
      requirePositive(tripA, `${key}, trip`)
      const loadA = circuits.reduce((sum, { currentA }) => sum + requireWithin(currentA, 0, 1000, `${key}, current`), 0)
      const sdA = Math.hypot(...circuits.map((circuit) => circuit.sdA))
      const chanceOver = sdA > 0 ? normalCdf((loadA - tripA) / sdA) : loadA > tripA ? 1 : 0
      return { key, loadA, factor: loadA > 0 ? tripA / loadA : Number.POSITIVE_INFINITY, chanceOver, settingA: Math.floor(TRIP_OVER_LOAD * loadA) + 1 }
    })
    .sort((a, b) => a.factor - b.factor || a.key.localeCompare(b.key))
}
