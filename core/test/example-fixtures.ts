import { axleDropM } from '../src/aero/axle-springs.ts'
import {
  EXAMPLE_AREAS,
  EXAMPLE_COAST,
  EXAMPLE_HEIGHTS,
  EXAMPLE_LIP,
  EXAMPLE_MOUNT,
  EXAMPLE_SIMULATED_TEST,
  EXAMPLE_WING,
} from '../src/calculations/examples/example-aero.ts'
import { EXAMPLE_CORNERS, EXAMPLE_DRIVE, EXAMPLE_SLIDING, EXAMPLE_TRAIN } from '../src/calculations/examples/example-drive.ts'
import { EXAMPLE_AIRFIELD, EXAMPLE_FITTED, EXAMPLE_LAP_CAR } from '../src/calculations/examples/example-lap.ts'
import { EXAMPLE_PLAN } from '../src/calculations/examples/example-plan.ts'
import { EXAMPLE_RECORDS } from '../src/calculations/examples/example-records.ts'
import { EXAMPLE_ROAD } from '../src/calculations/examples/example-road.ts'
import { leaveSpeeds } from '../src/drivetrain/leave-speeds.ts'
import { driveMotion } from '../src/drivetrain/motion.ts'
import { fuelBlend } from '../src/engine/fuels.ts'
import {
  aeroTotals,
  buildRecordsSchema,
  checkKind,
  circuitKind,
  coolingPlanKind,
  enginePlanKind,
  openCar,
  partKind,
  powerBoxKind,
  trackPlanKind,
  UNIT_SETS,
  z,
} from '../src/index.ts'
import { readyRoad } from '../src/jobs/road.ts'
import { PANEL_MATERIALS } from '../src/structure/panel-materials.ts'
import { changedLapCar } from '../src/track/lap-change.ts'
import { workedExample } from './worked-example.ts'

