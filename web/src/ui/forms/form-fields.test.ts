import { UNIT_SETS, z } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { field, fieldName, makeForm } from './form-fields.ts'
import { FormReader, type FormValues } from './form-reader.ts'

type SetName = keyof typeof UNIT_SETS
const reader = (values: FormValues, set: SetName = 'metric') => new FormReader(values, UNIT_SETS[set], '.')

const fields = {
  name: z.string().trim().min(1),
  note: z.string().nullable(),
  massKg: z.number().positive().max(2000),
  typed: z.string().nullable().default(null),
  fuelL: z.number().nonnegative(),
  camberRad: z.number().min(-0.2).max(0.2).nullable(),
  slopeShare: z.number().min(-0.5),
  gain: z.number().min(0.2).max(1.6),
  cylinders: z.int().positive().max(16),
  spares: z.int().nonnegative().max(9),
  strokes: z.union([z.literal(2), z.literal(4)]),
  hasRoof: z.boolean(),
  side: z.enum(['left', 'right']),
  bits: z.array(z.strictObject({ speedRpm: z.number().positive().max(20_000), pressurePa: z.number().min(0).max(1e6).nullable().default(null) })),
  pump: z.strictObject({ count: z.int().positive().max(8), lossPa: z.number().min(0).max(2e5) }).nullable(),
}

const form = makeForm(
  fields,
  [
    field('name', 'text', { label: 'Name', section: 'What it is' }),
    field('note', 'note', { label: 'Note', isWide: true }),
    field('massKg', 'mass', { label: 'Mass', typedAt: 'typed', hint: (units) => `${units.mass} unless a unit is typed` }),
    field('fuelL', 'volume', { label: 'Fuel' }),
    field('camberRad', 'angle', { label: 'Camber', unit: '°' }),
    field('slopeShare', 'share', { label: 'Slope' }),
    field('gain', 'number', { label: 'Gain', begin: 1 }),
    field('cylinders', 'count', { label: 'Cylinders' }),
    field('spares', 'count', { label: 'Spares' }),
    field('strokes', 'numberChoice', { label: 'Strokes', words: { 2: 'two', 4: 'four' } }),
    field('hasRoof', 'checkbox', { label: 'Roof' }),
    field('side', 'choice', { label: 'Side', words: { left: 'on the left', right: 'on the right' } }),
    field(
      'bits',
      {
        points: [
          { key: 'speedRpm', kind: 'engineSpeed' },
          { key: 'pressurePa', kind: 'pressure', isOptional: true },
        ],
        whenNone: 'Type one point at least.',
      },
      { label: 'Points: speed; pressure' },
    ),
    field('pump.count', 'count', { label: 'Pumps' }),
    field('pump.lossPa', 'pressure', { label: 'Loss' }),
  ],
  [{ path: 'pump', unless: 'pump.count' }],
)

const RECORD = {
  name: 'hall car',
  note: null,
  massKg: 1200,
  typed: null,
  fuelL: 0,
  camberRad: -0.05,
  slopeShare: -0.25,
  gain: 0.9,
  cylinders: 6,
  spares: 0,
  strokes: 4,
  hasRoof: true,
  side: 'right',
  bits: [
    { speedRpm: 3000, pressurePa: 150_000 },
    { speedRpm: 6000, pressurePa: null },
  ],
  pump: { count: 2, lossPa: 20_000 },
}

/** The texts of the record with some typed over. */
const typed = (over: FormValues, set: SetName = 'metric') => {
  const read = reader({ ...form.defaults(RECORD, UNIT_SETS[set]), ...over }, set)
  const body = form.body(read)
  return { body, errors: read.errors }
}

