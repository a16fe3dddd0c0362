import { PANEL_KEYS, PANEL_MATERIALS, PANEL_SUPPORTS, type Panel, type PanelSupport, type QuantityKind } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText } from '../../../ui/quantity.ts'
import { readRods, rodDefaults } from '../rod-fields.ts'

type Units = Readonly<Record<QuantityKind, string>>

export const PANEL_SUPPORT_WORDS: Readonly<Record<PanelSupport, string>> = {
  cantilever: 'held at the rear edge alone',
  clampedRod: 'clamped at the rear, with rods',
  clampedCable: 'clamped at the rear, with cables',
  hingedRod: 'hinged at the rear, with rods',
}

/** The fields of a panel; sheets of one's own stand behind the listed ones. */
export const panelFieldSpecs = (own: readonly { id: string; name: string }[]): readonly FieldSpec[] => [
  {
    name: 'sheet',
    label: 'Sheet',
    type: 'select',
    options: [
      ...PANEL_MATERIALS.map(({ key, name }) => ({ value: key, label: name })),
      ...own.map(({ id, name }) => ({ value: id, label: `${name} (your own)` })),
    ],
  },
  { name: 'thickness', label: 'Thickness of one sheet' },
  {
    name: 'layers',
    label: 'Laid',
    type: 'select',
    options: [
      { value: '1', label: 'one sheet' },
      { value: '2', label: 'two sheets, crossed' },
    ],
  },
  {
    name: 'isBonded',
    label: 'The two are glued over all of their face',
    type: 'checkbox',
    hint: 'Cored sheets are taken as sliding on each other all the same.',
  },
  {
    name: 'span',
    label: 'Grain or flutes run',
    type: 'select',
    options: [
      { value: 'along', label: 'with the span' },
      { value: 'across', label: 'across it' },
    ],
  },
  { name: 'width', label: 'Width' },
  { name: 'lip', label: 'From its clamp to the edge' },
  {
    name: 'support',
    label: 'Held',
    type: 'select',
    section: 'How it is held',
    options: PANEL_SUPPORTS.map((value) => ({ value, label: PANEL_SUPPORT_WORDS[value] })),
  },
  { name: 'rodAt', label: 'Rods or cables, from the clamp' },
  { name: 'rods', label: 'How many', hint: 'Empty: they are taken as stiff and are not checked.' },
  { name: 'rodAngle', label: 'Angle to the panel' },
  { name: 'rodDiameter', label: 'Thickness of one' },
  { name: 'rodLength', label: 'Length of one' },
  { name: 'rodRated', label: 'One is rated for' },
  { name: 'standing', label: 'On the edge: a person, a kerb', section: 'What it has to hold' },
  { name: 'carried', label: 'Carries a cooler of', hint: 'It counts three times its weight (common practice, no source).' },
  { name: 'loadFactor', label: 'Load factor on the air', hint: '2 is usual (common practice).' },
  { name: 'mostTip', label: 'The edge may move' },
  { name: 'isChosen', label: 'It is the one that is built', type: 'checkbox' },
  { name: 'note', label: 'Note' },
]

type Begin = Pick<Panel, 'sheet' | 'materialId' | 'thicknessM' | 'span' | 'widthM' | 'lipM' | 'support' | 'rodAtM' | 'standingN' | 'carriedKg'> & Partial<Panel>

/** The texts of a panel, or of one that was just found. */
export function panelDefaults(panel: Begin, units: Units): FormValues {
  const length = (value: number) => typedText('length', value, units.length)
  return {
    sheet: panel.sheet ?? panel.materialId ?? '',
    thickness: length(panel.thicknessM),
    layers: String(panel.layers ?? 1),
    isBonded: String(panel.isBonded ?? false),
    span: panel.span,
    width: length(panel.widthM),
    lip: length(panel.lipM),
    support: panel.support,
    rodAt: panel.rodAtM === null ? '' : length(panel.rodAtM),
    ...rodDefaults(panel.rods ?? null, units),
    standing: typedText('force', panel.standingN, units.force),
    carried: panel.carriedKg === 0 ? '' : typedText('mass', panel.carriedKg, units.mass),
    loadFactor: numberText(panel.loadFactor ?? 2),
    mostTip: length(panel.mostTipM ?? 0.005),
    isChosen: String(panel.isChosen ?? false),
    note: panel.note ?? '',
  }
}

/** What the form makes of a panel. */
export function panelBody(read: FormReader): Record<string, unknown> {
  const sheet = read.raw('sheet')
  if (sheet === '') read.refuse('sheet', 'Pick a sheet.')
  const isListed = (PANEL_KEYS as readonly string[]).includes(sheet)
  const isAlone = read.raw('support') === 'cantilever'
  const rodAtM = isAlone ? null : (read.optionalQuantity('rodAt', 'Where they stand', 'length')?.value ?? null)
  if (!isAlone && rodAtM === null) read.refuse('rodAt', 'Say how far from the clamp the rods stand.')
  const lipM = read.quantity('lip', 'From the clamp to the edge', 'length').value
  if (rodAtM !== null && rodAtM > lipM) read.refuse('rodAt', 'They stand beyond the edge. Set them on the panel.')
  return {
    sheet: isListed ? sheet : null,
    materialId: isListed ? null : sheet,
    thicknessM: read.quantity('thickness', 'The thickness', 'length').value,
    layers: Number(read.raw('layers')),
    isBonded: read.flag('isBonded'),
    span: read.raw('span'),
    widthM: read.quantity('width', 'The width', 'length').value,
    lipM,
    support: read.raw('support'),
    rodAtM,
    rods: isAlone ? null : readRods(read),
    standingN: read.quantity('standing', 'The load on the edge', 'force').value,
    carriedKg: read.optionalQuantity('carried', 'The cooler', 'mass')?.value ?? 0,
    loadFactor: read.number('loadFactor', 'The load factor'),
    mostTipM: read.quantity('mostTip', 'How far the edge may move', 'length').value,
    isChosen: read.flag('isChosen'),
    note: read.optional('note'),
  }
}
