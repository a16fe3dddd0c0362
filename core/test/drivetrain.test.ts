import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_CORNERS, EXAMPLE_DRIVE, EXAMPLE_SLIDING, EXAMPLE_TRAIN } from '../src/calculations/example-drive.ts'
import { driveCourse, usedBand } from '../src/drivetrain/course.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { USUAL_DRIVE } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { quarterMileRule } from '../src/drivetrain/quarter-mile-rule.ts'
import { passedDistance, passedSpeed, run } from '../src/drivetrain/run.ts'
import { shiftCosts } from '../src/drivetrain/shift-costs.ts'
import { holdSlide } from '../src/drivetrain/slide.ts'
import { bestGear, slideGears, slideLevers, slideThrough } from '../src/drivetrain/slide-gears.ts'
import { slipForces } from '../src/drivetrain/slip-forces.ts'
import { topSpeed } from '../src/drivetrain/top-speed.ts'
import { shaftShare, torquePath } from '../src/drivetrain/torque-path.ts'
import { gripLimitN, resistanceN } from '../src/drivetrain/traction.ts'
import { tyreRolling, tyreSize } from '../src/drivetrain/tyre.ts'
import { carryYardstick, spreadYardsticks, type UnsureInput, yardsticks } from '../src/drivetrain/yardsticks.ts'
import { findCalculation, runCalculation } from '../src/index.ts'
import { describeRows, input, list, number, type Row } from './check-rows.ts'

/** The package ships sources that this project's compiler would judge; what is used of it is said here. */
interface OdeSolver {
  absoluteTolerance: number
  relativeTolerance: number
  solve(slope: (x: number, y: number[]) => number[], from: number, start: number[], to: number): { y: number[] }
}
const { Solver } = createRequire(import.meta.url)('odex') as { Solver: new (size: number) => OdeSolver }

const DEG = Math.PI / 180
const KMH = 1 / 3.6
const G = 9.80665
const MOTION = driveMotion(EXAMPLE_DRIVE)
const LEAVE = leaveSpeeds(MOTION)
const times = (car: DriveCar, factor: number): DriveCar => ({ ...car, curve: { ...car.curve, torqueNm: car.curve.torqueNm.map((torque) => torque * factor) } })
const calculated = (name: string, body: object) => {
  const calculation = findCalculation(name)
  const answer = calculation && runCalculation(calculation, body)
  if (!answer?.ok) throw new Error(JSON.stringify(answer))
  return answer.value as Record<string, unknown>
}

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

// A car that only its tyres hold, or only its engine: what closed forms are of.
const BARE: DriveCar = {
  ...EXAMPLE_DRIVE,
  drivenAxles: 'all',
  centreHeightM: 0,
  gripUse: 1,
  dragAreaM2: 0,
  rollingCoefficient: 0,
  engineInertiaKgM2: 0,
  wheelInertiaKgM2: 0,
  ratios: [1],
  finalRatio: 4,
  radiusM: 0.3,
  shiftS: 0,
  massKg: 1250,
}
function constantPower(powerW: number, more: Partial<DriveCar> = {}): DriveCar {
  const speedRpm = Array.from({ length: 1991 }, (_, i) => 100 + 10 * i)
  return {
    ...BARE,
    friction: 3,
    curve: { speedRpm, torqueNm: speedRpm.map((rpm) => powerW / ((rpm * Math.PI) / 30)) },
    launchRpm: 100,
    topRpm: 20_000,
    ...more,
  }
}
const drive = (car: DriveCar, question: { fromMps?: number; toMps?: number; toM?: number }) => run({ motion: driveMotion(car), leaveRpm: [], ...question })

const rowCar = (row: Row, drivenAxles: DriveCar['drivenAxles']) => ({
  ...USUAL_DRIVE,
  gripUse: 1,
  rollingCoefficient: 0,
  dragAreaM2: 0,
  massKg: number(row, 'm'),
  wheelbaseM: number(row, 'L'),
  frontShare: 1 - number(row, 'a (CG behind front axle)') / number(row, 'L'),
  centreHeightM: number(row, 'h'),
  friction: number(row, 'mu'),
  drivenAxles,
})
const rowSlip = (row: Row) =>
  slipForces({
    speedMps: number(row, 'V (rear axle)'),
    slideAngleRad: number(row, 'alpha_r') * DEG,
    slip: number(row, 'kappa'),
    slidingFriction: number(row, 'mu_slide'),
    drivenLoadN: number(row, 'N_driven'),
    rollingForceN: number(row, 'F_roll') ?? 0,
  })
