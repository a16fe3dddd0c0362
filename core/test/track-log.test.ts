import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { CalculationError } from '../src/errors.ts'
import { lapsOfLog } from '../src/tracklog/laps-of-log.ts'
import { logColumns } from '../src/tracklog/log-channels.ts'
import { levelsOf } from '../src/tracklog/log-levels.ts'
import type { LogRole } from '../src/tracklog/log-roles.ts'
import { loggerWarnings } from '../src/tracklog/logger-health.ts'
import { readRows } from './read-rows.ts'

const table = (head: string, line: (i: number) => string, count = 200) => [
  ['logger 3'],
  head.split(','),
  ...Array.from({ length: count }, (_, i) => line(i).split(',')),
]
/** Once round 60 m in 15.08 s at a place on the Earth, from half a second before the line. */
const ring = (i: number) => {
  const turn = (2 * Math.PI * (i * 0.1 - 0.53)) / 15.08
  return `${59 + (60 - 60 * Math.cos(turn)) / 111_412},${18 + (60 * Math.sin(turn)) / 57_478}`
}
const RING_M = 2 * Math.PI * 60
const track = { origin: { latitudeDeg: 59, longitudeDeg: 18 }, bearingRad: 0, lengthM: RING_M }

describe('columns of a log', () => {
  test.each<[string, LogRole, string]>([
    ['Time (s)', 'time', 's'],
    ['session_time', 'time', ''],
    ['GPS Latitude', 'latitude', ''],
    ['lng', 'longitude', ''],
    ['Speed (km/h)', 'speed', 'km/h'],
    ['GPS Speed, mph', 'speed', 'mph'],
    ['Wheel speed m/s', 'wheelSpeed', 'm/s'],
    ['Engine RPM', 'engineSpeed', ''],
    ['Throttle pos [%]', 'throttle', '%'],
    ['Brake front bar', 'brakeFront', 'bar'],
    ['Front brake pressure', 'brakeFront', ''],
    ['Brake pressure rear', 'brakeRear', ''],
    ['Long acc g', 'along', 'g'],
    ['Lateral acc [g]', 'across', 'g'],
    ['Steering angle', 'steer', ''],
    ['Coolant temp (°C)', 'coolant', '°C'],
    ['Water temp out °C', 'coolantOut', '°C'],
    ['Oil temp', 'oilTemperature', ''],
    ['Oil pressure [psi]', 'oilPressure', 'psi'],
    ['Battery voltage', 'voltage', ''],
    ['Lap number', 'lap', ''],
    ['Lap time', 'other', ''],
    ['Damper LF', 'damperLF', ''],
    ['Ride height front (mm)', 'heightFront', 'mm'],
    ['Pitot (Pa)', 'pitot', 'Pa'],
    ['Damper bump LF', 'other', ''],
  ])('%s is %s in "%s"', (heading, role, unit) => {
    expect(logColumns([heading], undefined, [])[0]).toMatchObject({ role, unit })
  })
  it('what a person said goes before, and a second column of a kind is kept as something else', () => {
    const columns = logColumns(['t', 'Speed', 'GPS speed'], undefined, [{ heading: 'GPS speed', role: 'speed', unit: 'mph' }])
    expect(columns.map(({ role }) => role)).toEqual(['time', 'other', 'speed'])
  })
})

