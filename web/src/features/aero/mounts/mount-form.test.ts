import { type Mount, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../../ui/forms/form-reader.ts'
import { mountBody, mountDefaults, mountFieldSpecs } from './mount-form.ts'

const TYPED: FormValues = {
  ...mountDefaults(null, UNIT_SETS.metric),
  feet: '3360 mm; 950 mm\n3600 mm; 950 mm',
  bolts: '2',
  tension: '4200 N',
  shear: '2900 N',
  rods: '2',
  rodAngle: '60',
  rodDiameter: '8 mm',
  rodLength: '260 mm',
  rodRated: '2600 N',
  lookedAtBy: 'Tomas',
  lookedAtOn: '2026-11-14',
}
const made = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => {
  const read = new FormReader(values, UNIT_SETS[set], '.')
  return { body: mountBody(read), errors: read.errors }
}
const closely = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(5)) : each)))

describe('a mount in a form', () => {
  it('reads uprights, bolts, rods and who looked at it', () => {
    const { body, errors } = made(TYPED)
    expect(errors).toEqual({})
    expect(body).toMatchObject({
      carriedBy: 'chassis',
      second: 'none',
      feet: [{ xM: 3.36, zM: expect.closeTo(0.95, 9) }, { xM: 3.6 }],
      bolts: { countPerFoot: 2, tensionN: 4200, shearN: 2900 },
      rods: { count: 2, angleRad: expect.closeTo(Math.PI / 3, 6), isCable: false },
      lookedAtOn: '2026-11-14',
      access: null,
    })
  })
  test.each(['metric', 'imperial'] as const)('fills the form again with the same in %s', (set) => {
    const stored = { id: 'm', deviceId: 'd', ...made(TYPED).body } as Mount
    const { body, errors } = made(mountDefaults(stored, UNIT_SETS[set]), set)
    expect(errors).toEqual({})
    expect(closely({ id: 'm', deviceId: 'd', ...body })).toEqual(closely(stored))
  })
  test.each([
    ['one foot', { feet: '3360; 950' }, 'feet', /carries no moment/],
    ['nothing that holds it', { feet: '', rods: '' }, 'feet', /Nothing holds it/],
    ['bolts without what they hold', { shear: '' }, 'shear', /need all three/],
    ['ratings without bolts', { bolts: '' }, 'bolts', /need all three/],
    ['a rod along the panel', { rodAngle: '2' }, 'rodAngle', /5 to 90 degrees/],
    ['half an upright', { uprights: '1.5' }, 'uprights', /whole number/],
  ] as const)('refuses %s at its field', (_, more, field, message) => {
    expect(made({ ...TYPED, ...more }).errors[field]).toMatch(message)
  })
  it('has a field for each thing it reads', () => {
    expect(mountFieldSpecs.map(({ name }) => name)).toEqual(expect.arrayContaining(Object.keys(TYPED)))
  })
})
