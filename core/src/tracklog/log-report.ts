import type { LogRole } from './log-roles.ts'
import type { Origin } from './plane.ts'

/** What a channel that is kept holds: positions become metres east and north of where the log begins. */
export type LogChannelRole = Exclude<LogRole, 'latitude' | 'longitude'> | 'east' | 'north'

export interface LogChannel {
  readonly role: LogChannelRole
  readonly name: string
  /** The record unit of its kind; as the file has it where nobody knows it. */
  readonly unit: string
  readonly rateHz: number
  readonly count: number
  readonly min: number
  readonly max: number
  readonly gapShare: number
}

/** A log as it was read; samples went to where they are kept. */
export interface LogReport {
  readonly channels: readonly LogChannel[]
  readonly rowCount: number
  readonly durationS: number
  readonly problems: readonly string[]
  readonly told: string
  /** Where positions are counted from; null: it has none. */
  readonly origin: Origin | null
  /** What laps are read from: the clock, positions, and the count that the logger kept. */
  readonly timeS: Float64Array
  readonly east: Float64Array | null
  readonly north: Float64Array | null
  readonly lap: Float64Array | null
}
