import type { DeviceForce } from '../../aero/device-loads.ts'
import type { MapPoint } from '../../aero/height-map.ts'
import { type BoxedDevice, type DeviceBox, wingBox } from '../../aero/rule-box.ts'
import { USUAL_WING, type WingInput, wingEstimate } from '../../aero/wing.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { type Proof, proofRank } from '../../proof/quantity.ts'
import type { AeroDevice } from '../../records/aero-kinds.ts'
import type { DeviceKind, DeviceValue, Notch, Outline } from '../../records/aero-schemas.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'

/** One notch of a device, ready for sums. */
export interface RoomNotch {
  readonly id: string
  readonly name: string
  readonly angleRad: number | null
  /** What it does; null where nobody knows, or its place is not known. */
  readonly force: DeviceForce | null
  readonly countsAsNothing: boolean
  readonly proof: Proof | null
  readonly how: string | null
  readonly box: DeviceBox | null
  /** Of an estimated wing. */
  readonly stallChance: number | null
  readonly isEstimate: boolean
  /** What an estimated wing was made of. */
  readonly wing: WingInput | null
}

export interface RoomDevice {
  readonly id: string
  readonly version: number
  readonly kind: DeviceKind
  readonly name: string
  readonly changeId: string | null
  readonly notches: readonly RoomNotch[]
  /** The notch that the stage's set-up picks. */
  readonly picked: string
  readonly wing: BoxedDevice['wing']
  /** As a person gave it; null: it gives the same at any height. */
  readonly heightMap: readonly MapPoint[] | null
  /** Of a splitter that is estimated: what a lip of another length would give. */
  readonly splitter: { readonly widthM: number; readonly lipM: number; readonly pressure: number } | null
}

/** How far off a value is where nobody said, over itself (common practice, no source). */
const RELATIVE_SD: Readonly<Record<DeviceValue['proof'], number>> = { guess: 0.5, catalogue: 0.2, calculated: 0.2, measured: 0.1 }
/** What hangs on ride height, rake and what feeds it: a maker's number is half as sure again. */
const FEEDS: readonly DeviceKind[] = ['vent', 'floor', 'sideSkirt', 'diffuser']
const FED_RELATIVE_SD = 0.5
const DRAG_RELATIVE_SD = 0.3

/**
 * The value that stands: of the highest proof, then the latest.
 * @example standingValue({ values: [] }) // undefined
 */
export function standingValue({ values }: Pick<Notch, 'values'>): DeviceValue | undefined {
  return values.reduce<DeviceValue | undefined>((best, value) => {
    if (!best) return value
    const [own, other] = [proofRank(value.proof), proofRank(best.proof)]
    return own > other || (own === other && Date.parse(value.at) >= Date.parse(best.at)) ? value : best
  }, undefined)
}

const SPLITTER_AHEAD = 0.45
const DEFAULT_X_SD = { wing: 0.02, splitter: 0.15, other: 0.05 } as const

/** Where a device's force acts: as said; a wing's pivot; 45 % of the lip ahead of the bumper; else the middle of its box. */
function placeOf(device: AeroDevice, box: DeviceBox | null, outline: Outline | null): { xM: number; zM: number; xSdM: number } | null {
  if (device.force) return device.force
  if (device.wing) return { xM: device.wing.pivotXM, zM: device.wing.pivotZM, xSdM: DEFAULT_X_SD.wing }
  if (!box) return null
  const zM = (box.zBottomM + box.zTopM) / 2
  if (device.kind === 'splitter' && outline) {
    const lip = Math.max(0, -box.xFrontM - outline.frontOverhangM)
    return { xM: -outline.frontOverhangM - SPLITTER_AHEAD * lip, zM, xSdM: DEFAULT_X_SD.splitter }
  }
  return { xM: (box.xFrontM + box.xRearM) / 2, zM, xSdM: DEFAULT_X_SD.other }
}

function forceOf(device: AeroDevice, value: DeviceValue, box: DeviceBox | null, outline: Outline | null): DeviceForce | null {
  const share = FEEDS.includes(device.kind) && value.proof === 'catalogue' ? FED_RELATIVE_SD : RELATIVE_SD[value.proof]
  const dragSdM2 = value.dragSdM2 ?? DRAG_RELATIVE_SD * Math.abs(value.dragM2)
  if (value.form === 'axles') {
    const { frontM2, rearM2, dragM2 } = value
    return {
      form: 'axles',
      frontM2,
      frontSdM2: value.frontSdM2 ?? share * Math.abs(frontM2),
      rearM2,
      rearSdM2: value.rearSdM2 ?? share * Math.abs(rearM2),
      dragM2,
      dragSdM2,
    }
  }
  const place = placeOf(device, box, outline)
  if (!place) return null
  const { downforceM2, dragM2 } = value
  return { form: 'place', downforceM2, downforceSdM2: value.downforceSdM2 ?? share * Math.abs(downforceM2), dragM2, dragSdM2, ...place }
}

