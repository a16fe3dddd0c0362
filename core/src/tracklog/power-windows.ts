import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { median, sampleSd } from '../stats/moments.ts'
import { accelerationOf, type LogPowerCar, PARABOLA_S, powerFromAcceleration, USUAL_SLIP } from './log-power.ts'

/** What a log says of pulling hard. */
export interface PullingSamples {
  readonly timeS: ArrayLike<number>
  /** Over the ground. */
  readonly speedMps: ArrayLike<number>
  readonly engineRpm: ArrayLike<number>
  /** Share of full; null: the log has none, and what gains speed steadily counts. */
  readonly throttle: ArrayLike<number> | null
}

/** A stretch of full throttle in one gear. */
export interface PowerWindow {
  readonly fromS: number
  readonly toS: number
  /** First gear is 1. */
  readonly gear: number
  readonly points: readonly {
    readonly speedRpm: number
    readonly powerW: number
    readonly sdW: number
    readonly speedMps: number
    readonly accelerationMps2: number
  }[]
}

const FULL = 0.95
const SHORTEST_S = 1.5
/** Within it the ratio of engine to road is one gear's. */
const GEAR_SHARE = 0.03
/** Slower than it a steady gain is no full throttle, m/s². */
const LEAST_GAIN_MPS2 = 0.5
const RPM = Math.PI / 30
/** How well a logger knows speed, and its slope over a parabola (common practice, no source). */
const SPEED_SD_MPS = 0.15
const ACCELERATION_SD_MPS2 = 0.06
/** Points of a window: so many revolutions apart. */
const POINT_RPM = 100

/** Stretches in which each step holds, as first and last row. */
function stretches(count: number, holds: (i: number) => boolean): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = []
  let from = -1
  for (let i = 0; i <= count; i++) {
    const isIn = i < count && holds(i)
    if (isIn && from < 0) from = i
    if (!isIn && from >= 0) {
      found.push({ from, to: i - 1 })
      from = -1
    }
  }
  return found
}

/** The part of a stretch that is one gear: around its middle, while engine over road speed stays what it is there. */
function oneGear({ from, to }: { from: number; to: number }, ratioAt: (i: number) => number): { from: number; to: number; ratio: number } {
  const own = median(Array.from({ length: to - from + 1 }, (_, i) => ratioAt(from + i)))
  const isNear = (i: number) => Math.abs(ratioAt(i) / own - 1) < GEAR_SHARE
  const kept = stretches(to - from + 1, (i) => isNear(from + i)).sort((a, b) => b.to - b.from - (a.to - a.from))[0] ?? { from: 0, to: 0 }
  return { from: from + kept.from, to: from + kept.to, ratio: own }
}

/** The gear whose reduction a ratio of engine to road is; undefined where none is near. */
function gearOf(ratio: number, overallRatios: readonly number[], radiusM: number): number | undefined {
  const found = overallRatios
    .map((overall, i) => ({ gear: i + 1, off: Math.abs((ratio * radiusM) / (overall * (1 + USUAL_SLIP.share)) - 1) }))
    .sort((a, b) => a.off - b.off)[0]
  return found && found.off < 0.06 ? found.gear : undefined
}

/** Rows of a log that hold speed and engine speed. */
function sampledRows({ timeS, speedMps, engineRpm, throttle }: PullingSamples) {
  const rows: number[] = []
  for (let i = 0; i < timeS.length; i++) if (itemAt(speedMps, i) > 3 && itemAt(engineRpm, i) > 500) rows.push(i)
  const pick = (list: ArrayLike<number>) => rows.map((row) => itemAt(list, row))
  let last = Number.NaN
  // A slower channel holds until its next sample.
  const held = throttle && rows.map((row) => (last = Number.isNaN(itemAt(throttle, row)) ? last : itemAt(throttle, row)))
  return { timeS: pick(timeS), speedMps: pick(speedMps), engineRpm: pick(engineRpm), throttle: held }
}