// What the examples of public functions may name; invented numbers.
export const EXAMPLE = buildRecordsSchema.parse(EXAMPLE_RECORDS)
export const PETROL = fuelBlend(0)
export const CAR = openCar(EXAMPLE)
/** The worked example of the rules. */
export const RULES = workedExample()
export const PLAN = z.object(enginePlanKind.fields).parse({ ...EXAMPLE_PLAN, id: 'plan', stageId: 'strip' })
export const UNITS = UNIT_SETS.metric
export const CURVE = { stepRpm: 50, firstSpeedRpm: 6400, powerW: [138_000, 139_000, 140_000] }
/** A car that laps, the same after a fit, and the airfield it laps on. */
export const LAP_CAR = EXAMPLE_LAP_CAR
export const FITTED_CAR = EXAMPLE_FITTED
export const LIGHTER_CAR = changedLapCar(EXAMPLE_FITTED, { massKg: -30 })
export const SKARVHOLM = EXAMPLE_AIRFIELD
/** Places on a ring of 80 m, a corner's samples, and a car whose log is read. */
export const CIRCLE_OF_80_M = Array.from({ length: 300 }, (_, i) => ({
  latitudeDeg: 59 + (80 * Math.sin((2 * Math.PI * i) / 300)) / 111_412,
  longitudeDeg: 18 + (80 * Math.cos((2 * Math.PI * i) / 300)) / 57_478,
}))
/** What laps are read from: a count that changes at 5 s and at 12 s. */
export const LOG = {
  timeS: Float64Array.from({ length: 20 }, (_, i) => i),
  origin: null,
  east: null,
  north: null,
  lap: Float64Array.from({ length: 20 }, (_, i) => (i < 5 ? 0 : i < 12 ? 1 : 2)),
}
/** A pull in one gear at a steady 4 m/s², 20 samples a second. */
export const FULL_PULL = {
  timeS: Array.from({ length: 61 }, (_, i) => i / 20),
  speedMps: Array.from({ length: 61 }, (_, i) => 25 + i / 5),
  engineRpm: Array.from({ length: 61 }, (_, i) => (((25 + i / 5) * 5.655) / 0.308) * (30 / Math.PI)),
  throttle: null,
}
export const CORNERING_LAP = { speedMps: Array(30).fill(0.001), alongMps2: Array(30).fill(0), acrossMps2: Array(30).fill(1.18 * 9.80665) }
export const LOG_CAR = {
  massKg: 1180,
  massSdKg: 3,
  effectiveMassKg: 1321.54,
  dragAreaM2: 0.7,
  rollingCoefficient: 0.013,
  resistanceSdN: 60,
  airDensityKgM3: 1.19,
}
/** A car that drives and slides, and a course. */
export const DRIVE = EXAMPLE_DRIVE
export const MOTION = driveMotion(EXAMPLE_DRIVE)
export const LEAVE = leaveSpeeds(MOTION)
export const SLIDING = EXAMPLE_SLIDING
export const TRAIN = EXAMPLE_TRAIN
export const COURSE = { motion: MOTION, leaveRpm: LEAVE, corners: EXAMPLE_CORNERS, isClosed: true, brakingMps2: 9 }
export const PATH = {
  car: EXAMPLE_DRIVE,
  radiusM: EXAMPLE_DRIVE.radiusM,
  primaryRatio: 1,
  ratios: EXAMPLE_DRIVE.ratios,
  finalRatio: 3.73,
  crankTorqueNm: 340 / 0.88,
  efficiency: 0.88,
  shockFactor: 2.5,
  shockSchool: 'engineOnly',
} as const
export const CORNERS = { LF: 312, RF: 298, LR: 276, RR: 294 }
export const RATES = { LF: 38_000, RF: 38_000, LR: 46_000, RR: 46_000 }
export const PLACES = { wheelbaseM: 2.57, trackFrontM: 1.5, trackRearM: 1.52 }
export const PERCHES = { motionRatio: { LF: 0.95, RF: 0.95, LR: 0.9, RR: 0.9 }, threadPitchM: { LF: 0.0015, RF: 0.0015, LR: 0.0015, RR: 0.0015 } }
export const PART = z.object(partKind.fields).parse({
  id: 'disc',
  kind: 'clutch',
  name: 'disc',
  count: 2,
  mass: { massKg: 1.5, sdKg: null, proof: 'catalogue' },
  cost: 300,
  life: { amount: 20, unit: 'hours' },
  ratings: [{ of: 'crankTorque', limit: 450, known: 'catalogue' }],
  extras: [{ name: 'bolts', massKg: 0.2, cost: 12 }],
  status: 'fitted',
})
/** The same build with the part and the plan. */
export const WITH_PLAN = { ...EXAMPLE, parts: [PART], enginePlans: [PLAN] }
export const CHANNELS = [
  { role: 'speed', name: 'Engine speed', unit: 'rpm', values: Float64Array.from({ length: 40 }, (_, i) => 3000 + 100 * i) },
  { role: 'power', name: 'Power', unit: 'kW', values: Float64Array.from({ length: 40 }, (_, i) => 60 + 2 * i) },
] as const
/** Two axes of a photographed sheet: engine speed to the right, power upwards. */
export const SHEET_AXES = {
  speed: { first: { right: 0, down: 100 }, firstValue: 2000, second: { right: 100, down: 100 }, secondValue: 7000 },
  value: { first: { right: 0, down: 100 }, firstValue: 0, second: { right: 0, down: 0 }, secondValue: 200 },
}
/** A car 10 kg under its minimum, and one place for plates of 5 kg. */
export const BALLAST = {
  corners: CORNERS,
  ...PLACES,
  minimumKg: 1190,
  objective: 'nearestShares' as const,
  sites: [{ id: 'floor', xM: 1.2, yM: 0, zM: 0.1, limitKg: 30, plates: [{ massKg: 5, count: 6 }] }],
}

