import { CalculationError, requireFinite, requirePositive } from '../errors.ts'
import { normalCdf } from '../stats/normal.ts'

/** A ratio of mass to power as a class counts it, against its limit. */
export interface RatioVerdict {
  /** kg/W, with what modifies it, rounded against the car. */
  readonly ratio: number
  readonly sd: number
  /** That it is at least the limit. */
  readonly chance: number
  /** Mass that has to be added; less than nothing: so much is in hand. */
  readonly kgToAdd: number
  /** Power that has to be given up; less than nothing: so much is in hand. */
  readonly wToGiveUp: number
}

/**
 * Mass over power with modifiers against the least a class allows: r = m/P + modifiers, legal where r ≥ limit; kg to add (limit − mods) P − m, W to give up
 * P − m/(limit − mods). Rounded once, last, downwards. Rejects masses and powers of zero or less, and a limit that its modifiers use up.
 * Source: formulas I.4, I.5.
 * @example ruleRatio({ massKg: 600, massSdKg: 0, powerW: 100000, powerSdW: 0, modifiersKgPerW: 0, limitKgPerW: 0.0055, roundStep: null }).kgToAdd // -50
 */
export function ruleRatio(input: {
  massKg: number
  massSdKg: number
  powerW: number
  powerSdW: number
  modifiersKgPerW: number
  limitKgPerW: number
  roundStep: number | null
}): RatioVerdict {
  const { massKg, massSdKg, powerW, powerSdW, modifiersKgPerW, limitKgPerW, roundStep } = input
  requirePositive(massKg, 'massKg')
  requirePositive(powerW, 'powerW')
  requireFinite(modifiersKgPerW, 'modifiersKgPerW')
  const bare = limitKgPerW - modifiersKgPerW
  if (!(bare > 0)) throw new CalculationError('out-of-range', 'limitKgPerW', 'The modifiers use up the whole limit. Check their unit: kg/kW.')
  const exact = massKg / powerW + modifiersKgPerW
  const sd = Math.hypot(massSdKg / powerW, (massKg * powerSdW) / powerW ** 2)
  const ratio = roundAgainst(exact, roundStep, 'atLeast')
  return {
    ratio,
    sd,
    chance: sd > 0 ? normalCdf((exact - limitKgPerW) / sd) : ratio >= limitKgPerW ? 1 : 0,
    kgToAdd: bare * powerW - massKg,
    wToGiveUp: powerW - massKg / bare,
  }
}

/**
 * A result rounded once, last, and against the car: down where it has to be at least something, up where at most; as it is without a step.
 * @example roundAgainst(5.399, 0.01, 'atLeast').toFixed(2) // '5.39'
 */
export function roundAgainst(value: number, step: number | null, sense: 'atLeast' | 'atMost'): number {
  if (step === null || !(step > 0)) return value
  const steps = value / step
  // What stands on a step to the last bits is on it.
  const near = Math.round(steps)
  if (Math.abs(steps - near) < 1e-9) return near * step
  return (sense === 'atLeast' ? Math.floor(steps) : Math.ceil(steps)) * step
}

/**
 * How much more the car weighs as the build counts it than as a rule does: driver that the rule leaves out, and fuel beyond the rule's.
 * @example massOverRuleKg({ driverKg: 80, fuelL: 15, fuelKgPerL: 0.745 }, { driverIn: true, fuelL: 5 }) // 7.45
 */
export function massOverRuleKg(
  reference: { readonly driverKg: number; readonly fuelL: number; readonly fuelKgPerL: number },
  rule: { readonly driverIn: boolean; readonly fuelL: number | null } | null,
): number {
  if (!rule) return 0
  const fuel = rule.fuelL === null ? 0 : (reference.fuelL - rule.fuelL) * reference.fuelKgPerL
  return fuel + (rule.driverIn ? 0 : reference.driverKg)
}

/** How far off noise is quoted, where no rule says another distance (common practice, no source). */
export const NOISE_AT_M = 0.5

/**
 * A sound level brought to another distance in the free field: −20 lg(d₂/d₁). Rejects distances of zero or less.
 * @example soundAt({ levelDb: 101.5, fromM: 0.5, toM: 7.5 }).toFixed(2) // '77.98'
 */
export function soundAt({ levelDb, fromM, toM }: { levelDb: number; fromM: number; toM: number }): number {
  return requireFinite(levelDb, 'levelDb') - 20 * Math.log10(requirePositive(toM, 'toM') / requirePositive(fromM, 'fromM'))
}