const lbHp = (row: Row) => quarterMileRule({ massKg: number(row, 'W') * 0.45359237, crankPowerW: number(row, 'P') * 745.6998715822702 })
const MPH = 0.44704
const launched = (row: Row) => {
  const [force, mass] = [number(row, 'F'), number(row, 'm')]
  return constantPower(number(row, 'P'), { massKg: mass, friction: force / (mass * G) })
}
const pulled = (row: Row) => ({
  ...BARE,
  massKg: number(row, 'm'),
  friction: number(row, 'F') / (number(row, 'm') * G),
  dragAreaM2: number(row, 'k=rho CdA/2') / 0.6,
  curve: { speedRpm: [100, 20_000], torqueNm: [5000, 5000] },
  launchRpm: 100,
  topRpm: 20_000,
})
const atTime = (row: Row) => {
  const [car, seconds] = [pulled(row), number(row, 't')]
  const k = number(row, 'k=rho CdA/2')
  const speed = Math.sqrt(number(row, 'F') / k) * Math.tanh((seconds * Math.sqrt(number(row, 'F') * k)) / number(row, 'm'))
  return { to: drive(car, { toMps: speed }).at(-1)?.to, seconds }
}

describeRows('published and derived check values of the drivetrain', 'check-values-drivetrain.json', {
  ...Object.fromEntries(
    ['F-tyre-245-40r17', 'F-tyre-205-50r15', 'F-tyre-265-35r18', 'F-tyre-race', 'F-tyre-inch'].map((id) => [
      id,
      (row: Row) => tyreSize(input(row, 'code') as string).diameterM,
    ]),
  ),
  'F-rpm-drop': (row) =>
    (
      calculated('drivetrain.speeds', { ratios: [number(row, 'G1'), number(row, 'G2')], finalRatio: 3.9, radiusM: 0.3, topRpm: number(row, 'n') }).gears as {
        rpmAfterShift: number
      }[]
    )[0]?.rpmAfterShift as number,
  'F-rpm-at-v': (row) => {
    const [gear] = calculated('drivetrain.speeds', { ratios: [1.13], finalRatio: 3.9, radiusM: 0.3, topRpm: 7000, slip: number(row, 'slip') }).gears as {
      mpsPer1000Rpm: number
    }[]
    return (1000 * number(row, 'v')) / (gear?.mpsPer1000Rpm ?? 0)
  },
  'F-Ft': (row) => {
    const car = {
      ...BARE,
      ratios: [number(row, 'G') / 4],
      radiusM: number(row, 'r'),
      driveEfficiency: number(row, 'eta'),
      curve: { speedRpm: [1000, 9000], torqueNm: [number(row, 'T'), number(row, 'T')] },
    }
    const motion = driveMotion({ ...car, launchRpm: 1000, topRpm: 9000 })
    return motion.driveForceN(motion.gears[0] as (typeof motion.gears)[number], 10)
  },
  'F-res-P': (row) =>
    number(row, 'v') *
    resistanceN(
      { ...BARE, massKg: number(row, 'm'), rollingCoefficient: number(row, 'Crr'), airDensityKgM3: number(row, 'rho'), dragAreaM2: number(row, 'CdA') },
      number(row, 'v'),
      1,
    ),
  'F-trac-rwd': (row) => gripLimitN(rowCar(row, 'rear'), 0, 1),
  'F-trac-fwd': (row) => gripLimitN(rowCar(row, 'front'), 0, 1),
  'F-trac-awd-ideal': (row) => gripLimitN(rowCar(row, 'all'), 0, 1),
  'F-wheelie': (row) => {
    // The limit by lift does not hang on friction: with much of it, force over weight is b/h.
    const car = {
      ...USUAL_DRIVE,
      massKg: 1000,
      wheelbaseM: number(row, 'L'),
      frontShare: number(row, 'b') / number(row, 'L'),
      centreHeightM: number(row, 'h'),
      drivenAxles: 'rear' as const,
      friction: 3,
      gripUse: 1.2,
      rollingCoefficient: 0,
      dragAreaM2: 0,
    }
    return gripLimitN(car, 0, 1) / (1000 * G)
  },
  'F-shift-parab': (row) => {
    const [n0, q] = [number(row, 'n0'), number(row, 'q=G2/G1')]
    const speedRpm = Array.from({ length: 1401 }, (_, i) => 2000 + 5 * i)
    const power = (n: number) => 300_000 * (1 - (n / n0 - 1) ** 2)
    const car = {
      ...BARE,
      friction: 3,
      ratios: [2, 2 * q],
      curve: { speedRpm, torqueNm: speedRpm.map((n) => (power(n) * 30) / (Math.PI * n)) },
      launchRpm: 3000,
      topRpm: 9000,
    }
    return leaveSpeeds(driveMotion(car), 'power')[0] as number
  },
  'F-shift-table': (row) => {
    const car = {
      ...BARE,
      ratios: [number(row, 'G1'), number(row, 'G2')],
      curve: { speedRpm: list(row, 'n'), torqueNm: list(row, 'T') },
      launchRpm: 3000,
      topRpm: 8000,
    }
    return leaveSpeeds(driveMotion(car), 'power')[0] as number
  },
  'F-vmax-cube': (row) =>
    topSpeed(driveMotion(constantPower(number(row, 'P_wheel'), { airDensityKgM3: number(row, 'rho'), dragAreaM2: number(row, 'CdA') }))).topMps,
  'F-vmax-gear': (row) =>
    topSpeed(
      driveMotion({
        ...BARE,
        ratios: [number(row, 'G') / 4],
        radiusM: number(row, 'r'),
        curve: { speedRpm: [1000, 8000], torqueNm: [400, 400] },
        launchRpm: 1000,
        topRpm: number(row, 'n'),
      }),
    ).topMps,
  'F-acc-constP-x': (row) => {
    // From 5 m/s on, with the way and the time that constant power takes up to there.
    const [P, m, t] = [number(row, 'P'), number(row, 'm'), number(row, 't')]
    const [v0, end] = [5, Math.sqrt((2 * P * t) / m)]
    return (drive(constantPower(P, { massKg: m }), { fromMps: v0, toMps: end }).at(-1)?.to.distanceM ?? 0) + (m * v0 ** 3) / (3 * P)
  },
  'F-acc-tanh-v': (row) => {
    const { to, seconds } = atTime(row)
    return (to?.speedMps ?? 0) + (seconds - (to?.timeS ?? 0)) * 0.5
  },
  'F-acc-tanh-x': (row) => atTime(row).to?.distanceM as number,
  'F-acc-Pdrag-x': (row) => {
    const [P, k, m] = [number(row, 'P'), number(row, 'k'), number(row, 'm')]
    const v0 = 5
    return (
      (drive(constantPower(P, { massKg: m, dragAreaM2: k / 0.6 }), { fromMps: v0, toMps: number(row, 'v') }).at(-1)?.to.distanceM ?? 0) -
      (m / (3 * k)) * Math.log(1 - (k * v0 ** 3) / P)
    )
  },
  'F-acc-launch-t': (row) => drive(launched(row), { toMps: 100 * KMH }).at(-1)?.to.timeS as number,
  'F-acc-launch-v402': (row) => drive(launched(row), { toM: 402.336 }).at(-1)?.to.speedMps as number,
  'F-acc-launch-t402': (row) => drive(launched(row), { toM: 402.336 }).at(-1)?.to.timeS as number,
  'F-run-v402': (row) => {
    const [a, L, h] = list(row, 'a,L,h') as [number, number, number]
    const car: DriveCar = {
      ...USUAL_DRIVE,
      gripSchool: 'driveForce',
      gripUse: 1,
      massKg: number(row, 'm'),
      wheelbaseM: L,
      frontShare: 1 - a / L,
      centreHeightM: h,
      drivenAxles: 'rear',
      friction: number(row, 'mu'),
      curve: { speedRpm: list(row, 'torque table n'), torqueNm: list(row, 'T') },
      ratios: list(row, 'gears'),
      finalRatio: number(row, 'final'),
      radiusM: number(row, 'r'),
      driveEfficiency: number(row, 'eta'),
      engineInertiaKgM2: number(row, 'I_engine'),
      wheelInertiaKgM2: number(row, 'I_wheels total'),
      shiftS: number(row, 'shift time'),
      launchRpm: number(row, 'launch rpm'),
      topRpm: 8000,
      rollingCoefficient: number(row, 'Crr'),
      airDensityKgM3: number(row, 'rho'),
      dragAreaM2: number(row, 'CdA'),
    }
    return run({ motion: driveMotion(car), leaveRpm: Array(4).fill(number(row, 'shift rpm')), toM: 402.336 }).at(-1)?.to.speedMps as number
  },
  'F-qm-et-1': (row) => lbHp(row).times[0] as number,
  'F-qm-et-2': (row) => lbHp(row).times[1] as number,
  'F-qm-mph-2': (row) => (lbHp(row).speedsMps[1] as number) / MPH,
  'F-qm-mph-3': (row) => (lbHp(row).speedsMps[2] as number) / MPH,
  'F-qm-ideal-mph': () => quarterMileRule({ massKg: 0.45359237, crankPowerW: 745.6998715822702 }).ceilingMps / MPH,
  'F-hs-grip': (row) =>
    torquePath({
      car: rowCar(row, 'rear'),
      radiusM: number(row, 'r'),
      primaryRatio: 1,
      ratios: [3],
      finalRatio: 4,
      crankTorqueNm: 400,
      efficiency: 0.9,
      shockFactor: 1,
      shockSchool: 'engineOnly',
    }).rearGripNm,
  'F-hs-design': (row) => {
    // The school that applies shock to both: with an engine far over the tyres only those count.
    const [grip, shock, radiusM] = [number(row, 'T_axle grip'), number(row, 'shock'), 0.3]
    const car = { ...BARE, friction: grip / radiusM / (1250 * G), drivenAxles: 'all' as const, rearTorqueShare: 1, centreHeightM: 0, frontShare: 0.05 }
    const path = torquePath({
      car: { ...car, friction: car.friction / 0.95 },
      radiusM,
      primaryRatio: 1,
      ratios: [3],
      finalRatio: 4,
      crankTorqueNm: number(row, 'T_axle engine'),
      efficiency: 0.9,
      shockFactor: shock,
      shockSchool: 'both',
      shaftShareRear: number(row, 'share'),
    })
    return path.gears[0]?.rearShaftNm as number
  },
  'F-drift-vs': (row) => rowSlip(row).wheelSpeedMps,
  'F-drift-Fx': (row) => rowSlip(row).driveForceN,
  'F-drift-P-vector': (row) => rowSlip(row).powerW,
  'F-drift-P-upper': (row) => rowSlip(row).upperPowerW,
  'F-drift-slip-conv': () => slipForces({ speedMps: 10, slideAngleRad: 0.1, slip: 0.5, slidingFriction: 1, drivenLoadN: 1, rollingForceN: 0 }).slipOverWheel,
  'F-drift-n-2': (row) =>
    slideGears({ ...EXAMPLE_TRAIN, ratios: [number(row, 'G') / 4], finalRatio: 4, radiusM: number(row, 'r') }, rowSlip(row).wheelSpeedMps, 1)[0]
      ?.speedRpm as number,
  'F-drift-lowest': (row) => {
    const [speeds, torques] = [list(row, 'torque n'), list(row, 'torque')]
    const train = {
      curve: { speedRpm: [2500, ...speeds.slice(1)], torqueNm: [285, ...torques.slice(1)] },
      driveEfficiency: number(row, 'eta'),
      primaryRatio: 1,
      ratios: list(row, 'gears'),
      finalRatio: number(row, 'final'),
      radiusM: number(row, 'r'),
      topRpm: 7500,
    }
    const { wheelSpeedMps, powerW } = rowSlip(row)
    return slideGears(train, wheelSpeedMps, powerW).find(({ inHand }) => inHand !== null && inHand >= 0)?.gear as number
  },
})

