import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'

/** One axle's brakes. */
export interface AxleBrakes {
  /** Pistons on one side of one caliper; of a sliding caliper its piston. */
  readonly pistonsOneSideM: readonly number[]
  readonly padFriction: number
  readonly effectiveRadiusM: number
  readonly tyreRadiusM: number
}

/**
 * Force at the road for the pressure in an axle's lines, N/Pa: 4 μ A r_eff/r_tyre, of two wheels with two pad faces each. Counting the pistons of both sides
 * of an opposed caliper would double it. Source: H.6. Rejects no pistons, and sizes that no brake has.
 * @example brakeGain({ pistonsOneSideM: [0.036, 0.04], padFriction: 0.45, effectiveRadiusM: 0.135, tyreRadiusM: 0.308 }) // 0.0017945
 */
export function brakeGain({ pistonsOneSideM, padFriction, effectiveRadiusM, tyreRadiusM }: AxleBrakes): number {
  if (pistonsOneSideM.length < 1)
    throw new CalculationError('missing', 'pistonsOneSideM', 'Give the pistons of one side of the caliper, in millimetres across.')
  pistonsOneSideM.forEach((piston, i) => {
    requireWithin(piston, 0.01, 0.1, `pistonsOneSideM.${i}`)
  })
  requireWithin(padFriction, 0.1, 1, 'padFriction')
  requireWithin(effectiveRadiusM, 0.05, 0.25, 'effectiveRadiusM')
  requireWithin(tyreRadiusM, 0.15, 0.6, 'tyreRadiusM')
  const area = pistonsOneSideM.reduce((sum, piston) => sum + (Math.PI * piston * piston) / 4, 0)
  return (4 * padFriction * area * effectiveRadiusM) / tyreRadiusM
}

/**
 * The front's share of the braking from the pressures in both lines: gains times pressures. The ratio of the pressures alone is not the share.
 * Source: H.6. Rejects no pressure at either end.
 * @example brakeShare({ frontGain: 0.0017945, rearGain: 0.00096393, frontPa: 5.2e6, rearPa: 4.6e6 }) // 0.6779
 */
export function brakeShare({ frontGain, rearGain, frontPa, rearPa }: { frontGain: number; rearGain: number; frontPa: number; rearPa: number }): number {
  requirePositive(frontGain, 'frontGain')
  requirePositive(rearGain, 'rearGain')
  requirePositive(frontPa, 'frontPa')
  requirePositive(rearPa, 'rearPa')
  return (frontGain * frontPa) / (frontGain * frontPa + rearGain * rearPa)
}

/** Pressures from two master cylinders on a balance bar: the bar's front share of the rod's force, over each cylinder's area. */
export function barPressures({ frontMasterM, rearMasterM, barFront }: { frontMasterM: number; rearMasterM: number; barFront: number }): {
  front: number
  rear: number
} {
  requireWithin(frontMasterM, 0.008, 0.05, 'frontMasterM')
  requireWithin(rearMasterM, 0.008, 0.05, 'rearMasterM')
  requireWithin(barFront, 0.05, 0.95, 'barFront')
  // Of one newton at the pedal's rod.
  return { front: barFront / ((Math.PI * frontMasterM ** 2) / 4), rear: (1 - barFront) / ((Math.PI * rearMasterM ** 2) / 4) }
}

/** A car that brakes. */
export interface BrakingCar {
  readonly massKg: number
  readonly frontShare: number
  readonly centreHeightM: number
  readonly wheelbaseM: number
  readonly dragAreaM2: number
  readonly downforceFrontM2: number
  readonly downforceRearM2: number
  readonly airDensityKgM3: number
}

const G = STANDARD_GRAVITY_MPS2

/**
 * The share of the front at which both axles use as much friction, at a deceleration in g and a speed: loads with transfer and with downforce.
 * Source: H.6 and the room's page. Rejects a speed outside 0 to 150 m/s, a deceleration outside 0 to 4 g, and one that lifts the rear wheels.
 * @example idealBrakeShare(LAP_CAR, { decelerationG: 1.1, speedMps: 20 }) // 0.71516
 */
