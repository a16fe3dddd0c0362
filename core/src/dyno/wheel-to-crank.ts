import { CalculationError, requireFinite, requirePositive } from '../errors.ts'

export const LOSS_SCHOOLS = ['percentage', 'fixedAndProportional', 'coastDown'] as const
export type LossSchool = (typeof LOSS_SCHOOLS)[number]

export const LOSS_SCHOOL_WORDS: Record<LossSchool, string> = {
  percentage: 'a share of the crank power',
  fixedAndProportional: 'a fixed part and a share of the crank power',
  coastDown: 'measured by coasting down',
}

/** What each school needs; a school without its numbers has no answer. */
export interface LossNumbers {
  /** Share of the crank power that is lost, 0.10 to 0.22 (common practice, no source). */
  readonly lossShare?: number | undefined
  /** W, 5 to 20 kW (common practice, no source). */
  readonly fixedLossW?: number | undefined
  /** 0.03 to 0.08 (common practice, no source). */
  readonly proportionalShare?: number | undefined
  /** Power that coasting down at the same roller speed took, W. */
  readonly coastDownLossW?: number | undefined
}

/** No figure turned into crank power is surer than this (common practice, no source). */
export const CRANK_RELATIVE_SD = 0.05

const share = (value: number, field: string): number => {
  requireFinite(value, field)
  if (value < 0 || value >= 0.5) throw new CalculationError('out-of-range', field, `${field} is ${value}; a share of loss lies from 0 to under 0.5.`)
  return value
}

function crankBy(school: LossSchool, wheelPowerW: number, numbers: LossNumbers): number | undefined {
  const { lossShare, fixedLossW, proportionalShare, coastDownLossW } = numbers
  switch (school) {
    case 'percentage':
      return lossShare === undefined ? undefined : wheelPowerW / (1 - share(lossShare, 'lossShare'))
    case 'fixedAndProportional':
      if (fixedLossW === undefined || proportionalShare === undefined) return undefined
      if (fixedLossW < 0) throw new CalculationError('out-of-range', 'fixedLossW', 'A loss is zero or more.')
      return (wheelPowerW + fixedLossW) / (1 - share(proportionalShare, 'proportionalShare'))
    case 'coastDown':
      if (coastDownLossW === undefined) return undefined
      if (coastDownLossW < 0) throw new CalculationError('out-of-range', 'coastDownLossW', 'A loss is zero or more.')
      return wheelPowerW + coastDownLossW
  }
}

/**
 * Crank power from wheel power by the picked school, and what the others would say with the numbers given.
 * Percentage: P_w/(1 − ℓ), never P_w (1 + ℓ). Fixed and proportional: (P_w + P_fix)/(1 − k). Coast-down: P_w + what coasting down took, which
 * holds no mesh loss under load and so reads low at high torque. Source: definitions; the numbers are common practice, no source.
 * Spread at least 5 %. Rejects shares outside 0 to 0.5, losses under zero, and a school whose numbers are missing.
 * @example wheelToCrank({ wheelPowerW: 250e3, school: 'fixedAndProportional', fixedLossW: 12e3, proportionalShare: 0.06 }).crankPowerW // 278723.4
 */
export function wheelToCrank(input: LossNumbers & { wheelPowerW: number; school: LossSchool }): {
  crankPowerW: number
  sdW: number
  lossW: number
  others: { school: LossSchool; crankPowerW: number }[]
} {
  const { wheelPowerW, school } = input
  requirePositive(wheelPowerW, 'wheelPowerW')
  const crankPowerW = crankBy(school, wheelPowerW, input)
  if (crankPowerW === undefined) return missingNumbers(school)
  const others = LOSS_SCHOOLS.filter((other) => other !== school).flatMap((other) => {
    const power = crankBy(other, wheelPowerW, input)
    return power === undefined ? [] : [{ school: other, crankPowerW: power }]
  })
  return { crankPowerW, sdW: CRANK_RELATIVE_SD * crankPowerW, lossW: crankPowerW - wheelPowerW, others }
}

/** The inverse of `wheelToCrank`: what is left at the wheels of a crank power. Rejects what is lost whole, and a school whose numbers are missing. */
export function crankToWheel(input: LossNumbers & { crankPowerW: number; school: LossSchool }): number {
  const { crankPowerW, school, lossShare, fixedLossW = 0, proportionalShare, coastDownLossW = 0 } = input
  // What the school needs is checked by the way there.
  crankBy(school, requirePositive(crankPowerW, 'crankPowerW'), input) ?? missingNumbers(school)
  const kept = school === 'percentage' ? 1 - (lossShare as number) : school === 'fixedAndProportional' ? 1 - (proportionalShare as number) : 1
  const left = crankPowerW * kept - (school === 'fixedAndProportional' ? fixedLossW : school === 'coastDown' ? coastDownLossW : 0)
  if (left <= 0) throw new CalculationError('out-of-range', 'crankPowerW', 'The driveline would take all of that power. Check the loss.')
  return left
}

function missingNumbers(school: LossSchool): never {
  throw new CalculationError('missing', school, `The school “${LOSS_SCHOOL_WORDS[school]}” needs its numbers. Give them, or pick another school.`)
}

/** The fixed and the proportional part from two pairs of crank and wheel power: 1 − k = ΔP_w/ΔP_c, P_fix = (1 − k) P_c − P_w. Rejects pairs of one crank power. */
export function lossFromPairs(
  first: { crankW: number; wheelW: number },
  second: { crankW: number; wheelW: number },
): { fixedLossW: number; proportionalShare: number } {
  if (first.crankW === second.crankW)
    throw new CalculationError('inconsistent', 'second.crankW', 'Two pairs of one crank power tell no share. Give two that differ.')
  const kept = (second.wheelW - first.wheelW) / (second.crankW - first.crankW)
  return { fixedLossW: kept * first.crankW - first.wheelW, proportionalShare: 1 - kept }
}
