import { Matrix, pseudoInverse } from 'ml-matrix'
import { CalculationError, requirePositive, requireSteps } from '../errors.ts'
import { GRID_STEP_RPM, gridCurve } from './curve.ts'

export const SMOOTHERS = ['savitzkyGolay', 'movingAverage'] as const
export type Smoother = (typeof SMOOTHERS)[number]
/** The widest window, and the most points of a grid: more than any sweep of an engine has. */
const MOST_POINTS = 1001
const MOST_GRID_POINTS = 20_000

/**
 * Weights of a Savitzky-Golay filter of 2m + 1 points and a polynomial order: the row of the least-squares fit that gives the value `at` steps
 * from the middle. Source: least squares on even steps (pseudo-inverse of the Vandermonde matrix). Rejects an even window and one up to the order.
 * @example savitzkyGolayWeights(5, 2)[2] // 0.485714
 */
export function savitzkyGolayWeights(points: number, order: number, at = 0, derivative: 0 | 1 = 0): number[] {
  return weightsOf(windowFit(points, order), points, order, at, derivative)
}

/** The least-squares fit of a window on steps scaled to −1 to 1, where high powers of wide windows keep their digits. */
function windowFit(points: number, order: number): Matrix {
  if (!Number.isInteger(points) || points % 2 === 0)
    throw new CalculationError('out-of-range', 'points', `The window holds ${points} points; it must be an odd number.`)
  if (!(points > order)) throw new CalculationError('out-of-range', 'order', `An order of ${order} needs a window of more than ${order} points.`)
  if (points > MOST_POINTS)
    throw new CalculationError(
      'out-of-range',
      'windowRpm',
      `The window holds ${points} points; at most ${MOST_POINTS}. Take a narrower window or a larger step.`,
    )
  const half = (points - 1) / 2
  const vandermonde = Matrix.zeros(points, order + 1)
  for (let row = 0; row < points; row++) for (let power = 0; power <= order; power++) vandermonde.set(row, power, ((row - half) / (half || 1)) ** power)
  return pseudoInverse(vandermonde)
}

function weightsOf(fit: Matrix, points: number, order: number, at: number, derivative: 0 | 1 = 0): number[] {
  const scale = (points - 1) / 2 || 1
  const place = at / scale
  return Array.from({ length: points }, (_, column) => {
    let sum = 0
    for (let power = derivative; power <= order; power++)
      sum += (derivative === 0 ? place ** power : (power * place ** (power - 1)) / scale) * fit.get(power, column)
    return sum
  })
}

/** Smooths even values; the ends take the polynomial fitted to the first and last window. Rejects a window wider than the series. */
export function savitzkyGolay(values: readonly number[], points: number, order: number): number[] {
  if (values.length < points)
    throw new CalculationError('out-of-range', 'windowRpm', `The window holds ${points} points and the series ${values.length}. Take a narrower window.`)
  const half = (points - 1) / 2
  const fit = windowFit(points, order)
  const middle = weightsOf(fit, points, order, 0)
  const weigh = (weights: readonly number[], from: number) => weights.reduce((sum, weight, i) => sum + weight * (values[from + i] as number), 0)
  return values.map((_, i) => {
    if (i < half) return weigh(weightsOf(fit, points, order, i - half), 0)
    if (i > values.length - 1 - half) return weigh(weightsOf(fit, points, order, i - (values.length - 1 - half)), values.length - points)
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
  requireSteps(Math.abs((speedRpm.at(-1) ?? 0) - (speedRpm[0] ?? 0)) / stepRpm, MOST_GRID_POINTS, 'stepRpm')
  const grid = gridCurve({ speedRpm, powerW: value }, stepRpm)
  const half = Math.max(1, Math.round(windowRpm / stepRpm / 2))
  const points = 2 * half + 1
  if (points > grid.powerW.length)
    throw new CalculationError('out-of-range', 'windowRpm', `The window holds ${points} points and the series ${grid.powerW.length}. Take a narrower window.`)
  const smoothed = method === 'savitzkyGolay' ? savitzkyGolay(grid.powerW, points, order) : movingAverage(grid.powerW, half)
  return { speedRpm: grid.powerW.map((_, i) => grid.firstSpeedRpm + i * stepRpm), value: smoothed, points }
}
