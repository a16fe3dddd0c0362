import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_CORNERS, EXAMPLE_DRIVE, EXAMPLE_SLIDING, EXAMPLE_TRAIN } from '../src/calculations/examples/example-drive.ts'
import { driveCourse, usedBand } from '../src/drivetrain/course.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { shiftCosts } from '../src/drivetrain/shift-costs.ts'
import { holdSlide } from '../src/drivetrain/slide.ts'
import { slideGears, slideLevers, slideThrough } from '../src/drivetrain/slide-gears.ts'
import { topSpeed } from '../src/drivetrain/top-speed.ts'
import { shaftShare, torquePath } from '../src/drivetrain/torque-path.ts'
import { gripLimitN } from '../src/drivetrain/traction.ts'
import { tyreRolling, tyreSize } from '../src/drivetrain/tyre.ts'
import { carryYardstick, spreadYardsticks, type UnsureInput, yardsticks } from '../src/drivetrain/yardsticks.ts'
import { findCalculation, runCalculation } from '../src/index.ts'
import { DEG, LEAVE, MOTION, times } from './drivetrain-cars.ts'

describe('the worked example of the room', () => {
  test.each(
    [
      [12.682, 1551.07, 65.95, 13994],
      [7.7584, 1381.47, 107.8, 8561],
      [5.4458, 1330.0, 153.58, 6009.2],
      [4.1776, 1309.44, 200.2, 4609.8],
      [3.3943, 1299.44, 246.4, 3745.4],
    ].map((row, i) => [i, ...row] as [number, number, number, number, number]),
  )('gear %i: ratio, turning mass, km/h at its end and greatest force', (i, ratio, mass, kmh, force) => {
    const gear = MOTION.gears[i] as (typeof MOTION.gears)[number]
    expect(gear.ratio).toBeCloseTo(ratio, 4)
    expect(gear.effectiveMassKg).toBeCloseTo(mass, 2)
    expect(gear.topMps * 3.6).toBeCloseTo(kmh, 2)
    expect(Math.abs((340 * gear.ratio) / EXAMPLE_DRIVE.radiusM - force)).toBeLessThan(0.51)
  })
  it('grip from rest, as it is used and at its peak', () => {
    expect(MOTION.gripN(0)).toBeCloseTo(8472.5, 1)
    expect(gripLimitN({ ...EXAMPLE_DRIVE, gripUse: 1 }, 0, 1)).toBeCloseTo(9430.3, 1)
  })
  test.each([
    ['power', [7200, 7157.6, 6936.8, 6756.2]],
    ['force', [7200, 7034.2, 6848.7, 6709.2]],
    ['acceleration', [7200, 7044.5, 6865.5, 6726.0]],
  ] as const)('leave speeds by %s', (school, wanted) => {
    for (const [i, rpm] of leaveSpeeds(MOTION, school).entries()) expect(rpm).toBeCloseTo(wanted[i] as number, 1)
  })
  it('third left 250 rpm late and early', () => {
    const third = shiftCosts(MOTION, LEAVE, 250)[2]
    expect(1000 * (third?.lateS ?? 0)).toBeCloseTo(22.2, 1)
    expect(1000 * (third?.earlyS ?? 0)).toBeCloseTo(8.0, 1)
  })
  it('yardsticks', () => {
    const found = yardsticks(MOTION, 0)
    const wanted = {
      sixtyFoot: 2.342,
      zeroTo100: 4.7503,
      zeroTo60Mph: 4.5468,
      from100To200: 11.5584,
      quarterMile: 12.9939,
      quarterMileSpeed: 50.503,
      topSpeed: 68.444,
    }
    for (const [key, value] of Object.entries(wanted))
      expect(Math.abs((found[key as keyof typeof found] ?? 0) - value), key).toBeLessThan(key.endsWith('peed') ? 5.1e-4 : 5.1e-5)
    expect(topSpeed(MOTION).heldBy).toBe('gearing')
  })

  const INPUTS: readonly [string, number, boolean, (car: DriveCar, by: number) => DriveCar, number][] = [
    ['mu', 0.07, true, (car, by) => ({ ...car, friction: car.friction + by }), -0.1945],
    ['use', 0.05, true, (car, by) => ({ ...car, gripUse: car.gripUse + by }), -0.1887],
    ['shift', 0.05, true, (car, by) => ({ ...car, shiftS: car.shiftS + by }), 0.0521],
    ['h', 0.03, true, (car, by) => ({ ...car, centreHeightM: car.centreHeightM + by }), -0.0447],
    ['Ie', 0.04, true, (car, by) => ({ ...car, engineInertiaKgM2: (car.engineInertiaKgM2 ?? 0) + by }), 0.0367],
    ['c', 0.003, true, (car, by) => ({ ...car, rollingCoefficient: car.rollingCoefficient + by }), 0.025],
    ['mass', 6, false, (car, by) => ({ ...car, massKg: car.massKg + by }), 0.0081],
    ['C', 0.05, true, (car, by) => ({ ...car, dragAreaM2: car.dragAreaM2 + by }), 0.0056],
    ['r', 0.004 / (2 * Math.PI), false, (car, by) => ({ ...car, radiusM: car.radiusM + by }), 0.0002],
  ]
  const inputs = (power: number): UnsureInput[] => [
    ...INPUTS.map(([key, sd, isGuess, move]) => ({ key, isGuess, moved: (car: DriveCar, spreads: number) => move(car, spreads * sd) })),
    { key: 'power', isGuess: false, moved: (car, spreads) => times(car, 1 + spreads * power) },
  ]
  it('what each input does to 0-100, and all together', () => {
    const { zeroTo100, sixtyFoot, from100To200, quarterMile } = spreadYardsticks(EXAMPLE_DRIVE, 0, inputs(0.012))
    const byKey = new Map(zeroTo100?.inputs.map(({ key, byOneSd }) => [key, byOneSd]))
    for (const [key, , , , wanted] of INPUTS) expect(byKey.get(key), key).toBeCloseTo(wanted, 4)
    expect(byKey.get('power')).toBeCloseTo(-0.0233, 4)
    expect(zeroTo100?.modelSd).toBeCloseTo(0.095, 4)
    expect([zeroTo100, sixtyFoot, from100To200, quarterMile].map((each) => Number(each?.sd.toFixed(4)))).toEqual([0.2997, 0.1293, 0.4082, 0.357])
    expect(Math.round(100 * (zeroTo100?.guessShare ?? 0))).toBe(89)
  })
  it('a measured 0-100 carries the next stage', () => {
    const [before, after] = [
      spreadYardsticks(EXAMPLE_DRIVE, 0, inputs(0.012)).zeroTo100,
      spreadYardsticks(times(EXAMPLE_DRIVE, 1.08), 0, inputs(0.03)).zeroTo100,
    ]
    if (!before || !after) throw new Error('no yardstick')
    expect(after.value).toBeCloseTo(4.6109, 4)
    const carried = carryYardstick({ measured: 4.83, measuredSd: 0.05, before, after, isShared: (key) => key !== 'power' })
    expect(carried.value).toBeCloseTo(4.6883, 4)
    expect(carried.sd).toBeCloseTo(0.0855, 4)
  })
  it('torque path', () => {
    const common = { car: EXAMPLE_DRIVE, radiusM: EXAMPLE_DRIVE.radiusM, primaryRatio: 1, ratios: EXAMPLE_DRIVE.ratios, finalRatio: 3.73, efficiency: 0.88 }
    const path = torquePath({
      ...common,
      crankTorqueNm: 340 / 0.88,
      shockFactor: 2.5,
      shockSchool: 'engineOnly',
      clutch: { torqueNm: 520, holding: 1.2, isBehindPrimary: false },
      shaftShareRear: shaftShare('welded'),
    })
    expect(path.rearGripNm).toBeCloseTo(2922.55, 2)
    expect(path.engineSideNm).toBe(624)
    expect(path.gears.map(({ limitedBy }) => limitedBy)).toEqual(['tyres', 'tyres', 'tyres', 'engine', 'engine'])
    for (const [i, wanted] of [261.87, 428.06, 609.84, 624, 624].entries()) expect(path.gears[i]?.gearboxNm).toBeCloseTo(wanted, 2)
    expect(path.gears[0]?.rearShaftNm).toBeCloseTo(2045.79, 2)
    expect(path.gears[3]?.rearShaftNm).toBeCloseTo(1605.8, 2)
    const alone = torquePath({ ...common, crankTorqueNm: 340 / 0.88, shockFactor: 2.5, shockSchool: 'engineOnly' })
    expect(alone.engineSideNm).toBeCloseTo(965.9, 1)
  })
  it('a slide at 20 m/s and 36 degrees', () => {
    const slide = holdSlide(EXAMPLE_SLIDING, 20, 36 * DEG)
    const wanted = {
      yawRateRadPerS: 0.51381,
      rearLoadN: 7137.95,
      forceAngleRad: 0.81791,
      wheelSpeedMps: 27.1954,
      radiusM: 38.925,
      frontNeeds: 1.1956,
      steeringRad: 0.46741,
    }
    const digits = { yawRateRadPerS: 5, rearLoadN: 2, forceAngleRad: 5, wheelSpeedMps: 4, radiusM: 3, frontNeeds: 4, steeringRad: 5 }
    for (const [key, value] of Object.entries(wanted)) expect(slide[key as keyof typeof wanted], key).toBeCloseTo(value, digits[key as keyof typeof digits])
    expect([slide.powerW, slide.slidingW, slide.pathW, slide.rollingW].map((watts) => Number((watts / 1000).toFixed(2)))).toEqual([129.0, 109.24, 16.85, 2.91])
    const gears = slideGears(EXAMPLE_TRAIN, slide.wheelSpeedMps, slide.powerW)
    expect(gears.map(({ inHand }) => (inHand === null ? null : Number((100 * inHand).toFixed(1))))).toEqual([null, 47.9, 25.2, -14.6, -40.9])
    expect([gears[1]?.speedRpm, gears[2]?.speedRpm].map((rpm) => Math.round(rpm ?? 0))).toEqual([6539, 4590])
  })
  test.each([
    ['slidingFriction', 0.05, 7.47],
    ['frontSlipRad', 2 * DEG, 5.68],
    ['centreHeightM', 0.03, 1.61],
  ] as const)('what %s does to the power of that slide', (key, by, wanted) => {
    const power = (sign: number) => holdSlide({ ...EXAMPLE_SLIDING, [key]: EXAMPLE_SLIDING[key] + sign * by }, 20, 36 * DEG).powerW
    expect((power(1) - power(-1)) / 2000).toBeCloseTo(wanted, 2)
  })
  it('a corner of 58 m at 40 degrees, and its levers', () => {
    const corner = { cornerRadiusM: 58, slideAngleRad: 40 * DEG }
    const { speedMps, state, best } = slideThrough(EXAMPLE_SLIDING, EXAMPLE_TRAIN, corner)
    expect(speedMps).toBeCloseTo(24.36, 3)
    expect(state.powerW / 1000).toBeCloseTo(187.23, 2)
    expect([best?.gear, Math.round(best?.speedRpm ?? 0), Number((100 * (best?.inHand ?? 0)).toFixed(1))]).toEqual([3, 6048, 4.5])
    const levers = slideLevers(EXAMPLE_SLIDING, EXAMPLE_TRAIN, corner, 0.15)
    expect(levers.powerFactor).toBeCloseTo(1.1001, 4)
    expect(levers.finalRatio).toBeNull()
    expect(levers.bestFinal?.finalRatio).toBeCloseTo(4.824, 3)
    expect(100 * (levers.bestFinal?.inHand ?? 0)).toBeCloseTo(4.7, 1)
    expect(levers.slidingFriction).toBeCloseTo(0.8958, 4)
    expect(levers.speedAtFrictionMps).toBeCloseTo(23.474, 3)
    expect(levers.massKg).toBeCloseTo(1123.7, 1)
    expect((levers.slideAngleRad ?? 0) / DEG).toBeCloseTo(36.955, 3)
  })
  test.each([
    [3.73, 27.8426, 6, 0.946, 4948, 6831, [2, 2, 1]],
    [4.1, 27.8162, 7, 0.9686, 5045, 6773, [2, 3, 1]],
  ] as const)('the course with a final of %d', (finalRatio, time, shifts, band, from, to, gears) => {
    const motion = driveMotion({ ...EXAMPLE_DRIVE, finalRatio })
    const course = driveCourse({ motion, leaveRpm: leaveSpeeds(motion), corners: EXAMPLE_CORNERS, isClosed: true, brakingMps2: 9 })
    expect(course.timeS).toBeCloseTo(time, 4)
    expect(course.upshiftsInto.reduce((sum, each) => sum + each)).toBe(shifts)
    expect(course.bandShare).toBeCloseTo(band, 4)
    const used = usedBand(motion, course)
    expect([Math.round(used.fromRpm), Math.round(used.toRpm)]).toEqual([from, to])
    expect(course.straights.map(({ gear }) => gear)).toEqual(gears)
  })
})

