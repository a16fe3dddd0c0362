import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** The weight of the smoother that leaves a half of what repeats itself over a cut-off length: 1/(2 − 2 cos(2π step/cut-off))². Source: H.1. */
export function smoothingWeight({ stepM, cutOffM }: { stepM: number; cutOffM: number }): number {
  requireWithin(stepM, 0.01, 1000, 'stepM')
  requireWithin(cutOffM, 2 * stepM, 1e6, 'cutOffM')
  return 1 / (2 - 2 * Math.cos((2 * Math.PI * stepM) / cutOffM)) ** 2
}

const MOST_PLACES = 20_000

/** (I + λ D'D) x with D the second difference: round a ring, or of a line with free ends. */
function apply(x: Float64Array, weight: number, isRing: boolean, out: Float64Array): void {
  const n = x.length
  out.set(x)
  for (let i = isRing ? 0 : 1; i < (isRing ? n : n - 1); i++) {
    const [before, after] = [(i - 1 + n) % n, (i + 1) % n]
    const bend = itemAt(x, before) - 2 * itemAt(x, i) + itemAt(x, after)
    out[before] = itemAt(out, before) + weight * bend
    out[i] = itemAt(out, i) - 2 * weight * bend
    out[after] = itemAt(out, after) + weight * bend
  }
}

const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, value, i) => sum + value * itemAt(b, i), 0)

/**
 * Whittaker's smoother with a penalty on second differences: (I + λ D'D) z = y, of a ring or of a line, by conjugate gradients to rounding. What repeats
 * itself h times round n places keeps 1/(1 + λ (2 − 2 cos(2π h/n))²). Source: H.1. Rejects fewer than 5 places, more than 20,000, and a weight under 0 or over 1e6.
 * @example whittaker([0, 1, 0, 1, 0, 1, 0, 1], 1, true)[0] // 0.4706
 */
export function whittaker(values: ArrayLike<number>, weight: number, isRing: boolean): Float64Array {
  const y = Float64Array.from(values)
  if (y.length < 5) throw new CalculationError('missing', 'values', `${y.length} places are too few to smooth: five are the least.`)
  if (y.length > MOST_PLACES)
    throw new CalculationError('too-long', 'values', `${y.length} places are more than ${MOST_PLACES}. Smooth a part, or take longer steps.`)
  requireWithin(weight, 0, 1e6, 'weight')
  if (y.some((value) => !Number.isFinite(value))) throw new CalculationError('bad-input', 'values', 'A place has no number. Cut it out first.')
  const z = Float64Array.from(y)
  const work = new Float64Array(y.length)
  apply(z, weight, isRing, work)
  const left = y.map((value, i) => value - itemAt(work, i))
  const way = Float64Array.from(left)
  let size = dot(left, left)
  const small = 1e-26 * Math.max(1e-300, dot(y, y))
  for (let round = 0; round < 1500 && size > small; round++) {
    apply(way, weight, isRing, work)
    const step = size / dot(way, work)
    for (let i = 0; i < z.length; i++) {
      z[i] = itemAt(z, i) + step * itemAt(way, i)
      left[i] = itemAt(left, i) - step * itemAt(work, i)
    }
    const next = dot(left, left)
    for (let i = 0; i < way.length; i++) way[i] = itemAt(left, i) + (next / size) * itemAt(way, i)
    size = next
  }
  return z
}
