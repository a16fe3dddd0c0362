import { CalculationError, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'

export interface RollerSample {
  readonly timeS: number
  readonly speedRadPerS: number
}

/** Inertia of a roller about its axle: hollow m (r_o² + r_i²)/2, solid with an inner radius of zero. Source: mechanics, closed form. */
export const rollerInertiaKgM2 = (massKg: number, outerRadiusM: number, innerRadiusM = 0): number =>
  (requirePositive(massKg, 'massKg') * (requirePositive(outerRadiusM, 'outerRadiusM') ** 2 + innerRadiusM ** 2)) / 2

/** The car mass that a roller stands for: I/r². Source: energy equivalence. */
export const equivalentMassKg = (inertiaKgM2: number, radiusM: number): number =>
  requirePositive(inertiaKgM2, 'inertiaKgM2') / requirePositive(radiusM, 'radiusM') ** 2

/**
 * Power that speeds up a roller: P = d(½ I ω²)/dt by central differences of ω², which is exact for constant power on even steps
 * (ω Δω/Δt is not). The first and last sample have none. Rotating parts of the car left out of `inertiaKgM2` are not in the power.
 * Source: mechanics, closed form. Rejects an inertia or speed of zero or less, times that do not rise, and fewer than three samples.
 */
export function rollerPowerW(inertiaKgM2: number, samples: readonly RollerSample[]): { timeS: number; speedRadPerS: number; powerW: number }[] {
  requirePositive(inertiaKgM2, 'inertiaKgM2')
  if (samples.length < 3) throw new CalculationError('missing', 'samples', 'Power needs at least three samples: it is a difference around each.')
  samples.forEach(({ timeS, speedRadPerS }, i) => {
    requirePositive(speedRadPerS, `samples[${i}].speedRadPerS`)
    const before = samples[i - 1]
    if (before && !(timeS > before.timeS))
      throw new CalculationError('inconsistent', `samples[${i}].timeS`, `Sample ${i + 1} is not later than the one before. Sort by time and leave out doubles.`)
  })
  return samples.slice(1, -1).map(({ timeS, speedRadPerS }, i) => {
    const [before, after] = [itemAt(samples, i), itemAt(samples, i + 2)]
    const powerW = (inertiaKgM2 * (after.speedRadPerS ** 2 - before.speedRadPerS ** 2)) / (2 * (after.timeS - before.timeS))
    return { timeS, speedRadPerS, powerW }
  })
}
