import { CalculationError, requireWithin } from '../errors.ts'
import { rootBetween } from '../stats/root.ts'

/** Terms smaller than this end the sum. */
const LEAST_TERM = 1e-14
const MOST_TERMS = 2000

/**
 * Effectiveness of a crossflow exchanger with both streams unmixed: ε = Σ P(n, N) P(n, Cr N)/(Cr N), n from 1, P the lower incomplete gamma ratio; exact. The
 * exponent formula of handbooks lies up to 4 % lower near Cr 1. Valid for N from 0 to 50, Cr over 0 to 1. Source: sum of Mason 1955 (from memory).
 * @example crossflowEffectiveness(1, 0.5) // 0.5475
 */
export function crossflowEffectiveness(transferUnits: number, capacityRatio: number): number {
  requireWithin(transferUnits, 0, 50, 'transferUnits')
  requireWithin(capacityRatio, 0, 1, 'capacityRatio')
  if (transferUnits === 0) return 0
  const other = capacityRatio * transferUnits
  // One stream so large that it does not change.
  if (other < 1e-12) return 1 - Math.exp(-transferUnits)
  // P(n + 1, x) = P(n, x) − xⁿ e⁻ˣ/n!, from P(1, x) = 1 − e⁻ˣ on.
  let [own, others] = [-Math.expm1(-transferUnits), -Math.expm1(-other)]
  let [ownStep, otherStep] = [Math.exp(-transferUnits), Math.exp(-other)]
  let sum = 0
  for (let n = 1; n <= MOST_TERMS; n++) {
    const term = (own * others) / other
    sum += term
    if (term < LEAST_TERM) break
    ownStep *= transferUnits / n
    otherStep *= other / n
    own = Math.max(0, own - ownStep)
    others = Math.max(0, others - otherStep)
  }
  return sum
}

/** No exchanger of this kind has more transfer units. */
const MOST_UNITS = 50

/**
 * Transfer units that give an effectiveness, by root. Rejects an effectiveness outside of 0 to 1, and one that no size of such an exchanger reaches.
 * @example crossflowUnits(0.54703, 0.47361) // 0.9842
 */
export function crossflowUnits(effectiveness: number, capacityRatio: number): number {
  if (!(effectiveness > 0 && effectiveness < 1))
    throw new CalculationError(
      'out-of-range',
      'effectiveness',
      `The rating asks more than the air carries (ε ${effectiveness.toFixed(2)}). Check its watts, speed and temperatures.`,
    )
  const over = (units: number) => crossflowEffectiveness(units, capacityRatio) - effectiveness
  if (over(MOST_UNITS) < 0)
    throw new CalculationError('out-of-range', 'effectiveness', 'No core of this kind gives so much of what the air carries. Check the rating.')
  return rootBetween(over, 0, MOST_UNITS)
}
