import { EXAMPLE_TRAIN } from '../src/calculations/examples/example-drive.ts'
import type { DriveCar } from '../src/drivetrain/drive-car.ts'
import { USUAL_DRIVE } from '../src/drivetrain/drive-car.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { quarterMileRule } from '../src/drivetrain/quarter-mile-rule.ts'
import { run } from '../src/drivetrain/run.ts'
import { slideGears } from '../src/drivetrain/slide-gears.ts'
import { slipForces } from '../src/drivetrain/slip-forces.ts'
import { topSpeed } from '../src/drivetrain/top-speed.ts'
import { torquePath } from '../src/drivetrain/torque-path.ts'
import { gripLimitN, resistanceN } from '../src/drivetrain/traction.ts'
import { tyreSize } from '../src/drivetrain/tyre.ts'
import { describeRows, input, list, number, type Row } from './check-rows.ts'
import { BARE, calculated, constantPower, DEG, drive, G, KMH } from './drivetrain-cars.ts'

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
