import type { RoomTrackSession } from '@bold-ballast/core'

/** What two sessions differ in beside what was meant to differ: each of it may be what the difference belongs to (common practice, no source). */
export function mayBelongTo(a: RoomTrackSession, b: RoomTrackSession, text: (kind: 'temperature' | 'speed', value: number) => string): string[] {
  const [x, y] = [a.record, b.record]
  const [airA, airB] = [x.ambient?.temperatureK ?? null, y.ambient?.temperatureK ?? null]
  const apart = (one: number | null, other: number | null, least: number) => one !== null && other !== null && Math.abs(one - other) >= least
  return [
    ...(a.position === b.position ? [] : [`the car: stage ${a.position} against stage ${b.position}`]),
    ...y.turned.map(({ what, from, to }) => `${what} turned ${from ? `from ${from} ` : ''}to ${to}`),
    ...(x.frontTyresPartId === y.frontTyresPartId && x.rearTyresPartId === y.rearTyresPartId ? [] : ['other tyres']),
    ...(x.driver === y.driver ? [] : [`the driver: ${x.driver ?? 'nobody named'} against ${y.driver ?? 'nobody named'}`]),
    ...(x.surface === y.surface ? [] : [`the surface: ${x.surface} against ${y.surface}`]),
    ...(apart(airA, airB, 8) ? [`the air: ${text('temperature', airA as number)} against ${text('temperature', airB as number)}`] : []),
    ...(apart(x.trackK, y.trackK, 8)
      ? [`the track’s warmth: ${text('temperature', x.trackK as number)} against ${text('temperature', y.trackK as number)}`]
      : []),
    ...(apart(x.windMps, y.windMps, 3) ? [`the wind: ${text('speed', x.windMps as number)} against ${text('speed', y.windMps as number)}`] : []),
    ...(apart(x.ease, y.ease, 2) ? [`the driver’s ease: ${x.ease} against ${y.ease} of 5`] : []),
  ]
}
