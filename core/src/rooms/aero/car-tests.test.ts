import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { axles, carWith, DEVICES, LAST, notch } from '../../../test/aero-car.ts'
import { axleDropM } from '../../aero/axle-springs.ts'
import { makeBoard } from '../../board/board.ts'
import { makeAeroRoom } from './aero-room.ts'
import { carTests } from './car-tests.ts'
import type { StageAxle } from './springs.ts'
import { aeroValue, areasAtTyres } from './stage-aero.ts'
import { AERO_WORKINGS } from './workings.ts'

const STATION = { pressurePa: 101_325, pressureKind: 'station', temperatureK: 288.15, relativeHumidity: 0 }
const RHO = 1.225
const MASS = { massKg: 1340, massSdKg: 0, rotatingKg: 55 }

/** What is kept of a pair whose drag area is that. */
const fitFor = (dragAreaM2: number) => ({
  aMps2: 0.13,
  cPerM: (0.5 * RHO * dragAreaM2) / (MASS.massKg + MASS.rotatingKg),
  windMps: 1,
  slopeMps2: 0.01,
  residualMps: 0.05,
  startMps: [40, 40],
})
const RUN = { timeS: [0, 1, 2, 3, 4, 5, 6, 7], speedMps: [40, 38, 36, 34, 31, 28, 26, 24] }
const coast = (id: string, testId: string, dragAreaM2: number, more: object = {}) => ({
  id,
  testId,
  position: 0,
  coast: { out: RUN, back: RUN, fit: fitFor(dragAreaM2) },
  ...more,
})
const coastTest = (id: string, stageId: string, at: string, more: object = {}) => ({
  id,
  stageId,
  at,
  kind: 'coastDown',
  placeName: `strip of ${id}`,
  ambient: STATION,
  ...MASS,
  ...more,
})
// Three pairs whose mean and spread are those of the worked example: .742 +- .015, with .5 % of air in it.
const S = Math.sqrt(3 * (0.015 ** 2 - (0.005 * 0.742) ** 2))
const BARE = [coastTest('bare', 'bought', '2026-04-01T10:00:00Z')]
const BARE_PAIRS = [0.742 - S, 0.742, 0.742 + S].map((area, i) => coast(`p${i}`, 'bare', area, { position: i }))

