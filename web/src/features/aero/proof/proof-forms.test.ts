import { readFileSync } from 'node:fs'
import { type AeroRoom, buildRecordsSchema, type CoastRun, keepFit, makeAeroRoom, openCar, type RoomTest, speedAfter, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../../ui/forms/form-reader.ts'
import { oneDifference, withTestedDrag } from './keep-value.ts'
import { readRunFile } from './read-runs.ts'
import { runText, type TypedRun, testBody, testDefaults, testFieldSpecs } from './test-form.ts'
import { lanesOf } from './tests-figure.tsx'

const UNITS = UNIT_SETS.metric
const records = buildRecordsSchema.parse(JSON.parse(readFileSync('demo/gannet/build.json', 'utf8')))
const room: AeroRoom = makeAeroRoom(openCar(records))
const stages = records.stages as never
const stageAt = (position: number) => records.stages.find((stage) => stage.position === position)?.id ?? ''
const run = (sign: 1 | -1): CoastRun => {
  const timeS = Array.from({ length: 30 }, (_, i) => 2 * i)
  const force = { aN: 185, bNPerMps: 2 * sign * 0.44 * 1.5, cNPerMps2: 0.44, effectiveKg: 1396 }
  return { timeS, speedMps: timeS.map((time) => speedAfter(force, 46, time)) }
}
const body = (values: FormValues, more: { isNew?: boolean; pairCount?: number } = {}) => {
  const read = new FormReader({ ...testDefaults(null, room, stageAt(2), 2, UNITS), placeName: 'north straight', ...values }, UNITS, '.')
  return { made: testBody(read, { room, stages, isNew: true, pairCount: 1, ...more }), errors: read.errors }
}

describe('the form of a test', () => {
  it('begins with the stage and its mass', () => {
    const defaults = testDefaults(null, room, stageAt(2), 2, UNITS)
    expect(defaults).toMatchObject({ kind: 'coastDown', stage: stageAt(2) })
    expect(defaults.mass).toMatch(/^\d{4}(\.\d)? kg$/)
    expect(testFieldSpecs(stages, 'coastDown', 2).filter(({ name }) => /^(out|back)/.test(name))).toHaveLength(4)
    expect(testFieldSpecs(stages, 'steady', 2).some(({ name }) => name === 'points')).toBe(true)
  })
  it('reads a pair in the picked unit back as it was, to a tenth of a millimetre a second', () => {
    const { made, errors } = body({ out0: runText(run(1), UNITS), back0: runText(run(-1), UNITS) })
    expect(errors).toEqual({})
    const [first] = made.runs as [TypedRun & { coast: { out: CoastRun } }]
    expect(first.coast.out.timeS).toEqual(run(1).timeS)
    for (const [i, speed] of first.coast.out.speedMps.entries()) expect(speed).toBeCloseTo(run(1).speedMps[i] as number, 3)
  })
  it('takes the air as it stands there, and the notches of the stage with it', () => {
    const { made } = body({
      stage: stageAt(4),
      pressure: '100.9 kPa',
      temperature: '11.5 °C',
      humidity: '71',
      kind: 'steady',
      points: '60; 1 mm; 2 mm\n120; 4 mm; 8 mm; 0.1\n180; 9 mm; 17 mm',
    })
    expect(made.ambient).toEqual({ pressurePa: 100_900, pressureKind: 'station', temperatureK: expect.closeTo(284.65, 9), relativeHumidity: 0.71 })
    expect(made.picks).toHaveLength(1)
    expect(made.runs).toMatchObject([{ steady: { reading: 'height', points: [{ frontM: 0.001 }, { decelerationMps2: 0.1 }, { decelerationMps2: null }] } }])
  })
  it('takes what a pitot tube read, out and back, as a run each way', () => {
    const { made, errors } = body({ kind: 'steady', points: '60; 1 mm; 2 mm; 0; 180 Pa\n120; 4 mm; 8 mm; 0; 700 Pa', pointsBack: '90; 2 mm; 4 mm; 0; 390 Pa' })
    expect(errors).toEqual({})
    expect(made.runs).toMatchObject([
      { steady: { direction: 'out', points: [{ pitotPa: 180 }, { pitotPa: 700 }] } },
      { steady: { direction: 'back', points: [{ pitotPa: 390, decelerationMps2: 0 }] } },
    ])
  })
  test.each([
    ['a tube one way', { kind: 'steady', points: '60; 1 mm; 2 mm; 0; 180 Pa' }, 'pointsBack', /on the way back as well/],
    ['no run', {}, 'out0', /No run yet/],
    ['one direction', { out0: '0; 180\n1; 175' }, 'back0', /One direction cannot tell/],
    ['half the air', { out0: '0; 180', back0: '0; 180', pressure: '100 kPa' }, 'temperature', /is empty/],
    ['a mass of a person', { out0: '0; 180', back0: '0; 180', mass: '80 kg' }, 'mass', /100 to 5000 kg/],
    ['no place', { out0: '0; 180', back0: '0; 180', placeName: '' }, 'placeName', /is empty/],
    ['no points', { kind: 'steady' }, 'points', /three speeds at least/],
  ] as const)('refuses %s at its field', (_, values, field, message) => {
    expect(body(values).errors[field]).toMatch(message)
  })
  it('a stored test opens as it is, and asks for no runs again', () => {
    const stored = { ...records.aeroTests[0], version: 1 } as never
    const values = testDefaults(stored, room, stageAt(2), 2, UNITS)
    expect(values).toMatchObject({ placeName: 'Skarvholm, back straight', mass: '1342 kg', humidity: '71' })
    const read = new FormReader(values, UNITS, '.')
    expect(testBody(read, { room, stages, isNew: false, pairCount: 1 }).runs).toEqual([])
    expect(read.errors).toEqual({})
  })
})

describe('files of runs', () => {
  const file = (name: string, text: string) => ({ name, text: async () => text })
  it('become the lines of the form, with what was cut off', async () => {
    const { timeS, speedMps } = run(1)
    const rows = [...[10, 20, 30].map((speed, i) => `${i - 6},${speed}`), ...timeS.map((time, i) => `${time},${((speedMps[i] ?? 0) * 3.6).toFixed(4)}`)]
    const found = await readRunFile(file('1.csv', ['time s,speed km/h', ...rows].join('\n')), UNITS)
    expect(found).toMatchObject({ name: '1.csv', told: '30 points, by "time s" and "speed km/h"; cut off 6 s before it' })
    expect('text' in found && found.text.split('\n')[0]).toMatch(/^0; 165\.6/)
  })
  it('say why they cannot be read, and in which unit they were where they name none', async () => {
    expect(await readRunFile(file('2.csv', 'lap,rpm\n1,2\n'), UNITS)).toMatchObject({ refused: expect.stringMatching(/No line heads a time and a speed/) })
    expect(await readRunFile(file('3.csv', 'time;speed\n0;180\n1;170\n'), UNITS)).toMatchObject({ told: expect.stringMatching(/read as km\/h/) })
    expect(await readRunFile(file('4.csv', ''), UNITS)).toMatchObject({ refused: expect.stringMatching(/empty/) })
  })
})

describe('what two tests differ by', () => {
  const held = (id: string, notch: string) => ({ id, name: id, notch: { id: notch, name: notch, force: null, countsAsNothing: false, proof: null } })
  const VALUE = {
    form: 'place',
    downforceM2: 0.2,
    downforceSdM2: 0.06,
    dragM2: 0.03,
    dragSdM2: 0.01,
    proof: 'calculated',
    how: null,
    estimate: null,
    at: '2026-05-01T10:00:00Z',
  } as const
  const notch = (id: string, ...values: object[]) => ({ id, name: id, angleRad: null, countsAsNothing: false, values }) as never
  const tested = { differenceM2: 0.02, sdM2: 0.008, how: 'coast-downs', at: '2026-11-01T10:00:00Z' }
  it('is one device that came on, went off or moved; two are too many', () => {
    const [bare, wing] = [{ held: [held('body', 'a')] }, { held: [held('body', 'a'), held('wing', '1')] }]
    expect(oneDifference(bare, wing)).toEqual({ deviceId: 'wing', name: 'wing', before: null, after: '1' })
    expect(oneDifference(wing, bare)).toMatchObject({ before: '1', after: null })
    expect(oneDifference(wing, { held: [held('body', 'a'), held('wing', '2')] })).toMatchObject({ before: '1', after: '2' })
    expect(oneDifference(bare, { held: [...wing.held, held('lip', 'x')] })).toBeNull()
    expect(oneDifference(bare, bare)).toBeNull()
  })
  it('is kept as its drag; its downforce and how that is known stay', () => {
    const device = { notches: [notch('1', VALUE), notch('2', { ...VALUE, dragM2: 0.04, proof: 'guess' })] }
    const on = withTestedDrag(device, { deviceId: 'wing', name: 'wing', before: null, after: '1' }, tested)
    expect('notches' in on && on.notches[0]?.values.at(-1)).toMatchObject({
      dragM2: 0.02,
      dragSdM2: 0.008,
      downforceM2: 0.2,
      proof: 'calculated',
      how: 'coast-downs',
    })
    expect('notches' in on && on.notches[0]?.values).toHaveLength(2)
    const off = withTestedDrag(device, { deviceId: 'wing', name: 'wing', before: '1', after: null }, { ...tested, differenceM2: -0.02 })
    expect('notches' in off && off.notches[0]?.values.at(-1)).toMatchObject({ dragM2: 0.02 })
    const moved = withTestedDrag(device, { deviceId: 'wing', name: 'wing', before: '1', after: '2' }, tested)
    expect('notches' in moved && moved.notches[1]?.values.at(-1)).toMatchObject({ dragM2: 0.05, proof: 'guess' })
    const unknown = withTestedDrag({ notches: [notch('1')] }, { deviceId: 'wing', name: 'wing', before: null, after: '1' }, tested)
    expect(unknown).toMatchObject({ why: expect.stringMatching(/tells its drag alone/) })
  })
})

it('a lane has the pairs, those that count nowhere too, and what was said before', () => {
  const [lane] = lanesOf(room.tests, 'coastDown')
  expect(lane?.value).toBeCloseTo(0.742, 3)
  expect(lane?.dots).toHaveLength(3)
  expect(lane?.said?.value).toBeCloseTo(0.7, 6)
  expect(lanesOf(room.tests, 'steady')).toEqual([])
  expect(lanesOf([{ ...(room.tests[0] as RoomTest), drag: null }], 'coastDown')).toEqual([])
  expect(keepFit({ out: run(1), back: run(-1) }).windMps).toBeCloseTo(1.5, 2)
})
