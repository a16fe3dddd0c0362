import { type AeroRoomStage, UNIT_SETS, USUAL_AERO_BASIS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { biggestWing } from './biggest-wing.ts'
import { deviceFieldSpecs } from './device-fields.ts'
import { deviceBody, deviceDefaults } from './device-form.ts'
import { springBody, springDefaults, springFieldSpecs } from './height/springs-form.ts'
import { outlineBody, outlineDefaults, outlineFieldSpecs } from './outline-form.ts'

const SETS = ['metric', 'imperial'] as const
type SetName = (typeof SETS)[number]
const reader = (values: FormValues, set: SetName = 'metric') => new FormReader(values, UNIT_SETS[set], '.')
const AT = '2026-05-01T10:00:00.000Z'
const ROOM = { basis: USUAL_AERO_BASIS }
const closely = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(5)) : each)))

describe('the outline in a form', () => {
  const TYPED: FormValues = {
    frontOverhangM: '900',
    rearOverhangM: '1 m',
    bodyWidthM: '1740',
    roofHeightM: '1430',
    roofFrontXM: '1150',
    roofRearXM: '2750',
    scuttleXM: '450',
    scuttleHeightM: '940',
    noseHeightM: '620',
    tailHeightM: '920',
    undersideM: '115',
    wheelRadiusM: '320',
    speed: '180',
    fastest: '252',
    balanceSchool: 'geometric',
    slopeSchool: 'liftingLine',
    rollingSchool: 'growing',
  }
  const NONE = { outline: null, aeroBasis: null }
  const made = (values: FormValues, set: SetName = 'metric') => {
    const read = reader(values, set)
    return { body: outlineBody(read, NONE), errors: read.errors }
  }
  it('reads eleven tapes, a wheel, two speeds and three schools', () => {
    const { body, errors } = made(TYPED)
    expect(errors).toEqual({})
    expect(body).toMatchObject({
      outline: { frontOverhangM: 0.9, rearOverhangM: 1, wheelRadiusM: 0.32, sdM: 0.005 },
      aeroBasis: { speedMps: 50, fastestMps: 70, balanceSchool: 'geometric' },
    })
  })
  test.each(SETS)('fills the form again with the same in %s', (set) => {
    const stored = made(TYPED).body as never
    const again = outlineBody(reader(outlineDefaults(stored, UNIT_SETS[set]), set), stored)
    expect(closely(again)).toEqual(closely(stored))
  })
  it('without a tape there is no outline, and the speeds stand', () => {
    const { body, errors } = made(outlineDefaults(NONE, UNIT_SETS.metric))
    expect(errors).toEqual({})
    expect(body.outline).toBeNull()
  })
  it('has a field for every text it starts with', () => {
    const names = new Set(outlineFieldSpecs.map(({ name }) => name))
    expect(Object.keys(outlineDefaults(NONE, UNIT_SETS.metric)).filter((name) => !names.has(name))).toEqual([])
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['one tape alone', { frontOverhangM: '' }, 'frontOverhangM', /is empty/],
    ['a width in centimetres read as millimetres', { bodyWidthM: '174' }, 'bodyWidthM', /lies from 800 mm to 3000 mm/],
    ['a speed of 5 km/h', { speed: '5' }, 'speed', /lies from/],
  ])('refuses %s', (_, more, field, message) => {
    expect(made({ ...TYPED, ...more }).errors[field]).toMatch(message)
  })
})

const WING: FormValues = {
  kind: 'wing',
  name: 'wing',
  changeId: '',
  from: 'wing',
  notches: 'hole 1; -2°\nhole 2; 4°',
  zeroLift: '-4.15°',
  place: 'behindRoof',
  span: '1400',
  chords: '260',
  pivotX: '3450',
  pivotZ: '1405',
  pivotShare: '',
  plateHeight: '220',
  plateLength: '260',
  plateTop: '15',
}

