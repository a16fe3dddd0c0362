import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_LAP_CAR as CAR, EXAMPLE_AIRFIELD as FIELD, EXAMPLE_FITTED as FITTED, EXAMPLE_OVAL as OVAL } from '../src/calculations/examples/example-lap.ts'
import { CalculationError } from '../src/errors.ts'
import { abaEffect } from '../src/stats/a-b-a.ts'
import { bestLaps, sessionLap } from '../src/stats/best-laps.ts'
import { compareLaps } from '../src/stats/compare-laps.ts'
import { lapsNeeded, smallestDifferenceS } from '../src/stats/laps-needed.ts'
import { rankBound, rankSumCounts } from '../src/stats/rank-sum.ts'
import { sectorMedians } from '../src/stats/sector-medians.ts'
import { cornersOf, slowestIn } from '../src/track/corners.ts'
import { lapOf } from '../src/track/lap.ts'
import { lapGears, PowerAlong } from '../src/track/lap-car.ts'
import { changedLapCar } from '../src/track/lap-change.ts'
import { fitGrip, fitGripAndBraking, sectorSeconds } from '../src/track/lap-fit.ts'
import { forecastLap } from '../src/track/lap-forecast.ts'
import { pullLever, wishedSets } from '../src/track/lap-wish.ts'
import { lapWorth } from '../src/track/lap-worth.ts'
import { closureProblems, trackCells, trackShape } from '../src/track/track.ts'
import { tyreLimits } from '../src/track/tyre-limits.ts'
import { readTread } from '../src/tyres/tread.ts'

const STEP = { stepM: 3 }
const G = 9.80665

describe('drivelines and splits', () => {
  const place = { curvaturePerM: 0, grade: 0, camberRad: 0, gripFactor: 1 }
  const still = { ...CAR, loadSensitivity: 0, airDensityKgM3: 0, rollingCoefficient: 0 }
  const H = CAR.centreHeightM / CAR.wheelbaseM
  const weight = CAR.massKg * G
  test.each([
    ['rear', (CAR.friction * weight * 0.48) / (1 - CAR.friction * H)],
    ['front', (CAR.friction * weight * 0.52) / (1 + CAR.friction * H)],
    ['all', CAR.friction * weight],
  ] as const)('%s drive pulls what statics give', (drivenAxles, expected) => {
    expect(tyreLimits({ ...still, drivenAxles }).at(place, 10).tractionN).toBeCloseTo(expected, 6)
  })
  it('a fixed split is held by its weaker axle: all to the rear is rear drive', () => {
    const of = (rearTorqueShare: number) => tyreLimits({ ...still, drivenAxles: 'all', rearTorqueShare }).at(place, 10).tractionN
    expect(of(1)).toBeCloseTo(tyreLimits({ ...still, drivenAxles: 'rear' }).at(place, 10).tractionN, 6)
    expect(of(0)).toBeCloseTo(tyreLimits({ ...still, drivenAxles: 'front' }).at(place, 10).tractionN, 6)
    expect(Math.max(...[0.3, 0.5, 0.7, 0.9].map(of))).toBeLessThanOrEqual(CAR.friction * weight + 1e-6)
  })
  it('brakes split as the loads are stop hardest', () => {
    const best = tyreLimits({ ...still, brakeFrontShare: null }).at(place, 10).brakingN
    for (const brakeFrontShare of [0.4, 0.6, 0.75, 0.9])
      expect(tyreLimits({ ...still, brakeFrontShare }).at(place, 10).brakingN).toBeLessThanOrEqual(best + 1e-6)
  })
  it('a slope and a lean are gravity', () => {
    const up = tyreLimits(still).at({ ...place, grade: 0.1 }, 10)
    expect(up.slopeN).toBeCloseTo(weight * Math.sin(Math.atan(0.1)), 6)
    expect(up.frontN + up.rearN).toBeCloseTo(weight * Math.cos(Math.atan(0.1)), 6)
    // Leaning so that gravity does the turning: nothing is asked of the tyres.
    const [v, R] = [20, 100]
    const banked = tyreLimits(still).at({ ...place, curvaturePerM: 1 / R, camberRad: Math.atan((v * v) / (R * G)) }, v)
    expect(banked.use).toBeCloseTo(0, 9)
  })
})

