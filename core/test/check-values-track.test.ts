import { barPressures, brakeGain, brakeShare, discRiseK, firstToLock, idealBrakeShare } from '../src/brakes/brake-share.ts'
import { EXAMPLE_LAP_CAR } from '../src/calculations/examples/example-lap.ts'
import { STANDARD_GRAVITY_MPS2 as G } from '../src/mass/suspension.ts'
import { abaEffect } from '../src/stats/a-b-a.ts'
import { bestLaps } from '../src/stats/best-laps.ts'
import { compareLaps } from '../src/stats/compare-laps.ts'
import { lapsNeeded, smallestDifferenceS } from '../src/stats/laps-needed.ts'
import { median } from '../src/stats/moments.ts'
import { bisect } from '../src/stats/normal.ts'
import { lapOf } from '../src/track/lap.ts'
import type { LapCar } from '../src/track/lap-car.ts'
import { type TrackLine, trackShape } from '../src/track/track.ts'
import { cornerSpeed, tyreLimits } from '../src/track/tyre-limits.ts'
import { powerFromAcceleration } from '../src/tracklog/log-power.ts'
import { whittaker } from '../src/tracklog/whittaker.ts'
import { coldForHotPa, tyrePressurePa } from '../src/tyres/tyre-pressure.ts'
import { describeRows, input, list, number, type Row } from './check-rows.ts'

const KELVIN = 273.15
const PSI = 6894.757293168

/** A point of mass on one tyre: both axles alike, nothing falls with load, no height. */
const point = (row: Row, more: Partial<LapCar> = {}): LapCar => {
  const massKg = number(row, 'm') ?? 1000
  const half = (number(row, 'ClA') ?? 0) / 2
  return {
    ...EXAMPLE_LAP_CAR,
    massKg,
    frontShare: 0.5,
    centreHeightM: 0,
    friction: number(row, 'mu'),
    loadSensitivity: 0,
    brakingUse: 1,
    dragAreaM2: number(row, 'CdA') ?? 0,
    downforceFrontM2: half,
    downforceRearM2: half,
    rollingCoefficient: (number(row, 'F_roll') ?? 0) / (massKg * G),
    airDensityKgM3: number(row, 'rho') ?? 1.2,
    drivenAxles: 'all',
    brakeFrontShare: null,
    ...more,
  }
}
const single = (topRpm: number, overallRatio: number): LapCar['gears'] => ({
  overallRatios: [overallRatio],
  radiusM: 0.3,
  turning: [{ share: 0, kg: 0 }],
  leaveRpm: null,
  shiftS: 0,
  topRpm,
})
/** Below its first point a curve keeps its torque: one force at any speed that is asked here. */
const constantForce = (row: Row, forceN = number(row, 'F_drive')) => {
  const firstMps = (20_000 * Math.PI * 0.3) / (30 * 6)
  return point(row, { curve: { speedRpm: [20_000, 25_000], powerW: [forceN * firstMps, forceN * firstMps] }, gears: single(25_000, 6) })
}
const constantPower = (row: Row) =>
  point(row, { curve: { speedRpm: [200, 20_000], powerW: [number(row, 'P_wheel'), number(row, 'P_wheel')] }, gears: single(20_000, 6) })
const stadium = (row: Row): TrackLine => {
  const [R, S] = [number(row, 'R'), number(row, 'S')]
  const [straight, half] = [
    { lengthM: S, curvaturePerM: 0 },
    { lengthM: Math.PI * R, curvaturePerM: 1 / R },
  ]
  return { isClosed: true, segments: [straight, half, straight, half] }
}
const circle = (row: Row): TrackLine => ({ isClosed: true, segments: [{ lengthM: 2 * Math.PI * number(row, 'R'), curvaturePerM: 1 / number(row, 'R') }] })
const corner = (row: Row, car: LapCar) => cornerSpeed(tyreLimits(car), { curvaturePerM: 1 / number(row, 'R'), grade: 0, camberRad: 0, gripFactor: 1 })
const FINE = { stepM: 0.25 }
/** A steady way to make a circle's car pull enough to hold its corner speed. */
const strong = (row: Row) => constantForce(row, 20_000)
const brakes = (row: Row) => ({
  massKg: 1000,
  frontShare: number(row, 'b (CG to rear axle)') ? number(row, 'b (CG to rear axle)') / number(row, 'L') : number(row, 'b') / number(row, 'L'),
  centreHeightM: number(row, 'h'),
  wheelbaseM: number(row, 'L'),
  dragAreaM2: 0,
  downforceFrontM2: 0,
  downforceRearM2: 0,
  airDensityKgM3: 1.2,
})
const axle = (row: Row, side: 0 | 1) =>
  brakeGain({
    pistonsOneSideM: list(row, side === 0 ? 'pistons front one side' : 'pistons rear one side'),
    padFriction: list(row, 'mu pads f,r')[side] as number,
    effectiveRadiusM: list(row, 'r_eff f,r')[side] as number,
    tyreRadiusM: number(row, 'r tyre'),
  })
