import { type DriveCar, USUAL_DRIVE } from '../../drivetrain/drive-car.ts'
import type { SlidingCar } from '../../drivetrain/slide.ts'
import type { Powertrain } from '../../drivetrain/slide-gears.ts'

/** An invented rear-drive car with a curve from hubs, for trying what drives. */
export const EXAMPLE_DRIVE: DriveCar = {
  ...USUAL_DRIVE,
  massKg: 1240,
  wheelbaseM: 2.6,
  frontShare: 0.52,
  centreHeightM: 0.48,
  drivenAxles: 'rear',
  friction: 1.25,
  dragAreaM2: 0.68,
  rollingCoefficient: 0.015,
  curve: { speedRpm: [2000, 3000, 4000, 5000, 6000, 7000, 7200], torqueNm: [190, 265, 330, 340, 312, 250, 235] },
  ratios: [3.4, 2.08, 1.46, 1.12, 0.91],
  finalRatio: 3.73,
  radiusM: 1.936 / (2 * Math.PI),
  engineInertiaKgM2: 0.16,
  wheelInertiaKgM2: 3.8,
  topRpm: 7200,
  launchRpm: 4500,
  shiftS: 0.25,
}

const { curve, ratios } = EXAMPLE_DRIVE
/** The same as an input of a calculation takes it. */
export const EXAMPLE_DRIVE_INPUT = { ...EXAMPLE_DRIVE, curve: { speedRpm: [...curve.speedRpm], torqueNm: [...curve.torqueNm] }, ratios: [...ratios] }

/** The same car sliding. */
export const EXAMPLE_SLIDING: SlidingCar = {
  massKg: 1240,
  wheelbaseM: 2.6,
  frontShare: 0.52,
  centreHeightM: 0.48,
  slidingFriction: 0.95,
  frontSlipRad: (6 * Math.PI) / 180,
  dragAreaM2: 0.68,
  rollingCoefficient: 0.015,
  airDensityKgM3: 1.2,
}

/** Its engine and gears alone. */
export const EXAMPLE_TRAIN: Powertrain = {
  curve: EXAMPLE_DRIVE.curve,
  driveEfficiency: 1,
  primaryRatio: 1,
  ratios: EXAMPLE_DRIVE.ratios,
  finalRatio: EXAMPLE_DRIVE.finalRatio,
  radiusM: EXAMPLE_DRIVE.radiusM,
  topRpm: EXAMPLE_DRIVE.topRpm,
}

/** A closed course of three invented corners. */
export const EXAMPLE_CORNERS = [
  { name: 'Bank', speedMps: 18, straightM: 310 },
  { name: 'Elm', speedMps: 27, straightM: 180 },
  { name: 'Weir', speedMps: 14, straightM: 420 },
] as const