describe('against a general ODE solver of the registry', () => {
  /** The same equations, integrated over time by extrapolation; phases end where speed reaches what ends them. */
  function byOde(car: DriveCar, leaveRpm: readonly number[], metres: number): { timeS: number; speedMps: number } {
    const motion = driveMotion(car)
    const step = (slope: (speed: number) => number, from: [number, number], seconds: number) => {
      const solver = new Solver(2)
      solver.absoluteTolerance = solver.relativeTolerance = 1e-11
      return solver.solve((_, [, speed]) => [speed as number, slope(speed as number)], 0, from, seconds).y as [number, number]
    }
    const until = (slope: (speed: number) => number, from: [number, number], isOver: (at: [number, number]) => boolean) => {
      let [low, high] = [0, 0.05]
      let at = from
      let start = 0
      while (!isOver(step(slope, at, high))) {
        at = step(slope, at, high)
        start += high
        if (start > 60) throw new Error('never')
      }
      for (let i = 0; i < 45; i++) {
        const middle = (low + high) / 2
        if (isOver(step(slope, at, middle))) high = middle
        else low = middle
      }
      return { seconds: start + high, at: step(slope, at, high) }
    }
    let [state, time]: [[number, number], number] = [[0, 0], 0]
    const isThere = ([x]: [number, number]) => x >= metres
    const first = motion.gears[0] as (typeof motion.gears)[number]
    const bends = (gear: typeof first, from: number, to: number) => [...gear.kinksMps.filter((speed) => speed > from && speed < to), to]
    const phase = (gear: typeof first, isSlipping: boolean, from: number, to: number) => {
      for (const end of bends(gear, from, to)) {
        const found = until(
          (speed) => motion.acceleration(gear, speed, isSlipping),
          state,
          (at) => isThere(at) || at[1] >= end,
        )
        time += found.seconds
        state = found.at
        if (isThere(state)) return
      }
    }
    phase(first, true, 0, motion.launchMps)
    for (const gear of motion.gears) {
      const leave = leaveRpm[gear.number - 1]
      phase(gear, false, state[1], leave === undefined ? gear.topMps : motion.speedMps(gear, leave))
      if (isThere(state) || leave === undefined) break
      state = step((speed) => -motion.resistanceN(speed) / motion.rollingMassKg, state, car.shiftS)
      time += car.shiftS
    }
    return { timeS: time, speedMps: state[1] }
  }
  test.each<[string, Partial<DriveCar>]>([
    ['the example', {}],
    ['with wings', { downforceFrontM2: 0.6, downforceRearM2: 1.4, dragAreaM2: 1.1 }],
    ['front drive', { drivenAxles: 'front', frontShare: 0.62 }],
    ['all wheels, friction that falls with load', { drivenAxles: 'all', frictionSchool: 'loadSensitive' }],
    ['inertia unknown', { engineInertiaKgM2: null }],
  ])('%s over 170 m, to 1e-6', (_, more) => {
    const car = { ...EXAMPLE_DRIVE, ...more }
    const leave = leaveSpeeds(driveMotion(car))
    const found = passedDistance(driveMotion(car), run({ motion: driveMotion(car), leaveRpm: leave, toM: 170 }), 170)
    const other = byOde(car, leave, 170)
    // The way ends in a gear: a shift there would hide where it was passed.
    expect(Math.abs((found?.timeS ?? 0) - other.timeS)).toBeLessThan(1e-6 * other.timeS)
    expect(Math.abs((found?.speedMps ?? 0) - other.speedMps)).toBeLessThan(1e-6 * other.speedMps)
  })
})