describe('drag that rests on coast-downs', () => {
  const car = carWith({ aeroTests: BARE, aeroRuns: BARE_PAIRS })
  it('is the test at its own stage, measured, and with the devices since at the last: the worked example', () => {
    expect(aeroValue(car, 0, 'dragArea')).toMatchObject({ proof: 'measured', fromPosition: null })
    expect(aeroValue(car, 0, 'dragArea')?.value).toBeCloseTo(0.742, 6)
    expect(aeroValue(car, 0, 'dragArea')?.sd).toBeCloseTo(0.015, 6)
    const last = aeroValue(car, LAST, 'dragArea')
    expect(last?.value).toBeCloseTo(0.7674, 4)
    expect(last?.sd).toBeCloseTo(0.035, 4)
    // Canards are a guess, and a sum is no surer than what it is made of.
    expect(last?.proof).toBe('guess')
    expect(last?.fromPosition).toBe(0)
  })
  it('its working begins with the test and adds what differs since', () => {
    const working = AERO_WORKINGS.dragArea(car, car.stages[LAST]?.id ?? '')
    expect(working?.lines.map(({ label, value }) => [label.split(',')[0], value === null ? null : Number(value.toFixed(4))])).toEqual([
      ['strip of bare', 0.742],
      ['splitter', 0.006],
      ['canards', 0.01],
      ['floor', -0.015],
      ['wing', 0.0244],
    ])
    expect(working?.remarks[0]).toMatch(/starts from a test/)
  })
  it('downforce stays the sum of devices', () => {
    expect(aeroValue(car, LAST, 'downforce')?.value).toBeCloseTo(1017.4, 1)
  })
  it('needs no body of its own where a test had it in, and names what came on since and nobody knows', () => {
    const bodiless = carWith({ aeroDevices: DEVICES.slice(1), aeroTests: BARE, aeroRuns: BARE_PAIRS })
    expect(aeroValue(bodiless, LAST, 'dragArea')?.value).toBeCloseTo(0.7674, 4)
    const unknown = DEVICES.map((device) => (device.id === 'floor' ? { ...device, notches: [notch('one')] } : device))
    expect(aeroValue(carWith({ aeroDevices: unknown, aeroTests: BARE, aeroRuns: BARE_PAIRS }), LAST, 'dragArea')).toBeUndefined()
  })
  it('what is unknown in both cancels', () => {
    const unknown = DEVICES.map((device) => (device.id === 'floor' ? { ...device, changeId: null, notches: [notch('one')] } : device))
    const known = aeroValue(carWith({ aeroDevices: unknown, aeroTests: BARE, aeroRuns: BARE_PAIRS }), LAST, 'dragArea')
    expect(known?.value).toBeCloseTo(0.7674 + 0.015, 4)
  })
  it('another notch of one device is known to a tenth of the step at best', () => {
    const tests = [coastTest('late', 'strip', '2026-06-01T10:00:00Z', { picks: [{ deviceId: 'wing', notchId: 'hole 2' }] })]
    const done = ['lip', 'canards', 'floor', 'wing']
    const built = carWith({ aeroTests: tests, aeroRuns: [coast('p', 'late', 0.76)] })
    const changes = built.records.changes.map((change) => (done.includes(change.id) ? { ...change, state: 'done', doneAt: '2026-05-20T10:00:00Z' } : change))
    const at = carWith({ changes, aeroTests: tests, aeroRuns: [coast('p', 'late', 0.76)] })
    const drag = (hole: number) => DEVICES[4]?.notches[hole]?.values[0] as unknown as { dragM2: number; dragSdM2: number }
    const found = aeroValue(at, LAST, 'dragArea')
    expect(found?.value).toBeCloseTo(0.76 + drag(3).dragM2 - drag(1).dragM2, 6)
    expect(found?.proof).toBe('calculated')
    const share = Math.max(0.1, drag(3).dragSdM2 / drag(3).dragM2, drag(1).dragSdM2 / drag(1).dragM2)
    expect(found?.sd).toBeCloseTo(Math.hypot(0.05 * 0.76, 0.005 * 0.76, share * (drag(3).dragM2 - drag(1).dragM2)), 6)
  })
  it('two days that agree within 4 % confirm; one day twice does not', () => {
    const more = (at: string) => ({
      aeroTests: [...BARE, coastTest('again', 'bought', at)],
      aeroRuns: [...BARE_PAIRS, ...[0.75 - S, 0.75, 0.75 + S].map((area, i) => coast(`q${i}`, 'again', area, { position: i }))],
    })
    expect(aeroValue(carWith(more('2026-04-08T10:00:00Z')), 0, 'dragArea')?.proof).toBe('confirmed')
    expect(aeroValue(carWith(more('2026-04-01T15:00:00Z')), 0, 'dragArea')?.proof).toBe('measured')
  })
  it('a pair set aside counts nowhere and stays in sight; a test without one says what is missing', () => {
    const aside = BARE_PAIRS.map((pair, i) => (i === 2 ? { ...pair, setAside: 'a lorry' } : pair))
    const found = carTests(carWith({ aeroTests: BARE, aeroRuns: aside }))[0]
    expect(found?.pairs).toHaveLength(3)
    expect(found?.drag?.areaM2).toBeCloseTo(0.742 - S / 2, 6)
    const none = carTests(carWith({ aeroTests: BARE, aeroRuns: aside.map((pair) => ({ ...pair, setAside: 'rain' })) }))[0]
    expect(none).toMatchObject({ drag: null, whyNot: expect.stringMatching(/One direction cannot tell/) })
  })
  test.each([
    ['a device of it was not yet on', 'strip', '2026-06-01T10:00:00Z', /was not done by then/],
    ['a later one was on', 'bought', '2026-06-01T10:00:00Z', /of a later stage was done/],
  ] as const)('a test is of no stage where %s', (_, stageId, at, why) => {
    const base = carWith()
    const changes = base.records.changes.map((change) => (change.id === 'lip' ? { ...change, state: 'done', doneAt: '2026-05-20T10:00:00Z' } : change))
    const odd = carWith({ changes, aeroTests: [coastTest('odd', stageId, at)], aeroRuns: [coast('p', 'odd', 0.742)] })
    expect(carTests(odd)[0]?.whyNot).toMatch(why)
    expect(aeroValue(odd, 0, 'dragArea')?.proof).not.toBe('measured')
  })
  it('tells how far off the devices were, and What next says it beyond two spreads', () => {
    const told = makeAeroRoom(car).tests[0]?.told
    expect(told).toMatchObject({ of: 'drag', isOff: false, fromTest: null })
    expect(told?.highBy).toBeCloseTo(0.7 / 0.742 - 1, 6)
    const off = carWith({ aeroTests: BARE, aeroRuns: BARE_PAIRS.map((_, i) => coast(`p${i}`, 'bare', 0.9 + (i - 1) * S)) })
    const item = makeBoard(off, '2026-06-01').next.find(({ code }) => code === 'aero-test-disagrees')
    expect(item).toMatchObject({ of: 'drag', byTest: false })
  })
  it('a drag target asks to coast down until the car did', () => {
    const target = { id: 't', metric: 'dragArea', sense: 'atMost', value: 0.8, dueStageId: 'bought' }
    const asks = (more: object) => makeBoard(carWith({ targets: [target], ...more }), '2026-06-01').next.some((item) => /"dragArea"/.test(JSON.stringify(item)))
    expect(asks({})).toBe(true)
    expect(asks({ aeroTests: BARE, aeroRuns: BARE_PAIRS })).toBe(false)
  })
})

