import { attempt } from '../../attempt.ts'
import { type DriveUse, type GearPath, SHOCK_OF_USE, type ShockSchool, shaftShare, type TorquePath, torquePath } from '../../drivetrain/torque-path.ts'
import { powerFromTorqueW, torqueFromPowerNm } from '../../dyno/power-torque.ts'
import { wheelToCrank } from '../../dyno/wheel-to-crank.ts'
import { CalculationError } from '../../errors.ts'
import type { Known } from '../../records/drive-schemas.ts'
import type { Part, RatingSubject } from '../../records/part-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { lifeOf, type PartLife, partsAtStage, ratedLimit } from '../parts/parts.ts'
import { lossOf } from '../power/driveline-loss.ts'
import { settingsAtStage } from './drive-settings.ts'
import { driveOf } from './driveline.ts'
import { driveStage } from './stage-inputs.ts'

/** A rating against what its place meets in its worst gear. */
export interface PathHeadroom {
  readonly partId: string
  readonly name: string
  /** What the part is: "half shafts". */
  readonly kind: string
  readonly subject: RatingSubject
  readonly gear: number
  readonly demandNm: number
  readonly limitNm: number
  /** Share of the limit that is left. */
  readonly headroom: number
  readonly known: Known
  readonly life: PartLife | null
}

export interface StagePath extends TorquePath {
  readonly crankTorqueNm: number
  readonly efficiency: number
  readonly shockFactor: number
  readonly shockSchool: ShockSchool
  readonly use: DriveUse
  readonly clutch: { readonly partId: string; readonly name: string; readonly torqueNm: number; readonly holding: number } | null
  /** Least left first. */
  readonly headrooms: readonly PathHeadroom[]
}

/** How a car is used where nobody says: a drift car is kicked, others drive a circuit. */
export const usualUse = (discipline: string): DriveUse => (discipline === 'drift' ? 'clutchKicks' : 'circuit')

const DEMANDS: Partial<Record<RatingSubject, (gear: GearPath, path: TorquePath, crankTorqueNm: number) => number>> = {
  gearboxTorque: ({ gearboxNm }) => gearboxNm,
  propTorque: ({ propNm }) => propNm,
  axleTorque: ({ frontAxleNm, rearAxleNm }) => Math.max(frontAxleNm, rearAxleNm),
  wheelTorque: ({ frontShaftNm, rearShaftNm }) => Math.max(frontShaftNm, rearShaftNm),
  // A maker's promise for the engine's steady torque: no shock in it.
  crankTorque: (_, __, crankTorqueNm) => crankTorqueNm,
}

/** What a part is asked in a gear; a half shaft of one axle only by that axle. */
function demandOn(part: Part, subject: RatingSubject, gear: GearPath, path: TorquePath, crankTorqueNm: number): number | undefined {
  const drive = part.drive
  if (drive?.role === 'halfShaft') {
    if (subject === 'wheelTorque') return drive.axle === 'front' ? gear.frontShaftNm : gear.rearShaftNm
    if (subject === 'axleTorque') return drive.axle === 'front' ? gear.frontAxleNm : gear.rearAxleNm
  }
  if (drive?.role === 'gear' && gear.gear !== drive.number) return undefined
  return DEMANDS[subject]?.(gear, path, crankTorqueNm)
}

function headroomsOf(car: Car, position: number, path: TorquePath, crankTorqueNm: number): PathHeadroom[] {
  const found = partsAtStage(car.records, position).flatMap((part) =>
    part.ratings.flatMap((rating): PathHeadroom[] => {
      const limitNm = ratedLimit(part, rating)
      const worst = path.gears
        .flatMap((gear) => {
          const demandNm = demandOn(part, rating.of, gear, path, crankTorqueNm)
          return demandNm === undefined ? [] : [{ gear: gear.gear, demandNm }]
        })
        .reduce<{ gear: number; demandNm: number } | undefined>((most, each) => (most && most.demandNm >= each.demandNm ? most : each), undefined)
      if (!worst) return []
      const { id: partId, name, kind } = part
      return [
        {
          partId,
          name,
          kind,
          subject: rating.of,
          ...worst,
          limitNm,
          headroom: 1 - worst.demandNm / limitNm,
          known: rating.known,
          life: lifeOf(part, car.records.partUses),
        },
      ]
    }),
  )
  return found.sort((a, b) => a.headroom - b.headroom)
}

function clutchOf(car: Car, position: number) {
  const clutch = driveOf(driveStage(car, position).line, 'clutch')
  const rating = clutch?.part.ratings.find(({ of }) => of === 'crankTorque' || of === 'gearboxTorque')
  if (!clutch || !rating) return null
  const holding = settingsAtStage(car, position).clutchHolding?.value ?? 1.2
  return { partId: clutch.part.id, name: clutch.part.name, torqueNm: ratedLimit(clutch.part, rating), holding, isBehindPrimary: clutch.drive.behindPrimary }
}

/**
 * Torque from crank to tyre at a stage, and how much of each rating is left in its worst gear; undefined where something is missing.
 * @example stagePath(CAR, 1) // undefined
 */
export const stagePath = rememberByIndex((car: Car, position: number): StagePath | undefined => {
  const { car: own, line } = driveStage(car, position)
  if (!own) return undefined
  const settings = settingsAtStage(car, position)
  const { build } = car.records
  const most = own.curve.torqueNm.reduce((best, torque, i) => (torque > (own.curve.torqueNm[best] as number) ? i : best), 0)
  const [rpm, wheelNm] = [own.curve.speedRpm[most] as number, own.curve.torqueNm[most] as number]
  const loss = lossOf({ ...build, powerBasis: { ...build.powerBasis, place: 'hub' } })
  const crankTorqueNm = torqueFromPowerNm(wheelToCrank({ wheelPowerW: powerFromTorqueW(wheelNm, rpm), ...loss }).crankPowerW, rpm)
  const efficiency = wheelNm / crankTorqueNm
  const use = settings.use ?? usualUse(build.discipline)
  const shockFactor = settings.shockFactor ?? SHOCK_OF_USE[use]
  const shockSchool = settings.shockSchool ?? 'engineOnly'
  const clutch = clutchOf(car, position)
  const share = (axle: 'front' | 'rear') => {
    const found = driveOf(line, `differential ${axle}`)
    return found ? shaftShare(found.drive.kind, found.drive.biasRatio ?? undefined) : 0.5
  }
  const found = attempt(() =>
    torquePath({
      car: own,
      radiusM: own.radiusM,
      primaryRatio: own.primaryRatio,
      ratios: own.ratios,
      finalRatio: own.finalRatio,
      crankTorqueNm,
      efficiency,
      gearboxEfficiency: driveOf(line, 'gearbox')?.drive.efficiency ?? undefined,
      shockFactor,
      shockSchool,
      clutch: clutch ?? undefined,
      shaftShareFront: share('front'),
      shaftShareRear: share('rear'),
    }),
  )
  if (found instanceof CalculationError) return undefined
  return { ...found, crankTorqueNm, efficiency, use, shockFactor, shockSchool, clutch, headrooms: headroomsOf(car, position, found, crankTorqueNm) }
})