describe('a device in a form', () => {
  const made = (values: FormValues, set: SetName = 'metric', device: Parameters<typeof deviceBody>[1] = null) => {
    const read = reader(values, set)
    return { body: deviceBody(read, device, ROOM, AT) as Record<string, never>, errors: read.errors }
  }
  it('estimates a wing at each of its notches, with what the estimate was made of', () => {
    const { body, errors } = made(WING)
    expect(errors).toEqual({})
    expect(closely(body.wing)).toMatchObject({ spanM: 1.4, chordsM: [0.26], pivotShare: 0.25, endPlate: { heightM: 0.22 } })
    const [, second] = body.notches as unknown as { values: { downforceM2: number; downforceSdM2: number; proof: string; estimate: object }[] }[]
    expect(second?.values[0]?.downforceM2).toBeCloseTo(0.3403, 4)
    expect(second?.values[0]?.downforceSdM2).toBeCloseTo(0.0589, 4)
    expect(second?.values[0]).toMatchObject({ proof: 'calculated', estimate: { of: 'wing', place: 'behindRoof' } })
  })
  it('estimates a splitter; without a word of pressure the usual one', () => {
    const { body, errors } = made({ kind: 'splitter', name: 'lip', from: 'splitter', notches: 'as it is', lip: '200', width: '1600' })
    expect(errors).toEqual({})
    const [first] = body.notches as unknown as { values: { downforceM2: number }[] }[]
    expect(first?.values[0]?.downforceM2).toBeCloseTo(0.208, 9)
  })
  it('reads typed areas, at a place or at the tyres, nothing, and what nobody knows', () => {
    const { body, errors } = made({
      kind: 'other',
      name: 'thing',
      from: 'typed',
      notches: 'low; down 0.34 ± 0.06; drag 0.024 ± 0.006; catalogue\nhigh; front -0.02 ± 0.04; rear -0.07 ± 0.05; drag 0.7; guess\noff; nothing\nodd',
    })
    expect(errors).toEqual({})
    expect(body.notches).toMatchObject([
      { name: 'low', values: [{ form: 'place', downforceM2: 0.34, downforceSdM2: 0.06, dragM2: 0.024, dragSdM2: 0.006, proof: 'catalogue' }] },
      { name: 'high', values: [{ form: 'axles', frontM2: -0.02, rearSdM2: 0.05, dragM2: 0.7, dragSdM2: null, proof: 'guess' }] },
      { name: 'off', values: [], countsAsNothing: true },
      { name: 'odd', values: [], countsAsNothing: false },
    ])
  })
  test.each(SETS)('fills the form again with the same in %s, and adds no second value', (set) => {
    const stored = { ...made(WING).body, id: 'w', version: 1, changeId: null, offChangeId: null } as never
    const { body, errors } = made(deviceDefaults(stored, UNIT_SETS[set]), set, stored)
    expect(errors).toEqual({})
    const { notches } = body as unknown as { notches: { values: object[] }[] }
    expect(notches.map(({ values }) => values.length)).toEqual([1, 1])
    expect(closely(body.wing)).toEqual(closely((stored as { wing: object }).wing))
  })
  it('what a notch said before stays beside what it says now', () => {
    const stored = { ...made({ kind: 'other', name: 't', from: 'typed', notches: 'a; down 0.3; guess' }).body, id: 't', version: 1 } as never
    const { body } = made({ kind: 'other', name: 't', from: 'typed', notches: 'a; down 0.25 ± 0.02; measured' }, 'metric', stored)
    expect((body as unknown as { notches: { values: { proof: string }[] }[] }).notches[0]?.values.map(({ proof }) => proof)).toEqual(['guess', 'measured'])
  })
  it('has a field for every text it starts with', () => {
    const names = new Set(deviceFieldSpecs([]).map(({ name }) => name))
    expect(Object.keys(deviceDefaults(null, UNIT_SETS.metric)).filter((name) => !names.has(name))).toEqual([])
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['a wing past its stall', { notches: 'hole 9; 20°' }, 'notches', /hole 9: The wing is past its stall/],
    ['a notch of an estimated wing without an angle', { notches: 'hole 1' }, 'notches', /needs its angle/],
    ['two elements', { chords: '260 mm  120 mm' }, 'chords', /Several elements are not estimated/],
    ['no notch', { notches: '' }, 'notches', /Name a notch/],
    ['no name', { name: '' }, 'name', /is empty/],
    ['an area without a proof', { from: 'typed', notches: 'a; down 0.3' }, 'notches', /say how it is known/],
    ['down and front at once', { from: 'typed', notches: 'a; down 0.3; front 0.1; rear 0.2; guess' }, 'notches', /one of the two/],
    ['a word that is no angle', { notches: 'hole 1; steep' }, 'notches', /steep/],
    ['half a box', { xFrontM: '100' }, 'xRearM', /is empty/],
  ])('refuses %s', (_, more, field, message) => {
    expect(made({ ...WING, ...more }).errors[field]).toMatch(message)
  })
})

