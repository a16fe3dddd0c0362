import { CalculationError, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** Power by engine speed, rising. */
export interface PowerPoints {
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

/** How a book averages power: at points about the peak or a speed, with weights (none: all alike), or over a range by trapezoids. */
export interface AverageRule {
  readonly around: 'peak' | 'speed'
  readonly speedRpm: number | null
  readonly offsetsRpm: readonly number[]
  readonly weights: readonly number[]
  readonly fromRpm: number | null
  readonly toRpm: number | null
}

/** Power at a speed on straight lines between the points. */
function powerAt({ speedRpm, powerW }: PowerPoints, rpm: number): number {
  const [first, last] = [itemAt(speedRpm, 0), itemAt(speedRpm, speedRpm.length - 1)]
  const shown = (value: number) => String(Math.round(value)).replace(/(\d)(?=(\d{3})+$)/g, '$1 ')
  if (rpm > last + 1e-9) throw new CalculationError('out-of-range', 'average', `The rule asks ${shown(rpm)} rpm, the pulls end at ${shown(last)}.`)
  if (rpm < first - 1e-9) throw new CalculationError('out-of-range', 'average', `The rule asks ${shown(rpm)} rpm, the pulls begin at ${shown(first)}.`)
  const at = Math.max(
    1,
    speedRpm.findIndex((speed) => speed >= rpm),
  )
  const [low, high] = [itemAt(speedRpm, at - 1), itemAt(speedRpm, at)]
  const share = high === low ? 0 : (rpm - low) / (high - low)
  return itemAt(powerW, at - 1) + share * (itemAt(powerW, at) - itemAt(powerW, at - 1))
}

function peakRpm({ speedRpm, powerW }: PowerPoints): number {
  return itemAt(speedRpm, powerW.indexOf(Math.max(...powerW)))
}

/** The mean over a range, by trapezoids between its ends and the points within it. */
function rangeMean(points: PowerPoints, from: number, to: number): number {
  const stops = [from, ...points.speedRpm.filter((speed) => speed > from && speed < to), to]
  let area = 0
  for (let i = 1; i < stops.length; i++) {
    const [low, high] = [itemAt(stops, i - 1), itemAt(stops, i)]
    area += ((powerAt(points, low) + powerAt(points, high)) / 2) * (high - low)
  }
  return area / (to - from)
}

/**
 * Power as a rule averages it, in W. Books differ, so the way is data: points about the peak or a speed with weights, or a range. Rejects fewer than two
 * points, a range that ends before it begins, weights that do not fit their points or sum to nothing, and speeds outside the pulls.
 * Source: formulas I.5; straight lines between points.
 * @example averagePower({ speedRpm: [5000, 6000], powerW: [90000, 100000] }, { around: 'speed', speedRpm: 5500, offsetsRpm: [0], weights: [], fromRpm: null, toRpm: null }) // 95000
 */
export function averagePower(points: PowerPoints, rule: AverageRule): number {
  if (points.speedRpm.length < 2 || points.speedRpm.length !== points.powerW.length)
    throw new CalculationError('missing', 'curve', 'A curve needs two points or more, a power for each speed.')
  const { fromRpm, toRpm, offsetsRpm, weights } = rule
  if (fromRpm !== null && toRpm !== null) {
    if (!(toRpm > fromRpm)) throw new CalculationError('inconsistent', 'average', 'The range of the average ends before it begins. Swap the two speeds.')
    return rangeMean(points, fromRpm, toRpm)
  }
  if (offsetsRpm.length === 0) throw new CalculationError('missing', 'average', 'The average names no points. Type them, such as -500 0 500.')
  if (weights.length > 0 && weights.length !== offsetsRpm.length)
    throw new CalculationError('inconsistent', 'average', `There are ${offsetsRpm.length} points and ${weights.length} weights. Give one for each, or none.`)
  const sum = weights.length > 0 ? weights.reduce((all, weight) => all + weight, 0) : offsetsRpm.length
  if (!(sum > 0)) throw new CalculationError('out-of-range', 'average', 'The weights sum to nothing. Give at least one more than 0.')
  const middle = rule.around === 'peak' ? peakRpm(points) : requirePositive(rule.speedRpm ?? 0, 'average')
  return offsetsRpm.reduce((all, offset, i) => all + (weights[i] ?? 1) * powerAt(points, middle + offset), 0) / sum
}