describe('what is refused', () => {
  const bad = (more: object) => {
    const calculation = findCalculation('drivetrain.accelerate')
    if (!calculation) throw new Error('missing')
    const answer = runCalculation(calculation, { ...(calculation.example as object), ...more })
    return answer.ok ? 'taken' : `${answer.error.field}: ${answer.error.message}`
  }
  test.each<[string, object, RegExp]>([
    ['ratios that do not fall', { ratios: [3.4, 2, 2.2] }, /Third \(2\.20\) must be smaller than second \(2\.00\)\. In order, first to last\./],
    ['a ratio of zero', { ratios: [3.4, 0] }, /Second \(0\) must lie from 0\.2 to 6/],
    ['a negative ratio', { ratios: [-1] }, /First \(-1\)/],
    ['no gears', { ratios: [] }, /one to ten gears/],
    ['a top speed past the curve', { topRpm: 7500 }, /Pulls end at 7 200 rpm\. Set it to that, or pull further\./],
    ['a launch over the top', { launchRpm: 7300 }, /launchRpm is 7 300/],
    ['friction of 4', { friction: 4 }, /over 0 and up to 3/],
    ['a curve whose speeds fall', { curve: { speedRpm: [3000, 2000], torqueNm: [1, 1] } }, /must rise/],
    ['a curve of one point', { curve: { speedRpm: [3000], torqueNm: [1] } }, /two points or more/],
    ['a car that does not move', { curve: { speedRpm: [2000, 7200], torqueNm: [0.1, 0.1] } }, /does not move off/],
    [
      'a gap that lands under the curve',
      { ratios: [3.4, 0.4], curve: { speedRpm: [4000, 7200], torqueNm: [300, 250] }, launchRpm: 4500 },
      /lands at \d+ rpm, under where pulls begin/,
    ],
  ])('%s', (_, more, message) => expect(bad(more)).toMatch(message))
  test.each<[string, () => unknown, RegExp]>([
    ['an aspect of 5', () => tyreSize('225/5R17'), /An aspect of 5 is no tyre: 25 to 95, or a diameter in mm above\./],
    ['a code of letters', () => tyreSize('wide'), /is no tyre code/],
    ['a tyre without a size', () => tyreRolling({ code: null, circumferenceM: null, construction: 'radial' }), /no size/],
    ['a slide of 90 degrees', () => holdSlide(EXAMPLE_SLIDING, 20, 90 * DEG), /2 to 80 degrees/],
    ['a slide that slows down', () => holdSlide({ ...EXAMPLE_SLIDING, slidingFriction: 0.1, dragAreaM2: 5 }, 60, 20 * DEG), /it slows down/],
    ['a bias ratio of 20', () => shaftShare('plate', 20), /A bias ratio of 20 is none/],
    [
      'a gearbox that loses more than the driveline',
      () =>
        torquePath({
          car: EXAMPLE_DRIVE,
          radiusM: 0.3,
          primaryRatio: 1,
          ratios: [3],
          finalRatio: 4,
          crankTorqueNm: 300,
          efficiency: 0.95,
          gearboxEfficiency: 0.9,
          shockFactor: 1,
          shockSchool: 'engineOnly',
        }),
      /lose more than the whole driveline/,
    ],
    [
      'a straight too short to brake on',
      () =>
        driveCourse({
          motion: MOTION,
          leaveRpm: LEAVE,
          corners: [
            { name: 'Elm', speedMps: 33, straightM: 40 },
            { name: 'Weir', speedMps: 14, straightM: 400 },
          ],
          isClosed: false,
          brakingMps2: 9,
        }),
      /33 to 14 m\/s needs 50 m; the straight has 40\./,
    ],
  ])('%s', (_, work, message) => expect(work).toThrow(message))
})
