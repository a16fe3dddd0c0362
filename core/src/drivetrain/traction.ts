import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import type { Grounded } from './drive-car.ts'

const MOST_ROUNDS = 200

/** Loads of the axles at a speed before any acceleration, N, and what resists. */
function standing(car: Grounded, speedMps: number, rollingShare: number) {
  const { massKg, frontShare, dragAreaM2, rollingCoefficient, downforceFrontM2, downforceRearM2, airDensityKgM3 } = car
  const q = 0.5 * airDensityKgM3 * speedMps * speedMps
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  const frontN = weightN * frontShare + q * downforceFrontM2
  const rearN = weightN * (1 - frontShare) + q * downforceRearM2
  return { frontN, rearN, resistanceN: rollingCoefficient * rollingShare * (frontN + rearN) + q * dragAreaM2 }
}

/**
 * The share of the car's load whose tyres roll at the engine's cost: all of it, or that of the axles that do not drive where the curve was measured on
 * rollers, because what the driven tyres take is in it already.
 * @example rollingShare({ frontShare: 0.52, drivenAxles: 'rear' }, true) // 0.52
 */
export function rollingShare({ frontShare, drivenAxles }: Pick<Grounded, 'frontShare' | 'drivenAxles'>, isOnRollers: boolean): number {
  if (!isOnRollers) return 1
  return drivenAxles === 'all' ? 0 : drivenAxles === 'rear' ? frontShare : 1 - frontShare
}

/**
 * What resists the car at a speed, N: c (m g + q (A_f + A_r)) + q C with q = ρ v²/2. Source: F.4. Speed 0 to 150 m/s.
 * @example resistanceN(DRIVE, 0, 1) // 182.404
 */
export const resistanceN = (car: Grounded, speedMps: number, share: number): number => standing(car, speedMps, share).resistanceN

/** Friction of one axle's tyres under its load: falling with load by the school that says so. */
function frictionUnder(car: Grounded, axleN: number): number {
  const { friction, gripUse, surfaceFactor, frictionSchool, loadSensitivity } = car
  const peak = friction * gripUse * surfaceFactor
  if (frictionSchool === 'constant') return peak
  const weightN = car.massKg * STANDARD_GRAVITY_MPS2
  const atRestN = weightN * (car.drivenAxles === 'front' ? car.frontShare : car.drivenAxles === 'rear' ? 1 - car.frontShare : 0.5)
  return Math.max(0.05, peak * (1 - loadSensitivity * (axleN / atRestN - 1)))
}

/** Grip of the driven axles, N, with a friction of the front and of the rear tyres. */
function gripWith(car: Grounded, loads: ReturnType<typeof standing>, frontMu: number, rearMu: number): number {
  const { frontN, rearN, resistanceN: resistance } = loads
  const t = car.centreHeightM / car.wheelbaseM
  // The front wheels lift: more force would turn the car over instead of driving it.
  const lift = t > 0 ? frontN / t + resistance : Number.POSITIVE_INFINITY
  const rear = rearMu * t < 1 ? (rearMu * (rearN - resistance * t)) / (1 - rearMu * t) : lift
  if (car.drivenAxles === 'rear') return Math.min(rear, lift)
  if (car.drivenAxles === 'front') return (frontMu * (frontN + resistance * t)) / (1 + frontMu * t)
  if (car.rearTorqueShare === null) {
    // N_r = W_r + (G − R) t: both axles slip together.
    const shared = (frontMu * (frontN + resistance * t) + rearMu * (rearN - resistance * t)) / (1 + (frontMu - rearMu) * t)
    return Math.min(shared, lift)
  }
  const s = car.rearTorqueShare
  const atFront = (frontMu * (frontN + resistance * t)) / (1 - s + frontMu * t)
  const atRear = s > rearMu * t ? (rearMu * (rearN - resistance * t)) / (s - rearMu * t) : Number.POSITIVE_INFINITY
  return Math.min(atFront, atRear, lift)
}

/**
 * The greatest drive force that the tyres hold at a speed, N, with load transfer by the car's own acceleration, downforce and resistance.
 * Rear: μ (W_r − R t)/(1 − μ t), at most W_f/t + R where the front lifts; front: μ (W_f + R t)/(1 + μ t); all: Σ μ N; a fixed split: its weaker axle.
 * t = h/L. Friction that falls with load is found by repetition. Source: F.5, statics. `requireGrounded` says what it takes.
 * @example gripLimitN(DRIVE, 0, 1) // 8472.5
 */
export function gripLimitN(car: Grounded, speedMps: number, share: number): number {
  const loads = standing(car, speedMps, share)
  const t = car.centreHeightM / car.wheelbaseM
  if (car.frictionSchool === 'constant') {
    const mu = frictionUnder(car, 1)
    return Math.max(0, gripWith(car, loads, mu, mu))
  }
  let grip = gripWith(car, loads, frictionUnder(car, loads.frontN), frictionUnder(car, loads.rearN))
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const moved = (grip - loads.resistanceN) * t
    const next = gripWith(car, loads, frictionUnder(car, loads.frontN - moved), frictionUnder(car, loads.rearN + moved))
    // Halfway there: a step of the whole way may swing for ever.
    const middle = 0.5 * (grip + next)
    if (Math.abs(middle - grip) < 1e-10 * Math.max(1, grip)) return Math.max(0, middle)
    grip = middle
  }
  return Math.max(0, grip)
}
