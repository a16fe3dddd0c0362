import { attempt, CalculationError, driverHeld, type LapCar, type TrackRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'
import { bestLogged, useLaidLap } from '../use-lap-log.ts'
import type { DriverHeldLap } from './track-map.tsx'

/** Where the driver held the best logged lap of a stage's sessions on a track; null without one, or without throttle and accelerations in it. */
export function useDriverHeld(
  buildId: string,
  room: TrackRoom,
  position: number,
  track: TrackRoom['tracks'][number] | null,
  car: LapCar | null,
): DriverHeldLap | null {
  const { text } = useQuantities()
  const best = useMemo(
    () =>
      room.sessions
        .filter((session) => session.position === position && session.record.trackId === track?.id)
        .flatMap((session) => bestLogged(session) ?? [])
        .sort((a, b) => a.lap.lapS - b.lap.lapS)[0],
    [room, position, track],
  )
  const laid = useLaidLap(buildId, best, track)
  const stretches = useMemo(() => {
    if (!laid || typeof laid === 'string' || !car) return null
    const [speedMps, throttle, alongMps2, acrossMps2] = [laid.of('speed') ?? laid.of('wheelSpeed'), laid.of('throttle'), laid.of('along'), laid.of('across')]
    if (!speedMps || !throttle || !alongMps2 || !acrossMps2) return null
    const found = attempt(() => driverHeld({ ...laid.trace, speedMps, throttle, alongMps2, acrossMps2 }, car))
    return found instanceof CalculationError ? null : found
  }, [laid, car])
  return best && stretches ? { words: text('lapTime', best.lap.lapS, { decimals: 2 }), stretches } : null
}
