import { describe, expect, it, test } from 'vitest'
import { STANDARD_GRAVITY_MPS2 as G } from '../src/mass/suspension.ts'
import { cornersOf } from '../src/track/corners.ts'
import { trackShape } from '../src/track/track.ts'
import { cornerSides } from '../src/tracklog/corner-sides.ts'
import { LapDriver } from '../src/tracklog/drive-log.ts'
import { driverHeld } from '../src/tracklog/driver-held.ts'
import { gapByClock, lapTrace } from '../src/tracklog/lap-trace.ts'
import { lapsOfLog } from '../src/tracklog/laps-of-log.ts'
import { leftOverCauses, powerAgainst, powerWindows } from '../src/tracklog/power-windows.ts'
import { FITTED_CAR, LOG_CAR, SKARVHOLM } from './example-fixtures.ts'
import { readRows } from './read-rows.ts'

const RING_M = 2 * Math.PI * 60
const track = { origin: { latitudeDeg: 59, longitudeDeg: 18 }, bearingRad: 0, lengthM: RING_M }

/** Laps of the worked example as a logger would write them, 20 rows a second. */
function drivenRows(slower: number, laps: number): string[][] {
  const driver = new LapDriver(SKARVHOLM, FITTED_CAR, { ...track, slower })
  const rows = [['time', 'lat', 'lon', 'speed m/s', 'rpm', 'throttle', 'lap']]
  for (let t = 0; t < driver.lapS * laps + 2; t += 0.05) {
    const row = driver.at(t)
    rows.push([
      t.toFixed(3),
      row.latitudeDeg.toFixed(8),
      row.longitudeDeg.toFixed(8),
      row.speedMps.toFixed(4),
      row.engineRpm.toFixed(1),
      (100 * row.throttle).toFixed(0),
      String(row.lap),
    ])
  }
  return rows
}
const place = { ...track, lengthM: trackShape(SKARVHOLM).lengthM }

describe('laps of a log along the track', () => {
  const logs = [1, 1.01].map((slower) => {
    const log = readRows(drivenRows(slower, 2))
    const [, , , speed = []] = log.samples
    return { log, speed, laps: lapsOfLog(log, place) }
  })
  it('gives back the laps that were driven', () => {
    for (const [i, slower] of [1, 1.01].entries()) {
      const { lapS } = new LapDriver(SKARVHOLM, FITTED_CAR, { ...track, slower })
      expect(logs[i]?.laps).toHaveLength(1)
      expect(Math.abs((logs[i]?.laps[0]?.lapS ?? 0) - lapS)).toBeLessThan(0.02)
    }
  })
  const shape = trackShape(SKARVHOLM)
  test.each(['positions', 'speed'] as const)('a gap by %s begins at nought, ends at the difference and turns with the sides', (by) => {
    const [a, b] = logs.map(({ log, speed, laps }) => {
      const lap = laps[0] as { fromS: number; lapS: number }
      const samples = { timeS: log.timeS, speedMps: speed, east: by === 'positions' ? log.east : null, north: log.north }
      return { ...lapTrace(samples, lap, { lengthM: place.lengthM, line: by === 'positions' ? shape : null }), lapS: lap.lapS }
    })
    if (!a || !b) throw new Error('two laps')
    expect(a.by).toBe(by)
    const at = [0, 500, 1500, place.lengthM]
    const gap = gapByClock(a, b, place.lengthM, at)
    expect(gap[0]).toBe(0)
    expect(gap[3]).toBeCloseTo(b.lapS - a.lapS, 9)
    expect(gapByClock(b, a, place.lengthM, at)).toEqual(gap.map((seconds) => 0 - seconds))
    // One is a hundredth slower all the way, so half way round half is lost, or nearly.
    expect(Math.abs((gap[2] as number) - 0.01 * (a.timeS[a.atM.findIndex((s) => s >= 1500)] as number))).toBeLessThan(0.05)
  })
  it('what corners lose makes up the difference, and a slower lap is slower in each', () => {
    const [a, b] = logs.map(({ log, speed, laps }) => {
      const lap = laps[0] as { fromS: number; lapS: number }
      const trace = lapTrace({ timeS: log.timeS, speedMps: speed, east: null, north: null }, lap, { lengthM: place.lengthM, line: null })
      return { ...trace, lapS: lap.lapS, speedMps: trace.rows.map((row) => speed[row] as number) }
    })
    if (!a || !b) throw new Error('two laps')
    const sides = cornerSides(a, b, place.lengthM, cornersOf(SKARVHOLM))
    expect(sides.reduce((sum, { lostS }) => sum + lostS, 0)).toBeCloseTo(b.lapS - a.lapS, 9)
    for (const { leastA, leastB } of sides) expect(leastB).toBeLessThan(leastA)
  })
  it('refuses a speed of another scale', () => {
    const { log, speed, laps } = logs[0] as (typeof logs)[number]
    const samples = { timeS: log.timeS, speedMps: speed.map((v) => v * 1.05), east: null, north: null }
    expect(() => lapTrace(samples, laps[0] as { fromS: number; lapS: number }, { lengthM: place.lengthM, line: null })).toThrow(
      /another track, or a speed of wrong scale/,
    )
  })
})