describe('a wing as big as the box allows', () => {
  const made = (limits: object[]) => ({ limits, wheelbaseM: 2.65 }) as unknown as AeroRoomStage
  const outline = { roofHeightM: 1.43, rearOverhangM: 1, bodyWidthM: 1.74 } as unknown as AeroRoomStage['outline']
  const limit = (metric: string, value: number) => ({ id: metric, metric, sense: 'atMost', value })
  const ask = (more: FormValues, limits: object[], set: SetName = 'metric') =>
    biggestWing({ pivotX: '3450 mm', pivotZ: '1350 mm', notches: 'low; 0°\nhigh; 12°', ...more }, UNIT_SETS[set], '.', { made: made(limits), outline })
  it('grows to 10 mm under the roof at its steepest notch, and to the width of the body', () => {
    // 0.07 m over the pivot: 0.75 c sin 12° = 0.07.
    expect(ask({}, [limit('wingOverRoof', 0)])).toEqual({ chords: '448 mm', span: '1720 mm' })
  })
  it('keeps short of the rear limit, its own chord and its own span', () => {
    expect(ask({}, [limit('wingOverRoof', 0), limit('reachRear', 0.1)])).toMatchObject({ chords: '395 mm' })
    expect(ask({}, [limit('wingOverRoof', 0), limit('wingChord', 0.3), limit('wingSpan', 1.5)])).toEqual({ chords: '290 mm', span: '1480 mm' })
  })
  test.each<[string, FormValues, RegExp]>([
    ['without a pivot', { pivotZ: '' }, /Type where its pivot stands/],
    ['a pivot over the roof', { pivotZ: '1500 mm' }, /No wing fits at that pivot/],
    ['a pivot in words', { pivotX: 'far back' }, /cannot be read/],
  ])('says why not: %s', (_, more, message) => {
    const found = ask(more, [limit('wingOverRoof', 0)])
    expect('why' in found && found.why).toMatch(message)
  })
  it('asks for the outline first', () => {
    expect(biggestWing({}, UNIT_SETS.metric, '.', { made: made([]), outline: null })).toMatchObject({ why: expect.stringMatching(/Tape the outline/) })
  })
})

describe('springs in a form', () => {
  const TYPED: FormValues = {
    frontspring: '58.85',
    frontratio: '0.94',
    frontgap: '10',
    frontpacker: '6',
    frontrubber: '5 mm; 400 N\n10 mm; 1200 N',
    rearspring: '88.73',
    rearratio: '0.72',
    reartyre: '230',
  }
  const made = (values: FormValues, set: SetName = 'metric') => {
    const read = reader(values, set)
    return { body: springBody(read, null) as Record<'front' | 'rear', Record<string, unknown> | null>, errors: read.errors }
  }
  it('reads both axles; an axle without a spring says nothing', () => {
    const { body, errors } = made(TYPED)
    expect(errors).toEqual({})
    expect(body.front).toMatchObject({
      springRateNPerM: 58_850,
      motionRatio: 0.94,
      gapM: 0.01,
      packerM: 0.006,
      tyreRateNPerM: null,
      rubber: [
        { compressionM: 0.005, forceN: 400 },
        { compressionM: 0.01, forceN: 1200 },
      ],
    })
    expect(body.rear).toMatchObject({ springRateNPerM: 88_730, gapM: null, packerM: 0, rubber: [] })
    expect(made({}).body).toEqual({ front: null, rear: null })
  })
  test.each(SETS)('fills the form again with the same in %s', (set) => {
    const stored = made(TYPED).body
    const axle = (own: Record<string, unknown> | null) =>
      own && ({ springs: { ...own, tyreRateNPerM: own.tyreRateNPerM ?? 230_000 }, isTyreUsual: own.tyreRateNPerM === null } as never)
    const again = made(springDefaults({ front: axle(stored.front), rear: axle(stored.rear) }, UNIT_SETS[set]), set)
    expect(again.errors).toEqual({})
    expect(closely(again.body)).toEqual(closely(stored))
  })
  it('has a field for every text it starts with', () => {
    const names = new Set(springFieldSpecs.map(({ name }) => name))
    expect(Object.keys(springDefaults({ front: null, rear: null }, UNIT_SETS.metric)).filter((name) => !names.has(name))).toEqual([])
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['a motion ratio over 2, with both readings', { frontratio: '2.5' }, 'frontratio', /0\.2 to 2.*0\.40/],
    ['a packer longer than its gap', { frontpacker: '12' }, 'frontpacker', /longer than the free gap/],
    ['a rubber of one number', { frontrubber: '5 mm' }, 'frontrubber', /needs 2 a line/],
  ])('refuses %s', (_, more, field, message) => {
    expect(made({ ...TYPED, ...more }).errors[field]).toMatch(message)
  })
})
