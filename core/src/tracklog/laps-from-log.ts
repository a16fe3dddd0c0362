import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** A car's way in the plane by time. */
export interface LogPath {
  readonly timeS: ArrayLike<number>
  readonly x: ArrayLike<number>
  readonly y: ArrayLike<number>
}

/** The line across the track: a point, the way it is crossed, and how far it reaches to either side. */
export interface TimingLine {
  readonly x: number
  readonly y: number
  readonly headingRad: number
  readonly halfWidthM: number
}

/** A crossing counts once in so many seconds: a car that stands on the line laps nothing. */
const SHORTEST_LAP_S = 5
/** How far samples of 10 Hz leave a crossing open, s (common practice, no source). */
export const CROSSING_SD_S = 0.02

/** Times at which the line is crossed forward, s: straight between samples. */
function crossings({ timeS, x, y }: LogPath, line: TimingLine): number[] {
  const [cos, sin] = [Math.cos(line.headingRad), Math.sin(line.headingRad)]
  const along = (i: number) => (itemAt(x, i) - line.x) * cos + (itemAt(y, i) - line.y) * sin
  const across = (i: number) => -(itemAt(x, i) - line.x) * sin + (itemAt(y, i) - line.y) * cos
  const found: number[] = []
  for (let i = 1; i < timeS.length; i++) {
    const [a, b] = [along(i - 1), along(i)]
    if (!(a < 0 && b >= 0)) continue
    const share = -a / (b - a)
    if (Math.abs(across(i - 1) * (1 - share) + across(i) * share) > line.halfWidthM) continue
    const at = itemAt(timeS, i - 1) * (1 - share) + itemAt(timeS, i) * share
    if (found.length === 0 || at - (found.at(-1) as number) >= SHORTEST_LAP_S) found.push(at)
  }
  return found
}

export interface LoggedLap {
  readonly fromS: number
  readonly lapS: number
}

/**
 * The laps of a log: from one forward crossing of the line to the next, within its width. The way out and the way in are no laps. Source: the room's page.
 * Rejects a clock that goes back, lists of different length, a line of no width, and a log that crosses the line less than twice.
 * @example lapsFromLog({ timeS: [0, 10, 20, 30], x: [-5, 5, -5, 5], y: [0, 0, 0, 0] }, { x: 0, y: 0, headingRad: 0, halfWidthM: 10 }).length // 1
 */
export function lapsFromLog(path: LogPath, line: TimingLine): readonly LoggedLap[] {
  requireWithin(line.halfWidthM, 0.5, 200, 'halfWidthM')
  if (path.x.length !== path.timeS.length || path.y.length !== path.timeS.length)
    throw new CalculationError('inconsistent', 'timeS', 'Clock and positions differ in their number of samples.')
  for (let i = 1; i < path.timeS.length; i++)
    if (!(itemAt(path.timeS, i) > itemAt(path.timeS, i - 1)))
      throw new CalculationError('inconsistent', 'timeS', `The clock goes back at sample ${i + 1}, ${itemAt(path.timeS, i)} s. Cut the log there.`)
  const found = crossings(path, line)
  if (found.length < 2) {
    const words = found.length === 0 ? 'never crosses the line forward' : 'crosses the line once alone'
    throw new CalculationError('missing', 'line', `The log ${words}: no lap in it. Is it a log of this track?`)
  }
  return found.slice(1).map((at, i) => ({ fromS: itemAt(found, i), lapS: at - itemAt(found, i) }))
}