/** The box of a device at a notch: that of its wing at the notch's angle, else its own. */
export function boxAt({ wing, box }: Pick<AeroDevice, 'wing' | 'box'>, { angleRad }: Pick<Notch, 'angleRad'>): DeviceBox | null {
  if (!wing) return box
  const { spanM, chordsM, pivotXM, pivotZM, pivotShare, endPlate } = wing
  return wingBox({ spanM, chordM: chordsM.reduce((sum, chord) => sum + chord, 0), pivotXM, pivotZM, pivotShare, angleRad: angleRad ?? 0, plate: endPlate })
}

/** What an estimated wing is worked out of at a notch; null where it was not estimated. */
function wingInputOf({ wing }: AeroDevice, { angleRad }: Notch, value: DeviceValue | undefined): WingInput | null {
  const estimate = value?.estimate
  if (!wing || angleRad === null || estimate?.of !== 'wing') return null
  return {
    ...USUAL_WING,
    spanM: wing.spanM,
    chordM: wing.chordsM.reduce((sum, chord) => sum + chord, 0),
    plateHeightM: wing.endPlate?.heightM ?? 0,
    angleRad,
    zeroLiftRad: estimate.zeroLiftRad,
    place: estimate.place,
    slopeSchool: estimate.slopeSchool,
  }
}

/** Chance that an estimated wing has let go; one that is past its stall has. */
function stallChanceOf(wing: WingInput): number {
  const found = attempt(() => wingEstimate(wing))
  return found instanceof CalculationError ? 1 : found.stallChance
}

function notchOf(device: AeroDevice, notch: Notch, outline: Outline | null): RoomNotch {
  const value = standingValue(notch)
  const box = boxAt(device, notch)
  const wing = wingInputOf(device, notch, value)
  const { id, name, angleRad, countsAsNothing } = notch
  return {
    id,
    name,
    angleRad,
    countsAsNothing,
    force: value ? forceOf(device, value, box, outline) : null,
    proof: value?.proof ?? null,
    how: value?.how ?? null,
    box,
    stallChance: wing && stallChanceOf(wing),
    isEstimate: (value?.estimate ?? null) !== null,
    wing,
  }
}

function splitterOf(device: AeroDevice): RoomDevice['splitter'] {
  const [first] = device.notches
  const estimate = first && standingValue(first)?.estimate
  return estimate?.of === 'splitter' ? { widthM: estimate.widthM, lipM: estimate.lipM, pressure: estimate.pressure } : null
}

/** Whether a device is in the car at a stage: its line is of that stage or one before, and the line that takes it off is not. */
function isInCar(car: Car, { changeId, offChangeId }: AeroDevice, position: number): boolean {
  const isIn = (id: string) => {
    const line = car.lineById.get(id)
    return line !== undefined && line.stagePosition <= position
  }
  return (changeId === null || isIn(changeId)) && !(offChangeId !== null && isIn(offChangeId))
}

/** Which notch each device stands at: by the latest set-up up to the stage that picks one. */
function picksAt(car: Car, position: number): ReadonlyMap<string, string> {
  const setups = car.records.setups
    .map((setup) => ({ setup, at: stageIndex(car, setup.stageId) }))
    .filter(({ at }) => at >= 0 && at <= position)
    .sort((a, b) => a.at - b.at)
  return new Map(setups.flatMap(({ setup }) => setup.picks.map(({ deviceId, notchId }) => [deviceId, notchId] as const)))
}

/**
 * The devices in the car at a stage, each with its notches and the one that is picked.
 * @example devicesAtStage(CAR, 1) // []
 */
export const devicesAtStage = rememberByIndex((car: Car, position: number): readonly RoomDevice[] => {
  const picks = picksAt(car, position)
  const { outline } = car.builds[position] ?? car.records.build
  return car.records.aeroDevices
    .filter((device) => isInCar(car, device, position))
    .map((device) => {
      const notches = device.notches.map((notch) => notchOf(device, notch, outline))
      const asked = picks.get(device.id)
      const picked = notches.find(({ id }) => id === asked) ?? notches[0]
      return {
        id: device.id,
        version: (device as { readonly version?: number }).version ?? 1,
        kind: device.kind,
        name: device.name,
        changeId: device.changeId,
        notches,
        picked: picked?.id ?? '',
        wing: device.wing
          ? { spanM: device.wing.spanM, chordM: device.wing.chordsM.reduce((sum, chord) => sum + chord, 0), elements: device.wing.chordsM.length }
          : null,
        heightMap: device.heightMap ?? null,
        splitter: splitterOf(device),
      }
    })
})

/** Whether a stage changes the air around the car: a line of its own that a device names. */
export function touchesAero(car: Car, position: number): boolean {
  const own = new Set((car.linesByStage[position] ?? []).map(({ change }) => change.id))
  return car.records.aeroDevices.some(({ changeId, offChangeId }) => (changeId !== null && own.has(changeId)) || (offChangeId !== null && own.has(offChangeId)))
}