describe('gears', () => {
  it('a curve keeps its first torque below it and its last power above it', () => {
    const power = new PowerAlong(CAR.curve)
    expect(power.at(1500)).toBeCloseTo(95_000 / 2, 6)
    expect(power.at(3750)).toBeCloseTo((95_000 + 160_000) / 2, 6)
    expect(power.at(9000)).toBe(220_000)
  })
  it('without gears the mean of the last quarter drives, with a twentieth of the mass turning', () => {
    const [flat] = lapGears({ ...CAR, gears: null })
    expect(flat?.effectiveMassKg).toBeCloseTo(1.05 * CAR.massKg, 9)
    // 0.74 of 7200 rpm is 5328: straight pieces 5328 to 5500 to 6500 to 7200 by hand.
    const at = (rpm: number) => 160_000 + ((rpm - 4500) / 1000) * 40_000
    const area = (172 * (at(5328) + 200_000)) / 2 + (1000 * 425_000) / 2 + (700 * 445_000) / 2
    expect((flat?.forceN(30) ?? 0) * 30).toBeCloseTo(area / 1872, 3)
  })
  it('a shift costs time, and a longer one more', () => {
    const time = (shiftS: number) => lapOf(FIELD, { ...CAR, gears: CAR.gears && { ...CAR.gears, shiftS } }, STEP).lapS
    expect(time(0)).toBeLessThan(time(0.2))
    expect(time(0.2)).toBeLessThan(time(0.4))
  })
  it('the last gear’s end holds the car', () => {
    const long = {
      isClosed: true,
      segments: [
        { lengthM: 3000, curvaturePerM: 0 },
        { lengthM: 60, curvaturePerM: 1 / 20 },
      ],
    }
    const lap = lapOf(long, CAR, STEP)
    expect(lap.fastestMps).toBeCloseTo(64.723, 2)
    expect(lap.secondsBy.gear).toBeGreaterThan(5)
  })
  test.each([
    ['gears that do not fall', { overallRatios: [9, 9, 5, 4, 3] }, /longer than the one before/],
    ['too few turning masses', { turning: [] }, /mass that turns/],
    ['leave speeds for every gear', { leaveRpm: [7000, 7000, 7000, 7000, 7000] }, /but the last/],
    ['a redline under the curve', { topRpm: 2000 }, /curve’s first speed/],
  ])('refuses %s', (_, more, words) => {
    expect(() => lapGears({ ...CAR, gears: CAR.gears && { ...CAR.gears, ...more } })).toThrow(words)
  })
  test.each([
    ['no power', { curve: { speedRpm: [5000], powerW: [0] } }, /type a peak/],
    ['a curve that goes back', { curve: { speedRpm: [5000, 4000], powerW: [1e5, 1e5] } }, /must rise/],
    ['a mass in tonnes', { massKg: 1.2 }, /massKg/],
  ])('refuses %s', (_, more, words) => {
    expect(() => lapOf(OVAL, { ...CAR, ...more }, STEP)).toThrow(words)
  })
})