describe('second ways', () => {
  it('statics about another point: moments about the front contact give the same rear load', () => {
    for (const drivenAxles of ['front', 'rear', 'all'] as const) {
      const car = { ...EXAMPLE_DRIVE, drivenAxles, downforceFrontM2: 0.4, downforceRearM2: 0.9 }
      const [grip, resistance] = [gripLimitN(car, 40, 1), resistanceN(car, 40, 1)]
      const q = 0.5 * 1.2 * 1600
      const acceleration = (grip - resistance) / car.massKg
      // About the rear contact: weight and downforce in front of it, inertia above it.
      const frontN =
        (car.massKg * G * car.frontShare * car.wheelbaseM + q * 0.4 * car.wheelbaseM - car.massKg * acceleration * car.centreHeightM) / car.wheelbaseM
      const rearN = car.massKg * G + q * 1.3 - frontN
      const held = 1.15 * (drivenAxles === 'front' ? frontN : drivenAxles === 'rear' ? rearN : frontN + rearN)
      expect(grip).toBeCloseTo(held, 6)
    }
  })
  it('a slide without resistance and front slip: wheels at V/cos B, power μ N V tan B', () => {
    const free = { ...EXAMPLE_SLIDING, dragAreaM2: 0, rollingCoefficient: 0, frontSlipRad: 0 }
    for (const angle of [10, 25, 40, 55]) {
      const slide = holdSlide(free, 18, angle * DEG)
      expect(slide.wheelSpeedMps).toBeCloseTo(18 / Math.cos(angle * DEG), 9)
      expect(slide.powerW).toBeCloseTo(0.95 * slide.rearLoadN * 18 * Math.tan(angle * DEG), 4)
    }
  })
  it('trapezoids over speed give the same time', () => {
    const motion = MOTION
    const gear = motion.gears[2] as (typeof motion.gears)[number]
    const [from, to] = [25, 38]
    const found = run({ motion, leaveRpm: [7200, 7200, 7200, 7200], fromMps: from, fromGear: 3, toMps: to }).at(-1)?.to.timeS ?? 0
    const steps = 200_000
    let sum = 0
    for (let i = 0; i < steps; i++) sum += (to - from) / steps / motion.acceleration(gear, from + ((i + 0.5) * (to - from)) / steps)
    expect(found).toBeCloseTo(sum, 7)
  })
  it('marks within a stretch: a distance read back gives the same moment as a run that ends there', () => {
    const long = run({ motion: MOTION, leaveRpm: LEAVE, toM: 402.336 })
    for (const metres of [5, 18.288, 60, 71, 201.168, 399]) {
      const ended = run({ motion: MOTION, leaveRpm: LEAVE, toM: metres }).at(-1)?.to
      const read = passedDistance(MOTION, long, metres)
      expect(read?.timeS).toBeCloseTo(ended?.timeS ?? 0, 9)
      expect(read?.speedMps).toBeCloseTo(ended?.speedMps ?? 0, 8)
    }
  })
})