const logged = (row: Row, more: object) =>
  powerFromAcceleration({
    car: { massKg: 1000, massSdKg: 0, effectiveMassKg: 1000, dragAreaM2: 0, rollingCoefficient: 0, resistanceSdN: 0, airDensityKgM3: 1.2 },
    speedMps: number(row, 'v'),
    accelerationMps2: 0,
    grade: 0,
    speedSdMps: 0,
    accelerationSdMps2: 0,
    slip: { share: 0, sd: 0 },
    ...more,
  })
const alike = (row: Row) => compareLaps({ aS: list(row, 'A'), bS: list(row, 'B'), betweenSdS: 0 })

describeRows('published and derived check values of track, laps, tyres and brakes', 'check-values-track.json', {
  'H-whittaker': (row) => {
    const [n, harmonic] = [number(row, 'n'), number(row, 'harmonic')]
    const wave = Array.from({ length: n }, (_, i) => Math.cos((2 * Math.PI * harmonic * i) / n))
    return whittaker(wave, number(row, 'lambda'), true)[0] as number
  },
  'H-turning': (row) => trackShape(circle(row)).turningRad,
  'H-qss-circle-aero': (row) => corner(row, point(row)),
  'H-corner-drag': (row) => corner(row, point(row)),
  'H-qss-stadium': (row) => lapOf(stadium(row), constantForce(row), FINE).lapS,
  'H-qss-power-vp': (row) => lapOf(stadium(row), constantPower(row), { stepM: 0.05 }).fastestMps,
  'H-qss-aero': (row) => lapOf(stadium(row), constantPower(row), FINE).lapS,
  'H-sens-mu-circle': (row) => {
    const lap = (mu: number) => lapOf(circle(row), { ...strong(row), friction: mu }).lapS
    const mu = number(row, 'mu')
    return (lap(mu + 0.001) - lap(mu - 0.001)) / 0.002
  },
  'H-sens-F': (row) => {
    const lap = (forceN: number) => lapOf(stadium(row), constantForce(row, forceN), { stepM: 0.1 }).lapS
    return (lap(5010) - lap(4990)) / 20
  },
  'H-tls-axle': (row) => {
    const [N0, dN, mu0] = [number(row, 'N0'), number(row, 'dN'), number(row, 'mu0')]
    const massKg = (4 * N0) / G
    // 2 m a h/(t m g) = ΔN/N0 at the speed that is asked.
    const car = { ...point(row), massKg, friction: mu0, loadSensitivity: number(row, 'k'), centreHeightM: 0.5, trackM: 1.5 }
    const across = ((dN / N0) * 1.5 * G) / (2 * 0.5)
    const limits = tyreLimits(car).at({ curvaturePerM: across / 100, grade: 0, camberRad: 0, gripFactor: 1 }, 10)
    return limits.frontFriction * limits.frontN
  },
  'H-bb-ideal-1.3': (row) => idealBrakeShare(brakes(row), { decelerationG: number(row, 'z'), speedMps: 0 }),
  'H-bb-hard-share': (row) => {
    const [frontMasterM, rearMasterM] = list(row, 'master dia f,r') as [number, number]
    const line = barPressures({ frontMasterM, rearMasterM, barFront: number(row, 'bias bar front') })
    return brakeShare({ frontGain: axle(row, 0), rearGain: axle(row, 1), frontPa: line.front, rearPa: line.rear })
  },
  'H-bb-critical': (row) => bisect((z) => idealBrakeShare(brakes(row), { decelerationG: z, speedMps: 0 }) - number(row, 'phi'), 0, 2),
  'H-bb-maxdec': (row) => firstToLock(brakes(row), { frontShare: number(row, 'phi'), friction: number(row, 'mu'), speedMps: 0 }).decelerationG,
  'H-disc-dT': (row) =>
    discRiseK({
      massKg: number(row, 'm'),
      fromMps: number(row, 'v1'),
      toMps: number(row, 'v2'),
      axleShare: number(row, 'share'),
      discs: 2,
      discKg: number(row, 'm_disc'),
      heatJPerKgK: number(row, 'cp'),
    }),
  'H-tp-hot': (row) =>
    tyrePressurePa({
      gaugePa: number(row, 'p_g'),
      fromK: number(row, 't_cold') + KELVIN,
      toK: number(row, 't_hot') + KELVIN,
      ambientPa: number(row, 'p_atm'),
    }),
  'H-tp-cold': (row) => {
    const [wantedHotPa, coldK, hotK] = [number(row, 'p_g hot'), number(row, 't_cold') + KELVIN, number(row, 't_hot') + KELVIN]
    const ambientPa = number(row, 'p_atm')
    // A pair whose gas came to that warmth.
    const pair = { coldPa: 150_000, coldK: 290, hotPa: tyrePressurePa({ gaugePa: 150_000, fromK: 290, toK: hotK, ambientPa }), ambientPa }
    return coldForHotPa({ pair, wantedHotPa, coldK, ambientPa, school: 'sameHot' })
  },
  'H-tp-slope': (row) => {
    const [gaugePa, fromK] = [number(row, 'p_g'), number(row, 't') + KELVIN]
    return (tyrePressurePa({ gaugePa, fromK, toK: fromK + 10 }) - gaugePa) / PSI
  },
  'H-plog-u': (row) => {
    const effectiveMassKg = number(row, 'm_eff')
    const car = {
      massKg: effectiveMassKg,
      massSdKg: number(row, 'u_m'),
      effectiveMassKg,
      dragAreaM2: 0,
      rollingCoefficient: number(row, 'F_res') / (effectiveMassKg * G),
      resistanceSdN: number(row, 'u_F'),
      airDensityKgM3: 1.2,
    }
    return logged(row, { car, accelerationMps2: number(row, 'a'), speedSdMps: number(row, 'u_v'), accelerationSdMps2: number(row, 'u_a') }).sdW
  },
  'H-plog-grade': (row) => {
    const massKg = number(row, 'm')
    const car = { massKg, massSdKg: 0, effectiveMassKg: massKg, dragAreaM2: 0, rollingCoefficient: 0, resistanceSdN: 0, airDensityKgM3: 1.2 }
    return logged(row, { car, grade: number(row, 'grade') }).powerW
  },
  'H-med-diff': (row) => median(list(row, 'B')) - median(list(row, 'A')),
  'H-hodges': (row) => alike(row).differenceS,
  'H-mwu-min': (row) => compareLaps({ aS: [1, 2, 3, 4].slice(0, number(row, 'n1')), bS: [5, 6, 7, 8].slice(0, number(row, 'n2')), betweenSdS: 0 }).p,
  'H-mwu-ties': (row) => alike(row).p,
  'H-mdd': (row) => smallestDifferenceS({ sdS: number(row, 'sd'), lapsASide: number(row, 'n'), school: 'means' }),
  'H-mdd-mwu': (row) => smallestDifferenceS({ sdS: number(row, 'sd'), lapsASide: number(row, 'n'), school: 'ranks' }),
  'H-n-need': (row) => lapsNeeded({ sdS: number(row, 'sd'), differenceS: number(row, 'delta'), school: 'means' }).lapsASide,
  'H-aba': (row) => abaEffect([list(row, 'A1'), list(row, 'B'), list(row, 'A2')]).effectS,
  'H-theo': (row) => bestLaps([92.5, 92.5, 92.3], input(row, 'laps x sectors') as number[][]).theoreticalS as number,
})
