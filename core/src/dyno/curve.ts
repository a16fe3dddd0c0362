import { CalculationError, requireSteps } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { torqueFromPowerNm } from './power-torque.ts'

export interface Sweep {
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

export interface GridCurve {
  readonly stepRpm: number
  readonly firstSpeedRpm: number
  readonly powerW: readonly number[]
}

export const GRID_STEP_RPM = 50
/** More points than any sweep of an engine has. */
const MOST_GRID_POINTS = 20_000
/** Raised whenever peaks or grid curves are worked out differently, so that stored ones are made anew. */
export const CURVE_VERSION = 2
export const FEWEST_RISING_ROWS = 10

/** Indices of the samples at which the speed is higher than or equal to all before: the rising part of a sweep. */
export function risingIndices(speedRpm: ArrayLike<number>): number[] {
  const kept: number[] = []
  let highest = Number.NEGATIVE_INFINITY
  for (let i = 0; i < speedRpm.length; i++) {
    const speed = itemAt(speedRpm, i)
    if (speed < highest) continue
    highest = speed
    kept.push(i)
  }
  return kept
}

/**
 * Linear resampling of a rising sweep to an even 50 rpm grid; samples at one speed are averaged, nothing is extrapolated.
 * Source: linear interpolation. Rejects a sweep that falls, and one that spans less than one grid step.
 */
export function gridCurve(sweep: Sweep, stepRpm = GRID_STEP_RPM): GridCurve {
  const speeds: number[] = []
  const powers: number[] = []
  let count = 0
  sweep.speedRpm.forEach((speed, i) => {
    const power = itemAt(sweep.powerW, i)
    const last = speeds.length - 1
    if (last >= 0 && speed < itemAt(speeds, last)) throw new CalculationError('inconsistent', 'speedRpm', 'The sweep falls; keep its rising part only.')
    if (last >= 0 && speed === speeds[last]) {
      count++
      powers[last] = itemAt(powers, last) + (power - itemAt(powers, last)) / count
    } else {
      speeds.push(speed)
      powers.push(power)
      count = 1
    }
  })
  const first = Math.ceil((speeds[0] ?? 0) / stepRpm) * stepRpm
  const last = Math.floor((speeds.at(-1) ?? 0) / stepRpm) * stepRpm
  if (speeds.length < 2 || last < first) throw new CalculationError('out-of-range', 'speedRpm', `The sweep spans less than ${stepRpm} rpm.`)
  requireSteps((last - first) / stepRpm, MOST_GRID_POINTS, 'speedRpm')
  const powerW: number[] = []
  let at = 0
  for (let speed = first; speed <= last; speed += stepRpm) {
    while (at < speeds.length - 2 && itemAt(speeds, at + 1) < speed) at++
    const [n0, n1] = [itemAt(speeds, at), itemAt(speeds, at + 1)]
    const share = (speed - n0) / (n1 - n0)
    powerW.push(itemAt(powers, at) * (1 - share) + itemAt(powers, at + 1) * share)
  }
  return { stepRpm, firstSpeedRpm: first, powerW }
}

/**
 * Another channel of a sweep on the grid of its curve: by straight lines between the samples that hold a number, null beyond them.
 * Speeds rise or stand; values are NaN where there is a gap.
 * @example alongGrid(CURVE, [6400, 6500], [100, 200]) // [100, 150, 200]
 */
export function alongGrid(curve: GridCurve, speedRpm: readonly number[], values: readonly number[]): (number | null)[] {
  const filled: number[] = []
  values.forEach((value, i) => {
    if (Number.isFinite(value)) filled.push(i)
  })
  const speedOf = (place: number) => speedRpm[itemAt(filled, place)] as number
  const valueAt = (place: number) => values[itemAt(filled, place)] as number
  let at = 0
  return curve.powerW.map((_, i) => {
    const speed = gridSpeedRpm(curve, i)
    while (at < filled.length - 2 && speedOf(at + 1) < speed) at++
    if (filled.length < 2 || speed < speedOf(at) || speed > speedOf(at + 1)) return null
    const [low, high] = [speedOf(at), speedOf(at + 1)]
    return high === low ? valueAt(at) : valueAt(at) + ((valueAt(at + 1) - valueAt(at)) * (speed - low)) / (high - low)
  })
}

/**
 * The engine speed of a point of a grid curve, rpm; `index` counts from 0.
 * @example gridSpeedRpm(CURVE, 2) // 6500
 */
export const gridSpeedRpm = (curve: GridCurve, index: number): number => curve.firstSpeedRpm + index * curve.stepRpm

/** The greatest power of a grid curve and the speed it stands at (the first, if several are equal). */
export function curvePeak(curve: GridCurve): { powerW: number; speedRpm: number } {
  let best = 0
  curve.powerW.forEach((power, i) => {
    if (power > itemAt(curve.powerW, best)) best = i
  })
  return { powerW: itemAt(curve.powerW, best), speedRpm: gridSpeedRpm(curve, best) }
}

/** The greatest torque of a grid curve and the speed it stands at. */
export function curvePeakTorque(curve: GridCurve): { torqueNm: number; speedRpm: number } {
  return curve.powerW.reduce(
    (best, powerW, i) => {
      const torqueNm = torqueFromPowerNm(powerW, gridSpeedRpm(curve, i))
      return torqueNm > best.torqueNm ? { torqueNm, speedRpm: gridSpeedRpm(curve, i) } : best
    },
    { torqueNm: 0, speedRpm: curve.firstSpeedRpm },
  )
}

/** Point by point mean of curves over the speeds that all of them cover; undefined when they share none. */
export function meanCurve(curves: readonly GridCurve[]): GridCurve | undefined {
  const [head] = curves
  if (!head) return undefined
  const first = Math.max(...curves.map((curve) => curve.firstSpeedRpm))
  const last = Math.min(...curves.map((curve) => gridSpeedRpm(curve, curve.powerW.length - 1)))
  if (last < first) return undefined
  const powerW = Array.from({ length: (last - first) / head.stepRpm + 1 }, (_, i) => {
    const at = first + i * head.stepRpm
    return curves.reduce((sum, curve) => sum + itemAt(curve.powerW, (at - curve.firstSpeedRpm) / curve.stepRpm), 0) / curves.length
  })
  return { stepRpm: head.stepRpm, firstSpeedRpm: first, powerW }
}

/**
 * The curve with every power multiplied by a factor (a correction, or a stage scaled to its value).
 * @example scaleCurve(CURVE, 1.1).powerW[0] // 151800
 */
export const scaleCurve = (curve: GridCurve, factor: number): GridCurve => ({ ...curve, powerW: curve.powerW.map((power) => power * factor) })