describe('what always holds', () => {
  const to = (car: DriveCar, leaveRpm: readonly number[], mps: number) => {
    const motion = driveMotion(car)
    return passedSpeed(motion, run({ motion, leaveRpm, toMps: mps }), mps)?.timeS ?? Number.POSITIVE_INFINITY
  }
  const cars = Array.from({ length: 24 }, (_, i): DriveCar => {
    // Spread over what cars are by steps that share no period.
    const at = (low: number, high: number, step: number) => low + (high - low) * ((i * step) % 1)
    return {
      ...EXAMPLE_DRIVE,
      massKg: at(700, 1800, 0.37),
      centreHeightM: at(0.3, 0.6, 0.53),
      frontShare: at(0.4, 0.64, 0.29),
      friction: at(0.8, 1.7, 0.71),
      dragAreaM2: at(0.5, 1.4, 0.17),
      drivenAxles: (['rear', 'front', 'all'] as const)[i % 3] as 'rear',
      finalRatio: at(3.2, 4.9, 0.61),
      shiftS: at(0, 0.45, 0.43),
      engineInertiaKgM2: i % 4 === 0 ? null : at(0.05, 0.3, 0.23),
      curve: { ...EXAMPLE_DRIVE.curve, torqueNm: EXAMPLE_DRIVE.curve.torqueNm.map((torque) => torque * at(0.5, 2, 0.67)) },
    }
  })
  test.each(cars.map((car, i) => [i, car] as const))('car %i', (_, car) => {
    const motion = driveMotion(car)
    const leave = leaveSpeeds(motion)
    const [power, force] = [leaveSpeeds(motion, 'power'), leaveSpeeds(motion, 'force')]
    leave.forEach((rpm, i) => {
      expect(force[i]).toBeLessThanOrEqual((power[i] as number) + 1e-6)
      expect(force[i]).toBeLessThanOrEqual(rpm + 1e-6)
      expect(rpm).toBeLessThanOrEqual(car.topRpm)
    })
    const base = to(car, leave, 35)
    expect(to(times(car, 1.05), leave, 35)).toBeLessThanOrEqual(base + 1e-9)
    const airless = { ...car, dragAreaM2: 0 }
    const free = leaveSpeeds(driveMotion(airless))
    expect(to({ ...airless, massKg: car.massKg * 1.04 }, free, 35)).toBeGreaterThanOrEqual(to(airless, free, 35) - 1e-9)
    // m, inertias, curve and areas together change no time.
    const k = 1.3
    const scaled = {
      ...times(car, k),
      massKg: k * car.massKg,
      dragAreaM2: k * car.dragAreaM2,
      wheelInertiaKgM2: k * car.wheelInertiaKgM2,
      engineInertiaKgM2: car.engineInertiaKgM2 === null ? null : k * car.engineInertiaKgM2,
    }
    expect(to(scaled, leave, 35)).toBeCloseTo(base, 8)
    // Nor do final and radius together, with the wheels' inertia by the square. The unknown inertia goes by the ratio alone.
    if (car.engineInertiaKgM2 !== null)
      expect(
        to(
          {
            ...car,
            finalRatio: car.finalRatio * 1.1,
            radiusM: car.radiusM * 1.1,
            wheelInertiaKgM2: car.wheelInertiaKgM2 * 1.21,
            engineInertiaKgM2: car.engineInertiaKgM2,
          },
          leave,
          35,
        ),
      ).toBeCloseTo(base, 8)
  })
  it('power into the driveline times what is left of it comes out, where the engine limits', () => {
    const path = torquePath({
      car: { ...EXAMPLE_DRIVE, friction: 3 },
      radiusM: 0.3,
      primaryRatio: 1.1,
      ratios: [3, 2, 1.4],
      finalRatio: 3.7,
      crankTorqueNm: 300,
      efficiency: 0.87,
      shockFactor: 1,
      shockSchool: 'engineOnly',
    })
    for (const { gear, limitedBy, gearboxNm, rearAxleNm } of path.gears)
      if (limitedBy === 'engine') expect(rearAxleNm).toBeCloseTo(gearboxNm * 1.1 * ([3, 2, 1.4][gear - 1] as number) * 3.7 * 0.87, 6)
  })
  it('a slide’s energy adds up, and more friction in one corner never needs less power', () => {
    for (const angle of [15, 30, 45])
      for (const radius of [24, 45, 80]) {
        let before = 0
        for (const slidingFriction of [0.6, 0.75, 0.9, 1.05, 1.2]) {
          const { state } = slideThrough({ ...EXAMPLE_SLIDING, slidingFriction }, EXAMPLE_TRAIN, { cornerRadiusM: radius, slideAngleRad: angle * DEG })
          expect(state.slidingW + state.pathW + state.rollingW).toBeCloseTo(state.powerW, 4)
          expect(state.radiusM).toBeCloseTo(radius, 6)
          expect(state.powerW).toBeGreaterThanOrEqual(before)
          before = state.powerW
        }
      }
  })
  it('forces of a slide with a known slip: F_x v_s is what slides and what the car gets', () => {
    const found = slipForces({ speedMps: 22, slideAngleRad: 35 * DEG, slip: 0.5, slidingFriction: 0.95, drivenLoadN: 7500, rollingForceN: 0 })
    const sum = 0.95 * 7500 * found.slidingSpeedMps + found.driveForceN * 22 * Math.cos(35 * DEG) - found.sideForceN * 22 * Math.sin(35 * DEG)
    expect(found.powerW).toBeCloseTo(sum, 6)
    const pull = found.driveForceN * Math.cos(35 * DEG) - found.sideForceN * Math.sin(35 * DEG)
    expect(
      slipForces({ speedMps: 22, slideAngleRad: 35 * DEG, pathResistanceN: pull, slidingFriction: 0.95, drivenLoadN: 7500, rollingForceN: 0 }).slip,
    ).toBeCloseTo(0.5, 9)
  })
})