/**
 * Stretches of a log at full throttle in one gear for a second and a half or more, each with its power at the hubs by engine speed. Source: the room's page.
 * Rejects samples under 10 a second, a log without such a stretch, and stretches in no gear of the car.
 * @example powerWindows({ samples: FULL_PULL, car: LOG_CAR, overallRatios: [5.655], effectiveKg: [1321.54], radiusM: 0.308 })[0].gear // 1
 */
export function powerWindows({
  samples,
  car,
  overallRatios,
  effectiveKg,
  radiusM,
  gradeAt = () => 0,
}: {
  samples: PullingSamples
  car: Omit<LogPowerCar, 'effectiveMassKg'>
  overallRatios: readonly number[]
  /** Mass with all that turns, of each gear. */
  effectiveKg: readonly number[]
  radiusM: number
  /** Slope of the road at a moment of the log, up positive. */
  gradeAt?: (timeS: number) => number
}): readonly PowerWindow[] {
  const { timeS, speedMps, engineRpm, throttle } = sampledRows(samples)
  if (timeS.length < 20) throw new CalculationError('missing', 'engineSpeed', 'The log holds no engine speed beside its speed over ground: power needs both.')
  const slopes = accelerationOf(timeS, speedMps)
  const isFull = (i: number) => (slopes[i] ?? 0) > LEAST_GAIN_MPS2 && (throttle === null || itemAt(throttle, i) >= FULL)
  const ratioAt = (i: number) => (itemAt(engineRpm, i) * RPM) / itemAt(speedMps, i)
  const long = stretches(timeS.length, isFull).filter(({ from, to }) => itemAt(timeS, to) - itemAt(timeS, from) >= SHORTEST_S)
  const found = long.flatMap((stretch): PowerWindow[] => {
    const { from, to, ratio } = oneGear(stretch, ratioAt)
    const gear = gearOf(ratio, overallRatios, radiusM)
    if (gear === undefined || itemAt(timeS, to) - itemAt(timeS, from) < SHORTEST_S) return []
    const points: PowerWindow['points'][number][] = []
    let next = 0
    for (let i = from; i <= to; i++) {
      const [slope, rpm] = [slopes[i], itemAt(engineRpm, i)]
      // A parabola that reaches beyond the pull sees the lift.
      const isWithin = itemAt(timeS, i) - itemAt(timeS, from) >= PARABOLA_S / 2 && itemAt(timeS, to) - itemAt(timeS, i) >= PARABOLA_S / 2
      if (slope === null || slope === undefined || rpm < next || !isWithin) continue
      const moment = {
        speedMps: itemAt(speedMps, i),
        accelerationMps2: slope,
        grade: gradeAt(itemAt(timeS, i)),
        speedSdMps: SPEED_SD_MPS,
        accelerationSdMps2: ACCELERATION_SD_MPS2,
      }
      const { powerW, sdW } = powerFromAcceleration({ car: { ...car, effectiveMassKg: itemAt(effectiveKg, gear - 1) }, ...moment })
      points.push({ speedRpm: rpm, powerW, sdW, speedMps: moment.speedMps, accelerationMps2: slope })
      next = rpm + POINT_RPM
    }
    return points.length < 3 ? [] : [{ fromS: itemAt(timeS, from), toS: itemAt(timeS, to), gear, points }]
  })
  if (found.length === 0)
    throw new CalculationError(
      'missing',
      'throttle',
      `No stretch of full throttle in one gear of ${SHORTEST_S} s or more${long.length > 0 ? ' fits a gear of this car: check the ratios and the tyre' : ''}. Pull through one gear on a straight.`,
    )
  return found
}

/** Windows held against the power that a dyno says. */
export interface PowerAgainst {
  /** Power on the road over that of the dyno. */
  readonly ratio: number
  readonly sd: number
  readonly points: number
}

/**
 * What a curve gives at an engine speed, W; undefined outside it.
 * @example powerOfCurve({ speedRpm: [4000, 6000], powerW: [100, 200] }, 5000) // 150
 */
