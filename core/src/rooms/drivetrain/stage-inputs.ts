import type { DriveCar, TorqueCurve } from '../../drivetrain/drive-car.ts'
import { gridSpeedRpm } from '../../dyno/curve.ts'
import { torqueFromPowerNm } from '../../dyno/power-torque.ts'
import { crankToWheel } from '../../dyno/wheel-to-crank.ts'
import type { DriveOf } from '../../records/drive-schemas.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { areasAtTyres } from '../aero/stage-aero.ts'
import { lossOf } from '../power/driveline-loss.ts'
import { planAtStage } from '../power/engine-plan-at-stage.ts'
import { curveAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { type DriveInput, type DriveInputKey, drivenAxle, hasSize, inputsOf, radiusOf, tyresOf } from './drive-inputs.ts'
import { settingsAtStage } from './drive-settings.ts'
import { type Driveline, drivelineAtStage, driveOf, finalRatioOf } from './driveline.ts'

/** What is left at the wheels of a power as the build counts it: an engine dyno knows nothing of the driveline, its loss is the build's, or a usual one. */
export function leftAtWheels({ records: { build } }: Car, powerW: number): number {
  if (build.powerBasis.place !== 'engine') return powerW
  return crankToWheel({ crankPowerW: powerW, ...lossOf({ ...build, powerBasis: { ...build.powerBasis, place: 'hub' }, drivelineLoss: build.drivelineLoss }) })
}

/** Torque left at the wheels by engine speed, at the build's own place of counting power. */
export function wheelCurve(car: Car, position: number): TorqueCurve | null {
  const found = curveAtStage(car, position)
  if (!found) return null
  const speedRpm: number[] = []
  const torqueNm: number[] = []
  found.curve.powerW.forEach((powerW, i) => {
    const rpm = gridSpeedRpm(found.curve, i)
    speedRpm.push(rpm)
    torqueNm.push(torqueFromPowerNm(leftAtWheels(car, powerW), rpm))
  })
  return speedRpm.length < 2 ? null : { speedRpm, torqueNm }
}

/** The first speed with nine tenths of the greatest torque: where a launch begins unless it is typed. */
export function usualLaunchRpm({ speedRpm, torqueNm }: TorqueCurve): number {
  const most = Math.max(...torqueNm)
  return speedRpm[torqueNm.findIndex((torque) => torque >= 0.9 * most)] ?? (speedRpm[0] as number)
}

export interface MissingInput {
  readonly what: string
  /** The room and tab where it is typed. */
  readonly room: 'weight' | 'power' | 'drivetrain' | 'plan'
  readonly more: string
}

/** A stage as its drivetrain sees it. */
export interface DriveStage {
  readonly line: Driveline
  /** Null where something is missing. */
  readonly car: DriveCar | null
  readonly inputs: readonly DriveInput[]
  readonly missing: readonly MissingInput[]
  readonly warnings: readonly string[]
  /** Rolling with a converter from rest is not calculated. */
  readonly isConverter: boolean
}

/** Axles that are driven together and differ by more than this wear what joins them (common practice, no source). */
const LARGEST_AXLE_DIFFERENCE = 0.005

function warningsOf(car: Car, line: Driveline): string[] {
  const { front, rear } = tyresOf(car, line)
  if (car.records.build.drivenAxles !== 'all' || !hasSize(front?.drive) || !hasSize(rear?.drive)) return []
  const [a, b] = [radiusOf(front.drive).value, radiusOf(rear.drive).value]
  const share = Math.abs(a - b) / Math.max(a, b)
  return share > LARGEST_AXLE_DIFFERENCE
    ? [`Front and rear tyres roll ${(100 * share).toFixed(1)} % apart: axles that are driven together wear what joins them.`]
    : []
}

function missingOf(car: Car, position: number, line: Driveline): MissingInput[] {
  const has = (slot: string) => line.bySlot.has(slot)
  const isBroken = (slot: string) => line.conflicts.some((conflict) => conflict.slot === slot)
  const tyre = tyresOf(car, line).own
  const said = (what: string, room: MissingInput['room'], more = ''): MissingInput => ({ what, room, more })
  return [
    ...(curveAtStage(car, position) ? [] : [said('a pull: no curve of power was measured up to this stage', 'power', '&do=session')]),
    ...(massOf(car, position) ? [] : [said('the mass: nothing was weighed and no papers are given', 'weight', '&tab=scales&do=weighing')]),
    ...(frontShareAt(car, position) ? [] : [said('axle loads: the share of the front axle is not known', 'weight', '&tab=scales&do=weighing')]),
    ...(has('gearbox') || isBroken('gearbox') ? [] : [said('the gears', 'drivetrain', '&do=line')]),
    ...(has('finalDrive') || isBroken('finalDrive') ? [] : [said('the final drive', 'drivetrain', '&do=line')]),
    ...(hasSize(tyre?.drive) ? [] : [said('the size of the driven tyres', 'drivetrain', '&do=line')]),
    ...line.conflicts.map(({ message }) => said(message, 'drivetrain', '&tab=gears')),
  ]
}

/** Inertia of all wheels: as typed, else the mass that a wheel with its tyre usually has at its rim (common practice, no source). */
const USUAL_WHEEL_INERTIA_KG_M2 = 0.95

function wheelInertia(car: Car, line: Driveline): number {
  const { front, rear } = tyresOf(car, line)
  const of = (each: typeof front) => each?.drive.wheelInertiaKgM2 ?? USUAL_WHEEL_INERTIA_KG_M2
  return 2 * of(front) + 2 * of(rear)
}

/**
 * A stage as its drivetrain sees it: the parts in their places, every number with its doubt, what is missing and where it is typed, and the car that runs
 * are made of. Never a made-up number: without a curve, axle loads or gears there is no car.
 * @example driveStage(CAR, 1).missing.length // 3
 */
export const driveStage = rememberByIndex((car: Car, position: number): DriveStage => {
  const line = drivelineAtStage(car.records, position)
  const inputs = inputsOf(car, position, line)
  const missing = missingOf(car, position, line)
  const box = driveOf(line, 'gearbox')
  const isConverter = box?.drive.style === 'converter'
  const common = { line, inputs, missing, warnings: warningsOf(car, line), isConverter }
  const curve = wheelCurve(car, position)
  const final = driveOf(line, 'finalDrive')
  if (missing.length > 0 || !curve || !box || !final) return { ...common, car: null }
  return { ...common, car: carOf(car, position, { line, inputs, curve, box: box.drive, final: final.drive }) }
})

function carOf(
  car: Car,
  position: number,
  {
    line,
    inputs,
    curve,
    box,
    final,
  }: { line: Driveline; inputs: readonly DriveInput[]; curve: TorqueCurve; box: DriveOf<'gearbox'>; final: DriveOf<'finalDrive'> },
): DriveCar {
  const settings = settingsAtStage(car, position)
  const value = (key: DriveInputKey) => inputs.find((input) => input.key === key)?.value ?? 0
  const build = car.builds[position] ?? car.records.build
  const air = areasAtTyres(car, position)
  const centre = driveOf(line, 'differential centre')
  const tyre = driveOf(line, `tyre ${drivenAxle(car)}`)?.drive
  const redline = planAtStage(car.records, position)?.plan.engine.redlineRpm
  const last = curve.speedRpm.at(-1) as number
  const topRpm = Math.min(settings.topRpm ?? last, redline ?? last, last)
  const launchRpm = Math.min(Math.max(settings.launchRpm ?? usualLaunchRpm(curve), curve.speedRpm[0] as number), topRpm - 1)
  return {
    massKg: value('massKg'),
    wheelbaseM: build.wheelbaseM,
    frontShare: value('frontShare'),
    centreHeightM: value('centreHeightM'),
    drivenAxles: build.drivenAxles,
    rearTorqueShare: build.drivenAxles === 'all' ? (centre?.drive.rearTorqueShare ?? null) : null,
    friction: value('friction'),
    frictionSchool: tyre?.friction?.school ?? 'constant',
    loadSensitivity: tyre?.friction?.sensitivity ?? 0.1,
    gripUse: value('gripUse'),
    surfaceFactor: 1,
    dragAreaM2: value('dragAreaM2'),
    rollingCoefficient: value('rollingCoefficient'),
    downforceFrontM2: air?.frontM2 ?? 0,
    downforceRearM2: air?.rearM2 ?? 0,
    airDensityKgM3: build.airDensityKgM3,
    curve,
    driveEfficiency: 1,
    primaryRatio: box.primaryRatio,
    ratios: box.ratios,
    finalRatio: finalRatioOf(final, settings.pair),
    radiusM: value('radiusM'),
    engineInertiaKgM2: settings.engineInertiaKgM2?.value ?? null,
    wheelInertiaKgM2: wheelInertia(car, line),
    inertiaScale: 1,
    topRpm,
    launchRpm,
    shiftS: value('shiftS'),
    gripSchool: 'acceleration',
    isOnRollers: build.powerBasis.place === 'roller',
  }
}