/** A wing, areas, springs, a lip and a mount; coast-downs and a steady run. */
export const WING = EXAMPLE_WING
export const AREAS = EXAMPLE_AREAS
export const HEIGHTS = EXAMPLE_HEIGHTS
export const SPRINGS = EXAMPLE_HEIGHTS.front
export const LIP = EXAMPLE_LIP
export const PLYWOOD = PANEL_MATERIALS[0] as (typeof PANEL_MATERIALS)[number]
export const WING_MOUNT = EXAMPLE_MOUNT
export const TOTALS = aeroTotals([], {}, { wheelbaseM: 2.65, school: 'contactPatches' })
export const SIMULATED_TEST = EXAMPLE_SIMULATED_TEST
export const COAST_PAIR = EXAMPLE_COAST.pairs[0]
export const COAST = { ...EXAMPLE_COAST, rotatingKg: null, airDensitySd: 0.005, rollingSchool: 'asRoadShows', rollingSpeedMps: 120 } as const
export const COAST_PLAN = {
  dragAreaM2: 0.742,
  rollingCoefficient: 0.0138,
  massKg: 1342,
  rotatingShare: 0.04,
  massSdKg: 3,
  airDensityKgM3: 1.185,
  airDensitySd: 0.005,
  fromMps: 50,
  toMps: 15,
  gustMps: 1,
}
const steadyAxle = (springs: (typeof EXAMPLE_HEIGHTS)['front'], areaM2: number) => ({
  springs,
  reading: 'height' as const,
  travelM: [20, 40, 60].map((speed) => axleDropM(springs, 0.6 * speed ** 2 * areaM2) + 0.004),
  readingSdM: 0.0003,
  rateRelativeSd: 0.05,
})
const bare = { ...EXAMPLE_HEIGHTS.front, rubber: [] }
export const STEADY = {
  speedMps: [20, 40, 60],
  airDensityKgM3: 1.2,
  front: steadyAxle(bare, 0.9),
  rear: steadyAxle(EXAMPLE_HEIGHTS.rear, 0.75),
  decelerationMps2: null,
  massKg: 1336,
  centreHeightM: 0.5,
  wheelbaseM: 2.65,
}

/** The road of the worked example, how guesses run, and the middle draw. */
/** Held at 20 m/s, then at 40, for 15 s each; the axles sink with the square of the speed. */
export const HELD_SPEEDS = (() => {
  const timeS = Array.from({ length: 301 }, (_, i) => i / 10)
  const speedMps = timeS.map((t) => (t < 15 ? 20 : 40))
  const sunk = (perSquare: number) => speedMps.map((speed) => perSquare * speed * speed)
  const none = { throttle: null, brakePa: null, engineRpm: null, east: null, north: null }
  return { timeS, speedMps, acrossMps2: timeS.map(() => 0), frontM: sunk(4e-6), rearM: sunk(6e-6), ...none }
})()
export const ROAD = EXAMPLE_ROAD
export const READY = readyRoad(EXAMPLE_ROAD)
export { USUAL_OPTIMISM } from '../src/jobs/optimism.ts'
export { MEDIAN_DRAW } from '../src/jobs/road.ts'

/** A reading with its limits, a look, and an event of two days. */
export const COOLANT = z.object(checkKind.fields).parse({
  id: 'coolant',
  kind: 'reading',
  name: 'Coolant',
  rounds: ['between'],
  reading: { quantity: 'temperature', role: 'coolant', warnHigh: 373.15, stopHigh: 378.15 },
})
export const HOSES = z.object(checkKind.fields).parse({ id: 'hoses', kind: 'look', name: 'Hoses', rounds: ['between'] })
export const CHECKED = { ...EXAMPLE, checks: [COOLANT, HOSES] }
export const HOUR = z.object(trackPlanKind.fields).parse({
  id: 'hour',
  trackId: 'airfield',
  stageId: 'strip',
  bookedS: 3600,
  lapS: 75,
  steps: [{ kind: 'level', share: 0.65, wantLaps: 5, leastLaps: 3 }],
})
export const BOX = z.object(powerBoxKind.fields).parse({ id: 'box', stageId: 'strip', name: 'module', outputs: [{ key: 'O1', ratedA: 20 }] })
export const PUMP = z.object(circuitKind.fields).parse({ id: 'pump', name: 'pump', currentA: 14.8, output: 'O1', lengthM: 3.6 })
export const ELECTRIC = { ...EXAMPLE, powerBoxes: [BOX], circuits: [PUMP] }
export const COOLING = z.object(coolingPlanKind.fields).parse({
  id: 'cooling',
  stageId: 'strip',
  heatW: 126_500,
  areaM2: 0.24,
  rating: { ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 },
  faceShare: 0.28,
  flowM3PerS: 0.002,
  fluidL: 12,
  hot: { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15 },
  stopK: 378.15,
})
