import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_DRIVE, EXAMPLE_SLIDING } from '../src/calculations/examples/example-drive.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { USUAL_DRIVE } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { passedDistance, run } from '../src/drivetrain/run.ts'
import { holdSlide } from '../src/drivetrain/slide.ts'
import { gripLimitN, resistanceN } from '../src/drivetrain/traction.ts'
import { yardsticks } from '../src/drivetrain/yardsticks.ts'
import { DEG, G, LEAVE, MOTION } from './drivetrain-cars.ts'
import { Solver } from './ode-solver.ts'

const MPH = 0.44704

/** The package ships sources that this project's compiler would judge; what is used of it is said here. */

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
