import { describe, expect, it } from 'vitest'
import { brakeGain, brakeShare, firstToLock, idealBrakeShare } from '../src/brakes/brake-share.ts'
import { EXAMPLE_LAP_CAR as CAR, EXAMPLE_FITTED, EXAMPLE_AIRFIELD as TRACK } from '../src/calculations/examples/example-lap.ts'
import { abaEffect } from '../src/stats/a-b-a.ts'
import { bestOfSpread } from '../src/stats/best-laps.ts'
import { compareLaps } from '../src/stats/compare-laps.ts'
import { normalCdf } from '../src/stats/normal.ts'
import { lapOf } from '../src/track/lap.ts'
import { lapGears } from '../src/track/lap-car.ts'
import { changedLapCar } from '../src/track/lap-change.ts'
import { fitGrip } from '../src/track/lap-fit.ts'
import { forecastLap, guessLap, type UnsureLapInput } from '../src/track/lap-forecast.ts'
import { pullLever } from '../src/track/lap-wish.ts'
import { lapWorth } from '../src/track/lap-worth.ts'
import { trackShape } from '../src/track/track.ts'
import { cornerSpeed, tyreLimits } from '../src/track/tyre-limits.ts'
import { powerFromAcceleration } from '../src/tracklog/log-power.ts'
import { coldForHotPa, hotGasK } from '../src/tyres/tyre-pressure.ts'

// The worked example of the room's rules, digit for digit; everything in it is invented.
const bend = (radiusM: number) => ({ curvaturePerM: 1 / radiusM, grade: 0, camberRad: 0, gripFactor: 1 })
const moved = (key: string, sd: number, move: (x: number) => (car: typeof CAR) => typeof CAR, isGrip = false): UnsureLapInput => ({
  key,
  isGuess: true,
  isShared: true,
  isGrip,
  moved: (car, spreads) => move(spreads * sd)(car),
})
const INPUTS = [
  moved('centreHeightM', 0.05, (x) => (car) => ({ ...car, centreHeightM: car.centreHeightM + x })),
  moved('friction', 0.1, (x) => (car) => ({ ...car, friction: car.friction + x }), true),
  moved('loadSensitivity', 0.05, (x) => (car) => ({ ...car, loadSensitivity: car.loadSensitivity + x })),
  moved('dragAreaM2', 0.12, (x) => (car) => ({ ...car, dragAreaM2: car.dragAreaM2 + x })),
  moved('rollingCoefficient', 0.003, (x) => (car) => ({ ...car, rollingCoefficient: car.rollingCoefficient + x })),
  moved('brakeFrontShare', 0.02, (x) => (car) => ({ ...car, brakeFrontShare: (car.brakeFrontShare ?? 0) + x })),
  moved('brakingUse', 0.07, (x) => (car) => ({ ...car, brakingUse: car.brakingUse + x })),
]
const AERO = { downforceFrontM2: 0.3, downforceRearM2: 0.4, dragAreaM2: 0.1 }
const ALL = { massKg: -30, powerW: 12_000, ...AERO }
const fit = fitGrip({ track: TRACK, car: EXAMPLE_FITTED, drivenS: 82.6, drivenSdS: 0.15 })
const driven = { ...EXAMPLE_FITTED, gripFactor: fit.gripFactor }
const planned = changedLapCar(driven, ALL)
const change = (by: object) => lapOf(TRACK, changedLapCar(driven, by)).lapS - 82.6

