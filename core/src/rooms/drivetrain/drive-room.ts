import { orElse } from '../../attempt.ts'
import type { DriveCar } from '../../drivetrain/drive-car.ts'
import { quarterMileRule } from '../../drivetrain/quarter-mile-rule.ts'
import type { Yardstick } from '../../drivetrain/yardsticks.ts'
import { powerFromTorqueW } from '../../dyno/power-torque.ts'
import { wheelToCrank } from '../../dyno/wheel-to-crank.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { lossOf } from '../power/driveline-loss.ts'
import type { DriveInput } from './drive-inputs.ts'
import { settingsAtStage } from './drive-settings.ts'
import { DRIVE_ROLE_WORDS, drivelineAtStage, driveWords, slotsOf } from './driveline.ts'
import { driveStage, type MissingInput } from './stage-inputs.ts'
import { type StagePath, stagePath } from './stage-path.ts'
import { type SlideSetup, slideSetup } from './stage-slide.ts'
import { measuredYardsticks } from './stage-yardsticks.ts'
import { type TrackByWheels, trackByWheels } from './track-by-wheels.ts'

/** A part of the driveline in its place, as the room shows it. */
export interface DriveRow {
  readonly slot: string
  readonly partId: string
  readonly role: string
  readonly words: string
  /** The stage it came in at. */
  readonly position: number
}

/** Everything the Drivetrain screen makes its pictures of at one stage. */
export interface DriveRoomStage {
  readonly car: DriveCar | null
  readonly inputs: readonly DriveInput[]
  readonly missing: readonly MissingInput[]
  readonly warnings: readonly string[]
  readonly isConverter: boolean
  readonly rows: readonly DriveRow[]
  /** Where wheels make another track than the one that is typed. */
  readonly tracks: readonly TrackByWheels[]
  readonly slide: Omit<SlideSetup, 'inputs'> | null
  /** Why the stage does not slide by these sums. */
  readonly slideReason: string | null
  readonly path: StagePath | null
  /** What was read at this stage itself, by yardstick. */
  readonly measured: Readonly<Partial<Record<Yardstick, { readonly value: number; readonly sd: number; readonly proof: Proof }>>>
  readonly reserveWanted: number
  /** Rules of thumb for the quarter mile, by the greatest power at the crank; null without a car. */
  readonly quarterMileRule: ReturnType<typeof quarterMileRule> | null
  readonly surfaces: { readonly damp: number; readonly wet: number }
}

export interface DriveRoom {
  readonly stages: readonly (DriveRoomStage | null)[]
  readonly rollOutM: number
}

/**
 * Everything the Drivetrain screen shows of a build; the runs and maps themselves are worked out where they are drawn.
 * @example makeDriveRoom(CAR).stages.length // 2
 */
export function makeDriveRoom(car: Car): DriveRoom {
  return {
    stages: car.stages.map((_, position) =>
      orElse(
        () => stageOf(car, position),
        () => null,
      ),
    ),
    rollOutM: car.records.build.driveBasis?.rollOutM ?? 0,
  }
}

function stageOf(car: Car, position: number): DriveRoomStage {
  const { car: own, inputs, missing, warnings, isConverter } = driveStage(car, position)
  const setup = slideSetup(car, position)
  const { dampShare = 0.7, wetShare = 0.55 } = car.records.build.driveBasis ?? {}
  const slides = setup && !('reason' in setup) ? setup : null
  return {
    car: own,
    inputs,
    missing,
    warnings,
    isConverter,
    rows: rowsOf(car, position),
    tracks: trackByWheels(car, position),
    slide: slides && { car: slides.car, train: slides.train, reserve: slides.reserve, lockRad: slides.lockRad, frontPeak: slides.frontPeak },
    slideReason: setup && 'reason' in setup ? setup.reason : null,
    path: stagePath(car, position) ?? null,
    measured: measuredYardsticks(car, position),
    quarterMileRule: own
      ? orElse(
          () => quarterMileRule({ massKg: own.massKg, crankPowerW: crankPowerOf(car, own) }),
          () => null,
        )
      : null,
    reserveWanted: settingsAtStage(car, position).reserveWanted ?? 0.15,
    surfaces: { damp: dampShare, wet: wetShare },
  }
}

/** The greatest power of a stage at the crank, W, by the build's driveline loss. */
function crankPowerOf({ records: { build } }: Car, { curve }: DriveCar): number {
  const wheelPowerW = Math.max(...curve.torqueNm.map((torque, i) => powerFromTorqueW(torque, curve.speedRpm[i] as number)))
  return wheelToCrank({ wheelPowerW, ...lossOf({ ...build, powerBasis: { ...build.powerBasis, place: 'hub' } }) }).crankPowerW
}

function rowsOf(car: Car, position: number): DriveRow[] {
  const order = Object.keys(DRIVE_ROLE_WORDS)
  const { bySlot } = drivelineAtStage(car.records, position)
  const seen = new Set<string>()
  return [...bySlot]
    .sort(([, a], [, b]) => order.indexOf(a.drive.role) - order.indexOf(b.drive.role))
    .flatMap(([slot, { part, drive, position: at }]) => {
      if (seen.has(part.id)) return []
      seen.add(part.id)
      const isWhole = slotsOf(drive).length > 1
      return [{ slot: isWhole ? drive.role : slot, partId: part.id, role: DRIVE_ROLE_WORDS[drive.role][0], words: driveWords(drive), position: at }]
    })
}