describe('whatever was tested', () => {
  const area = fc.double({ min: 0.4, max: 1.2, noNaN: true })
  it('the value at a test is the test, to the last digit of its fit, and a device that is there and was there alters nothing', () => {
    fc.assert(
      fc.property(fc.array(area, { minLength: 2, maxLength: 5 }), area, (areas, bodyM2) => {
        const devices = DEVICES.map((device) => (device.id === 'body' ? { ...device, notches: [notch('one', axles(0, 0, 0, 0, bodyM2, 0.2))] } : device))
        const found = carWith({
          aeroDevices: devices,
          aeroTests: BARE,
          aeroRuns: areas.map((own, i) => coast(`p${i}`, 'bare', own, { position: i })),
        })
        expect(aeroValue(found, 0, 'dragArea')?.value).toBeCloseTo(areas.reduce((sum, own) => sum + own, 0) / areas.length, 6)
        const since = (aeroValue(found, LAST, 'dragArea')?.value ?? 0) - (aeroValue(found, 0, 'dragArea')?.value ?? 0)
        expect(since).toBeCloseTo(0.7674 - 0.742, 4)
      }),
      { numRuns: 15 },
    )
  })
  it('loads grow as density times the square of speed, and the balance asks for neither', () => {
    const build = carWith().records.build
    fc.assert(
      fc.property(fc.double({ min: 20, max: 90, noNaN: true }), fc.double({ min: 1, max: 1.3, noNaN: true }), (speedMps, airDensityKgM3) => {
        const own = carWith({ build: { ...build, airDensityKgM3, aeroBasis: { speedMps } } })
        const [base, other] = [aeroValue(carWith(), LAST, 'downforce')?.value ?? 0, aeroValue(own, LAST, 'downforce')?.value ?? 0]
        expect(other / base).toBeCloseTo((airDensityKgM3 * speedMps ** 2) / (build.airDensityKgM3 * 50 ** 2), 9)
        expect(aeroValue(own, LAST, 'aeroBalance')?.value).toBeCloseTo(aeroValue(carWith(), LAST, 'aeroBalance')?.value ?? 0, 12)
      }),
      { numRuns: 15 },
    )
  })
})