export function powerOfCurve({ speedRpm, powerW }: { speedRpm: readonly number[]; powerW: readonly number[] }, rpm: number): number | undefined {
  const k = speedRpm.findIndex((at) => at >= rpm)
  if (k < 0 || (k === 0 && itemAt(speedRpm, 0) > rpm)) return undefined
  if (k === 0) return itemAt(powerW, 0)
  const share = (rpm - itemAt(speedRpm, k - 1)) / (itemAt(speedRpm, k) - itemAt(speedRpm, k - 1))
  return itemAt(powerW, k - 1) + share * (itemAt(powerW, k) - itemAt(powerW, k - 1))
}

/** Power at an engine speed. */
export interface PowerPoint {
  readonly speedRpm: number
  readonly powerW: number
  readonly sdW: number
}

/**
 * Power of windows over a curve's: the median of each window, the mean of those; its spread by windows and by what each point is known to, which all of them
 * share. Rejects windows that lie outside the curve.
 * @example powerAgainst([[{ speedRpm: 5000, powerW: 99, sdW: 2 }, { speedRpm: 5100, powerW: 99, sdW: 2 }]], { speedRpm: [4000, 6000], powerW: [100, 100] }).ratio // 0.99
 */
export function powerAgainst(
  windows: readonly (readonly PowerPoint[])[],
  curve: { readonly speedRpm: readonly number[]; readonly powerW: readonly number[] },
): PowerAgainst {
  const each = windows.flatMap((points) => {
    const ratios = points.flatMap(({ speedRpm, powerW, sdW }) => {
      const own = powerOfCurve(curve, speedRpm)
      return own ? [{ ratio: powerW / own, sd: sdW / own }] : []
    })
    return ratios.length === 0 ? [] : [{ ratio: median(ratios.map(({ ratio }) => ratio)), sd: median(ratios.map(({ sd }) => sd)), points: ratios.length }]
  })
  if (each.length === 0) throw new CalculationError('missing', 'curve', 'None of the windows lies within the speeds of the dyno’s curve.')
  const ratios = each.map(({ ratio }) => ratio)
  const ratio = ratios.reduce((sum, value) => sum + value, 0) / ratios.length
  const between = ratios.length > 1 ? sampleSd(ratios) / Math.sqrt(ratios.length) : 0
  return { ratio, sd: Math.hypot(between, median(each.map(({ sd }) => sd))), points: each.reduce((sum, { points }) => sum + points, 0) }
}

export const LEFT_OVER = ['mass', 'slope', 'drag'] as const
/** What a force that is left over may be: of mass or gear (with a), of slope or rolling (steady), of drag or wind (with v²). */
export type LeftOver = (typeof LEFT_OVER)[number]

/**
 * Where road and dyno disagree: the force left over at each moment laid singly on acceleration, on nothing and on speed squared, the one that explains most
 * first. `amount` is kg, N or N s²/m². Rejects fewer than three moments.
 * @example leftOverCauses([{ forceN: 40, accelerationMps2: 4, speedMps: 20 }, { forceN: 30, accelerationMps2: 3, speedMps: 30 }, { forceN: 20, accelerationMps2: 2, speedMps: 40 }])[0].cause // 'mass'
 */
export function leftOverCauses(
  moments: readonly { readonly forceN: number; readonly accelerationMps2: number; readonly speedMps: number }[],
): readonly { readonly cause: LeftOver; readonly amount: number; readonly leftN: number }[] {
  if (moments.length < 3) throw new CalculationError('missing', 'moments', 'Three moments or more are needed to tell causes apart.')
  const by = { mass: (m: (typeof moments)[number]) => m.accelerationMps2, slope: () => 1, drag: (m: (typeof moments)[number]) => m.speedMps ** 2 }
  return LEFT_OVER.map((cause) => {
    const x = moments.map(by[cause])
    const square = x.reduce((sum, value) => sum + value * value, 0)
    const amount = moments.reduce((sum, { forceN }, i) => sum + forceN * itemAt(x, i), 0) / square
    const leftN = Math.sqrt(moments.reduce((sum, { forceN }, i) => sum + (forceN - amount * itemAt(x, i)) ** 2, 0) / moments.length)
    return { cause, amount, leftN }
  }).sort((a, b) => a.leftN - b.leftN)
}
