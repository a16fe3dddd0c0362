import type { AxleSprings } from '../../aero/axle-springs.ts'
import type { HeightsInput, LowPoint } from '../../aero/ride-heights.ts'
import { type WheelRates, wheelRates } from '../../aero/wheel-rates.ts'
import type { AxleSpringsRecord } from '../../records/aero-schemas.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import type { RoomDevice } from './devices.ts'
import { type Picks, pickedNotch } from './totals.ts'

/** Rate of a tyre that nobody measured, N/m, and what of a corner hangs below its spring, kg (common practice, no source). */
export const USUAL_TYRE_RATE_N_PER_M = 230_000
export const USUAL_UNSPRUNG_KG = 38

export interface StageAxle {
  readonly springs: AxleSprings
  readonly rates: WheelRates
  readonly unsprungKg: number
  /** On one spring; null where mass or axle loads are not known. */
  readonly sprungKg: number | null
  /** Whether the tyre's rate is the usual one. */
  readonly isTyreUsual: boolean
}

/** The springs of an axle as a set-up has them. */
function ofSetup(axle: AxleSpringsRecord): { springs: AxleSprings; unsprungKg: number; isTyreUsual: boolean } {
  const { springRateNPerM, motionRatio, damperMotionRatio, tyreRateNPerM, gapM, packerM, rubber, unsprungKg } = axle
  const springs = { springRateNPerM, motionRatio, damperMotionRatio, tyreRateNPerM: tyreRateNPerM ?? USUAL_TYRE_RATE_N_PER_M, gapM, packerM, rubber }
  return { springs, unsprungKg, isTyreUsual: tyreRateNPerM === null }
}

/** The springs of an axle as the build has them: its rate at the wheel brought back to the spring. */
function ofBuild(car: Car, axle: 'front' | 'rear'): ReturnType<typeof ofSetup> | null {
  const own = car.records.build.suspension?.[axle]
  if (!own) return null
  const { wheelRateNPerM, motionRatio, tyreRateNPerM } = own
  const springs = {
    springRateNPerM: wheelRateNPerM / motionRatio ** 2,
    motionRatio,
    damperMotionRatio: null,
    tyreRateNPerM: tyreRateNPerM ?? USUAL_TYRE_RATE_N_PER_M,
    gapM: null,
    packerM: 0,
    rubber: [],
  }
  return { springs, unsprungKg: USUAL_UNSPRUNG_KG, isTyreUsual: tyreRateNPerM === null }
}

/** An axle at a stage: the latest set-up up to it that has its springs, else the build's; null where neither has. */
export function axleAtStage(car: Car, position: number, axle: 'front' | 'rear'): StageAxle | null {
  const setup = car.records.setups
    .map((each) => ({ each, at: stageIndex(car, each.stageId) }))
    .filter(({ each, at }) => at >= 0 && at <= position && each[axle] !== null)
    .sort((a, b) => a.at - b.at)
    .at(-1)?.each[axle]
  const own = setup ? ofSetup(setup) : ofBuild(car, axle)
  if (!own) return null
  const share = frontShareAt(car, position)?.value
  const massKg = massOf(car, position)?.value
  const cornerKg = share === undefined || massKg === undefined ? null : (massKg * (axle === 'front' ? share : 1 - share)) / 2
  const sprungKg = cornerKg === null || cornerKg <= own.unsprungKg ? null : cornerKg - own.unsprungKg
  return { ...own, sprungKg, rates: wheelRates({ ...own.springs, sprungKg }) }
}

/**
 * What hangs low: both ends of each device's box, and the underside over the axles. Heights as the car stands.
 * @example lowPoints([], {}, { undersideM: 0.11, wheelbaseM: 2.6 }).length // 2
 */
export function lowPoints(devices: readonly RoomDevice[], picks: Picks, { undersideM, wheelbaseM }: { undersideM: number; wheelbaseM: number }): LowPoint[] {
  const ends = devices.flatMap((device): LowPoint[] => {
    const { box } = pickedNotch(device, picks)
    if (!box) return []
    return [
      { name: device.name, xM: box.xFrontM, zM: box.zBottomM },
      { name: device.name, xM: box.xRearM, zM: box.zBottomM },
    ]
  })
  return [...ends, { name: 'underside, front axle', xM: 0, zM: undersideM }, { name: 'underside, rear axle', xM: wheelbaseM, zM: undersideM }]
}

/** Spreads by which a clearance is priced: rate of a spring, motion ratio, tyre, and the tape (common practice, no source). */
export const HEIGHT_SPREADS = { spring: 0.02, motionRatio: 0.01, tyre: 0.1, tapeM: 0.002 } as const

/** A heights input with one of its numbers moved by one spread; one for each. */
export function movedHeights(input: HeightsInput, { frontSdM2, rearSdM2 }: { frontSdM2: number; rearSdM2: number }): HeightsInput[] {
  const axle = (which: 'front' | 'rear', change: Partial<AxleSprings>) => ({ ...input, [which]: { ...input[which], ...change } })
  return [
    { ...input, downforceFrontM2: input.downforceFrontM2 + frontSdM2 },
    { ...input, downforceRearM2: input.downforceRearM2 + rearSdM2 },
    ...(['front', 'rear'] as const).flatMap((which) => [
      axle(which, { springRateNPerM: input[which].springRateNPerM * (1 + HEIGHT_SPREADS.spring) }),
      axle(which, { motionRatio: input[which].motionRatio * (1 + HEIGHT_SPREADS.motionRatio) }),
      axle(which, { tyreRateNPerM: input[which].tyreRateNPerM * (1 + HEIGHT_SPREADS.tyre) }),
    ]),
  ]
}
