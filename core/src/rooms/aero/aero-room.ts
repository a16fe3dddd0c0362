import { dragTopSpeed, USUAL_ROLLING, USUAL_ROLLING_SD } from '../../aero/drag-top-speed.ts'
import { orElse } from '../../attempt.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { AeroBasis, Outline } from '../../records/aero-schemas.ts'
import { AERO_METRICS, type AeroMetric } from '../../records/metric-keys.ts'
import { bookLimits } from '../../stages/book-limits.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { powerAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import type { Anchors } from './anchors.ts'
import { basisOf } from './basis.ts'
import { type CarTest, carTests } from './car-tests.ts'
import { devicesAtStage, type RoomDevice } from './devices.ts'
import { type MountState, mountsAtStage } from './mounts.ts'
import { ownSheets, type PanelPressure, type PanelState, panelPressure, panelsAtStage, type SheetState } from './panels.ts'
import { type SetupSheet, setupSheet } from './setup-sheet.ts'
import { axleAtStage, type StageAxle } from './springs.ts'
import { aeroValue } from './stage-aero.ts'
import { anchorsAt } from './stage-anchors.ts'
import { type ToldByTest, toldByTest } from './told-by-test.ts'

interface Known {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
}

/** A limit on aero as it holds at a stage. */
export interface AeroLimit {
  readonly id: string
  readonly metric: AeroMetric
  readonly sense: 'atMost' | 'atLeast'
  readonly value: number
}

/** Everything the Aero screen makes its pictures of at one stage; sums are made where they are drawn, of the notches that are looked at. */
export interface AeroRoomStage {
  readonly devices: readonly RoomDevice[]
  readonly anchors: Anchors
  readonly mounts: readonly MountState[]
  readonly panels: readonly PanelState[]
  /** What the air asks of a panel of each device. */
  readonly panelPressures: Readonly<Record<string, PanelPressure>>
  readonly sheet: SetupSheet
  readonly wheelbaseM: number
  /** By the tape, as it is from this stage or an earlier one on. */
  readonly outline: Outline | null
  /** The stage that it was taped at; null: it is the build's. */
  readonly outlineStage: number | null
  readonly frontShare: Known | null
  readonly mass: Known | null
  readonly power: Known | null
  readonly front: StageAxle | null
  readonly rear: StageAxle | null
  readonly limits: readonly AeroLimit[]
  /** The share that a target of balance wants; null without one. */
  readonly wantedBalance: { readonly from: number; readonly to: number } | null
  readonly wantedDownforceN: number | null
  /** What was read with a tape, by metric. */
  readonly taped: Readonly<Partial<Record<AeroMetric, Known>>>
}

/** A test with what it told. */
export type RoomTest = CarTest & { readonly told: ToldByTest | null }

export interface AeroRoom {
  readonly stages: readonly (AeroRoomStage | null)[]
  /** Of the whole build, earliest first. */
  readonly tests: readonly RoomTest[]
  readonly basis: AeroBasis
  readonly airDensityKgM3: number
  /** Of the build's own. */
  readonly sheets: readonly SheetState[]
  /** Of a panel that is no device's yet. */
  readonly panelPressure: PanelPressure
}

const knownOf = (found: Known | undefined): Known | null => (found ? { value: found.value, sd: found.sd, proof: found.proof } : null)
const isAero = (metric: string): metric is AeroMetric => (AERO_METRICS as readonly string[]).includes(metric)

/** The limits of aero that hold at a stage, typed and of its book: from their first stage to their last. */
function limitsAt(car: Car, position: number): AeroLimit[] {
  const last = car.stages.length - 1
  return [...car.records.limits, ...bookLimits(car)].flatMap(({ id, metric, sense, value, fromStageId, untilStageId }) => {
    const from = fromStageId === null ? last : stageIndex(car, fromStageId)
    const until = untilStageId === null ? last : stageIndex(car, untilStageId)
    return isAero(metric) && position >= from && position <= until ? [{ id, metric, sense, value }] : []
  })
}

function stageOf(car: Car, position: number): AeroRoomStage {
  const { targets } = car.records
  const balance = targets.find(({ metric }) => metric === 'aeroBalance')
  const tapedAt = car.stages.findLastIndex(({ outline }, i) => i <= position && outline)
  const taped = Object.fromEntries(
    AERO_METRICS.flatMap((metric) => {
      const found = aeroValue(car, position, metric)
      return found && (found.proof === 'measured' || found.proof === 'confirmed') ? [[metric, knownOf(found)]] : []
    }),
  )
  return {
    devices: devicesAtStage(car, position),
    anchors: anchorsAt(car, position),
    mounts: mountsAtStage(car, position),
    panels: panelsAtStage(car, position),
    panelPressures: Object.fromEntries(devicesAtStage(car, position).map((device) => [device.id, panelPressure(car, device)])),
    sheet: setupSheet(car, position),
    wheelbaseM: (car.builds[position] ?? car.records.build).wheelbaseM,
    outline: (car.builds[position] ?? car.records.build).outline,
    outlineStage: tapedAt === -1 ? null : tapedAt,
    frontShare: knownOf(frontShareAt(car, position)),
    mass: knownOf(massOf(car, position)),
    power: knownOf(powerAtStage(car, position)),
    front: axleAtStage(car, position, 'front'),
    rear: axleAtStage(car, position, 'rear'),
    limits: limitsAt(car, position),
    wantedBalance: balance ? { from: balance.value, to: balance.highValue ?? balance.value } : null,
    wantedDownforceN: targets.find(({ metric }) => metric === 'downforce')?.value ?? null,
    taped,
  }
}

/**
 * Everything the Aero screen shows of a build.
 * @example makeAeroRoom(CAR).stages.length // 2
 */
export function makeAeroRoom(car: Car): AeroRoom {
  const { airDensityKgM3 } = car.records.build
  return {
    stages: car.stages.map((_, position) =>
      orElse(
        () => stageOf(car, position),
        () => null,
      ),
    ),
    tests: carTests(car).map((test) => ({ ...test, told: toldByTest(car, test) })),
    basis: basisOf(car),
    airDensityKgM3,
    sheets: ownSheets(car),
    panelPressure: panelPressure(car),
  }
}

/**
 * The speed that drag alone leaves a stage, by its power and mass, rolling as its coast-down showed it or the usual; null where one of them is not known.
 * @example dragLimitedSpeed({ power: null, mass: null, anchors: { drag: null, loads: null } }, { areaM2: 0.7, sdM2: 0.05 }, 1.2) // null
 */
export function dragLimitedSpeed(
  { power, mass, anchors }: Pick<AeroRoomStage, 'power' | 'mass' | 'anchors'>,
  { areaM2, sdM2 }: { areaM2: number; sdM2: number },
  airDensityKgM3: number,
): { speedMps: number; sdMps: number } | null {
  if (!power || !mass) return null
  return orElse(
    () =>
      dragTopSpeed({
        wheelPowerW: power.value,
        wheelPowerSdW: power.sd,
        dragAreaM2: areaM2,
        dragAreaSdM2: sdM2,
        rollingCoefficient: anchors.drag?.rollingCoefficient ?? USUAL_ROLLING,
        rollingSd: USUAL_ROLLING_SD,
        massKg: mass.value,
        airDensityKgM3,
      }),
    () => null,
  )
}