describe('facts of the trade (common practice, no source)', () => {
  it('a short final in a weak car cures no lack of power: at a wheel speed no final has more in hand than the engine’s peak gives', () => {
    const slide = holdSlide(EXAMPLE_SLIDING, 24.36, 40 * DEG)
    const peak = Math.max(...EXAMPLE_TRAIN.curve.speedRpm.map((rpm, i) => ((EXAMPLE_TRAIN.curve.torqueNm[i] as number) * rpm * Math.PI) / 30))
    for (let finalRatio = 1.5; finalRatio <= 8; finalRatio += 0.05) {
      const best = bestGear(slideGears({ ...EXAMPLE_TRAIN, finalRatio }, slide.wheelSpeedMps, slide.powerW))
      expect(best?.inHand ?? -1).toBeLessThanOrEqual(peak / slide.powerW - 1 + 1e-3)
    }
  })
  it('forced into first it straightens: the gear ends below the wheel speed that the slide needs', () => {
    const slide = holdSlide(EXAMPLE_SLIDING, 20, 36 * DEG)
    expect(slideGears(EXAMPLE_TRAIN, slide.wheelSpeedMps, slide.powerW)[0]).toMatchObject({ ends: 'over', inHand: null })
  })
  it('a front-drive car with 370 kW at the wheels is held by its tyres through third', () => {
    const car: DriveCar = {
      ...constantPower(370_000),
      ...{
        drivenAxles: 'front',
        frontShare: 0.62,
        centreHeightM: 0.5,
        friction: 1.2,
        gripUse: 0.92,
        massKg: 1200,
        dragAreaM2: 0.75,
        rollingCoefficient: 0.014,
      },
    }
    const motion = driveMotion(car)
    const gear = motion.gears[0] as (typeof motion.gears)[number]
    for (const kmh of [50, 100, 150]) expect(motion.overGrip(gear, kmh * KMH)).toBeGreaterThan(0)
  })
  it('a radial rolls about 3 percent less than its code’s diameter says', () => {
    const rolling = tyreRolling({ code: '245/40R17', circumferenceM: null, construction: 'radial' })
    expect(rolling.rollOutM / (Math.PI * 0.6278)).toBeCloseTo(0.97, 2)
  })
})

