import { combineMeasurements } from '../../proof/combine-measurements.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { median, sampleSd } from '../../stats/moments.ts'
import { type RoomWindow, trackSessions } from './track-sessions.ts'

/** Two days of one car's corners differ by so much beyond lap to lap (common practice, no source). */
const GRIP_BETWEEN_SHARE = 0.02
/** Better than it another day confirms (common practice, no source). */
const USEFUL_SHARE = 0.03

/** Every window of a build's logs. */
export const roomWindows = (car: Car): readonly RoomWindow[] => trackSessions(car).flatMap(({ windows }) => windows)

/** Grip that the corners of a stage's clean laps used: of its latest day, confirmed by another; undefined where no window says it. */
export function cornerGripAt(
  car: Car,
  position: number,
): { readonly value: number; readonly sd: number; readonly proof: Proof; readonly laps: number } | undefined {
  const standing = new Set(trackSessions(car).flatMap(({ record, position: at, whyNot }) => (at === position && whyNot === null ? [record.id] : [])))
  const days = new Map<string, number[]>()
  let laps = 0
  for (const { of, grip, setAside, trackSessionId, day } of roomWindows(car)) {
    if (of !== 'grip' || grip === null || setAside !== null || !standing.has(trackSessionId)) continue
    days.set(day, [...(days.get(day) ?? []), grip])
    laps++
  }
  const [first, ...rest] = [...days]
    .sort(([a], [b]) => (a < b ? 1 : -1))
    .map(([day, grips]) => {
      const value = median(grips)
      const lapSd = grips.length > 1 ? (1.253 * sampleSd(grips)) / Math.sqrt(grips.length) : GRIP_BETWEEN_SHARE * value
      // Another sensor of the same laps is no second visit: the day is the instrument.
      return { value, sd: Math.hypot(lapSd, GRIP_BETWEEN_SHARE * value), instrument: day }
    })
  if (!first) return undefined
  const { value, sd, proof } = combineMeasurements([first, ...rest], (grip) => USEFUL_SHARE * grip)
  return { value, sd, proof, laps }
}
