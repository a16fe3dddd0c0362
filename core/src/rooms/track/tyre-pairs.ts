import type { TrackWheels } from '../../records/track/track-session-kinds.ts'
import type { PressurePair } from '../../tyres/tyre-pressure.ts'
import type { RoomTrackSession } from './track-sessions.ts'

export type WheelKey = keyof TrackWheels
export const WHEEL_KEYS = ['LF', 'RF', 'LR', 'RR'] as const satisfies readonly WheelKey[]

/** Pressures of one wheel cold and hot, with the day they were read. */
export interface WheelPair extends PressurePair {
  readonly wheel: WheelKey
  readonly sessionId: string
  readonly at: string
}

/**
 * The latest pair of each wheel: read cold and hot in one session, never bled in between; air as noted, else standard.
 * @example tyrePairs([]) // []
 */
export function tyrePairs(sessions: readonly RoomTrackSession[]): readonly WheelPair[] {
  return WHEEL_KEYS.flatMap((wheel): WheelPair[] => {
    for (const { record } of [...sessions].reverse()) {
      const own = record.corners?.[wheel]
      if (!own || own.isBled || own.coldPa === null || own.coldK === null || own.hotPa === null || record.setAside !== null) continue
      const ambientPa = record.ambient?.pressureKind === 'station' ? record.ambient.pressurePa : undefined
      const { coldPa, coldK, hotPa } = own
      return [{ wheel, sessionId: record.id, at: record.at, coldPa, coldK, hotPa, ...(ambientPa === undefined ? {} : { ambientPa }) }]
    }
    return []
  })
}