describe('tracks', () => {
  it('an open one begins as fast as said and ends as fast as it may', () => {
    const hill = { isClosed: false, segments: [{ lengthM: 400, curvaturePerM: 0, grade: 0.08 }] }
    const lap = lapOf(hill, CAR, { ...STEP, entryMps: 12 })
    expect(lap.speedMps[0]).toBe(12)
    expect(lap.speedMps.at(-1)).toBe(lap.fastestMps)
    expect(lapOf({ ...hill, segments: [{ lengthM: 400, curvaturePerM: 0 }] }, CAR, { ...STEP, entryMps: 12 }).lapS).toBeLessThan(lap.lapS)
  })
  it('a wall is refused in words', () => {
    const wall = { isClosed: false, segments: [{ lengthM: 1200, curvaturePerM: 0, grade: 0.4 }] }
    const weak = { ...CAR, gears: null, curve: { speedRpm: [6000], powerW: [3000] } }
    expect(() => lapOf(wall, weak, STEP)).toThrow(/does not get up/)
  })
  it('a spiral turns by half of what its end would', () => {
    const shape = trackShape({ isClosed: false, segments: [{ lengthM: 40, curvaturePerM: 0, endCurvaturePerM: 1 / 50 }] }, 0.5)
    expect(shape.turningRad).toBeCloseTo(40 / (2 * 50), 9)
    // Fresnel's integrals to the fourth order: x = L - L^5/(40 A^4), y = L^3/(6 A^2) with A^2 = 2000.
    expect(shape.x.at(-1)).toBeCloseTo(40 - 40 ** 5 / (40 * 2000 ** 2), 2)
    expect(shape.y.at(-1)).toBeCloseTo(40 ** 3 / (6 * 2000) - 40 ** 7 / (336 * 2000 ** 3), 2)
  })
  it('says by how much ends miss, and that it turns the wrong way round', () => {
    expect(closureProblems({ ...OVAL, segments: OVAL.segments.map((segment, i) => (i === 0 ? { ...segment, lengthM: 184 } : segment)) })[0]).toMatch(/4\.0 m/)
    const twice = { isClosed: true, segments: [{ lengthM: 4 * Math.PI * 40, curvaturePerM: 1 / 40 }] }
    expect(closureProblems(twice)[0]).toMatch(/turns by 720/)
    expect(closureProblems({ ...twice, isClosed: false })).toEqual([])
  })
  it('cells are whole in each segment and no longer than the step', () => {
    const cells = trackCells(FIELD, 1.7)
    expect(Math.max(...cells.map(({ lengthM }) => lengthM))).toBeLessThanOrEqual(1.7 + 1e-9)
    expect(cells.reduce((sum, { lengthM }) => sum + lengthM, 0)).toBeCloseTo(2734.0194, 3)
    expect(() => trackCells({ isClosed: false, segments: [{ lengthM: 60_000, curvaturePerM: 0 }] }, 0.5)).toThrow(/60000 steps/)
  })
  it('corners are found, named by marks, and have the least speed in them', () => {
    const corners = cornersOf(FIELD, [{ atM: 600, kind: 'corner', name: 'Hangar' }])
    expect(corners.length).toBe(12)
    expect(corners.map(({ name }) => name)).toContain('Hangar')
    const lap = lapOf(FIELD, CAR)
    const speeds = slowestIn(lap, corners)
    expect(Math.min(...speeds)).toBeCloseTo(lap.slowestMps, 6)
    expect(speeds[0]).toBeCloseTo(Math.min(...lap.limitMps.slice(225, 250)), 0)
  })
})

