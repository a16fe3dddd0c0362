import { type CoastPair, type CoastRun, thinRun } from '../aero/coast-model.ts'
import { itemAt } from '../item-at.ts'

/** Samples of a log as coasting is looked for in them: times rising, NaN where nothing was sampled; null: no such channel. */
export interface CoastingSamples {
  readonly timeS: readonly number[]
  readonly speedMps: readonly number[]
  /** Shares of full. */
  readonly throttle: readonly number[] | null
  readonly brakePa: readonly number[] | null
  readonly engineRpm: readonly number[] | null
  readonly acrossMps2: readonly number[] | null
  readonly east: readonly number[] | null
  readonly north: readonly number[] | null
}

/** A stretch that the car rolled freely, and which way it went, rad from east to north; null: the log has no positions. */
export interface CoastWindow {
  readonly fromS: number
  readonly toS: number
  readonly headingRad: number | null
  readonly run: CoastRun
}

/** What still counts as free rolling (common practice, no source): no pedal, out of gear, straight on, losing no more than a shut engine in gear would take. */
const MOST = { throttle: 0.03, brakePa: 150_000, idleRpm: 1700, acrossMps2: 1.5, slowingMps2: 1.5 } as const
const LEAST_S = 8
/** From its first speed to its last, as a fit of both areas and rolling needs. */
const LEAST_SPAN = 1.5
/** A gust may push so much, m/s within a second; more is a gear. */
const RISE_MPS = 0.4
/** A road that bends more than this over its chord is no straight. */
const MOST_BEND = 1.01

/**
 * A channel whose last value holds until its next, as a slower one is read beside a faster.
 * @example holdLast([1, Number.NaN, 2]) // [1, 1, 2]
 */
export function holdLast(list: readonly number[] | null): readonly number[] | null {
  let last = Number.NaN
  return (
    list?.map((value) => {
      if (!Number.isNaN(value)) last = value
      return last
    }) ?? null
  )
}

/** Whether the car rolls freely at each row, as far as the channels say. */
function rolling(samples: CoastingSamples): boolean[] {
  const [throttle, brake, engine, across] = [holdLast(samples.throttle), holdLast(samples.brakePa), holdLast(samples.engineRpm), holdLast(samples.acrossMps2)]
  const isUnder = (list: readonly number[] | null, i: number, most: number) => !list || Number.isNaN(itemAt(list, i)) || Math.abs(itemAt(list, i)) <= most
  let before = 0
  return samples.timeS.map((t, i) => {
    while (itemAt(samples.timeS, before + 1 < samples.timeS.length ? before + 1 : before) <= t - 1 && before + 1 < i) before++
    if (!(itemAt(samples.speedMps, i) > 1)) return false
    const dt = t - itemAt(samples.timeS, before)
    const change = itemAt(samples.speedMps, i) - itemAt(samples.speedMps, before)
    const isSlowing = dt <= 0 || dt > 3 || (change <= RISE_MPS && -change / dt <= MOST.slowingMps2)
    return (
      isSlowing &&
      isUnder(throttle, i, MOST.throttle) &&
      isUnder(brake, i, MOST.brakePa) &&
      isUnder(engine, i, MOST.idleRpm) &&
      isUnder(across, i, MOST.acrossMps2)
    )
  })
}

/**
 * The way a stretch went, rad from east to north; null without positions, undefined where it bends.
 * @example headingOf({ east: [0, 10], north: [0, 0] }, 0, 1) // 0
 */
export function headingOf({ east, north }: Pick<CoastingSamples, 'east' | 'north'>, from: number, to: number): number | null | undefined {
  if (!east || !north) return null
  const rows = Array.from({ length: to - from + 1 }, (_, i) => from + i).filter((i) => !Number.isNaN(itemAt(east, i)) && !Number.isNaN(itemAt(north, i)))
  const [first, last] = [rows[0], rows.at(-1)]
  if (first === undefined || last === undefined || first === last) return null
  const [dx, dy] = [itemAt(east, last) - itemAt(east, first), itemAt(north, last) - itemAt(north, first)]
  const roadM = rows.slice(1).reduce((sum, i, k) => {
    const before = itemAt(rows, k)
    return sum + Math.hypot(itemAt(east, i) - itemAt(east, before), itemAt(north, i) - itemAt(north, before))
  }, 0)
  return roadM > MOST_BEND * Math.hypot(dx, dy) ? undefined : Math.atan2(dy, dx)
}

/**
 * Where in a log the car coasted: no pedal, the engine idling out of gear, straight on, for 8 s and from a speed down to two thirds of it at least. A test of
 * drag takes them in pairs. Source: common practice, no source.
 * @example coastWindows({ timeS: [0, 1], speedMps: [30, 29.8], throttle: null, brakePa: null, engineRpm: null, acrossMps2: null, east: null, north: null }) // []
 */
export function coastWindows(samples: CoastingSamples): CoastWindow[] {
  const isRolling = rolling(samples)
  const found: CoastWindow[] = []
  let from = 0
  for (let i = 0; i <= isRolling.length; i++) {
    if (isRolling[i]) continue
    const to = i - 1
    if (to > from) {
      const [fromS, toS] = [itemAt(samples.timeS, from), itemAt(samples.timeS, to)]
      const span = itemAt(samples.speedMps, from) / itemAt(samples.speedMps, to)
      const headingRad = toS - fromS >= LEAST_S && span >= LEAST_SPAN ? headingOf(samples, from, to) : undefined
      const rows = Array.from({ length: to - from + 1 }, (_, k) => from + k).filter((k) => !Number.isNaN(itemAt(samples.speedMps, k)))
      if (headingRad !== undefined) {
        const run = thinRun({ timeS: rows.map((k) => itemAt(samples.timeS, k) - fromS), speedMps: rows.map((k) => itemAt(samples.speedMps, k)) })
        found.push({ fromS, toS, headingRad, run })
      }
    }
    from = i + 1
  }
  return found
}

/** Two headings that differ by less than a quarter of a right angle are one way; both ways of one road are opposite. */
const SAME_WAY = Math.cos(Math.PI / 8)

/**
 * Coasting windows as pairs of out and back on one road, each run back behind a run out; without positions by turns. What finds no partner is left over.
 * @example coastPairs([]) // { pairs: [], left: 0 }
 */
export function coastPairs(windows: readonly CoastWindow[]): { readonly pairs: readonly CoastPair[]; readonly left: number } {
  const pairs: CoastPair[] = []
  let out: CoastWindow | null = null
  let left = 0
  for (const window of windows) {
    const turn: number = out === null ? 1 : out.headingRad === null || window.headingRad === null ? -1 : Math.cos(window.headingRad - out.headingRad)
    if (out !== null && turn < -SAME_WAY) {
      pairs.push({ out: out.run, back: window.run })
      out = null
      continue
    }
    if (out !== null) left++
    out = window
  }
  return { pairs, left: left + (out === null ? 0 : 1) }
}