export function idealBrakeShare(car: BrakingCar, { decelerationG, speedMps }: { decelerationG: number; speedMps: number }): number {
  requireWithin(decelerationG, 0, 4, 'decelerationG')
  requireWithin(speedMps, 0, 150, 'speedMps')
  requirePositive(car.massKg, 'massKg')
  const weight = car.massKg * G
  const q = 0.5 * car.airDensityKgM3 * speedMps * speedMps
  const moved = (decelerationG * weight * car.centreHeightM) / car.wheelbaseM
  const front = weight * car.frontShare + q * car.downforceFrontM2 + moved
  const rear = weight * (1 - car.frontShare) + q * car.downforceRearM2 - moved
  if (!(rear > 0))
    throw new CalculationError('implausible', 'decelerationG', `At ${decelerationG} g its rear wheels lift: no share is ideal. Take a lower deceleration.`)
  return front / (front + rear)
}

export interface FirstToLock {
  readonly axle: 'front' | 'rear'
  /** Of the whole car, air included, when it locks. */
  readonly decelerationG: number
}

/**
 * Which axle locks first with a fixed share, and at how many g: B_f = μ (N_f + D H)/(p − μ H), B_r = μ (N_r − D H)/(1 − p + μ H), the lesser; (B + q C)/(m g),
 * rolling left out. Source: the room's page; H.6. Rejects what a car and its tyres cannot be.
 * @example firstToLock(LAP_CAR, { frontShare: 0.67789, friction: 1.2, speedMps: 20 }).axle // 'rear'
 */
export function firstToLock(car: BrakingCar, { frontShare: p, friction, speedMps }: { frontShare: number; friction: number; speedMps: number }): FirstToLock {
  requireWithin(p, 0.02, 0.98, 'frontShare')
  requireWithin(friction, 0.05, 4, 'friction')
  requireWithin(speedMps, 0, 150, 'speedMps')
  const weight = car.massKg * G
  const H = car.centreHeightM / car.wheelbaseM
  const q = 0.5 * car.airDensityKgM3 * speedMps * speedMps
  const drag = q * car.dragAreaM2
  const frontN = weight * car.frontShare + q * car.downforceFrontM2
  const rearN = weight * (1 - car.frontShare) + q * car.downforceRearM2
  const atFront = p > friction * H ? (friction * (frontN + drag * H)) / (p - friction * H) : Number.POSITIVE_INFINITY
  const atRear = (friction * Math.max(0, rearN - drag * H)) / (1 - p + friction * H)
  return { axle: atRear < atFront ? 'rear' : 'front', decelerationG: (Math.min(atFront, atRear) + drag) / weight }
}

/** Heat that iron takes, J/(kg K) (common practice, no source). */
export const IRON_J_PER_KG_K = 460

/**
 * How much a stop warms a disc that gives nothing away, K: its share of the energy over its mass and heat. Source: H.6.
 * Rejects a stop that does not slow, and a disc of nothing.
 * @example discRiseK({ massKg: 1250, fromMps: 60, toMps: 20, axleShare: 0.65, discs: 2, discKg: 8 }) // 176.6
 */
export function discRiseK({
  massKg,
  fromMps,
  toMps,
  axleShare,
  discs,
  discKg,
  heatJPerKgK = IRON_J_PER_KG_K,
}: {
  massKg: number
  fromMps: number
  toMps: number
  axleShare: number
  discs: number
  discKg: number
  heatJPerKgK?: number
}): number {
  requirePositive(massKg, 'massKg')
  requirePositive(discKg, 'discKg')
  requirePositive(heatJPerKgK, 'heatJPerKgK')
  requireWithin(axleShare, 0, 1, 'axleShare')
  requireWithin(discs, 1, 4, 'discs')
  if (!(fromMps > toMps && toMps >= 0)) throw new CalculationError('inconsistent', 'toMps', 'A stop ends slower than it begins. Swap the two speeds.')
  return (0.5 * massKg * (fromMps ** 2 - toMps ** 2) * axleShare) / (discs * discKg * heatJPerKgK)
}