describe('fits', () => {
  it('sectors give grip and brakes back, and name the one with traffic', () => {
    const truth = { ...FITTED, gripFactor: 0.93, brakingUse: 0.78 }
    const marksM = [700, 1400, 2100]
    const drivenS = sectorSeconds(lapOf(FIELD, truth, STEP), marksM)
    const found = fitGripAndBraking({ track: FIELD, car: FITTED, marksM, drivenS, sectorSdS: 0.05, options: STEP })
    expect(found.gripFactor).toBeCloseTo(0.93, 5)
    expect(found.brakingUse).toBeCloseTo(0.78, 4)
    expect(found.odd).toEqual([])
    const held = drivenS.map((sector, i) => (i === 2 ? sector + 0.9 : sector))
    expect(fitGripAndBraking({ track: FIELD, car: FITTED, marksM, drivenS: held, sectorSdS: 0.05, options: STEP }).odd).toContain(2)
  })
  it('refuses a lap of another track, too few sectors, and times that do not go with the marks', () => {
    expect(() => fitGrip({ track: FIELD, car: CAR, drivenS: 60, drivenSdS: 0.1, options: STEP })).toThrow(/60\.00 s was driven/)
    const two = { track: FIELD, car: CAR, marksM: [900], drivenS: [28, 53], sectorSdS: 0.1, options: STEP }
    expect(() => fitGripAndBraking(two)).toThrow(/three sectors/)
    expect(() => fitGripAndBraking({ ...two, drivenS: [28, 26, 27] })).toThrow(/make 2 sectors/)
  })
  it('what both cars share leaves little of its doubt, what is new all of it', () => {
    const input = (isShared: boolean) => ({
      key: 'h',
      isGuess: true,
      isShared,
      moved: (car: typeof CAR, spreads: number) => ({ ...car, centreHeightM: car.centreHeightM + 0.04 * spreads }),
    })
    const of = (isShared: boolean) =>
      forecastLap({ track: OVAL, before: FITTED, after: changedLapCar(FITTED, { massKg: -30 }), gripFactorSd: 0.005, inputs: [input(isShared)], options: STEP })
        .doubts[0]
    expect(of(true)?.leftS).toBeLessThan(0.1 * (of(true)?.aloneS ?? 0))
    expect(of(false)?.leftS).toBeCloseTo(of(false)?.aloneS ?? Number.NaN, 9)
  })
})

describe('wishes', () => {
  it('a lever that its bound does not let reach says the lap there', () => {
    const found = pullLever({ track: OVAL, car: FITTED, wantedS: 20, lever: 'mass', bound: { value: 1100, by: 'the class ends there' }, options: STEP })
    expect(found.to).toBeNull()
    expect(found.atBoundS).toBeCloseTo(lapOf(OVAL, changedLapCar(FITTED, { massKg: -80 }), STEP).lapS, 9)
  })
  it('the cheapest set that truly reaches it is first; parts without a price are left out', () => {
    const part = (id: string, massKg: number, cost: number | null) => ({ id, name: id, change: { massKg }, cost })
    const parts = [part('seat', -20, 500), part('glass', -30, 900), part('battery', -12, 200), part('dream', -300, null)]
    const base = lapOf(OVAL, changedLapCar(FITTED, {}), STEP).lapS
    const wantedS = lapOf(OVAL, changedLapCar(FITTED, { massKg: -31 }), STEP).lapS
    const sets = wishedSets({ track: OVAL, car: FITTED, wantedS, parts, options: STEP })
    expect(wantedS).toBeLessThan(base)
    expect(sets[0]?.parts.map(({ name }) => name).sort()).toEqual(['battery', 'seat'])
    expect(sets[0]?.cost).toBe(700)
    expect(sets.flatMap((set) => set.parts.map(({ name }) => name))).not.toContain('dream')
    expect(wishedSets({ track: OVAL, car: FITTED, wantedS: base - 5, parts, options: STEP })).toEqual([])
  })
  it('a car without gears or a split has nothing of them to move', () => {
    const rows = lapWorth(OVAL, { ...FITTED, gears: null, brakeFrontShare: null }, 0.25, STEP)
    const nothing = rows.filter(({ differenceS }) => differenceS === null).map(({ key }) => key)
    expect(nothing).toEqual(['finalShorter', 'finalLonger', 'shift', 'brakes'])
  })
})

