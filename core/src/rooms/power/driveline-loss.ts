import type { LossNumbers, LossSchool } from '../../dyno/wheel-to-crank.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'

/** Usual numbers of each school (common practice, no source), for a build that has not picked its own. */
export const USUAL_LOSS = { school: 'fixedAndProportional', lossShare: 0.14, fixedLossW: 10_000, proportionalShare: 0.05 } as const

export type DrivelineLoss = LossNumbers & { readonly school: LossSchool; readonly isUsual: boolean }

/**
 * How a build reckons crank power: by its own school and numbers, else by usual ones. On an engine dyno nothing is lost.
 * @example lossOf(EXAMPLE.build).school // 'fixedAndProportional'
 */
export function lossOf(build: BuildRecord): DrivelineLoss {
  if (build.powerBasis.place === 'engine') return { school: 'percentage', lossShare: 0, isUsual: false }
  const own = build.drivelineLoss
  if (!own) return { ...USUAL_LOSS, isUsual: true }
  const numbers = Object.entries(own).flatMap(([key, value]) => (value === null || key === 'school' ? [] : [[key, value] as const]))
  return { school: own.school, ...Object.fromEntries(numbers), isUsual: false }
}