describe('loads that rest on steady runs', () => {
  const SPEEDS = [15, 30, 45, 60]
  const base = carWith()
  const springs = makeAeroRoom(base).stages[0] as unknown
  const steadyRun = (frontM2: number, rearM2: number, reading: 'height' | 'wheel' = 'height') => ({
    id: `s${frontM2}`,
    testId: 'steady',
    position: 0,
    steady: {
      reading,
      points: SPEEDS.map((speedMps) => {
        const drop = (axle: 'front' | 'rear', areaM2: number) =>
          axleDropM((springs as Record<'front' | 'rear', StageAxle>)[axle].springs, 0.5 * RHO * speedMps ** 2 * areaM2)
        return { speedMps, frontM: 0.002 + drop('front', frontM2), rearM: drop('rear', rearM2) - 0.001 }
      }),
    },
  })
  const test = { ...coastTest('steady', 'bought', '2026-04-01T10:00:00Z'), kind: 'steady' }
  const car = carWith({ aeroTests: [test], aeroRuns: [steadyRun(0.15, 0.1)] })
  it('give downforce and balance of the stage back, measured, and reach the tyres of later stages', () => {
    const q = 0.5 * base.records.build.airDensityKgM3 * 50 ** 2
    expect(aeroValue(car, 0, 'downforce')?.value).toBeCloseTo(0.25 * q, 3)
    expect(aeroValue(car, 0, 'downforce')?.proof).toBe('measured')
    expect(aeroValue(car, 0, 'aeroBalance')?.value).toBeCloseTo(0.6, 5)
    const [devices, tested] = [areasAtTyres(base, LAST), areasAtTyres(car, LAST)]
    expect((tested?.frontM2 ?? 0) - (devices?.frontM2 ?? 0)).toBeCloseTo(0.15 - -0.02, 5)
    expect((tested?.rearM2 ?? 0) - (devices?.rearM2 ?? 0)).toBeCloseTo(0.1 - -0.07, 5)
    expect(carTests(car)[0]?.loads?.frontSdM2).toBeGreaterThan(0.02 * 0.15)
  })
  it('stand over the speed of the air where a pitot tube read it both ways: wind and the tube’s own error fall out', () => {
    const WIND = 4
    const run = (direction: 'out' | 'back') => {
      const { steady } = steadyRun(0.15, 0.1)
      // Over the ground it was slower by the wind out, and quicker back; the tube reads 6 % too much.
      const points = steady.points.map((point) => ({
        ...point,
        speedMps: point.speedMps - (direction === 'out' ? WIND : -WIND),
        pitotPa: 1.06 * 0.5 * RHO * point.speedMps ** 2,
      }))
      return { id: direction, testId: 'steady', position: direction === 'out' ? 0 : 1, steady: { ...steady, direction, points } }
    }
    const [found] = carTests(carWith({ aeroTests: [test], aeroRuns: [run('out'), run('back')] }))
    expect(found?.pitot).toEqual({ factor: expect.closeTo(1.06, 6), headWindMps: expect.closeTo(WIND, 5) })
    expect([found?.loads?.frontM2, found?.loads?.rearM2]).toEqual([expect.closeTo(0.15, 5), expect.closeTo(0.1, 5)])
    const [alone] = carTests(carWith({ aeroTests: [test], aeroRuns: [run('out')] }))
    expect(alone?.whyNot).toMatch(/One direction cannot tell the wind/)
    const [untold] = carTests(carWith({ aeroTests: [test], aeroRuns: [steadyRun(0.15, 0.1)] }))
    expect(untold?.pitot).toBeNull()
  })
  it('stand only where balance is read at the tyres', () => {
    const geometric = carWith({
      build: { ...base.records.build, aeroBasis: { balanceSchool: 'geometric' } },
      aeroTests: [test],
      aeroRuns: [steadyRun(0.15, 0.1)],
    })
    expect(aeroValue(geometric, 0, 'downforce')?.proof).toBe('guess')
  })
  it('are refused in words: two ways of reading, no springs, no points', () => {
    const why = (more: object) => carTests(carWith({ aeroTests: [test], aeroRuns: [steadyRun(0.15, 0.1)], ...more }))[0]?.whyNot
    expect(why({ aeroRuns: [steadyRun(0.15, 0.1), { ...steadyRun(0.2, 0.1, 'wheel') }] })).toMatch(/different ways/)
    expect(why({ aeroRuns: [] })).toMatch(/three speeds at least/)
    expect(why({ build: { ...base.records.build, suspension: null } })).toMatch(/type those of this stage/)
  })
})