/** A pull by a known power: speed by small steps of m_e dv/dt = P/(1 + slip)/v - qC - c m g. */
function pull({
  powerW,
  massKg = 1180,
  effectiveKg = 1321.54,
  dragAreaM2 = 0.7,
}: {
  powerW: number
  massKg?: number
  effectiveKg?: number
  dragAreaM2?: number
}) {
  const samples = { timeS: [] as number[], speedMps: [] as number[], engineRpm: [] as number[], throttle: [] as number[] }
  let v = 26
  for (let t = 0; t < 6; t += 0.05) {
    samples.timeS.push(t)
    samples.speedMps.push(v)
    samples.engineRpm.push(((v * 1.02 * 5.655) / 0.308) * (30 / Math.PI))
    samples.throttle.push(t < 4.5 ? 1 : 0)
    for (let k = 0; k < 50; k++) v += (((t < 4.5 ? powerW / 1.02 : 0) / v - 0.5 * 1.19 * v * v * dragAreaM2 - 0.013 * massKg * G) / effectiveKg) * 0.001
  }
  return samples
}
const gears = { overallRatios: [7.605, 5.655, 4.485], effectiveKg: [1398, 1321.54, 1286], radiusM: 0.308 }
const { effectiveMassKg: _, ...LOGGED } = LOG_CAR

describe('power out of a log', () => {
  it('a log made from a known power gives it back within half a per cent', () => {
    const [found, ...more] = powerWindows({ samples: pull({ powerW: 210_000 }), car: LOGGED, ...gears })
    expect(more).toEqual([])
    expect(found).toMatchObject({ gear: 2, fromS: expect.closeTo(0.35, 0) })
    const { ratio } = powerAgainst([found?.points ?? []], { speedRpm: [3000, 9000], powerW: [210_000, 210_000] })
    expect(Math.abs(ratio - 1)).toBeLessThan(0.005)
  })
  it('without a throttle channel, what gains speed steadily counts', () => {
    const { throttle: _throttle, ...samples } = pull({ powerW: 180_000 })
    expect(powerWindows({ samples: { ...samples, throttle: null }, car: LOGGED, ...gears })[0]?.gear).toBe(2)
  })
  test.each([
    ['mass', { massKg: 1180, effectiveKg: 1421 }],
    ['drag', { dragAreaM2: 1.1 }],
  ] as const)('a car of another %s is told by what is left over', (cause, fault) => {
    const [found] = powerWindows({ samples: pull({ powerW: 210_000, ...fault }), car: LOGGED, ...gears })
    const moments = (found?.points ?? []).map(({ powerW, speedMps, accelerationMps2 }) => ({
      forceN: (210_000 - powerW) / speedMps,
      speedMps,
      accelerationMps2,
    }))
    expect(leftOverCauses(moments)[0]?.cause).toBe(cause)
  })
  test.each([
    [
      'no pull',
      () => powerWindows({ samples: { ...pull({ powerW: 210_000 }), throttle: Array(130).fill(0.3) }, car: LOGGED, ...gears }),
      /No stretch of full throttle/,
    ],
    ['other gears', () => powerWindows({ samples: pull({ powerW: 210_000 }), car: LOGGED, ...gears, overallRatios: [9, 8.5, 7.9] }), /fits a gear of this car/],
    [
      'four a second',
      () => {
        const fine = pull({ powerW: 210_000 })
        const coarse = Object.fromEntries(Object.entries(fine).map(([key, list]) => [key, list.filter((_value, i) => i % 5 === 0)]))
        return powerWindows({ samples: coarse as unknown as typeof fine, car: LOGGED, ...gears })
      },
      /Too coarse to differentiate: 10 Hz or more/,
    ],
    [
      'a curve elsewhere',
      () => powerAgainst([[{ speedRpm: 5000, powerW: 1, sdW: 1 }]], { speedRpm: [6000, 7000], powerW: [1, 1] }),
      /within the speeds of the dyno/,
    ],
    ['too few moments', () => leftOverCauses([]), /Three moments or more/],
  ])('refuses %s', (_what, work, words) => {
    expect(work).toThrow(words)
  })
})

describe('what the driver holds', () => {
  const count = 60
  const list = (of: (i: number) => number) => Array.from({ length: count }, (_, i) => of(i))
  const lap = (over: object = {}) => ({
    atM: list((i) => 3 * i),
    timeS: list((i) => i / 10),
    speedMps: list(() => 30),
    throttle: list((i) => (i < 20 ? 1 : 0.4)),
    alongMps2: list(() => 0),
    acrossMps2: list((i) => (i >= 40 ? 11.4 : 3)),
    ...over,
  })
  it('is neither at full throttle nor at the grip', () => {
    expect(driverHeld(lap(), FITTED_CAR)).toEqual([{ fromM: 60, toM: 117, seconds: expect.closeTo(1.9, 9) }])
  })
  it('is braking softer than the lap shows that it can', () => {
    const braking = (soft: number) => lap({ alongMps2: list((i) => (i < 30 ? -9 : -9 * soft)), throttle: list(() => 0), acrossMps2: list(() => 0) })
    expect(driverHeld(braking(0.6), FITTED_CAR)).toEqual([{ fromM: 90, toM: 177, seconds: expect.closeTo(2.9, 9) }])
    expect(driverHeld(braking(0.95), FITTED_CAR)).toEqual([])
  })
  it('is not a shift, and nothing is said where nothing was sampled', () => {
    expect(driverHeld(lap({ throttle: list((i) => (i === 30 || i === 31 ? 0 : 1)) }), FITTED_CAR)).toEqual([])
    expect(driverHeld(lap({ throttle: list(() => Number.NaN) }), FITTED_CAR)).toEqual([])
    expect(() => driverHeld(lap({ throttle: [1] }), FITTED_CAR)).toThrow(/differ in their number/)
  })
  it('is less where the car has less grip to give', () => {
    const all = lap({ throttle: list(() => 0.5), acrossMps2: list((i) => 0.2 * i) })
    const seconds = (gripFactor: number) => driverHeld(all, { ...FITTED_CAR, gripFactor }).reduce((sum, each) => sum + each.seconds, 0)
    expect(seconds(0.8)).toBeLessThan(seconds(1))
  })
})
