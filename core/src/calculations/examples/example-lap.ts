import type { LapCar } from '../../track/lap-car.ts'
import { asReference } from '../../track/lap-fit.ts'
import type { Segment, TrackLine } from '../../track/track.ts'

const RATIOS = [11.31, 7.605, 5.655, 4.485, 3.588]

/** A rear-drive car with five gears; invented. */
export const EXAMPLE_LAP_CAR: LapCar = {
  massKg: 1180,
  frontShare: 0.52,
  centreHeightM: 0.47,
  wheelbaseM: 2.6,
  trackM: 1.5,
  friction: 1.28,
  loadSensitivity: 0.1,
  gripFactor: 1,
  brakingUse: 0.86,
  dragAreaM2: 0.7,
  downforceFrontM2: 0.25,
  downforceRearM2: 0.35,
  rollingCoefficient: 0.013,
  airDensityKgM3: 1.19,
  drivenAxles: 'rear',
  rearTorqueShare: null,
  brakeFrontShare: 0.66,
  reference: null,
  curve: { speedRpm: [3000, 4500, 5500, 6500, 7200], powerW: [95_000, 160_000, 200_000, 225_000, 220_000] },
  gears: {
    overallRatios: RATIOS,
    radiusM: 0.308,
    turning: RATIOS.map((ratio) => ({ share: 0.04 + 0.0025 * ratio * ratio, kg: 0 })),
    leaveRpm: null,
    shiftS: 0.2,
    topRpm: 7200,
  },
}

/** Straights by their length; corners by radius and degrees, a right-hander's radius under zero. */
type Drawn = readonly [lengthM: number] | readonly [radiusM: number, degrees: number]

/** Straights and arcs as segments. */
export const drawnSegments = (drawn: readonly Drawn[]): Segment[] =>
  drawn.map(([size, degrees]) =>
    degrees === undefined ? { lengthM: size, curvaturePerM: 0 } : { lengthM: (Math.abs(size) * degrees * Math.PI) / 180, curvaturePerM: 1 / size },
  )

/** An airfield circuit of twelve corners; invented. */
export const EXAMPLE_AIRFIELD: TrackLine = {
  isClosed: true,
  segments: drawnSegments([
    [221.729],
    [75, 26],
    [-75, 52],
    [75, 26],
    [204.7],
    [-34, 118],
    [70.3],
    [58, 86],
    [35],
    [-112, 98],
    [55.2],
    [-40, 66],
    [74.9],
    [42, 82],
    [48.1],
    [-160, 62],
    [275.8],
    [-44, 84],
    [231.855],
    [95, 44],
    [179],
    [-88, 144],
    [214.7],
  ]),
}

/** Two straights and two hairpins: short enough to ask for often; invented. */
export const EXAMPLE_OVAL: TrackLine = { isClosed: true, segments: drawnSegments([[180], [35, 180], [180], [35, 180]]) }

/** Shorter still: what a long sum is asked for over and over; invented. */
export const EXAMPLE_RING: TrackLine = { isClosed: true, segments: drawnSegments([[60], [20, 180], [60], [20, 180]]) }

/** The car whose driven lap of the airfield was 82.60 s. */
export const EXAMPLE_FITTED: LapCar = asReference({ ...EXAMPLE_LAP_CAR, gripFactor: 0.94794 })