describe('400 cars of 1970 to 1982', () => {
  // Data: reference list of cars with horsepower, weight and 0 to 60 mph; the same fixed assumptions for all of them.
  const rows = readFileSync(new URL('./outside/cars-1970-1982.csv', import.meta.url), 'utf8')
    .trim()
    .split(/\r?\n/)
    .slice(1)
    .map((line) => line.split(',').map(Number))
    .filter((cells) => cells.length >= 6 && cells.slice(1, 6).every((cell) => Number.isFinite(cell) && cell > 0))
  const seconds = rows.map((cells) => {
    const [, , , horsepower, pounds, time] = cells as [number, number, number, number, number, number]
    const [crankW, massKg] = [horsepower * 745.6998715822702, pounds * 0.45359237 + 80]
    const wheelW = 0.8 * crankW
    // A plump curve with its peak at 4,500 rpm, three gears of an automatic of the time, rear drive on narrow tyres.
    const speedRpm = [1500, 2500, 3500, 4500, 5000]
    const torqueNm = [1.12, 1.2, 1.15, 1, 0.86].map((part) => (part * wheelW * 30) / (Math.PI * 4500))
    const car: DriveCar = {
      ...USUAL_DRIVE,
      massKg,
      wheelbaseM: 2.7,
      frontShare: 0.56,
      centreHeightM: 0.55,
      drivenAxles: 'rear',
      friction: 0.8,
      dragAreaM2: 1,
      curve: { speedRpm, torqueNm },
      ratios: [2.8, 1.6, 1],
      finalRatio: 3.4,
      radiusM: 0.315,
      engineInertiaKgM2: null,
      wheelInertiaKgM2: 0,
      launchRpm: 2000,
      topRpm: 5000,
      shiftS: 0.5,
    }
    return { found: yardsticks(driveMotion(car), 0).zeroTo60Mph ?? Number.NaN, time, massKg, wheelW, ratio: pounds / horsepower }
  })
  const ranks = (values: readonly number[]) => {
    const order = values.map((value, i) => [value, i] as const).sort((a, b) => a[0] - b[0])
    const found = new Array<number>(values.length)
    for (let i = 0; i < order.length; ) {
      let j = i
      while (j + 1 < order.length && order[j + 1]?.[0] === order[i]?.[0]) j++
      for (let k = i; k <= j; k++) found[(order[k] as readonly [number, number])[1]] = (i + j) / 2
      i = j + 1
    }
    return found
  }
  const correlation = (a: readonly number[], b: readonly number[]) => {
    const mean = (list: readonly number[]) => list.reduce((sum, each) => sum + each, 0) / list.length
    const [ma, mb] = [mean(a), mean(b)]
    const sum = (of: (i: number) => number) => a.reduce((total, _, i) => total + of(i), 0)
    return (
      sum((i) => ((a[i] as number) - ma) * ((b[i] as number) - mb)) /
      Math.sqrt(sum((i) => ((a[i] as number) - ma) ** 2) * sum((i) => ((b[i] as number) - mb) ** 2))
    )
  }
  const rank = (of: (each: (typeof seconds)[number]) => number) => correlation(ranks(seconds.map(of)), ranks(seconds.map(({ time }) => time)))
  it('ranks them at least as well as mass over power does', () => {
    expect(seconds.length).toBeGreaterThan(380)
    const [ours, plain] = [rank(({ found }) => found), rank(({ ratio }) => ratio)]
    const errors = seconds.map(({ found, time }) => found / time - 1)
    const mean = errors.reduce((sum, each) => sum + each, 0) / errors.length
    const sd = Math.sqrt(errors.reduce((sum, each) => sum + (each - mean) ** 2, 0) / errors.length)
    console.info(
      `${seconds.length} cars: rank ${ours.toFixed(3)} against ${plain.toFixed(3)} for mass over power; off by ${(100 * mean).toFixed(1)} % ± ${(100 * sd).toFixed(1)} %`,
    )
    expect(ours).toBeGreaterThanOrEqual(0.717)
  })
  it('makes none quicker than all its power without loss would', () => {
    for (const { found, massKg, wheelW } of seconds) expect(found).toBeGreaterThan((massKg * (60 * MPH) ** 2) / (2 * 1.2 * wheelW))
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