describe('reading a log', () => {
  test.each([
    ['seconds', (i: number) => String(i / 10), 'time s'],
    ['milliseconds', (i: number) => String(100 * i), 'Time (ms)'],
    ['minutes and seconds', (i: number) => `${Math.floor(i / 600)}:${((i / 10) % 60).toFixed(1)}`, 'clock'],
    ['instants', (i: number) => new Date(Date.UTC(2026, 9, 10, 9, 40) + 100 * i).toISOString(), 'UTC'],
  ])('laps by positions, the clock in %s', (_, clock, head) => {
    const log = readRows(table(`${head},Latitude,Longitude`, (i) => `${clock(i)},${ring(i)}`, 500))
    expect(log.problems).toEqual([])
    const laps = lapsOfLog(log, track)
    expect(laps.length).toBe(3)
    for (const { lapS } of laps) expect(Math.abs(lapS - 15.08)).toBeLessThan(0.02)
  })
  it('laps by the logger’s own count where the track has no place', () => {
    const log = readRows(table('time,lap', (i) => `${i / 10},${i < 20 ? 0 : i < 170 ? 1 : 2}`))
    expect(lapsOfLog(log, { origin: null, bearingRad: null, lengthM: 400 })).toEqual([{ fromS: 2, lapS: expect.closeTo(15, 9) }])
  })
  it('a row of units stands below the heading, and numbers become those of the records', () => {
    const log = readRows([
      ['Time', 'Speed', 'RPM', 'Coolant temp'],
      ['s', 'mph', 'rpm', '°F'],
      ...Array.from({ length: 30 }, (_, i) => [`${i / 10}`, '60', '5000', '212']),
    ])
    expect(log.channels.map(({ role, unit, max }) => [role, unit, Number(max.toFixed(3))])).toEqual([
      ['time', 's', 2.9],
      ['speed', 'm/s', 26.822],
      ['engineSpeed', 'rpm', 5000],
      ['coolant', 'K', 373.15],
    ])
  })
  it('an empty cell was not sampled then; a time that comes twice is averaged', () => {
    const log = readRows(table('time,speed m/s,rpm', (i) => `${Math.floor(i / 2) / 10},${i % 2 === 0 ? 20 : 22},${i % 4 === 0 ? 4000 : ''}`))
    expect(log.rowCount).toBe(100)
    expect(log.samples[1]?.every((speed) => speed === 21)).toBe(true)
    expect(log.samples[2]?.slice(0, 3)).toEqual([4000, Number.NaN, 4000])
    expect(log.channels[2]).toMatchObject({ count: 50, gapShare: 0 })
  })
  it('pieces of any size hold the same samples', () => {
    const rows = table('time,speed', (i) => `${i / 50},${40 + (i % 37)}`, 700)
    const whole = readRows(rows).samples
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), (blockSamples) => {
        expect(readRows(rows, { blockSamples }).samples).toEqual(whole)
      }),
      { numRuns: 25 },
    )
  })
  it('least and most of each run, and no number where nothing was sampled', () => {
    fc.assert(
      fc.property(
        fc.array(fc.float({ noNaN: true, noDefaultInfinity: true }), { minLength: 1, maxLength: 300 }),
        fc.integer({ min: 1, max: 70 }),
        (values, per) => {
          const levels = levelsOf(Float32Array.from(values), per)
          for (let run = 0; 2 * run < levels.length; run++) {
            const own = Float32Array.from(values.slice(run * per, (run + 1) * per))
            expect([levels[2 * run], levels[2 * run + 1]]).toEqual([Math.min(...own), Math.max(...own)])
          }
        },
      ),
    )
    expect([...levelsOf(Float32Array.of(Number.NaN, Number.NaN, 3), 2)]).toEqual([Number.NaN, Number.NaN, 3, 3])
  })
})

