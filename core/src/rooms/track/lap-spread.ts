import { type RoomTrackSession, USUAL_BETWEEN } from './track-sessions.ts'

/** Spread of a driver's laps until his own are known, s on any track (common practice, no source). */
const USUAL_LAP_SD_S = 0.25

/**
 * Spread of the clean laps driven on a track, s: pooled over its sessions that stand and have three or more; the usual one where they have too few.
 * @example lapSpread([], 'field').sdS // 0.25
 */
export function lapSpread(sessions: readonly RoomTrackSession[], trackId: string | undefined): { readonly sdS: number; readonly isOwn: boolean } {
  const own = sessions.flatMap(({ record, value, whyNot }) => (record.trackId === trackId && whyNot === null && value && value.clean > 2 ? [value] : []))
  const freedom = own.reduce((sum, { clean }) => sum + clean - 1, 0)
  if (freedom < 2) return { sdS: USUAL_LAP_SD_S, isOwn: false }
  return { sdS: Math.sqrt(own.reduce((sum, { clean, lapSdS }) => sum + (clean - 1) * lapSdS ** 2, 0) / freedom), isOwn: true }
}

/**
 * What lies between two sessions beside their own laps, as a share and in s; and how one lap of both scatters, s.
 * @example sidesSpread(makeTrackRoom(CAR).sessions[0], makeTrackRoom(CAR).sessions[0]).share // 0.0015
 */
export function sidesSpread(
  a: RoomTrackSession | undefined,
  b: RoomTrackSession | undefined,
): { readonly share: number; readonly isOwn: boolean; readonly betweenSdS: number; readonly lapSdS: number } {
  const day = (session: RoomTrackSession | undefined) => session?.record.at.slice(0, 10)
  const key = day(a) === day(b) ? 'sameDay' : 'otherDay'
  const between = a?.between ?? b?.between ?? USUAL_BETWEEN
  const share = between[key]
  const [x, y] = [a?.value, b?.value]
  return {
    share,
    isOwn: between.isOwn[key],
    betweenSdS: (share * ((x?.lapS ?? 0) + (y?.lapS ?? 0))) / 2,
    lapSdS: Math.hypot(x?.lapSdS ?? 0, y?.lapSdS ?? 0) / Math.SQRT2,
  }
}
