import { PANEL_KEYS, PANEL_SUPPORTS } from '../structure/panel-keys.ts'
import { z } from '../zod.ts'
import { id, name, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { rodFields } from './rod-fields.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const modulus = within(1e6, 1e12)
const sheetM = within(5e-4, 0.1)

type MaterialFields = z.output<z.ZodObject<(typeof panelMaterialKind)['fields']>>

const canBeMade: RecordRule = (next) => {
  const { core, thicknessesM, youngPa, strips } = next as unknown as MaterialFields
  if (core && Math.min(...thicknessesM) <= 2.2 * core.skinM)
    throw new RecordRefusal('thicknessesM', 'The thinnest sheet leaves no core between its skins. Leave it out, or type thinner skins.')
  if (youngPa === null && strips.filter(({ direction }) => direction === 'along').length < 2)
    throw new RecordRefusal('youngPa', 'How stiff it is was neither typed nor measured. Bend a strip on two spans, or type it.')
  return next
}

/** A sheet of one's own, beside the listed ones: as typed, and as strips of it bend. */
export const panelMaterialKind = defineRecord({
  list: 'panelMaterials',
  word: 'a sheet',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name'],
  refs: {},
  rules: [canBeMade],
  fields: {
    id,
    name,
    /** Along the span, of the skins where it has some; null: as its strips say. */
    youngPa: modulus.nullable().default(null),
    /** Null: as along. */
    youngAcrossPa: modulus.nullable().default(null),
    /** What may be asked of it. */
    allowablePa: within(1e5, 5e9),
    densityKgM3: within(10, 20_000),
    /** Null: bends as a strip at any width. */
    poisson: within(0, 0.5).nullable().default(null),
    core: z
      .strictObject({
        skinM: within(5e-5, 0.01),
        corePa: within(1e4, 1e11),
        /** Null: as its strips say. */
        coreShearPa: within(1e4, 1e11).nullable().default(null),
        acrossShare: within(0.01, 1).default(0.15),
        coreStrengthPa: within(1e4, 1e9),
        coreKgM3: within(1, 5000),
      })
      .nullable()
      .default(null),
    thicknessesM: z.array(sheetM).min(1).max(12),
    /** By area, over plywood; null: nobody said. */
    priceOverPly: within(0.01, 1000).nullable().default(null),
    /** Held at both ends, pressed in the middle. */
    strips: z
      .array(
        z.strictObject({
          direction: z.enum(['along', 'across']),
          thicknessM: sheetM,
          spanM: within(0.02, 3),
          widthM: within(0.005, 2.5),
          loadN: within(0.01, 1e5),
          deflectionM: within(1e-6, 0.5),
        }),
      )
      .max(20)
      .default([]),
    note,
  },
})
export type PanelMaterialRecord = RecordOfKind<typeof panelMaterialKind>

type PanelFields = z.output<z.ZodObject<(typeof panelKind)['fields']>>

const isOneSheetHeld: RecordRule = async (next, { live }) => {
  const { sheet, materialId, support, rodAtM, lipM, rods, deviceId, isChosen, id: own } = next as unknown as PanelFields
  if ((sheet === null) === (materialId === null)) throw new RecordRefusal('sheet', 'Name one sheet: a listed one, or one of your own.')
  if (support === 'cantilever' ? rods !== null : rodAtM === null)
    throw new RecordRefusal(
      support === 'cantilever' ? 'rods' : 'rodAtM',
      support === 'cantilever'
        ? 'It is held at its rear edge alone: take the rods out, or say how they hold it.'
        : 'Say how far from the rear edge the rods stand.',
    )
  if (rodAtM !== null && rodAtM > lipM) throw new RecordRefusal('rodAtM', 'The rods stand beyond the edge. Set them on the panel.')
  const others = isChosen ? (await live('panels', { deviceId, isChosen: true })).filter((row) => row.id !== own) : []
  if (others.length > 0) throw new RecordRefusal('isChosen', 'Another sheet of this device is chosen. Give that one up first.')
  return next
}

/** A sheet that a splitter or floor might be made of, laid and held; one of a device is the chosen one. */
export const panelKind = defineRecord({
  list: 'panels',
  word: 'a panel',
  isBatchable: true,
  nameFrom: ['note', 'sheet'],
  refs: {
    deviceId: { to: 'aeroDevices', whenGone: 'goesWith' },
    materialId: { to: 'panelMaterials', whenGone: { keepsIt: 'A panel is made of it. Delete the panel first, or make it of another sheet.' } },
  },
  rules: [isOneSheetHeld],
  fields: {
    id,
    deviceId: id,
    /** A listed one; null: of one's own. */
    sheet: z.enum(PANEL_KEYS).nullable().default(null),
    materialId: id.nullable().default(null),
    /** Of one sheet. */
    thicknessM: sheetM,
    layers: z.union([z.literal(1), z.literal(2)]).default(1),
    isBonded: z.boolean().default(false),
    span: z.enum(['along', 'across']).default('along'),
    widthM: within(0.05, 2.5),
    lipM: within(0.005, 3),
    support: z.enum(PANEL_SUPPORTS).default('cantilever'),
    rodAtM: within(0.005, 3).nullable().default(null),
    rods: z.strictObject(rodFields).nullable().default(null),
    carriedKg: within(0, 60).default(0),
    loadFactor: within(1, 5).default(2),
    standingN: within(1, 10_000).default(1000),
    mostTipM: within(5e-4, 0.1).default(0.005),
    isChosen: z.boolean().default(false),
    note,
  },
})
export type Panel = RecordOfKind<typeof panelKind>