describe('the worked example of a lap', () => {
  it('closes, turns once round to the right and is 2,734 m long', () => {
    const shape = trackShape(TRACK)
    expect(shape.lengthM).toBeCloseTo(2734.02, 2)
    expect(shape.gapM).toBeLessThan(0.01)
    expect((shape.turningRad * 180) / Math.PI).toBeCloseTo(-360, 6)
  })
  it('carries, turns, pulls and brakes at 30 m/s on 88 m', () => {
    const limits = tyreLimits(CAR).at(bend(88), 30)
    expect(limits.frontN).toBeCloseTo(6151.24, 2)
    expect(limits.rearN).toBeCloseTo(5741.91, 2)
    expect(limits.frontFriction).toBeCloseTo(1.22367, 5)
    expect(limits.rearFriction).toBeCloseTo(1.22279, 5)
    expect(limits.use).toBeCloseTo(0.83372, 5)
    expect(limits.resistanceN).toBeCloseTo(525.28, 2)
    expect(limits.left * limits.tractionN).toBeCloseTo(4894.9, 1)
    expect(limits.left * limits.brakingN).toBeCloseTo(6796.1, 1)
  })
  it.each([
    [34, 20.1384],
    [88, 32.595],
    [160, 44.2783],
  ])('takes %d m at %d m/s', (radius, speed) => {
    expect(cornerSpeed(tyreLimits(CAR), bend(radius))).toBeCloseTo(speed, 4)
  })
  it('leaves its gears where no higher one pulls as hard', () => {
    const left = lapGears(CAR).map(({ leaveMps }) => leaveMps)
    ;[20.5328, 30.536, 41.0657, 51.7785].forEach((speed, i) => {
      expect(left[i]).toBeCloseTo(speed, 4)
    })
    expect(left[4]).toBe(Number.POSITIVE_INFINITY)
  })
  it('laps in 81.1045 s at cells of 1 m, and says what holds it', () => {
    const lap = lapOf(TRACK, CAR)
    expect(lap.lapS).toBeCloseTo(81.1045, 4)
    expect(lapOf(TRACK, CAR, { stepM: 0.5 }).lapS).toBeCloseTo(81.1043, 4)
    expect(lap.fastestMps).toBeCloseTo(53.9966, 4)
    // Which of two cells a second falls into is a matter of where a cell is asked: within one cell's time of the page.
    expect(lap.secondsBy.braking).toBeCloseTo(12.9, 2)
    expect(lap.secondsBy.shift).toBeCloseTo(2.74, 2)
    expect(Math.abs(lap.secondsBy.power - 31)).toBeLessThan(0.04)
    expect(Math.abs(lap.secondsBy.grip - 34.47)).toBeLessThan(0.04)
    expect(Object.values(lap.secondsBy).reduce((sum, each) => sum + each, 0)).toBeCloseTo(lap.lapS, 9)
    // One more upshift is begun and taken back by the brakes.
    expect(lap.upshifts).toBe(14)
  })
  it('is fitted to the lap that was driven by one factor', () => {
    expect(fit.gripFactor).toBeCloseTo(0.94794, 5)
    expect(fit.slopeS).toBeCloseTo(-30.14, 2)
    expect(fit.gripFactorSd).toBeCloseTo(0.00498, 5)
  })
  it.each([
    ['30 kg off', { massKg: -30 }, -0.2677],
    ['12 kW', { powerW: 12_000 }, -0.302],
    ['floor, wing and splitter', AERO, -0.6293],
    ['the wing alone', { downforceRearM2: 0.4, dragAreaM2: 0.06 }, -0.0736],
    ['the front alone', { downforceFrontM2: 0.3 }, -0.2557],
  ])('%s', (_, by, expected) => {
    expect(Math.abs(change(by) - expected)).toBeLessThan(2.5e-4)
  })
  it('adds up to 81.3678 with what they do together', () => {
    const together = change(ALL) - change({ massKg: -30 }) - change({ powerW: 12_000 }) - change(AERO)
    expect(Math.abs(together + 0.0332)).toBeLessThan(5e-4)
    expect(Math.abs(82.6 + change(ALL) - 81.3678)).toBeLessThan(2.5e-4)
  })
  it('knows it to 0.2886 s after the fit, where it was 2.453 before', () => {
    const forecast = forecastLap({ track: TRACK, before: driven, after: planned, gripFactorSd: fit.gripFactorSd, inputs: INPUTS })
    expect(forecast.inputsLeftSdS).toBeCloseTo(0.0068, 3)
    expect(forecast.fitSdS).toBeCloseTo(0.1499, 3)
    expect(forecast.modelSdS).toBeCloseTo(0.2464, 3)
    expect(forecast.sdS).toBeCloseTo(0.2886, 3)
    expect(normalCdf((80.8 - forecast.lapS) / forecast.sdS)).toBeCloseTo(0.0246, 3)
    const before = guessLap({ track: TRACK, car: { ...planned, gripFactor: 1 }, inputs: INPUTS })
    // The page's own inputs were rounded for print.
    expect(Math.abs(before.sdS - 2.453)).toBeLessThan(0.05)
  })
  it('prices every step, and the laps that show it', () => {
    const rows = Object.fromEntries(lapWorth(TRACK, planned, 0.25).map((row) => [row.key, row]))
    const page = {
      mass: [0.0968, 110],
      power: [0.2405, 18],
      downforce: [0.1046, 94],
      downforceFront: [0.202, 26],
      downforceRear: [0.0325, 973],
      drag: [0.0864, 138],
      grip: [0.283, 13],
      shift: [0.1217, 70],
      centre: [0.0839, 147],
      brakes: [0.1999, 26],
    } as const
    for (const [key, [seconds, laps]] of Object.entries(page)) {
      expect(-(rows[key]?.differenceS ?? 0), key).toBeCloseTo(seconds, 3)
      expect(rows[key]?.lapsASide, key).toBe(laps)
    }
  })
  it.each([
    ['power', 237_000 + 78_350, 400_000, 60],
    ['mass', 1013.28, 700, 0.1],
    ['grip', 1.0501, 1.2, 0.0001],
  ] as const)('would need that much %s alone for 80.0 s', (lever, expected, bound, within) => {
    const found = pullLever({ track: TRACK, car: planned, wantedS: 80, lever, bound: { value: bound, by: 'the bound' } })
    expect(Math.abs((found.to ?? 0) - expected)).toBeLessThan(within)
  })
})

