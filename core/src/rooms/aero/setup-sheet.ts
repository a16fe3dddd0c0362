import { PAD_NAMES, type PadName } from '../../mass/corners.ts'
import type { Setup } from '../../records/aero-kinds.ts'
import type { CornerSettings } from '../../records/aero-schemas.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import type { QuantityKind } from '../../units/units.ts'
import { devicesAtStage } from './devices.ts'
import { axleAtStage } from './springs.ts'
import { pickedNotch } from './totals.ts'

/** One place of a row: what is wanted there, and what was read. */
export interface SheetCell {
  readonly wanted: number | string | null
  readonly read: number | null
}

export interface SheetRow {
  readonly key: string
  readonly word: string
  /** In which its numbers are; null where they are counts or words. */
  readonly kind: QuantityKind | null
  /** By corner, by axle, or one for the car. */
  readonly cells: readonly { readonly at: PadName | 'front' | 'rear' | 'car'; readonly cell: SheetCell }[]
}

export interface SetupSheet {
  readonly rows: readonly SheetRow[]
  /** The stage whose corners stand here; null where none were typed. */
  readonly cornersFrom: number | null
}

export type CornerSetting = keyof CornerSettings
/** What is turned at each corner, in the order of a sheet. */
export const CORNER_SETTINGS = [
  { key: 'camberRad', word: 'Camber', kind: 'angle' },
  { key: 'toeRad', word: 'Toe', kind: 'angle' },
  { key: 'casterRad', word: 'Caster', kind: 'angle' },
  { key: 'bumpClicks', word: 'Bump, clicks', kind: null },
  { key: 'reboundClicks', word: 'Rebound, clicks', kind: null },
  { key: 'coldPa', word: 'Tyre, cold', kind: 'pressure' },
] as const satisfies readonly { readonly key: CornerSetting; readonly word: string; readonly kind: QuantityKind | null }[]

/** The latest set-up up to a stage that says something. */
function latest(car: Car, position: number, has: (setup: Setup) => boolean): { setup: Setup; at: number } | undefined {
  return car.records.setups
    .map((setup) => ({ setup, at: stageIndex(car, setup.stageId) }))
    .filter(({ setup, at }) => at >= 0 && at <= position && has(setup))
    .sort((a, b) => a.at - b.at)
    .at(-1)
}

const isSaid = ({ cells }: SheetRow) => cells.some(({ cell }) => cell.wanted !== null || cell.read !== null)

function cornerRows(setup: Setup | undefined): SheetRow[] {
  return CORNER_SETTINGS.map(({ key, word, kind }) => ({
    key,
    word,
    kind,
    cells: PAD_NAMES.map((at) => ({ at, cell: setup?.corners?.[at]?.[key] ?? { wanted: null, read: null } })),
  }))
}

/** Springs of each axle as they stand. */
function springRows(car: Car, position: number): SheetRow[] {
  const axles = { front: axleAtStage(car, position, 'front'), rear: axleAtStage(car, position, 'rear') }
  const row = (key: string, word: string, kind: QuantityKind, of: (axle: NonNullable<typeof axles.front>) => number | null): SheetRow => ({
    key,
    word,
    kind,
    cells: (['front', 'rear'] as const).map((at) => ({ at, cell: { wanted: axles[at] ? of(axles[at]) : null, read: null } })),
  })
  return [
    row('spring', 'Spring', 'springRate', ({ springs }) => springs.springRateNPerM),
    row('wheelRate', 'Rate at the wheel', 'springRate', ({ rates }) => rates.wheelRateNPerM),
    row('gap', 'Gap to the rubber, no packer', 'length', ({ springs }) => springs.gapM),
    row('packer', 'Packer', 'length', ({ springs }) => (springs.gapM === null ? null : springs.packerM)),
  ]
}

/**
 * What is turned and not bolted at a stage, as one sheet: corners, springs, bars, and the notch of each device. What a stage does not say is that of the latest
 * set-up before it.
 * @example setupSheet(CAR, 1).cornersFrom // null
 */
export function setupSheet(car: Car, position: number): SetupSheet {
  const corners = latest(car, position, (setup) => setup.corners !== null)
  const bars = latest(car, position, (setup) => setup.bars !== null)?.setup.bars
  const barRow: SheetRow = {
    key: 'bars',
    word: 'Anti-roll bar',
    kind: null,
    cells: (['front', 'rear'] as const).map((at) => ({ at, cell: { wanted: bars?.[at] ?? null, read: null } })),
  }
  const notches = devicesAtStage(car, position).flatMap((device): SheetRow[] =>
    device.notches.length < 2
      ? []
      : [{ key: device.id, word: device.name, kind: null, cells: [{ at: 'car', cell: { wanted: pickedNotch(device, {}).name, read: null } }] }],
  )
  return {
    rows: [...cornerRows(corners?.setup), ...springRows(car, position), barRow, ...notches].filter(isSaid),
    cornersFrom: corners ? corners.at : null,
  }
}

/** How far a value may stand from what is wanted before a sheet marks it, in SI (common practice, no source). */
const CLOSE: Readonly<Partial<Record<QuantityKind, number>>> = { angle: (0.1 * Math.PI) / 180, pressure: 2000 }

/**
 * Whether what was read is off what is wanted by more than people can turn it to.
 * @example isOffWanted('pressure', { wanted: 160_000, read: 165_000 }) // true
 */
export function isOffWanted(kind: QuantityKind | null, { wanted, read }: SheetCell): boolean {
  if (typeof wanted !== 'number' || read === null) return false
  return Math.abs(read - wanted) > (kind === null ? 0 : (CLOSE[kind] ?? 0)) + 1e-12
}
