import { itemAt } from '../item-at.ts'
import { type DriveCar, requireDriveCar } from './drive-car.ts'
import { gripLimitN, resistanceN, rollingShare } from './traction.ts'

/** What an unknown engine and its gears add to the mass, in a gear of ratio i: m (1.04 + 0.0025 i²) (common practice, no source). */
const USUAL_TURNING = { always: 0.04, byRatioSquared: 0.0025 } as const

/** One gear of a car: its ratio from crank to wheel and the mass that turns with it. */
export interface GearFacts {
  /** Counted from 1. */
  readonly number: number
  readonly ratio: number
  /** m + (I_w + I_e i²)/r². */
  readonly effectiveMassKg: number
  /** Speeds of the curve's points, and where the clutch stops slipping, m/s: force has a kink there. */
  readonly kinksMps: readonly number[]
  readonly topMps: number
  /** Where the curve begins. */
  readonly firstMps: number
}

export type Holder = 'engine' | 'tyres'

/** A car ready to be driven: forces and accelerations by gear and speed. */
export interface Motion {
  readonly car: DriveCar
  readonly gears: readonly GearFacts[]
  /** Mass with the wheels alone: no gear is in, or the clutch slips. */
  readonly rollingMassKg: number
  /** Below it the clutch slips in first gear, from rest. */
  readonly launchMps: number
  readonly speedRpm: (gear: GearFacts, speedMps: number) => number
  readonly speedMps: (gear: GearFacts, rpm: number) => number
  readonly torqueNm: (rpm: number) => number
  /** At the tyres; with a slipping clutch what launch speed gives. */
  readonly driveForceN: (gear: GearFacts, speedMps: number, isSlipping?: boolean) => number
  readonly gripN: (speedMps: number) => number
  readonly resistanceN: (speedMps: number) => number
  /** What the engine alone would do less what the tyres allow: under 0 the engine holds the car, above 0 the tyres do. */
  readonly overGrip: (gear: GearFacts, speedMps: number, isSlipping?: boolean) => number
  readonly acceleration: (gear: GearFacts, speedMps: number, isSlipping?: boolean) => number
}

const RPM = Math.PI / 30

/** Torque at a speed by straight lines between the points of a curve; the speed is held within them. */
export function torqueAlong(speedRpm: readonly number[], torqueNm: readonly number[]): (rpm: number) => number {
  const last = speedRpm.length - 2
  // A run asks for speeds that lie near each other: the piece that was found last is looked at first.
  let at = 0
  return (rpm) => {
    while (at > 0 && rpm < itemAt(speedRpm, at)) at--
    while (at < last && rpm > itemAt(speedRpm, at + 1)) at++
    const [low, high] = [itemAt(speedRpm, at), itemAt(speedRpm, at + 1)]
    const share = Math.max(0, Math.min(1, (rpm - low) / (high - low)))
    return itemAt(torqueNm, at) * (1 - share) + itemAt(torqueNm, at + 1) * share
  }
}

function gearFacts(car: DriveCar, rollingMassKg: number): GearFacts[] {
  const { massKg, radiusM, engineInertiaKgM2, inertiaScale, curve, topRpm, launchRpm } = car
  const mps = (rpm: number, ratio: number) => (rpm * RPM * radiusM) / ratio
  const speeds = [...new Set([...curve.speedRpm.filter((rpm) => rpm < topRpm), launchRpm, topRpm])].sort((a, b) => a - b)
  return car.ratios.map((each, i) => {
    const ratio = car.primaryRatio * each * car.finalRatio
    const added =
      engineInertiaKgM2 === null ? inertiaScale * massKg * USUAL_TURNING.byRatioSquared * ratio ** 2 : (engineInertiaKgM2 * ratio ** 2) / radiusM ** 2
    return {
      number: i + 1,
      ratio,
      effectiveMassKg: rollingMassKg + added,
      kinksMps: speeds.map((rpm) => mps(rpm, ratio)),
      topMps: mps(topRpm, ratio),
      firstMps: mps(itemAt(curve.speedRpm, 0), ratio),
    }
  })
}

/**
 * A car ready to be driven. Acceleration is the lesser of (F − R)/m_e and (G − R)/m: turning masses count only while the engine holds the car. By the
 * school of the drive force it is (min(F, G) − R)/m_e, with the grip of a car without resistance, and engine inertia in any gear.
 * Source: page of the room; F.3, F.4, F.8. Rejects what `requireDriveCar` rejects.
 * @example driveMotion(DRIVE).gears[0].effectiveMassKg // 1551.07
 */
export function driveMotion(car: DriveCar): Motion {
  requireDriveCar(car)
  const { massKg, radiusM, wheelInertiaKgM2, engineInertiaKgM2, inertiaScale, curve, driveEfficiency, launchRpm } = car
  const rollingMassKg = engineInertiaKgM2 === null ? massKg * (1 + inertiaScale * USUAL_TURNING.always) : massKg + wheelInertiaKgM2 / radiusM ** 2
  const gears = gearFacts(car, rollingMassKg)
  const rolling = rollingShare(car, car.isOnRollers)
  const torqueNm = torqueAlong(curve.speedRpm, curve.torqueNm)
  const speedRpm = (gear: GearFacts, speedMps: number) => (speedMps * gear.ratio) / (radiusM * RPM)
  const ofForce = car.gripSchool === 'driveForce'
  const withoutAir = { ...car, rollingCoefficient: 0, dragAreaM2: 0 }
  const gripN = (speedMps: number) => gripLimitN(ofForce ? withoutAir : car, speedMps, rolling)
  const resisting = (speedMps: number) => resistanceN(car, speedMps, rolling)
  const driveForceN: Motion['driveForceN'] = (gear, speedMps, isSlipping = false) =>
    (torqueNm(isSlipping ? launchRpm : speedRpm(gear, speedMps)) * driveEfficiency * gear.ratio) / radiusM
  const massOf = (gear: GearFacts, isSlipping: boolean) => (isSlipping && !ofForce ? rollingMassKg : gear.effectiveMassKg)
  const byEngine = (gear: GearFacts, speedMps: number, isSlipping: boolean) =>
    (driveForceN(gear, speedMps, isSlipping) - resisting(speedMps)) / massOf(gear, isSlipping)
  const byTyres = (gear: GearFacts, speedMps: number) => (gripN(speedMps) - resisting(speedMps)) / (ofForce ? gear.effectiveMassKg : massKg)
  return {
    car,
    gears,
    rollingMassKg,
    launchMps: (launchRpm * RPM * radiusM) / (gears[0]?.ratio ?? 1),
    speedRpm,
    speedMps: (gear, rpm) => (rpm * RPM * radiusM) / gear.ratio,
    torqueNm,
    driveForceN,
    gripN,
    resistanceN: resisting,
    overGrip: (gear, speedMps, isSlipping = false) => byEngine(gear, speedMps, isSlipping) - byTyres(gear, speedMps),
    acceleration: (gear, speedMps, isSlipping = false) => Math.min(byEngine(gear, speedMps, isSlipping), byTyres(gear, speedMps)),
  }
}
