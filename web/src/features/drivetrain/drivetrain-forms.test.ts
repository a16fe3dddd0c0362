import { UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../ui/form-reader.ts'
import { courseBody, courseDefaults } from './course-form.ts'
import { driveNews } from './news.ts'
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
