import { EXAMPLE_DRIVE } from '../src/calculations/examples/example-drive.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { run } from '../src/drivetrain/run.ts'
import { findCalculation, runCalculation } from '../src/index.ts'

export const DEG = Math.PI / 180
export const KMH = 1 / 3.6
export const G = 9.80665
export const MOTION = driveMotion(EXAMPLE_DRIVE)
export const LEAVE = leaveSpeeds(MOTION)
export const times = (car: DriveCar, factor: number): DriveCar => ({
  ...car,
  curve: { ...car.curve, torqueNm: car.curve.torqueNm.map((torque) => torque * factor) },
})
export const calculated = (name: string, body: object) => {
  const calculation = findCalculation(name)
  const answer = calculation && runCalculation(calculation, body)
  if (!answer?.ok) throw new Error(JSON.stringify(answer))
  return answer.value as Record<string, unknown>
}

// A car that only its tyres hold, or only its engine: what closed forms are of.
export const BARE: DriveCar = {
  ...EXAMPLE_DRIVE,
  drivenAxles: 'all',
  centreHeightM: 0,
  gripUse: 1,
  dragAreaM2: 0,
  rollingCoefficient: 0,
  engineInertiaKgM2: 0,
  wheelInertiaKgM2: 0,
  ratios: [1],
  finalRatio: 4,
  radiusM: 0.3,
  shiftS: 0,
  massKg: 1250,
}
export function constantPower(powerW: number, more: Partial<DriveCar> = {}): DriveCar {
  const speedRpm = Array.from({ length: 1991 }, (_, i) => 100 + 10 * i)
  return {
    ...BARE,
    friction: 3,
    curve: { speedRpm, torqueNm: speedRpm.map((rpm) => powerW / ((rpm * Math.PI) / 30)) },
    launchRpm: 100,
    topRpm: 20_000,
    ...more,
  }
}
export const drive = (car: DriveCar, question: { fromMps?: number; toMps?: number; toM?: number }) =>
  run({ motion: driveMotion(car), leaveRpm: [], ...question })