const A = [82.91, 82.6, 83.05, 82.74, 82.66, 82.88]
const B = [82.31, 82.52, 82.12, 82.4, 82.27, 82.45]
describe('the worked example of two sessions', () => {
  it('tells a real difference with its interval', () => {
    const found = compareLaps({ aS: A, bS: B, betweenSdS: 0 })
    expect(found.differenceS).toBeCloseTo(-0.465, 9)
    expect(found.intervalS?.from).toBeCloseTo(-0.65, 9)
    expect(found.intervalS?.to).toBeCloseTo(-0.22, 9)
    expect(found.p).toBeCloseTo(0.00216, 5)
    expect(found.verdict).toBe('real')
    const apart = compareLaps({ aS: A, bS: B, betweenSdS: 0.0015 * 82.7 })
    expect(apart.intervalS?.from).toBeCloseTo(-0.8555, 4)
    expect(apart.intervalS?.to).toBeCloseTo(-0.0428, 4)
  })
  it('says too few of three and three, not of four and four', () => {
    expect(compareLaps({ aS: A.slice(0, 3), bS: B.slice(0, 3), betweenSdS: 0 }).verdict).toBe('tooFew')
    expect(compareLaps({ aS: A.slice(0, 4), bS: B.slice(0, 4), betweenSdS: 0 }).verdict).not.toBe('tooFew')
  })
  it('takes the drift out of A-B-A', () => {
    const found = abaEffect([A.slice(0, 4), B.slice(0, 4), [82.79, 82.93, 82.7, 83.01]])
    expect(found.effectS).toBeCloseTo(-0.50375, 9)
    expect(found.standardErrorS).toBeCloseTo(0.1037, 4)
  })
  it.each([
    [1, 1],
    [2, 0.826],
    [3, 0.748],
    [4, 0.701],
    [5, 0.669],
    [6, 0.645],
    [8, 0.611],
    [10, 0.587],
    [15, 0.549],
  ])('the best of %d scatters by %d of one', (n, expected) => {
    expect(bestOfSpread(n)).toBeCloseTo(expected, 3)
  })
})

describe('the worked example of tyres, brakes and power', () => {
  const pair = { coldPa: 155_000, coldK: 289.15, hotPa: 198_000, ambientPa: 100_800 }
  it('comes from a hot pressure to a cold one by both schools', () => {
    expect(hotGasK(pair)).toBeCloseTo(337.756, 3)
    const today = { pair, wantedHotPa: 195_000, coldK: 282.15, ambientPa: 100_800 }
    expect(coldForHotPa({ ...today, school: 'sameRise' })).toBeCloseTo(151_531, 0)
    expect(coldForHotPa({ ...today, school: 'sameHot' })).toBeCloseTo(146_301, 0)
  })
  it('tells the share of the brakes from pressures, the ideal one, and which axle locks first', () => {
    const front = brakeGain({ pistonsOneSideM: [0.036, 0.04], padFriction: 0.45, effectiveRadiusM: 0.135, tyreRadiusM: 0.308 })
    const rear = brakeGain({ pistonsOneSideM: [0.03, 0.03], padFriction: 0.42, effectiveRadiusM: 0.125, tyreRadiusM: 0.308 })
    const share = brakeShare({ frontGain: front, rearGain: rear, frontPa: 5.2e6, rearPa: 4.6e6 })
    expect(share).toBeCloseTo(0.67789, 5)
    expect(5.2 / 9.8).toBeCloseTo(0.53061, 5)
    expect(idealBrakeShare(CAR, { decelerationG: 1.1, speedMps: 20 })).toBeCloseTo(0.71516, 5)
    expect(idealBrakeShare(CAR, { decelerationG: 1.1, speedMps: 50 })).toBeCloseTo(0.69721, 5)
    const slow = firstToLock(CAR, { frontShare: share, friction: 1.2, speedMps: 20 })
    const fast = firstToLock(CAR, { frontShare: share, friction: 1.2, speedMps: 50 })
    expect([slow.axle, fast.axle]).toEqual(['rear', 'rear'])
    expect(slow.decelerationG).toBeCloseTo(1.0932, 4)
    expect(fast.decelerationG).toBeCloseTo(1.2225, 4)
  })
  it('reads power off acceleration', () => {
    const { effectiveMassKg } = lapGears(CAR)[2] as { effectiveMassKg: number }
    expect(effectiveMassKg).toBeCloseTo(1321.54, 2)
    const car = { massKg: 1180, massSdKg: 3, effectiveMassKg, dragAreaM2: 0.7, rollingCoefficient: 0.013, resistanceSdN: 60, airDensityKgM3: 1.19 }
    const found = powerFromAcceleration({ car, speedMps: 33, accelerationMps2: 4.15, grade: 0.004, speedSdMps: 0.15, accelerationSdMps2: 0.06 })
    expect(found.powerW / 1000).toBeCloseTo(206.49, 2)
    expect(found.sdW / 1000).toBeCloseTo(3.99, 2)
  })
})
