import { type Panel, type PanelMaterialRecord, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../../ui/forms/form-reader.ts'
import { panelBody, panelDefaults } from './panel-form.ts'
import { sheetBody, sheetDefaults } from './sheet-form.ts'

const closely = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(5)) : each)))

const PANEL = {
  sheet: 'plywood',
  materialId: null,
  thicknessM: 0.0127,
  layers: 2,
  isBonded: true,
  span: 'across',
  widthM: 1.6,
  lipM: 0.2,
  support: 'clampedCable',
  rodAtM: 0.16,
  rods: { count: 2, angleRad: 1.0472, diameterM: 0.003, lengthM: 0.26, ratedN: 2400 },
  carriedKg: 4,
  loadFactor: 2,
  standingN: 1000,
  mostTipM: 0.005,
  isChosen: true,
  note: 'two cables',
} as const satisfies Omit<Panel, 'id' | 'deviceId'>

const SHEET = {
  name: 'sign board',
  youngPa: null,
  youngAcrossPa: 6e9,
  allowablePa: 8e7,
  densityKgM3: 2700,
  poisson: 0.3,
  core: { skinM: 0.0003, corePa: 2e6, coreShearPa: null, acrossShare: 0.15, coreStrengthPa: 4e5, coreKgM3: 260 },
  thicknessesM: [0.006, 0.01],
  priceOverPly: 1.2,
  strips: [
    { direction: 'along', thicknessM: 0.01, spanM: 0.2, widthM: 0.08, loadN: 20, deflectionM: 0.00064 },
    { direction: 'along', thicknessM: 0.01, spanM: 0.45, widthM: 0.08, loadN: 20, deflectionM: 0.00183 },
    { direction: 'across', thicknessM: 0.01, spanM: 0.2, widthM: 0.08, loadN: 20, deflectionM: 0.00302 },
  ],
  note: null,
} as const satisfies Omit<PanelMaterialRecord, 'id'>

const panelOf = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => {
  const read = new FormReader(values, UNIT_SETS[set], '.')
  return { body: panelBody(read), errors: read.errors }
}
const sheetOf = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => {
  const read = new FormReader(values, UNIT_SETS[set], '.')
  return { body: sheetBody(read), errors: read.errors }
}

describe('a panel in a form', () => {
  test.each(['metric', 'imperial'] as const)('comes out as it went in, in %s', (set) => {
    const { body, errors } = panelOf(panelDefaults(PANEL, UNIT_SETS[set]), set)
    expect(errors).toEqual({})
    expect(closely(body)).toEqual(closely(PANEL))
  })
  it('of one’s own sheet names it, and held at its rear has no rods', () => {
    const { body } = panelOf({ ...panelDefaults(PANEL, UNIT_SETS.metric), sheet: 'own-id', support: 'cantilever' })
    expect(body).toMatchObject({ sheet: null, materialId: 'own-id', rodAtM: null, rods: null })
  })
  test.each([
    [{ sheet: '' }, 'sheet', /Pick a sheet/],
    [{ rodAt: '' }, 'rodAt', /how far from the clamp/],
    [{ rodAt: '300 mm' }, 'rodAt', /beyond the edge/],
    [{ rodAngle: '2' }, 'rodAngle', /flatter it holds nothing/],
    [{ rods: '30' }, 'rods', /whole number from 1 to 20/],
    [{ thickness: 'thick' }, 'thickness', /./],
  ])('%o is refused there', (more, field, message) => {
    expect(panelOf({ ...panelDefaults(PANEL, UNIT_SETS.metric), ...(more as unknown as FormValues) }).errors[field]).toMatch(message)
  })
})

describe('a sheet of one’s own in a form', () => {
  test.each(['metric', 'imperial'] as const)('comes out as it went in, in %s', (set) => {
    const { body, errors } = sheetOf(sheetDefaults(SHEET as unknown as PanelMaterialRecord, UNIT_SETS[set]), set)
    expect(errors).toEqual({})
    expect(closely(body)).toEqual(closely(SHEET))
  })
  it('takes a modulus in GPa', () => {
    expect(sheetOf({ ...sheetDefaults(SHEET as unknown as PanelMaterialRecord, UNIT_SETS.metric), young: '9 GPa' }).body).toMatchObject({ youngPa: 9e9 })
  })
  test.each([
    [{ along: '', young: '' }, 'young', /Bend a strip on two spans, or type it/],
    [{ skin: '' }, 'skin', /A core stands between skins/],
    [{ thicknesses: '' }, 'thicknesses', /with semicolons between/],
    [{ across: '10 mm; 200 mm' }, 'across', /needs 5 a line/],
    [{ name: '' }, 'name', /./],
  ])('%o is refused there', (more, field, message) => {
    const values = { ...sheetDefaults(SHEET as unknown as PanelMaterialRecord, UNIT_SETS.metric), ...(more as unknown as FormValues) }
    expect(sheetOf(values).errors[field]).toMatch(message)
  })
})
