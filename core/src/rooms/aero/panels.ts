import { airPressurePa } from '../../aero/device-loads.ts'
import { USUAL_PRESSURE } from '../../aero/splitter.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { Panel, PanelMaterialRecord } from '../../records/panel-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { checkHeldPanel, type HeldPanelAnswer } from '../../structure/held-panel.ts'
import { type OwnSheetFound, ownSheet } from '../../structure/own-sheet.ts'
import { PANEL_MATERIALS, type PanelMaterial } from '../../structure/panel-materials.ts'
import { basisOf } from './basis.ts'
import { devicesAtStage, type RoomDevice } from './devices.ts'

export const PANEL_FAULTS = ['air', 'standing', 'rods', 'kerb'] as const
/** What a panel does not hold. */
export type PanelFault = (typeof PANEL_FAULTS)[number]

/** A sheet of the build's own, with what its strips say of it. */
export interface SheetState {
  readonly record: PanelMaterialRecord
  readonly found: OwnSheetFound | null
  readonly refusal: string | null
}

/** A panel of a device, checked at the fastest speed. */
export interface PanelState {
  readonly panel: Panel
  readonly deviceName: string
  readonly sheetName: string
  readonly answer: HeldPanelAnswer | null
  readonly faults: readonly PanelFault[]
  readonly refusal: string | null
}

/** What the air asks of a panel at the fastest speed, without a load factor: by the pressure its estimate stands on, else the usual one under a splitter. */
export interface PanelPressure {
  readonly pressurePa: number
  /** Over that of the air. */
  readonly coefficient: number
  readonly isOwn: boolean
}

/**
 * The pressure of the air on a panel of a device, or of none yet, Pa.
 * @example panelPressure(CAR).coefficient // 0.65
 */
export function panelPressure(car: Car, device?: Pick<RoomDevice, 'splitter'>): PanelPressure {
  const coefficient = device?.splitter?.pressure ?? USUAL_PRESSURE
  return { coefficient, isOwn: Boolean(device?.splitter), pressurePa: coefficient * airPressurePa(car.records.build.airDensityKgM3, basisOf(car).fastestMps) }
}

function sheetState(record: PanelMaterialRecord): SheetState {
  const { id, priceOverPly, note, ...rest } = record
  const found = attempt(() => ownSheet({ ...rest, key: id, priceOverPly: priceOverPly ?? 0, notes: note === null ? [] : [note] }))
  return found instanceof CalculationError ? { record, found: null, refusal: found.message } : { record, found, refusal: null }
}

/**
 * The sheets of a build's own, each as its strips or its typed numbers have it.
 * @example ownSheets(CAR) // []
 */
export const ownSheets = (car: Car): readonly SheetState[] => car.records.panelMaterials.map(sheetState)

function faultsOf({ air, standing, kerb, rodUse }: HeldPanelAnswer): PanelFault[] {
  const isBad: Record<PanelFault, boolean> = { air: !air.holds, standing: !standing.holds, rods: rodUse !== null && rodUse.use > 1, kerb: !kerb.holds }
  return PANEL_FAULTS.filter((fault) => isBad[fault])
}

function stateOf(panel: Panel, deviceName: string, sheets: readonly SheetState[], pressurePa: number): PanelState {
  const own = sheets.find(({ record }) => record.id === panel.materialId)
  const listed = PANEL_MATERIALS.find(({ key }) => key === panel.sheet)
  const material: PanelMaterial | undefined = listed ?? own?.found?.material
  const sheetName = material?.name ?? own?.record.name ?? 'an unknown sheet'
  const answer = material ? attempt(() => checkHeldPanel({ ...panel, pressurePa }, material, panel.thicknessM)) : null
  if (answer === null || answer instanceof CalculationError)
    return { panel, deviceName, sheetName, answer: null, faults: [], refusal: answer?.message ?? own?.refusal ?? null }
  return { panel, deviceName, sheetName, answer, faults: faultsOf(answer), refusal: null }
}

/**
 * The panels of the devices of a stage, the chosen one of each device first.
 * @example panelsAtStage(CAR, 1) // []
 */
export function panelsAtStage(car: Car, position: number): readonly PanelState[] {
  const { panels } = car.records
  if (panels.length === 0) return []
  const sheets = ownSheets(car)
  return devicesAtStage(car, position).flatMap((device) =>
    panels
      .filter(({ deviceId }) => deviceId === device.id)
      .sort((a, b) => Number(b.isChosen) - Number(a.isChosen))
      .map((panel) => stateOf(panel, device.name, sheets, panelPressure(car, device).pressurePa)),
  )
}
