import { speedAfter } from '../../aero/coast-down.ts'
import type { AxleAreas, DeviceForce } from '../../aero/device-loads.ts'
import type { SimulatedTest } from '../../aero/drive-test.ts'
import type { HeightsInput } from '../../aero/ride-heights.ts'
import { USUAL_WING, type WingInput } from '../../aero/wing.ts'
import { STANDARD_GRAVITY_MPS2 } from '../../mass/suspension.ts'
import type { PanelLoad } from '../../structure/panels.ts'

const DEG = Math.PI / 180

/** A wing on uprights behind a roof; invented. */
export const EXAMPLE_WING: WingInput = { ...USUAL_WING, spanM: 1.4, chordM: 0.26, plateHeightM: 0.22, angleRad: 4 * DEG, zeroLiftRad: -4.15 * DEG }

const place = (downforceM2: number, downforceSdM2: number, dragM2: number, dragSdM2: number, xM: number, xSdM: number, zM: number): DeviceForce => ({
  form: 'place',
  downforceM2,
  downforceSdM2,
  dragM2,
  dragSdM2,
  xM,
  xSdM,
  zM,
})

export const EXAMPLE_WHEELBASE_M = 2.65

/** The devices of a car, each with its doubt; invented. */
export const EXAMPLE_DEVICES: Readonly<Record<'body' | 'splitter' | 'canards' | 'floor' | 'wing', DeviceForce>> = {
  body: { form: 'axles', frontM2: -0.02, frontSdM2: 0.04, rearM2: -0.07, rearSdM2: 0.05, dragM2: 0.7, dragSdM2: 0.05 },
  splitter: place(0.208, 0.0646632, 0.006, 0.006, -0.99, 0.15, 0.1),
  canards: place(0.02, 0.01, 0.01, 0.005, -0.55, 0.05, 0.35),
  floor: { form: 'axles', frontM2: 0.06, frontSdM2: 0.05, rearM2: 0.14, rearSdM2: 0.09, dragM2: -0.015, dragSdM2: 0.03 },
  wing: place(0.340293, 0.0589176, 0.0244239, 0.00622769, 3.45, 0.02, 1.405),
}

export const EXAMPLE_AREAS: AxleAreas = { frontM2: 0.2, rearM2: 0.6, dragM2: 0.7, frontVariance: 0.01, rearVariance: 0.02, covariance: 0, dragVariance: 0.001 }

/** Springs of two axles, the front one on a packer and a bump rubber; invented. */
export const EXAMPLE_HEIGHTS: HeightsInput = {
  front: {
    springRateNPerM: 58_850,
    motionRatio: 0.94,
    damperMotionRatio: null,
    tyreRateNPerM: 230_000,
    gapM: 0.01,
    packerM: 0.006,
    rubber: [
      { compressionM: 0.005, forceN: 400 },
      { compressionM: 0.01, forceN: 1200 },
      { compressionM: 0.015, forceN: 3000 },
    ],
  },
  rear: { springRateNPerM: 88_730, motionRatio: 0.72, damperMotionRatio: null, tyreRateNPerM: 230_000, gapM: null, packerM: 0, rubber: [] },
  wheelbaseM: EXAMPLE_WHEELBASE_M,
  airDensityKgM3: 1.2,
  downforceFrontM2: 0.2326,
  downforceRearM2: 0.44567,
  points: [{ name: 'lip', xM: -1.1, zM: 0.065 }],
}

/** A lip of 200 mm held at its rear edge, in the air of 70 m/s. */
export const EXAMPLE_LIP: PanelLoad = {
  support: 'cantilever',
  lipM: 0.2,
  rodAtM: null,
  rodNPerM2: null,
  widthM: 1.6,
  pressurePa: 1911,
  loadFactor: 2,
  standingN: 1000,
  mostTipM: 0.005,
  carriedKg: 0,
  span: 'along',
}

/** A wing's mount at 70 m/s, two uprights on two feet each. */
export const EXAMPLE_MOUNT = {
  downforceN: 1000.46,
  dragN: 71.806,
  xM: 3.45,
  zM: 1.405,
  loadFactor: 2,
  uprights: 2,
  feet: [
    { xM: 3.36, zM: 0.95 },
    { xM: 3.6, zM: 0.95 },
  ],
  bolts: null,
}

const COAST = { aN: 181.617, bNPerMps: 0, cNPerMps2: 0.439635, effectiveKg: 1395.68 }

/** A run down from 50 m/s that wind and slope push or hold: s = 1 out, −1 back. */
export function exampleRun(sign: 1 | -1, { windMps = 1, grade = 0.002, stepS = 5, count = 17 } = {}): { timeS: number[]; speedMps: number[] } {
  const timeS = Array.from({ length: count }, (_, i) => i * stepS)
  const aN = COAST.aN + COAST.cNPerMps2 * windMps ** 2 + sign * 1342 * STANDARD_GRAVITY_MPS2 * grade
  return { timeS, speedMps: timeS.map((time) => Number(speedAfter({ ...COAST, aN, bNPerMps: 2 * sign * COAST.cNPerMps2 * windMps }, 50, time).toFixed(6))) }
}

/** One pair of runs of a car of 0.742 m². */
export const EXAMPLE_COAST = {
  pairs: [{ out: exampleRun(1), back: exampleRun(-1) }],
  massKg: 1342,
  massSdKg: 3,
  airDensityKgM3: 1.185,
}

/** A car and a road that a simulated logger coasts down; invented. */
export const EXAMPLE_SIMULATED_TEST: SimulatedTest = {
  kind: 'coastDown',
  massKg: 1342,
  rotatingShare: 0.04,
  dragAreaM2: 0.742,
  rollingCoefficient: 0.0138,
  downforceFrontM2: 0.9,
  downforceRearM2: 0.75,
  airDensityKgM3: 1.185,
  windMps: 1.2,
  gustMps: 0.5,
  grade: 0.002,
  front: EXAMPLE_HEIGHTS.front,
  rear: EXAMPLE_HEIGHTS.rear,
  pitotFactor: 1.06,
  fromMps: 50,
  toMps: 15,
}
