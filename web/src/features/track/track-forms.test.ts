import { type PaddockEntry, planTimeS, type TrackRoom, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { readStep, stepText } from '../../shared/track-plan/plan-text.ts'
import { FormReader } from '../../ui/forms/form-reader.ts'
import { fitBody, fitFieldSpecs, fittable } from './lap/fit-choice.tsx'
import { RECORD, session } from './session-fixture.ts'
import { firstDisagreement } from './sessions/log-and-typed.ts'
import { paddockWrites } from './sessions/paddock-writes.ts'
import { sessionBody, sessionDefaults } from './sessions/session-form.ts'
import { trackBody, trackDefaults } from './tracks/track-form.ts'
import { brakeForm, keepWindows } from './tyres/brake-form.ts'
import { forATenth, leftOut, piecesOf } from './worth/pieces.tsx'
import { readIdea } from './worth/worth-tab.tsx'

const UNITS = UNIT_SETS.metric
const reader = (values: Record<string, string>) => new FormReader(values, UNITS, '.')
describe('what a line of the paddock writes', () => {
  let count = 0
  const wheelOf = (made: { readonly body: Record<string, unknown> } | undefined, wheel: string) =>
    (made?.body.corners as Record<string, object | null> | undefined)?.[wheel]
  const write = (entry: PaddockEntry, of = session(), others: ReturnType<typeof session>[] = []) =>
    paddockWrites(entry, of, [...others, of], () => `new ${++count}`)
  it('laps go behind those that are there, with what they were', () => {
    const found = write({
      is: 'laps',
      laps: [
        { lapS: 84.5, kind: 'clean', typed: '1:24.5' },
        { lapS: 90, kind: 'traffic', typed: '1:30 traffic' },
      ],
    })
    expect(found.map(({ kind, resource, body }) => [kind, resource, body.position, body.lapS, body.kind])).toEqual([
      ['create', 'laps', 2, 84.5, 'clean'],
      ['create', 'laps', 3, 90, 'traffic'],
    ])
  })
  it('pressures and a tread leave what else is known of the wheels', () => {
    const known = { coldPa: 155_000, coldK: 282, hotPa: null, isBled: false, treadK: null, discK: 600 }
    const of = session({ corners: { LF: known, RF: null, LR: null, RR: null } as never })
    const [hot] = write({ is: 'pressures', when: 'hot', pa: [1.98e5, 1.96e5, 1.9e5, 1.88e5] }, of)
    expect(hot).toMatchObject({ kind: 'update', resource: 'track-sessions', body: { version: 3 } })
    expect(wheelOf(hot, 'LF')).toEqual({ ...known, hotPa: 1.98e5 })
    expect(wheelOf(hot, 'RR')).toMatchObject({ hotPa: 1.88e5, coldPa: null })
    const [tread] = write({ is: 'tread', wheel: 'LF', treadK: [350, 347, 344] }, of)
    expect(wheelOf(tread, 'LF')).toMatchObject({ coldPa: 155_000, treadK: [350, 347, 344] })
    expect(wheelOf(tread, 'RF')).toBeNull()
  })
  it('what is set remembers what it was set to before, words stand below words, a pair adds up', () => {
    expect(write({ is: 'set', what: 'Rear bar', to: 'soft' })[0]?.body.turned).toEqual([...RECORD.turned, { what: 'Rear bar', from: 'middle', to: 'soft' }])
    const turned = (what: string, to: string) => [{ what, from: null, to }]
    const days = ['2026-01-02', '2026-01-04', '2026-01-03'].map((day, i) =>
      session({ id: `day ${day}`, at: `${day}T09:00:00Z`, turned: turned('rear bar', ['hard', 'middle', 'soft'][i] as string) }),
    )
    const now = session({ id: 'now', at: '2026-01-05T09:00:00Z', turned: [] })
    expect(write({ is: 'set', what: 'rear bar', to: 'soft' }, now, days)[0]?.body.turned).toEqual([{ what: 'rear bar', from: 'middle', to: 'soft' }])
    // What was turned on a later day says nothing of this one, and what nobody turned before came from nowhere.
    expect(write({ is: 'set', what: 'rear bar', to: 'soft' }, session({ id: 'now', at: '2026-01-01T09:00:00Z', turned: [] }), days)[0]?.body.turned).toEqual([
      { what: 'rear bar', from: null, to: 'soft' },
    ])
    expect(write({ is: 'say', words: 'nervous' })[0]?.body.words).toBe('calm\nnervous')
    expect(write({ is: 'pair' })[0]?.body.rearPairsUsed).toBe(1)
    expect(write({ is: 'pair' }, session({ rearPairsUsed: 5 }))[0]?.body.rearPairsUsed).toBe(6)
    expect(write({ is: 'ease', ease: 2 })[0]?.body.ease).toBe(2)
  })
})

describe('the form of a session', () => {
  const room = { tracks: [{ id: 'field' }], controlTrackId: 'field', drivers: ['Wen'] } as unknown as TrackRoom
  it('gives back what it was filled with', () => {
    const stored = {
      ...RECORD,
      corners: { LF: { coldPa: 155_000, coldK: 282.15, hotPa: 198_000, isBled: false, treadK: null, discK: null }, RF: null, LR: null, RR: null },
    } as never
    const values = sessionDefaults(stored, null, room, 'now', false, UNITS)
    const read = reader(values)
    const body = sessionBody(read, stored)
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({
      trackId: 'field',
      kind: 'laps',
      driver: 'Wen',
      fuelStartL: 28,
      fuelEndL: 16,
      ease: 4,
      logger: 'recorded',
      timing: 'beacon',
      turned: RECORD.turned,
    })
    expect((body.corners as Record<string, { hotPa: number } | null>).LF?.hotPa).toBeCloseTo(198_000, 0)
    expect((body.ambient as { temperatureK: number }).temperatureK).toBeCloseTo(284.15, 6)
  })
  it('a new one takes over track, driver and clock of the last', () => {
    expect(sessionDefaults(null, RECORD as never, room, 'now', false, UNITS)).toMatchObject({
      track: 'field',
      driver: 'Wen',
      timing: 'beacon',
      kind: 'laps',
      stage: 'now',
    })
    expect(sessionDefaults(null, null, room, 'now', true, UNITS)).toMatchObject({ kind: 'runs', track: 'field' })
  })
  test.each([
    [{ cold: '1.5 1.5 1.5' }, 'cold', /four numbers/],
    [{ turned: 'rear bar' }, 'turned', /what; from; to/],
    [{ pairs: 'two' }, 'pairs', /cannot be read/],
    [{ pressure: '1008 hPa' }, 'temperature', /empty/],
    [{ at: 'yesterday' }, 'at', /no date/],
  ] as const)('refuses %j at its field', (values, field, words) => {
    const read = reader({ track: 'field', stage: 'now', kind: 'laps', at: '2026-10-10T09:40', ...values })
    sessionBody(read, null)
    expect(read.errors[field]).toMatch(words)
  })
})

describe('the form of a track', () => {
  it('draws it again as it was told, with its marks', () => {
    const track = {
      name: 'Oval',
      isClosed: true,
      isShared: false,
      segments: [{ lengthM: 100, curvaturePerM: 0, endCurvaturePerM: null, grade: 0.02, camberRad: 0, gripFactor: 1 }],
      marks: [
        { atM: 60, toM: null, kind: 'corner', name: 'Hairpin' },
        { atM: 10, toM: 40, kind: 'zone', name: 'Apron' },
      ],
    }
    const read = reader(trackDefaults(track as never))
    expect(trackBody(read, { trace: null, isTraced: false })).toMatchObject({
      name: 'Oval',
      isClosed: true,
      isShared: false,
      segments: track.segments,
      marks: track.marks,
    })
    expect(read.errors).toEqual({})
  })
  test.each([
    [{ name: 'A', drawn: 'left 30' }, 'drawn', /no degrees/],
    [{ name: 'A', drawn: '100', marks: 'corner; Hairpin' }, 'marks', /kind; name; metres/],
    [{ name: 'A', drawn: '100', marks: 'bend; Hairpin; 20' }, 'marks', /Kinds: corner/],
    [{ name: '', drawn: '100' }, 'name', /empty/],
  ] as const)('refuses %j', (values, field, words) => {
    const read = reader({ isClosed: 'true', ...values })
    trackBody(read, { trace: null, isTraced: false })
    expect(read.errors[field]).toMatch(words)
  })
  it('a trace brings its own pieces, place and cut-off', () => {
    const trace = { track: { segments: [{ lengthM: 5, curvaturePerM: 0.01, grade: 0 }], cutOffM: 25 }, origin: { latitudeDeg: 59, longitudeDeg: 18 } }
    const body = trackBody(reader({ name: 'Traced', isClosed: 'true' }), { trace: trace as never, isTraced: true })
    expect(body).toMatchObject({ line: 'driven', cutOffM: 25, origin: trace.origin, segments: [{ lengthM: 5, gripFactor: 1, camberRad: 0 }] })
  })
})

describe('the form of brakes', () => {
  const values = {
    'front-pistonsOneSideM': '36 40 mm',
    'front-padFriction': '0.45',
    'front-effectiveRadiusM': '135 mm',
    'rear-pistonsOneSideM': '30 30',
    'rear-padFriction': '0.42',
    'rear-effectiveRadiusM': '125 mm',
    rearValve: '1',
  }
  it('reads pistons of one side, and leaves the cylinders out where there are none', () => {
    const read = reader(values)
    const body = keepWindows(brakeForm.body(read), null)
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({
      front: { pistonsOneSideM: [expect.closeTo(0.036, 9), expect.closeTo(0.04, 9)], padWindowK: null },
      rear: { pistonsOneSideM: [expect.closeTo(0.03, 9), expect.closeTo(0.03, 9)] },
      masters: null,
      rearValve: 1,
    })
  })
  it('refuses a piston of another unit, and none', () => {
    const read = reader({ ...values, 'front-pistonsOneSideM': '3.6 4', 'rear-pistonsOneSideM': '' })
    brakeForm.body(read)
    expect(read.errors['front-pistonsOneSideM']).toMatch(/10 to 100 mm/)
    expect(read.errors['rear-pistonsOneSideM']).toMatch(/one side/)
  })
})

describe('an idea in one line', () => {
  test.each([
    ['-12 kg +8 kW', { massKg: -12, powerW: 8000 }],
    ['+2 %', { gripFactor: 1.02 }],
    ['-0.1 m²', { dragAreaM2: -0.1 }],
    ['-10 kg -5 kg', { massKg: -15 }],
    ['-22 lb', { massKg: -22 * 0.45359237 }],
  ])('%s', (line, expected) => {
    const found = readIdea(line, '.', UNITS)
    for (const [key, value] of Object.entries(expected)) expect(found[key as keyof typeof found]).toBeCloseTo(value, 9)
    expect(Object.keys(found)).toEqual(Object.keys(expected))
  })
  test.each([
    ['lighter', /cannot be read/],
    ['-12 stone', /no unit of an idea/],
    ['-12 kg please', /“please” cannot be read/],
  ])('refuses %s', (line, words) => expect(() => readIdea(line, '.', UNITS)).toThrow(words))
})

test('typed laps that a hand cannot have missed by are told, the first of them', () => {
  expect(firstDisagreement([84.9, 85.3, 85], [84.95, 85.1, 90])).toEqual({ lap: 3, typedS: 85, loggedS: 90 })
  expect(firstDisagreement([84.9, 85.3], [84.95, 85.1, 90])).toBeNull()
})

describe('a plan of booked time', () => {
  it('is read a line a step, and says how long it takes', () => {
    const steps = ['bed; 50 %; 3 laps; cool 10 min', 'level; 100 %; 5 laps; if nothing was found', 'check'].map(readStep)
    expect(steps).toMatchObject([
      { kind: 'bed', share: 0.5, wantLaps: 3, coolS: 600, words: null },
      { kind: 'level', share: 1, wantLaps: 5, coolS: 0, words: 'if nothing was found' },
      { kind: 'check', share: null, wantLaps: null },
    ])
    // Half the pace takes twice the lap.
    expect(planTimeS(steps as never, 90)).toBeCloseTo(600 + (3 * 90) / 0.5 + 5 * 90, 9)
    expect(readStep('warm up')).toMatch(/begins with none/)
    expect(readStep('level; 65 %; 3 laps; least 4')).toMatch(/Swap the two/)
  })
  it('is written as it is read', () => {
    for (const line of ['level; 65 %; 5 laps; least 3; x 1.3; cool 5 min; new rear pads', 'other; takes 8 min; four launches']) {
      const step = readStep(line)
      expect(typeof step === 'string' ? step : stepText(step)).toBe(line)
    }
  })
})

describe('what is thought about', () => {
  const line = { id: 'l', name: 'wing', position: 3, change: { massKg: 8, gripFactor: 1.25 }, cost: 380, hours: 12, isOff: false, unsaid: [] as const }
  const part = { id: 'p', name: 'seat', change: null, cost: null, hours: null, unsaid: [] as const }
  it('is taken out of a car that has it, and put into one that has not', () => {
    const pieces = (position: number) => piecesOf({ planned: [line], wished: [part] }, position)
    expect(pieces(2)[0]).toMatchObject({ isIn: false, driven: { massKg: 8, gripFactor: 1.25 } })
    expect(pieces(3)[0]).toMatchObject({ isIn: true, driven: { massKg: -8, gripFactor: 0.8 } })
    expect(pieces(3)[1]).toMatchObject({ position: null, driven: null })
  })
  it('says in one sentence what its seconds leave out', () => {
    expect(leftOut(['power', 'air'])).toBe('its power and air is not in it: nobody said what it gives')
    expect(leftOut(['gears'])).toBe('its gears are not in it: try them in Drivetrain, Gears')
  })
  it('has a price for a tenth only where it gains', () => {
    expect(forATenth(380, -0.5)).toBeCloseTo(76, 9)
    expect([forATenth(380, 0.2), forATenth(null, -0.2), forATenth(380, undefined)]).toEqual([null, null, null])
  })
})

describe('the choice of a fit', () => {
  const value = { lapS: 84.9, sdS: 0.2, timingSdS: 0.05, lapSdS: 0.3, clean: 11 }
  const stands = (id: string, more: object = {}) => session({ id }, { value, ...more })
  const sessions = [stands('a'), stands('b'), stands('wet', { whyNot: 'It was wet.' }), session({ id: 'empty' })]
  it('offers the sessions that stand, the latest first, and stores none where all are taken', () => {
    const offered = fittable(sessions, 'field')
    expect(offered.map(({ record }) => record.id)).toEqual(['b', 'a'])
    expect(fitFieldSpecs(offered, (seconds) => seconds.toFixed(1)).map(({ type }) => type)).toEqual(['select', 'checkbox', 'checkbox'])
    const body = (values: Record<string, string>) => fitBody(reader({ factors: 'grip', ...values }), offered)
    expect(body({ 'session a': 'true', 'session b': 'true' })).toEqual({ factors: 'grip', trackSessionIds: [] })
    expect(body({ 'session a': 'true', 'session b': 'false', factors: 'gripAndBraking' })).toEqual({ factors: 'gripAndBraking', trackSessionIds: ['a'] })
  })
})

it('a session names the setting its engine ran on, or none', () => {
  const form = (setting: string) => sessionBody(reader({ track: 'field', kind: 'laps', at: '2026-10-10T09:40', stage: 'now', setting }), null)
  expect(form('d1 e85')).toMatchObject({ dynoSessionId: 'd1', dynoSettingId: 'e85' })
  expect(form('')).toMatchObject({ dynoSessionId: null, dynoSettingId: null })
})