describe('a first look', () => {
  const steady = (i: number) => `${i / 10},${ring(i)}`
  test.each<[string, readonly (readonly string[])[], RegExp | null]>([
    ['nothing', table('time,lat,lon', steady), null],
    ['a gap', table('time,lat,lon', (i) => `${i < 100 ? i / 10 : i / 10 + 6},${ring(i)}`), /^One gap: nothing was recorded for 6.1 s from 10 s on\.$/],
    ['empty cells', table('time,lat,lon', (i) => (i % 4 === 0 ? `${i / 10},,` : steady(i))), /^50 of 200 lines have no clock or nothing beside it/],
    ['a dead receiver', table('time,lat,lon', (i) => `${i / 10},59,18`), /^The position never moved/],
    ['a clock that goes back', table('time,lap', (i) => `${i === 50 ? 1 : i / 10},1`), /^The clock goes back at line 53 by 3\.9 s: one line was left out/],
    ['a dead channel', table('time,lat,lon,throttle', (i) => `${steady(i)},0`), /^throttle never moved/],
    ['cold coolant', table('time,lat,lon,coolant °C', (i) => `${steady(i)},${40 + (i % 9)}`), /^Coolant reached 48 °C at most/i],
    ['hot coolant', table('time,lat,lon,water temp out °C', (i) => `${steady(i)},${108 + (i % 9)}`), /reached 116 °C/],
    ['a low voltage', table('time,lat,lon,battery V', (i) => `${steady(i)},${i === 7 ? 11.4 : 13.9}`), /fell to 11\.4 V/],
    [
      'm/s named km/h',
      table('time,lat,lon,speed km/h', (i) => `${steady(i)},${25 + (i % 2) / 10}`),
      /^speed is 0\.28 times what positions say: it is in m\/s and was read as km\/h/,
    ],
    [
      'km/h named mph',
      table('time,lat,lon,speed mph', (i) => `${steady(i)},${90 + (i % 2) / 10}`),
      /^speed is 1\.61 times .* it is in km\/h and was read as mph/,
    ],
    [
      'oil thrown aside in corners',
      table(
        'time,lap,speed,rpm,oil pressure bar,lateral acc g',
        (i) => `${i / 20},2,100,6000,${i >= 100 && i < 110 ? 1.4 : 4.2},${i > 95 && i < 115 ? 1.2 : 0.1}`,
      ),
      /^Oil pressure dipped once, at worst to 1\.4 bar at 6000 rpm for 0\.5 s, 5\.0 s into the log, lap 2, cornering at 1\.2 g\./,
    ],
    ['little oil pressure at idle alone', table('time,lap,speed,rpm,oil pressure bar', (i) => `${i / 20},2,${i % 7},900,0.9`), /^(?!.*Oil pressure)/],
    ['a jump', table('time,lat,lon', (i) => (i === 60 ? '6,10,18' : steady(i))), /^1 positions lie over 50 km away/],
  ])('tells %s', (_, rows, words) => {
    const { problems } = readRows(rows)
    if (words === null) expect(problems).toEqual([])
    else expect(problems.join('\n')).toMatch(words)
  })
  test.each([
    [
      'no heading',
      () =>
        readRows([
          ['rpm', 'boost'],
          ['1', '2'],
        ]),
      /Found "rpm", "boost"/,
    ],
    ['a logger that recorded nothing', () => readRows(table('time,lap', (i) => `${i},0`, 3)), /recorded nothing that a lap/],
    [
      'a unit nobody knows',
      () =>
        readRows(
          table('time,speed knots', (i) => `${i},0`),
          { mapping: [{ heading: 'speed knots', role: 'speed', unit: 'knots' }] },
        ),
      /is in "knots"/,
    ],
    [
      'another track',
      () => lapsOfLog(readRows(table('time,lat,lon', steady, 500)), { ...track, origin: { latitudeDeg: 59.01, longitudeDeg: 18 } }),
      /never crosses/,
    ],
    ['a longer track', () => lapsOfLog(readRows(table('time,lat,lon', steady, 500)), { ...track, lengthM: 400 }), /is 37\d m long, the track 400 m/],
    [
      'another country',
      () => lapsOfLog(readRows(table('time,lat,lon', steady)), { ...track, origin: { latitudeDeg: 48, longitudeDeg: 11 } }),
      /km from the first/,
    ],
    [
      'positions on a track drawn in words',
      () => lapsOfLog(readRows(table('time,lat,lon', steady)), { origin: null, bearingRad: null, lengthM: RING_M }),
      /no place on the Earth/,
    ],
    [
      'a count that never changes',
      () => lapsOfLog(readRows(table('time,lap', (i) => `${i},3`)), { origin: null, bearingRad: null, lengthM: RING_M }),
      /no whole lap/,
    ],
  ])('refuses %s', (_, work, words) => {
    expect(work).toThrow(words)
    expect(work).toThrow(CalculationError)
  })
})

describe('a logger before the car goes out', () => {
  const ready = { clockMs: 1e12, hasPosition: true, freeShare: 0.6, voltageV: 13.6, isRecording: true }
  test.each([
    ['ready', {}, []],
    ['not recording', { isRecording: false }, [/not recording/]],
    ['without a position and full', { hasPosition: false, freeShare: 0.01 }, [/no position/, /99 % full/]],
    ['on a weak battery', { voltageV: 11.2 }, [/11\.2 V/]],
    ['three days off', { clockMs: 1e12 - 3 * 86_400_000 }, [/3 days off/]],
    ['an hour and a half off', { clockMs: 1e12 + 5_400_000 }, [/2 h off/]],
    ['five minutes off', { clockMs: 1e12 + 300_000 }, [/5 min off/]],
  ] as const)('%s', (_, change, words) => {
    const found = loggerWarnings({ ...ready, ...change }, 1e12)
    expect(found).toHaveLength(words.length)
    for (const [i, each] of words.entries()) expect(found[i]).toMatch(each)
  })
})