describe('laps and ranks', () => {
  it('counts of the rank sum add up to all ways to deal, the same from either end', () => {
    for (const [n1, n2, all] of [
      [4, 4, 70],
      [6, 5, 462],
      [10, 9, 92_378],
    ] as const) {
      const counts = rankSumCounts(n1, n2)
      expect(counts.reduce((sum, count) => sum + count, 0)).toBe(all)
      expect([...counts].reverse()).toEqual([...counts])
    }
    // From tables of the rank sum test at 5 % of both ends (from memory): 5 and 5 leave 2, 8 and 8 leave 13.
    expect([rankBound(5, 5, 0.025) - 1, rankBound(8, 8, 0.025) - 1]).toEqual([2, 13])
    expect(Math.abs(rankBound(50, 50, 0.025) - rankBound(51, 50, 0.025))).toBeLessThan(40)
  })
  it('without ties p is that of the counts by hand; with none clean it is refused', () => {
    // Three of three all less: 1 way of 20 at each end.
    expect(compareLaps({ aS: [4, 5, 6], bS: [1, 2, 3], betweenSdS: 0 }).p).toBeCloseTo(0.1, 12)
    expect(compareLaps({ aS: [5, 5, 5, 5], bS: [5, 5, 5, 5], betweenSdS: 0 }).p).toBe(1)
    expect(() => compareLaps({ aS: [], bS: [1], betweenSdS: 0 })).toThrow(/no clean lap/)
    expect(() => compareLaps({ aS: [90, -1], bS: [1], betweenSdS: 0 })).toThrow(/Lap 2/)
  })
  it('what so many laps show is what needs so many', () => {
    for (const school of ['means', 'ranks'] as const) {
      const shown = smallestDifferenceS({ sdS: 0.3, lapsASide: 12, school })
      expect(lapsNeeded({ sdS: 0.3, differenceS: shown, school }).lapsASide).toBe(12)
    }
    expect(() => lapsNeeded({ sdS: 0.3, differenceS: 0, school: 'means' })).toThrow(CalculationError)
  })
  it('drift falls out of A-B-A: a line alone is no effect, a step is all of it', () => {
    const stints = (effect: number, drift: number) =>
      [0, 1, 2].map((stint) => [0, 1, 2, 3].map((i) => 90 + drift * (4 * stint + i) + (stint === 1 ? effect : 0)))
    expect(abaEffect(stints(0, 0.05)).effectS).toBeCloseTo(0, 9)
    expect(abaEffect(stints(-0.4, -0.03))).toMatchObject({ effectS: expect.closeTo(-0.4, 9), driftSPerLap: expect.closeTo(-0.03, 9) })
    expect(() => abaEffect([[90, 91], [90]])).toThrow(/three stints/)
    expect(() => abaEffect([[90], [90], []])).toThrow(CalculationError)
  })
  it('best, rolling and theoretical are in that order, and one lap is known by a share', () => {
    const sectors = [
      [28.1, 35.4, 29],
      [28.3, 35, 29.3],
      [27.9, 35.6, 28.8],
    ]
    const found = bestLaps([92.5, 92.6, 92.3], sectors)
    expect(found.theoreticalS).toBeCloseTo(91.7, 9)
    // Begun at the second mark of the second lap: 35 + 29.3 + 27.9.
    expect(found.rollingS).toBeCloseTo(92.2, 9)
    expect(found.trendSPerLap).toBeNull()
    expect(sessionLap([90], 'best')).toMatchObject({ lapS: 90, sdS: expect.closeTo(0.45, 9) })
    expect(bestLaps([92, 91.6, 91.3, 91.1], []).trendSPerLap).toBeLessThan(0)
  })
  it('a tread leans, and its middle speaks of pressure', () => {
    expect(readTread([351, 347, 344])).toMatchObject({ camber: 'suits', pressure: 'suits' })
    expect(readTread([365, 350, 344])).toMatchObject({ camber: 'less' })
    expect(readTread([350, 360, 344])).toMatchObject({ pressure: 'high' })
    expect(() => readTread([30, 40, 50])).toThrow(/inner edge/)
  })
})

test.each([
  ['no laps', [], null],
  ['laps without sectors', [[], []], null],
  [
    'as many sectors as most laps have',
    [
      [30, 20, 10],
      [31, 21, 11],
      [61, 12],
      [32, 19, 12],
    ],
    [31, 20, 11],
  ],
  [
    'more sectors where as many laps have them',
    [
      [30, 20],
      [50, 5, 6],
    ],
    [50, 5, 6],
  ],
] as const)('sectors of %s', (_, laps, middles) => {
  expect(sectorMedians(laps as readonly number[][])).toEqual(middles)
})