describe('a form out of declared fields', () => {
  it('calls its fields by their paths, without a dot', () => {
    expect(fieldName('pump.lossPa')).toBe('pump-lossPa')
    expect(form.specs().map(({ name }) => name)).toContain('pump-lossPa')
  })

  it('says of each field what it needs to be shown', () => {
    const specs = Object.fromEntries(form.specs().map((spec) => [spec.name, spec]))
    expect(specs.name).toEqual({ name: 'name', label: 'Name', section: 'What it is' })
    expect(specs.note).toMatchObject({ isWide: true })
    const { hint } = specs.massKg ?? {}
    expect(typeof hint === 'function' && hint(UNIT_SETS.imperial)).toBe('lb unless a unit is typed')
    expect(specs.bits?.type).toBe('textarea')
    expect(specs.hasRoof?.type).toBe('checkbox')
    expect(specs.side).toMatchObject({
      type: 'select',
      options: [
        { value: 'left', label: 'on the left' },
        { value: 'right', label: 'on the right' },
      ],
    })
  })

  test.each(['metric', 'imperial'] as const)('reads what it shows back as it was, in %s units', (set) => {
    const { body, errors } = typed({}, set)
    expect(errors).toEqual({})
    expect(body).toMatchObject({ name: 'hall car', note: null, cylinders: 6, spares: 0, strokes: 4, hasRoof: true, side: 'right', pump: { count: 2 } })
    for (const key of ['massKg', 'fuelL', 'camberRad', 'slopeShare', 'gain'] as const) expect(body[key]).toBeCloseTo(RECORD[key], 3)
    expect((body.bits as typeof RECORD.bits)[0]?.pressurePa).toBeCloseTo(150_000, -1)
    expect((body.bits as typeof RECORD.bits)[1]).toEqual({ speedRpm: 6000, pressurePa: null })
  })

  it('begins with what is declared where the record has nothing, and else with nothing', () => {
    const texts = form.defaults({}, UNIT_SETS.metric)
    expect(texts).toMatchObject({ gain: '1', name: '', massKg: '', bits: '', 'pump-count': '' })
  })

  it('keeps the text beside the number, and shows it again as it was typed', () => {
    expect(typed({ massKg: '2645 lb' }).body).toMatchObject({ typed: '2645 lb' })
    expect(form.defaults({ ...RECORD, typed: '2645 lb' }, UNIT_SETS.metric).massKg).toBe('2645 lb')
  })

  test.each<[string, string, unknown]>([
    ['massKg', '41 lb', 41 * 0.45359237],
    ['massKg', '950', 950],
    ['camberRad', '-2', (-2 * Math.PI) / 180],
    ['camberRad', '', null],
    ['slopeShare', '-30 %', -0.3],
    ['fuelL', '0', 0],
    ['spares', '0', 0],
    ['note', '', null],
    ['note', ' two blanks ', 'two blanks'],
    ['side', 'left', 'left'],
    ['strokes', '2', 2],
  ])('%s of "%s" is %s', (name, text, expected) => {
    const { body, errors } = typed({ [name]: text })
    expect(errors).toEqual({})
    if (typeof expected === 'number') expect(body[name]).toBeCloseTo(expected, 9)
    else expect(body[name]).toBe(expected)
  })

  test.each<[string, string, RegExp]>([
    ['name', ' ', /Name/],
    ['massKg', '', /Mass/],
    ['massKg', '0', /Mass must be more than zero/],
    ['massKg', '-3 kg', /Mass must be more than zero/],
    ['massKg', '2100', /Mass lies from 0 to 2000 kg/],
    ['massKg', 'heavy', /heavy|number/i],
    ['massKg', '1,200', /1200 or 1.200/],
    ['fuelL', '-1', /Fuel must be zero or more/],
    ['camberRad', '20', /Camber lies from -11.4592 to 11.4592 °/],
    ['slopeShare', '-80 %', /Slope is at least -50 %/],
    ['gain', '1.7', /Gain lies from 0.2 to 1.6\./],
    ['gain', '0.1', /Gain lies from 0.2 to 1.6\./],
    ['cylinders', '0', /Cylinders.* 1 to 16/],
    ['cylinders', '4.5', /Cylinders/],
    ['spares', '10', /Spares.* 0 to 9/],
    ['bits', '', /Type one point at least/],
    ['bits', '0; 150 kPa', /more than zero/],
    ['bits', '25000', /lies from 0 to 20000|at most 20000/],
    ['pump-lossPa', '3 bar', /Loss lies from 0 to 200 kPa/],
  ])('%s of "%s" is refused at its field, in the units of the form', (name, text, sentence) => {
    const { errors } = typed({ [name]: text })
    expect(Object.keys(errors)).toEqual([name])
    expect(errors[name]).toMatch(sentence)
  })

  it('says a bound in the picked units', () => {
    expect(typed({ massKg: '5000' }, 'imperial').errors.massKg).toMatch(/4409.25 lb/)
  })

  it('leaves a part of the record out while the field that stands for it is empty, whatever else is typed there', () => {
    expect(typed({ 'pump-count': '', 'pump-lossPa': 'nonsense' })).toMatchObject({ body: { pump: null }, errors: {} })
  })

  it('reads all fields though one is refused, so that nothing typed is lost', () => {
    const { body, errors } = typed({ massKg: 'x', gain: '7', cylinders: '4' })
    expect(Object.keys(errors)).toEqual(['massKg', 'gain'])
    expect(body).toMatchObject({ cylinders: 4, name: 'hall car' })
  })
})
