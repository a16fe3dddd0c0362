import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_DRIVE, EXAMPLE_SLIDING, EXAMPLE_TRAIN } from '../src/calculations/examples/example-drive.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { passedSpeed, run } from '../src/drivetrain/run.ts'
import { holdSlide } from '../src/drivetrain/slide.ts'
import { bestGear, slideGears, slideThrough } from '../src/drivetrain/slide-gears.ts'
import { slipForces } from '../src/drivetrain/slip-forces.ts'
import { torquePath } from '../src/drivetrain/torque-path.ts'
import { tyreRolling } from '../src/drivetrain/tyre.ts'
import { constantPower, DEG, KMH, times } from './drivetrain-cars.ts'

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
