import type { SteadyReading } from '../aero/steady-readings.ts'
import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { mean } from '../stats/moments.ts'
import { type CoastingSamples, headingOf, holdLast } from './coast-windows.ts'
import type { LogRole } from './log-roles.ts'

/** Samples of a log as the load on the axles is looked for in them: how far each axle sank beside what tells a straight. */
export interface LoadSamples extends CoastingSamples {
  /** Growing as the axle sinks, from any zero, m. */
  readonly frontM: readonly number[]
  readonly rearM: readonly number[]
}

/** A speed on a straight with how far the axles had sunk; deceleration as aero tests keep it. */
export interface LoadPoint {
  readonly fromS: number
  readonly speedMps: number
  readonly frontM: number
  readonly rearM: number
  readonly decelerationMps2: number
}

/** What still counts as a straight that nothing pitches the car on (common practice, no source): no brake, no corner, a pedal only where the speed is held. */
const MOST = { throttle: 0.03, brakePa: 150_000, acrossMps2: 1.5, heldMps2: 0.3, rolledMps2: 1.5 } as const
/** A bump, and what a damper does by itself, is over within it. */
const POINT_S = 1
/** As many as a test keeps. */
const MOST_POINTS = 200

/**
 * How far the axles of a log sank: by height, which falls as the car sinks, where it is read at both; else by the mean of their dampers. Null: neither is.
 * @example axleTravel(() => null) // null
 */
export function axleTravel(
  of: (role: LogRole) => readonly number[] | null,
): { readonly reading: SteadyReading; readonly frontM: readonly number[]; readonly rearM: readonly number[] } | null {
  const [heightFront, heightRear] = [of('heightFront'), of('heightRear')]
  const sunk = (height: readonly number[]) => height.map((value) => -value)
  if (heightFront && heightRear) return { reading: 'height', frontM: sunk(heightFront), rearM: sunk(heightRear) }
  const axle = (roles: readonly LogRole[]) => {
    const [first, second] = roles.flatMap((role) => {
      const list = of(role)
      return list ? [list] : []
    })
    return first && second ? first.map((value, i) => (value + itemAt(second, i)) / 2) : first
  }
  const [frontM, rearM] = [axle(['damperLF', 'damperRF']), axle(['damperLR', 'damperRR'])]
  return frontM && rearM ? { reading: 'damper', frontM, rearM } : null
}

/** Rows of one point: a second of a straight, whole and evenly driven; undefined where it is not. */
function pointOf(samples: LoadSamples, from: number, to: number): LoadPoint | undefined {
  const { timeS, speedMps, frontM, rearM } = samples
  const rows = Array.from({ length: to - from + 1 }, (_, i) => from + i).filter((i) => !Number.isNaN(itemAt(speedMps, i)))
  const read = (list: readonly number[]) => list.slice(from, to + 1).filter((value) => !Number.isNaN(value))
  const [front, rear] = [read(frontM), read(rearM)]
  const [first, last] = [rows[0], rows.at(-1)]
  if (first === undefined || last === undefined || first === last || front.length < 3 || rear.length < 3) return undefined
  if (!samples.acrossMps2 && typeof headingOf(samples, from, to) !== 'number') return undefined
  return {
    fromS: itemAt(timeS, from),
    speedMps: mean(rows.map((i) => itemAt(speedMps, i))),
    frontM: mean(front),
    rearM: mean(rear),
    decelerationMps2: (itemAt(speedMps, first) - itemAt(speedMps, last)) / (itemAt(timeS, last) - itemAt(timeS, first)),
  }
}

/** Whether nothing but speed loads the axles over a point: it rolls, or holds its speed. */
function isEven(samples: LoadSamples, { decelerationMps2 }: LoadPoint, from: number, to: number): boolean {
  const isUnder = (list: readonly number[] | null, most: number) =>
    !list || list.slice(from, to + 1).every((value) => Number.isNaN(value) || Math.abs(value) <= most)
  if (!isUnder(samples.brakePa, MOST.brakePa) || !isUnder(samples.acrossMps2, MOST.acrossMps2)) return false
  if (Math.abs(decelerationMps2) <= MOST.heldMps2) return true
  return decelerationMps2 > 0 && decelerationMps2 <= MOST.rolledMps2 && samples.throttle !== null && isUnder(samples.throttle, MOST.throttle)
}

/**
 * Where a log says how far the axles sink by speed: seconds of straights in which the car holds its speed or rolls, at 5 m/s or more, each with the mean of both
 * axles; thinned evenly to what a test keeps. Metres, seconds. Source: formulas G.10; bounds common practice, no source.
 * Rejects (`missing`) samples that cannot tell a straight, (`out-of-range`) fewer than three seconds or speeds that lie closer than 1.5 to 1.
 * @example loadPoints(HELD_SPEEDS).length // 29
 */
export function loadPoints(samples: LoadSamples): LoadPoint[] {
  if (!samples.acrossMps2 && !(samples.east && samples.north))
    throw new CalculationError('missing', 'across', 'What the axles carry is read on straights: the log has neither acceleration across nor a position.')
  const held: LoadSamples = {
    ...samples,
    throttle: holdLast(samples.throttle),
    brakePa: holdLast(samples.brakePa),
    acrossMps2: holdLast(samples.acrossMps2),
  }
  const { timeS } = held
  const found: LoadPoint[] = []
  let from = 0
  for (let i = 1; i < timeS.length; i++) {
    if (itemAt(timeS, i) - itemAt(timeS, from) < POINT_S) continue
    const point = itemAt(timeS, i) - itemAt(timeS, from) < 2 * POINT_S ? pointOf(held, from, i) : undefined
    if (point && point.speedMps >= 5 && isEven(held, point, from, i)) found.push(point)
    from = i
  }
  const speeds = found.map(({ speedMps }) => speedMps)
  if (found.length < 3 || Math.max(...speeds) < 1.5 * Math.min(...speeds))
    throw new CalculationError(
      'out-of-range',
      'speed',
      'What the axles carry needs three seconds or more on straights, with the speed held or the car rolling, and the fastest 1.5 times the slowest. Hold a low and a high speed.',
    )
  const step = Math.max(1, found.length / MOST_POINTS)
  return Array.from({ length: Math.min(found.length, MOST_POINTS) }, (_, i) => itemAt(found, Math.floor(i * step)))
}
