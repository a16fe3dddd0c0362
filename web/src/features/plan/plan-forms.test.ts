import type { RecordsAnswer } from '@bold-ballast/contract'
import { METRIC_INFO, METRICS, type Stage, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { carBody, carDefaults, carFieldSpecs } from './car/car-form.ts'
import { goalBody, goalFieldSpecs } from './goals/goal-form.ts'

type Build = RecordsAnswer['build']
const SETS = ['metric', 'imperial'] as const
const reader = (values: FormValues, set: (typeof SETS)[number] = 'metric', mark: '.' | ',' = '.') => new FormReader(values, UNIT_SETS[set], mark)

const BUILD = {
  id: 'b',
  version: 3,
  name: 'Example',
  discipline: 'track',
  drivenAxles: 'rear',
  className: null,
  wheelbaseM: 2.58,
  trackFrontM: 1.52,
  trackRearM: 1.54,
  reference: { driverKg: 82, fuelL: 30, fuelKgPerL: 0.745, nitrousKg: null },
  powerBasis: { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' },
  baselineMass: { massKg: 1310, sdKg: 4, proof: 'measured', typed: '1310 kg', hasDriver: true, hasFuel: false },
  drivers: [
    { name: 'Ilse', massKg: 66, seat: null, belts: 'second holes' },
    { name: 'Odd', massKg: 91.5, seat: 'back', belts: null },
    { name: 'Rune', massKg: 80, seat: null, belts: null },
  ],
  driverPlace: { xM: 1.4, yM: 0.36, zM: 0.42 },
  fuelPlace: null,
  suspension: {
    front: { wheelRateNPerM: 42_000, tyreRateNPerM: 210_000, motionRatio: 0.96, threadPitchM: 0.002 },
    rear: { wheelRateNPerM: 51_000, tyreRateNPerM: null, motionRatio: 0.7, threadPitchM: 0.0015 },
  },
  airDensityKgM3: 1.185,
  driveBasis: { rollOutM: 0, dampShare: 0.7, wetShare: 0.55, courseId: null },
  drivelineLoss: { school: 'fixedAndProportional', lossShare: 0.13, fixedLossW: 9000, proportionalShare: 0.05, coastDownLossW: null },
  crossConvention: 'wedge',
  guessPairsFrom: 'garage',
} as unknown as Build

/** Every number agrees to six digits, everything else to the letter. */
function expectSame(found: unknown, wanted: unknown, path = ''): void {
  if (typeof wanted === 'number' && wanted !== 0) expect((found as number) / wanted, path).toBeCloseTo(1, 5)
  else if (wanted && typeof wanted === 'object')
    for (const [key, value] of Object.entries(wanted)) expectSame((found as Record<string, unknown> | undefined)?.[key], value, `${path}.${key}`)
  else expect(found ?? null, path).toEqual(wanted)
}

describe('the car in a form', () => {
  const read = (more: FormValues, build = BUILD) => {
    const defaults = carDefaults(build, UNIT_SETS.metric)
    const form = reader({ ...defaults, ...more })
    return { body: carBody(form, build, defaults) as never as Build, errors: form.errors }
  }
  test.each(SETS)('is read back as it was, in %s units, with every driver and the proof of its papers', (set) => {
    const defaults = carDefaults(BUILD, UNIT_SETS[set])
    const form = reader(defaults, set)
    const { id: _, version: __, ...wanted } = BUILD
    expectSame(carBody(form, BUILD, defaults), wanted)
    expect(form.errors).toEqual({})
  })
  it('has a field for every text it starts with', () => {
    const names = new Set(carFieldSpecs([]).map(({ name }) => name))
    expect(Object.keys(carDefaults(BUILD, UNIT_SETS.metric)).filter((name) => !names.has(name))).toEqual([])
  })
  it('a mass from papers that is typed anew is of papers again', () => {
    expect(read({ baselineMass: '1290 kg ± 6' }).body.baselineMass).toMatchObject({ massKg: 1290, sdKg: 6, proof: 'catalogue', typed: '1290 kg ± 6' })
    expect(read({ 'baselineMass-hasFuel': 'true' }).body.baselineMass).toMatchObject({ massKg: 1310, proof: 'measured', hasFuel: true, hasDriver: true })
    expect(read({ baselineMass: '' }).body.baselineMass).toBeNull()
  })
  it('air and clock stay usual until they are typed', () => {
    expect(read({ dampShare: '', wetShare: '', rollOut: '', airDensity: '' }, { ...BUILD, driveBasis: null } as unknown as Build).body).toMatchObject({
      airDensityKgM3: 1.2,
      driveBasis: null,
    })
    expect(read({ airDensity: '1.185', rollOut: '305 mm', wetShare: '50 %' }).body).toMatchObject({
      airDensityKgM3: 1.185,
      driveBasis: { rollOutM: expect.closeTo(0.305, 9), dampShare: expect.closeTo(0.7, 9), wetShare: 0.5, courseId: null },
    })
    expect(read({ airDensity: '12' }).errors.airDensity).toMatch(/0.6 to 1.5/)
    expect(read({ rollOut: '4 m' }).errors.rollOut).toMatch(/lies from 0 mm to 1000 mm/)
  })
  it('springs and the school of the driveline may stay empty whole', () => {
    const none = { ...BUILD, suspension: null, drivelineLoss: null, drivers: [], driverPlace: null } as unknown as Build
    const { body, errors } = read({}, none)
    expect(errors).toEqual({})
    expect(body).toMatchObject({ suspension: null, drivelineLoss: null, drivers: [], driverPlace: null })
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['a driver without a mass', { drivers: 'Ilse' }, 'drivers', /"Ilse" needs a name and a mass/],
    ['a driver without a name', { drivers: '; 66 kg' }, 'drivers', /needs a name and a mass/],
    ['a driver of 660 kg', { drivers: 'Ilse; 660 kg' }, 'drivers', /The mass of Ilse lies over 0 and up to 300 kg/],
    ['a driver of no mass', { drivers: 'Ilse; 0' }, 'drivers', /over 0/],
    ['a driver of a length', { drivers: 'Ilse; 66 mm' }, 'drivers', /mm/],
    ['half a place', { driverY: '' }, 'driverY', /needs all three/],
    ['springs of one axle alone', { rearwheelRate: '' }, 'rearwheelRate', /Springs need all of these/],
    ['a spring that pulls', { frontwheelRate: '-4 N/mm' }, 'frontwheelRate', /rate at the wheel must be more than zero/],
    ['a school without its number', { fixedLoss: '' }, 'fixedLoss', /picked school needs this number/],
    ['a coast-down school without a run', { lossSchool: 'coastDown' }, 'coastLoss', /picked school needs this number/],
    ['a driveline that eats half', { proportionalLoss: '50 %' }, 'proportionalLoss', /from 0 to under 50 %/],
    ['a wheelbase in words', { wheelbaseM: 'long' }, 'wheelbaseM', /cannot be read/],
    ['a car without a name', { name: '' }, 'name', /empty/],
  ])('%s is refused at its field', (_, more, field, sentence) => {
    const { errors } = read(more)
    expect(errors[field]).toMatch(sentence)
    expect(Object.keys(errors)).toEqual([field])
  })
})

const STAGES = [
  { id: 's0', position: 0, name: 'As bought' },
  { id: 's1', position: 1, name: 'Stripped' },
] as Stage[]

describe('a goal in a form', () => {
  const good: FormValues = { goal: 'target', metric: 'massReady', sense: 'atMost', value: '1 200 kg', stage: 's1', source: 'own', until: '' }
  const read = (more: FormValues, mark: '.' | ',' = '.') => {
    const form = reader({ ...good, ...more }, 'metric', mark)
    return { body: goalBody(form), errors: form.errors }
  }
  it('is a target with what was typed, due by its stage', () => {
    expect(read({})).toEqual({
      errors: {},
      body: { metric: 'massReady', sense: 'atMost', value: 1200, typed: '1 200 kg', driverName: null, trackId: null, highValue: null, dueStageId: 's1' },
    })
  })
  it('is a limit with its source and its end, and has no upper value', () => {
    expect(read({ goal: 'limit', sense: 'atLeast', until: 's1', stage: '', source: 'classRule' })).toEqual({
      errors: {},
      body: {
        metric: 'massReady',
        sense: 'atLeast',
        value: 1200,
        typed: '1 200 kg',
        driverName: null,
        trackId: null,
        source: 'classRule',
        fromStageId: null,
        untilStageId: 's1',
      },
    })
  })
  it('names its track where it is of laps, and there alone', () => {
    const lap = { metric: 'lapTime', value: '1:24.9', track: 'field' }
    expect(read(lap).body).toMatchObject({ metric: 'lapTime', trackId: 'field', value: expect.closeTo(84.9, 9) })
    expect(read({ track: 'field' }).body).toMatchObject({ metric: 'massReady', trackId: null })
  })
  it('takes a range whose ends stand in two units, and one with decimal commas', () => {
    expect(read({ sense: 'between', value: '1 100 kg', highValue: '2600 lb' }).body).toMatchObject({ value: 1100, highValue: expect.closeTo(1179.34016, 4) })
    expect(read({ sense: 'between', metric: 'wheelPower', value: '290,5 kW', highValue: '300 kW' }, ',').body).toMatchObject({
      value: 290_500,
      highValue: 300_000,
    })
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['no value', { value: '' }, 'value', /Value is empty/],
    ['a value of another kind', { value: '300 kW' }, 'value', /kW/],
    ['a range without its end', { sense: 'between' }, 'highValue', /Upper value is empty/],
    ['a range that falls', { sense: 'between', highValue: '1 100 kg' }, 'highValue', /must lie above/],
    ['a range of nothing', { sense: 'between', highValue: '1 200 kg' }, 'highValue', /must lie above/],
    ['a limit on both sides', { goal: 'limit', sense: 'between', highValue: '1 300 kg' }, 'sense', /Set two limits/],
    ['power for one driver', { metric: 'wheelPower', value: '300 kW', driver: 'Ilse' }, 'driver', /Only a goal on mass can name its driver/],
  ])('%s is refused at its field', (_, more, field, sentence) => {
    const { errors } = read(more)
    expect(errors[field]).toMatch(sentence)
    expect(Object.keys(errors)).toEqual([field])
  })
  test.each(METRICS)('of %s takes its value in every picked unit set', (metric) => {
    for (const set of SETS) {
      const form = reader({ ...good, metric, value: '0.5' }, set)
      expect(goalBody(form).value).toSatisfy(Number.isFinite)
      expect(form.errors).toEqual({})
      expect(METRIC_INFO[metric].word).not.toBe('')
    }
  })
  it('names the last stage, and asks for a driver only where there are some', () => {
    const goalsOf = (stages: Stage[], drivers: object[] = []) => ({ stages, build: { drivers }, tracks: [] }) as never
    const stageField = (stages: Stage[]) => goalFieldSpecs(goalsOf(stages)).find(({ name }) => name === 'stage')?.options?.[0]?.label
    expect(stageField(STAGES)).toBe('the last stage (now 1 Stripped)')
    expect(stageField([])).toBe('the last stage')
    expect(goalFieldSpecs(goalsOf(STAGES)).some(({ name }) => name === 'driver')).toBe(false)
    const drivers = goalFieldSpecs(goalsOf(STAGES, [{ name: 'Ilse' }])).find(({ name }) => name === 'driver')?.options
    expect(drivers?.map(({ label }) => label)).toEqual(['the reference driver', 'Ilse'])
  })
})
