import { Matrix, pseudoInverse } from 'ml-matrix'
import { CalculationError, requirePositive } from '../errors.ts'
import { GRID_STEP_RPM, gridCurve } from './curve.ts'

export const SMOOTHERS = ['savitzkyGolay', 'movingAverage'] as const
export type Smoother = (typeof SMOOTHERS)[number]

/**
 * Weights of a Savitzky-Golay filter of 2m + 1 points and a polynomial order: the row of the least-squares fit that gives the value `at` steps
 * from the middle. Source: least squares on even steps (pseudo-inverse of the Vandermonde matrix). Rejects an even window and one up to the order.
 * @example savitzkyGolayWeights(5, 2)[2] // 0.485714
 */
export function savitzkyGolayWeights(points: number, order: number, at = 0, derivative: 0 | 1 = 0): number[] {
  if (!Number.isInteger(points) || points % 2 === 0)
    throw new CalculationError('out-of-range', 'points', `The window holds ${points} points; it must be an odd number.`)
  if (!(points > order)) throw new CalculationError('out-of-range', 'order', `An order of ${order} needs a window of more than ${order} points.`)
  const half = (points - 1) / 2
  const vandermonde = Matrix.zeros(points, order + 1)
  for (let row = 0; row < points; row++) for (let power = 0; power <= order; power++) vandermonde.set(row, power, (row - half) ** power)
  const fit = pseudoInverse(vandermonde)
  return Array.from({ length: points }, (_, column) => {
    let sum = 0
    for (let power = derivative; power <= order; power++) sum += (derivative === 0 ? at ** power : power * at ** (power - 1)) * fit.get(power, column)
    return sum
  })
}

/** Smooths even values; the ends take the polynomial fitted to the first and last window. Rejects a window wider than the series. */
export function savitzkyGolay(values: readonly number[], points: number, order: number): number[] {
  if (values.length < points)
    throw new CalculationError('out-of-range', 'windowRpm', `The window holds ${points} points and the series ${values.length}. Take a narrower window.`)
  const half = (points - 1) / 2
  const middle = savitzkyGolayWeights(points, order)
  const weigh = (weights: readonly number[], from: number) => weights.reduce((sum, weight, i) => sum + weight * (values[from + i] as number), 0)
  return values.map((_, i) => {
    if (i < half) return weigh(savitzkyGolayWeights(points, order, i - half), 0)
    if (i > values.length - 1 - half) return weigh(savitzkyGolayWeights(points, order, i - (values.length - 1 - half)), values.length - points)
    return weigh(middle, i - half)
  })
}

/** Mean over a window of speed of the straight lines between even values, shrunk symmetrically at the ends. */
function movingAverage(values: readonly number[], halfPoints: number): number[] {
  const last = values.length - 1
  const integral = values.reduce<number[]>((sums, value, i) => {
    sums.push(i === 0 ? 0 : (sums[i - 1] as number) + ((values[i - 1] as number) + value) / 2)
    return sums
  }, [])
  return values.map((value, i) => {
    const half = Math.min(halfPoints, i, last - i)
    return half === 0 ? value : ((integral[i + half] as number) - (integral[i - half] as number)) / (2 * half)
  })
}

/**
 * A series by speed on an even grid, smoothed. Savitzky-Golay keeps peaks; a moving average of width h lowers one by about |P″|h²/24, so smoothing
 * before reading a peak has to be disclosed. Source: least squares; mean of the piecewise-linear series. Rejects a window of zero or less, one wider than
 * the series, and what gridCurve refuses.
 */
export function smoothSeries(input: {
  speedRpm: readonly number[]
  value: readonly number[]
  method: Smoother
  windowRpm: number
  order?: number | undefined
  stepRpm?: number | undefined
}): { speedRpm: number[]; value: number[]; points: number } {
  const { speedRpm, value, method, windowRpm, order = 2, stepRpm = GRID_STEP_RPM } = input
  requirePositive(windowRpm, 'windowRpm')
  requirePositive(stepRpm, 'stepRpm')
  if (speedRpm.length !== value.length) throw new CalculationError('inconsistent', 'value', 'There are not as many values as speeds. Give one for each.')
  const grid = gridCurve({ speedRpm, powerW: value }, stepRpm)
  const half = Math.max(1, Math.round(windowRpm / stepRpm / 2))
  const points = 2 * half + 1
  const smoothed = method === 'savitzkyGolay' ? savitzkyGolay(grid.powerW, points, order) : movingAverage(grid.powerW, half)
  return { speedRpm: grid.powerW.map((_, i) => grid.firstSpeedRpm + i * stepRpm), value: smoothed, points }
}
