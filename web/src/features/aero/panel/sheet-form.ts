import type { PanelMaterialRecord, QuantityKind } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText, usualText } from '../../../ui/quantity.ts'

type Units = Readonly<Record<QuantityKind, string>>
type Strip = PanelMaterialRecord['strips'][number]

function stripHint(units: Units): string {
  const length = (metres: number) => usualText(units, 'length', metres)
  const such = [length(0.006), length(0.2), length(0.06), usualText(units, 'force', 10), length(0.0001)].join('; ')
  return `One a line: thickness; span; width; load in the middle; how far it gave. Such as: ${such}. Two spans at least.`
}

/** The fields of a sheet of one's own. */
export const sheetFieldSpecs: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', hint: (units) => `As you buy it: composite sign board, ${usualText(units, 'length', 0.006)}.` },
  { name: 'thicknesses', label: 'Thicknesses it comes in', hint: 'Semicolons between.' },
  { name: 'density', label: 'Density, kg/m³', hint: 'Of a cored sheet that of its skins.' },
  { name: 'allowable', label: 'May be asked of it', hint: 'A stress: a metal’s yield over 1.5; a third of what breaks wood and composites.' },
  { name: 'price', label: 'Price by area, over plywood', hint: 'Such as 1.5. Empty: nobody said.' },
  { name: 'young', label: 'Young’s modulus along', section: 'How stiff it is', hint: 'Of a cored sheet that of its skins. Empty: as the strips below say.' },
  { name: 'youngAcross', label: 'and across', hint: 'Empty: as along.' },
  { name: 'poisson', label: 'Poisson’s ratio', hint: 'Empty: it bends as a strip at any width.' },
  {
    name: 'along',
    label: 'Strips cut along, bent on two held ends',
    type: 'textarea',
    hint: stripHint,
  },
  { name: 'across', label: 'Strips cut across', type: 'textarea' },
  { name: 'skin', label: 'Thickness of one skin', section: 'Core', hint: 'Empty: it has no core.' },
  { name: 'coreYoung', label: 'Modulus of the core, through its thickness' },
  { name: 'coreShear', label: 'Shear modulus of the core', hint: 'Empty: as the strips say.' },
  { name: 'coreShare', label: 'The same across, over along', hint: '0.15 across flutes (a guess).' },
  { name: 'coreStrength', label: 'Shear strength of the core' },
  { name: 'coreDensity', label: 'Density of the core, kg/m³' },
  { name: 'note', label: 'Working and cutting', section: 'Notes' },
]

const CORE_FIELDS = ['coreYoung', 'coreShear', 'coreStrength', 'coreDensity']

/** The texts of a sheet, or those that a new one begins with. */
export function sheetDefaults(sheet: PanelMaterialRecord | null, units: Units): FormValues {
  if (!sheet) return { coreShare: '0.15' }
  const length = (value: number) => typedText('length', value, units.length)
  const stress = (value: number | null) => (value === null ? '' : typedText('stress', value, units.stress))
  const number = (value: number | null) => (value === null ? '' : numberText(value))
  const strips = (direction: Strip['direction']) =>
    sheet.strips
      .filter((strip) => strip.direction === direction)
      .map(({ thicknessM, spanM, widthM, loadN, deflectionM }) =>
        [length(thicknessM), length(spanM), length(widthM), typedText('force', loadN, units.force), length(deflectionM)].join('; '),
      )
      .join('\n')
  const { core } = sheet
  return {
    name: sheet.name,
    thicknesses: sheet.thicknessesM.map(length).join('; '),
    density: number(sheet.densityKgM3),
    allowable: stress(sheet.allowablePa),
    price: number(sheet.priceOverPly),
    young: stress(sheet.youngPa),
    youngAcross: stress(sheet.youngAcrossPa),
    poisson: number(sheet.poisson),
    along: strips('along'),
    across: strips('across'),
    skin: core ? length(core.skinM) : '',
    coreYoung: stress(core?.corePa ?? null),
    coreShear: stress(core?.coreShearPa ?? null),
    coreShare: numberText(core?.acrossShare ?? 0.15),
    coreStrength: stress(core?.coreStrengthPa ?? null),
    coreDensity: number(core?.coreKgM3 ?? null),
    note: sheet.note ?? '',
  }
}

const STRIP_KINDS = [{ kind: 'length' }, { kind: 'length' }, { kind: 'length' }, { kind: 'force' }, { kind: 'length' }] as const

function readStrips(read: FormReader, direction: Strip['direction']): unknown[] {
  return read
    .points(direction, 'a strip', STRIP_KINDS)
    .map(([thicknessM, spanM, widthM, loadN, deflectionM]) => ({ direction, thicknessM, spanM, widthM, loadN, deflectionM }))
}

function readCore(read: FormReader): Record<string, unknown> | null {
  if (read.raw('skin') === '') {
    const typed = CORE_FIELDS.find((name) => read.raw(name) !== '')
    if (typed) read.refuse('skin', 'A core stands between skins: type how thick one is, or take the core out.')
    return null
  }
  return {
    skinM: read.quantity('skin', 'The skin', 'length').value,
    corePa: read.quantity('coreYoung', 'The modulus of the core', 'stress').value,
    coreShearPa: read.optionalQuantity('coreShear', 'The shear modulus of the core', 'stress')?.value ?? null,
    acrossShare: read.number('coreShare', 'The share across'),
    coreStrengthPa: read.quantity('coreStrength', 'The strength of the core', 'stress').value,
    coreKgM3: read.number('coreDensity', 'The density of the core'),
  }
}

/** What the form makes of a sheet. */
export function sheetBody(read: FormReader): Record<string, unknown> {
  const optionalNumber = (name: string, label: string) => (read.raw(name) === '' ? null : read.number(name, label))
  const thicknesses = read
    .raw('thicknesses')
    .split(/\s*;\s*/)
    .filter((each) => each !== '')
  if (thicknesses.length === 0) read.refuse('thicknesses', 'Type the thicknesses it comes in, with semicolons between.')
  const strips = [...readStrips(read, 'along'), ...readStrips(read, 'across')]
  if (read.raw('young') === '' && read.lines('along').length < 2)
    read.refuse('young', 'How stiff it is was neither typed nor measured. Bend a strip on two spans, or type it.')
  return {
    name: read.text('name', 'The name'),
    thicknessesM: thicknesses.map((each) => read.typedQuantity('thicknesses', each, 'length', 'A thickness')?.value ?? Number.NaN),
    densityKgM3: read.number('density', 'The density'),
    allowablePa: read.quantity('allowable', 'What may be asked of it', 'stress').value,
    priceOverPly: optionalNumber('price', 'The price'),
    youngPa: read.optionalQuantity('young', 'The modulus', 'stress')?.value ?? null,
    youngAcrossPa: read.optionalQuantity('youngAcross', 'The modulus across', 'stress')?.value ?? null,
    poisson: optionalNumber('poisson', 'Poisson’s ratio'),
    core: readCore(read),
    strips,
    note: read.optional('note'),
  }
}
