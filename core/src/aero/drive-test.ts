import { requirePositive, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { type AxleSprings, axleDropM } from './axle-springs.ts'

/** A car on a road that is known, to be coasted or held at speeds by a simulated logger. SI; wind into the run that goes out. */
export interface SimulatedTest {
  readonly kind: 'coastDown' | 'steady'
  readonly massKg: number
  /** What rotates, over the mass. */
  readonly rotatingShare: number
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  /** At the tyres, down positive. */
  readonly downforceFrontM2: number
  readonly downforceRearM2: number
  readonly airDensityKgM3: number
  readonly windMps: number
  /** One spread of it. */
  readonly gustMps: number
  readonly grade: number
  /** Null: nobody knows the springs, so that no height is read. */
  readonly front: AxleSprings | null
  readonly rear: AxleSprings | null
  /** What the pitot tube reads over what stands ahead of the car. */
  readonly pitotFactor: number
  readonly fromMps: number
  readonly toMps: number
}

/** One row of the channels. */
export interface TestRow {
  readonly timeS: number
  readonly speedMps: number
  /** How far each axle sank; null without springs. */
  readonly frontDropM: number | null
  readonly rearDropM: number | null
  /** Travel of the dampers, left and right alike. */
  readonly frontDamperM: number | null
  readonly rearDamperM: number | null
  readonly pitotPa: number
}

/** Rows a second of a test. */
export const TEST_ROWS_PER_S = 5
/** How long a gust stays like itself (common practice, no source). */
const GUST_S = 6
const SPEED_NOISE_MPS = 0.05
const HEIGHT_NOISE_M = 0.0003
const DAMPER_NOISE_M = 0.0001
const PITOT_NOISE_PA = 8
const STEPS_A_ROW = 10
const HOLD_S = 5
const STANDS_S = 4
const HELD_SPEEDS = 4
const RAMP_MPS2 = 3
/** A car that has not slowed down by then stands on a slope. */
const LONGEST_S = 240

interface Moment {
  readonly timeS: number
  readonly speedMps: number
  readonly airMps: number
}

/** A coasting car by small steps, out (+1) or back (-1). */
function coast(test: SimulatedTest, sign: 1 | -1, gust: () => number): Moment[] {
  const { massKg, rotatingShare, dragAreaM2, rollingCoefficient, airDensityKgM3, windMps, grade, fromMps, toMps } = test
  const effectiveKg = massKg * (1 + rotatingShare)
  const steady = massKg * STANDARD_GRAVITY_MPS2 * (rollingCoefficient + sign * grade)
  const dt = 1 / (TEST_ROWS_PER_S * STEPS_A_ROW)
  const moments: Moment[] = []
  let speedMps = fromMps
  for (let k = 0; speedMps > toMps && k * dt < LONGEST_S; k++) {
    const airMps = speedMps + sign * (windMps + gust())
    if (k % STEPS_A_ROW === 0) moments.push({ timeS: k * dt, speedMps, airMps })
    speedMps -= (dt * (steady + 0.5 * airDensityKgM3 * dragAreaM2 * airMps * Math.abs(airMps))) / effectiveKg
  }
  return moments
}

/** The car at rest, then speeds held for some seconds each, slowest first, with the car pulling away between them. */
function hold({ fromMps, toMps, windMps }: SimulatedTest, sign: 1 | -1, gust: () => number): Moment[] {
  const [slow, fast] = [Math.min(fromMps, toMps), Math.max(fromMps, toMps)]
  const dt = 1 / TEST_ROWS_PER_S
  const moments: Moment[] = []
  let timeS = 0
  let speedMps = 0
  const pass = (seconds: number, wanted: number) => {
    for (const end = timeS + seconds; timeS < end - 1e-9; timeS += dt) {
      moments.push({ timeS, speedMps, airMps: speedMps + sign * (windMps + gust()) })
      speedMps = Math.min(wanted, speedMps + RAMP_MPS2 * dt)
    }
  }
  pass(STANDS_S, 0)
  for (let i = 0; i < HELD_SPEEDS; i++) {
    // As many steps of v² apart, as the load is.
    const wanted = Math.sqrt(slow ** 2 + ((fast ** 2 - slow ** 2) * i) / (HELD_SPEEDS - 1))
    pass((wanted - speedMps) / RAMP_MPS2 + dt, wanted)
    pass(HOLD_S, wanted)
  }
  return moments
}

/**
 * What a logger reads while a car coasts down, or holds four speeds, one way: speed, heights by its springs, the pressure of its pitot tube, each with noise.
 * `normal` draws from a normal distribution of spread 1. Rejects masses, areas and speeds that no car has. Source: motion of a rolling car, by small steps.
 * @example driveTest({ ...SIMULATED_TEST, fromMps: 30, toMps: 29.5 }, 'out', () => 0)[0].speedMps // 30
 */
export function driveTest(test: SimulatedTest, way: 'out' | 'back', normal: () => number): TestRow[] {
  requireWithin(test.massKg, 100, 5000, 'massKg')
  requireWithin(test.dragAreaM2, 0.05, 4, 'dragAreaM2')
  requireWithin(test.grade, -0.05, 0.05, 'grade')
  requireWithin(test.gustMps, 0, 10, 'gustMps')
  requireWithin(test.fromMps, 5, 120, 'fromMps')
  requireWithin(test.toMps, 2, 120, 'toMps')
  requirePositive(test.airDensityKgM3, 'airDensityKgM3')
  const sign = way === 'out' ? 1 : -1
  const stepS = test.kind === 'steady' ? 1 / TEST_ROWS_PER_S : 1 / (TEST_ROWS_PER_S * STEPS_A_ROW)
  const kept = Math.exp(-stepS / GUST_S)
  let gustMps = test.gustMps * normal()
  const gust = () => {
    gustMps = gustMps * kept + test.gustMps * Math.sqrt(1 - kept * kept) * normal()
    return gustMps
  }
  const moments = test.kind === 'steady' ? hold(test, sign, gust) : coast(test, sign, gust)
  return moments.map(({ timeS, speedMps, airMps }): TestRow => {
    const q = 0.5 * test.airDensityKgM3 * airMps ** 2
    const sunk = (axle: AxleSprings | null, areaM2: number): [dropM: number | null, damperM: number | null] => {
      if (!axle) return [null, null]
      const dropM = axleDropM(axle, q * areaM2)
      const travelM = dropM - (q * areaM2) / 2 / axle.tyreRateNPerM
      return [dropM + HEIGHT_NOISE_M * normal(), travelM * (axle.damperMotionRatio ?? axle.motionRatio) + DAMPER_NOISE_M * normal()]
    }
    const [frontDropM, frontDamperM] = sunk(test.front, test.downforceFrontM2)
    const [rearDropM, rearDamperM] = sunk(test.rear, test.downforceRearM2)
    return {
      timeS,
      speedMps: speedMps + SPEED_NOISE_MPS * normal(),
      frontDropM,
      rearDropM,
      frontDamperM,
      rearDamperM,
      pitotPa: Math.max(0, test.pitotFactor * q + PITOT_NOISE_PA * normal()),
    }
  })
}
