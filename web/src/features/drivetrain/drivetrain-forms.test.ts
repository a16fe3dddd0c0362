import { UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { courseBody, courseDefaults } from './course-form.ts'
import { driveNews } from './news.ts'
import { settingBody, settingDefaults, settingFieldSpecs } from './settings-form.ts'
import { pickedCourse } from './use-drive.ts'

const reader = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => new FormReader(values, UNIT_SETS[set], '.')
const GOOD = { name: 'Quay yard', corners: 'Slip; 24 m radius; 30°\nGate; 63 km/h; -; 430 m\nBend; 40 mph', isClosed: 'false', braking: '8' }

describe('a course in a form', () => {
  it('reads a corner by its speed or its radius, with an angle or a straight', () => {
    const read = reader(GOOD)
    const body = courseBody(read) as { corners: Record<string, number | null>[]; isClosed: boolean }
    expect(read.errors).toEqual({})
    expect(body.isClosed).toBe(false)
    expect(body.corners[0]).toMatchObject({ name: 'Slip', radiusM: 24, speedMps: null, straightM: null })
    expect(body.corners[0]?.slideAngleRad).toBeCloseTo((30 * Math.PI) / 180, 9)
    expect(body.corners[1]).toMatchObject({ radiusM: null, slideAngleRad: null, straightM: 430 })
    expect(body.corners[1]?.speedMps).toBeCloseTo(17.5, 9)
    expect(body.corners[2]?.speedMps).toBeCloseTo(17.8816, 6)
  })
  test.each(['metric', 'imperial'] as const)('fills the form again with the same in %s', (set) => {
    const stored = { ...courseBody(reader(GOOD)), id: 'c', version: 1 } as unknown as Parameters<typeof courseDefaults>[0]
    const again = courseBody(reader(courseDefaults(stored, UNIT_SETS[set]), set)) as { corners: Record<string, number | string | null>[] }
    const rounded = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(5)) : each)))
    expect(rounded(again.corners)).toEqual(rounded((stored as unknown as { corners: unknown }).corners))
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['no corner', { corners: '' }, 'corners', /Name a corner and its speed/],
    ['neither speed nor radius', { corners: 'Slip' }, 'corners', /neither a speed nor a radius/],
    ['a radius of 2 m', { corners: 'Slip; 2 m radius' }, 'corners', /5 to 500 m/],
    ['a slide of 90 degrees', { corners: 'Slip; 24 m radius; 90°' }, 'corners', /2 to 80 degrees/],
    ['a speed of 900 km/h', { corners: 'Slip; 900 km/h' }, 'corners', /4 to 430 km\/h/],
    ['no name of the corner', { corners: '; 24 m radius' }, 'corners', /needs a name/],
    ['no name', { name: '' }, 'name', /is empty/],
    ['braking of 90', { braking: '90' }, 'braking', /2 to 30/],
  ])('refuses %s', (_, more, field, message) => {
    const read = reader({ ...GOOD, ...more })
    courseBody(read)
    expect(read.errors[field]).toMatch(message)
  })
})

describe('the title of the room', () => {
  const text = (kind: string, value: number) => (kind === 'share' ? `${Math.round(100 * value)} %` : String(value))
  const empty = { missing: [], slide: null, path: null } as unknown as Parameters<typeof driveNews>[0]
  it('says first what is missing', () =>
    expect(driveNews({ ...empty, missing: [{ what: 'the gears', room: 'drivetrain', more: '' }] }, null, text)).toBe('Not worked out yet: the gears'))
  it('says which rating is passed, and where', () => {
    const path = { headrooms: [{ name: 'Box', headroom: -0.43, gear: 3 }] }
    expect(driveNews({ ...empty, path } as never, null, text)).toBe('Box meets 143 % of its rating in third')
  })
  it('is calm where nothing is wrong', () => expect(driveNews(empty, null, text)).toBe('The driveline carries what it meets'))
})

test('the course of the address comes before that of the Board, and that before the first', () => {
  const records = { courses: [{ id: 'a' }, { id: 'b' }, { id: 'c' }], build: { driveBasis: { courseId: 'b' } } } as never
  expect([
    pickedCourse(records, 'c')?.id,
    pickedCourse(records, '')?.id,
    pickedCourse({ courses: [{ id: 'a' }], build: { driveBasis: null } } as never, '')?.id,
  ]).toEqual(['c', 'b', 'a'])
})

describe('the settings of a stage in a form', () => {
  const SAID: FormValues = {
    topRpm: '7400',
    use: 'clutchKicks',
    shockFactor: '2.2',
    shockSchool: 'both',
    reserveWanted: '20 %',
    dragAreaM2: '0.78 m² ± 0.04',
    'dragAreaM2-known': 'measured',
    centreHeightM: '490 mm',
    frontSlipRad: '7°',
  }
  const stored = (set: 'metric' | 'imperial' = 'metric') =>
    ({ ...settingBody(reader(SAID, set)), id: 's', stageId: 'n', version: 1 }) as unknown as NonNullable<Parameters<typeof settingDefaults>[0]>
  it('reads each number with its spread and how it is known; what is empty is the stage before’s', () => {
    const read = reader(SAID)
    const body = settingBody(read)
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({ topRpm: 7400, launchRpm: null, use: 'clutchKicks', shockFactor: 2.2, shockSchool: 'both', reserveWanted: 0.2, gripUse: null })
    expect(body.dragAreaM2).toEqual({ value: 0.78, sd: 0.04, known: 'measured', typed: '0.78 m² ± 0.04' })
    expect(body.centreHeightM).toMatchObject({ value: 0.49, sd: null, known: 'guess' })
    expect((body.frontSlipRad as { value: number }).value).toBeCloseTo((7 * Math.PI) / 180, 9)
  })
  test.each(['metric', 'imperial'] as const)('fills the form again with the same in %s', (set) => {
    const again = settingBody(reader(settingDefaults(stored(), UNIT_SETS[set]), set))
    expect(again).toEqual(settingBody(reader(SAID)))
  })
  it('has a field for every text it starts with, and an empty stage says nothing', () => {
    const names = new Set(settingFieldSpecs.map(({ name }) => name))
    const texts = settingDefaults(null, UNIT_SETS.metric)
    expect(Object.keys(texts).filter((name) => !names.has(name))).toEqual([])
    expect(Object.values(settingBody(reader(texts))).every((value) => value === null)).toBe(true)
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['a drag area of 80', { dragAreaM2: '80' }, 'dragAreaM2', /Drag area lies from 0.05 m² to 5 m²/],
    ['a shock of 9', { shockFactor: '9' }, 'shockFactor', /lies from 1 to 5/],
    ['a redline of 70', { topRpm: '70' }, 'topRpm', /lies from 500 rpm to 25000 rpm/],
    ['a reserve that is a word', { reserveWanted: 'plenty' }, 'reserveWanted', /cannot be read/],
  ])('refuses %s', (_, more, field, message) => {
    const read = reader({ ...SAID, ...more })
    settingBody(read)
    expect(read.errors[field]).toMatch(message)
  })
})
