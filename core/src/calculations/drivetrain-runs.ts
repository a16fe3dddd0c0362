import { driveCourse, usedBand } from '../drivetrain/course.ts'
import { rankFinals } from '../drivetrain/finals.ts'
import { leaveSpeeds } from '../drivetrain/leave-speeds.ts'
import { driveMotion } from '../drivetrain/motion.ts'
import { passedDistance, passedSpeed, run } from '../drivetrain/run.ts'
import { SHOCK_SCHOOLS, torquePath } from '../drivetrain/torque-path.ts'
import { yardsticks } from '../drivetrain/yardsticks.ts'
import { z } from '../zod.ts'
import { driveFields, groundedFields, PRACTICE, SCHOOLS_OF_GRIP } from './drive-fields.ts'
import { EXAMPLE_CORNERS, EXAMPLE_DRIVE_INPUT } from './examples/example-drive.ts'
import { defineCalculation } from './registry.ts'

const moment = z.strictObject({ timeS: z.number(), distanceM: z.number(), speedMps: z.number() })
const MOST_MARKS = 50

const accelerateCalculation = defineCalculation({
  name: 'drivetrain.accelerate',
  title: 'A run from rest or any speed, with splits',
  formula: 'dv/dt = least of (F − R)/m_e and (G − R)/m; m_e = m + (I_w + I_e i²)/r²; in a shift −R/(m + I_w/r²)',
  sources: ['F.8 in the form of the room’s page; integrated over speed, exact at kinks, shifts and marks'],
  assumptions: [
    'From rest the clutch slips at launch speed until the wheels catch up',
    'Each gear is left where the next one accelerates as hard',
    'At the end of the top gear the speed is held',
  ],
  validRange: 'start 0 to 150 m/s; up to 50 marks; gears and curve as the car’s own fields',
  schools: SCHOOLS_OF_GRIP,
  example: { ...EXAMPLE_DRIVE_INPUT, marksM: [18.288, 402.336], marksMps: [27.7777777778] },
  input: z.strictObject({
    ...driveFields,
    fromMps: z.number().min(0).max(150).default(0),
    rollOutM: z.number().min(0).max(1).default(0),
    leaveRpm: z.array(z.number().positive()).max(10).optional(),
    marksM: z.array(z.number().positive().max(20_000)).max(MOST_MARKS).default([]),
    marksMps: z.array(z.number().positive().max(150)).max(MOST_MARKS).default([]),
  }),
  output: z.strictObject({
    leaveRpm: z.array(z.number()),
    yardsticks: z.record(z.string(), z.number().nullable()),
    atDistances: z.array(moment.nullable()),
    atSpeeds: z.array(moment.nullable()),
    trace: z.array(moment.extend({ gear: z.int(), kind: z.enum(['slip', 'drive', 'shift', 'held']) })),
  }),
  run: ({ fromMps, rollOutM, leaveRpm: asked, marksM, marksMps, ...car }) => {
    const motion = driveMotion(car)
    const leaveRpm = asked ?? leaveSpeeds(motion)
    const farthest = Math.max(402.336, ...marksM) + rollOutM
    const driven = run({ motion, leaveRpm, fromMps, toM: farthest })
    const fastest = run({ motion, leaveRpm, fromMps, toMps: Math.max(0, ...marksMps) })
    return {
      value: {
        leaveRpm: [...leaveRpm],
        yardsticks: yardsticks(motion, rollOutM),
        atDistances: marksM.map((metres) => passedDistance(motion, driven, metres)),
        atSpeeds: marksMps.map((mps) => passedSpeed(motion, fastest, mps)),
        trace: driven.map(({ kind, gear, to }) => ({ ...to, gear, kind })),
      },
    }
  },
})

const path = { shockFactor: z.number(), shockSchool: z.enum(SHOCK_SCHOOLS).default('engineOnly') }

const torquePathCalculation = defineCalculation({
  name: 'drivetrain.torque-path',
  title: 'Torque from crank to tyre in every gear',
  formula: 'engine side = least of k T_c and clutch · holding; axle = least of engine side · i · η and G r; shaft = axle · share',
  sources: ['F.10', `Shock 1.5 on a circuit, 2 over kerbs, 2.5 with clutch kicks or drag launches; shares of a shaft (${PRACTICE})`],
  assumptions: ['A clutch that slips is the fuse', 'Where the tyres are the limit, what lies before them is relieved too', 'Peak friction on the dry, no air'],
  validRange: 'efficiency 0.5 to 1; shock 1 to 5; a gearbox never loses more than the whole driveline',
  schools: ['engineOnly: shock multiplies the engine’s side; both: the tyres’ limit too, where the axle hops'],
  example: {
    massKg: 1240,
    wheelbaseM: 2.6,
    frontShare: 0.52,
    centreHeightM: 0.48,
    drivenAxles: 'rear',
    friction: 1.25,
    radiusM: EXAMPLE_DRIVE_INPUT.radiusM,
    ratios: EXAMPLE_DRIVE_INPUT.ratios,
    finalRatio: 3.73,
    crankTorqueNm: 386.363636,
    efficiency: 0.88,
    shockFactor: 2.5,
    clutchTorqueNm: 520,
    clutchHolding: 1.2,
    shaftShareRear: 0.7,
  },
  input: z.strictObject({
    ...groundedFields,
    radiusM: z.number().min(0.15).max(0.5),
    primaryRatio: z.number().min(0.3).max(4).default(1),
    ratios: z.array(z.number()),
    finalRatio: z.number().min(0.5).max(12),
    crankTorqueNm: z.number(),
    efficiency: z.number(),
    gearboxEfficiency: z.number().max(1).optional(),
    ...path,
    clutchTorqueNm: z.number().positive().optional(),
    clutchHolding: z.number().min(0.5).max(3).default(1.2),
    isClutchBehindPrimary: z.boolean().default(false),
    shaftShareFront: z.number().min(0).max(1).default(0.5),
    shaftShareRear: z.number().min(0).max(1).default(0.5),
  }),
  output: z.strictObject({
    engineSideNm: z.number(),
    isClutchTheFuse: z.boolean(),
    frontGripNm: z.number(),
    rearGripNm: z.number(),
    gears: z.array(
      z.strictObject({
        gear: z.int(),
        limitedBy: z.enum(['tyres', 'engine']),
        gearboxNm: z.number(),
        propNm: z.number(),
        frontAxleNm: z.number(),
        rearAxleNm: z.number(),
        frontShaftNm: z.number(),
        rearShaftNm: z.number(),
      }),
    ),
  }),
  run: ({ radiusM, primaryRatio, ratios, finalRatio, crankTorqueNm, efficiency, gearboxEfficiency, shockFactor, shockSchool, ...rest }) => {
    const { clutchTorqueNm, clutchHolding, isClutchBehindPrimary, shaftShareFront, shaftShareRear, ...car } = rest
    const clutch = clutchTorqueNm === undefined ? undefined : { torqueNm: clutchTorqueNm, holding: clutchHolding, isBehindPrimary: isClutchBehindPrimary }
    const own = { radiusM, primaryRatio, ratios, finalRatio, crankTorqueNm, efficiency, gearboxEfficiency, shockFactor, shockSchool }
    return { value: torquePath({ car, ...own, clutch, shaftShareFront, shaftShareRear }) }
  },
})

const cornerField = z.strictObject({
  name: z.string().max(120).default('corner'),
  speedMps: z.number().positive().max(120),
  straightM: z.number().positive().max(20_000).nullable().default(null),
})
const courseFields = { corners: z.array(cornerField).max(60), isClosed: z.boolean().default(true), brakingMps2: z.number().min(2).max(30).default(9) }
const courseOutput = {
  timeS: z.number(),
  upshiftsInto: z.array(z.int()),
  atEndS: z.number(),
  bandShare: z.number(),
  cornersOutsideBand: z.array(z.string()),
}

const bandCalculation = defineCalculation({
  name: 'drivetrain.used-band',
  title: 'The engine speeds that a course uses',
  formula: '5 to 95 % of the full-throttle time by engine speed',
  sources: ['Room’s page; runs of drivetrain.accelerate between corners'],
  assumptions: [`Gear of a corner: pulls hardest, at least 7 % under its leave speed (${PRACTICE})`, 'Braking uses up each straight', 'Corners take no time'],
  validRange: '1 to 60 corners; braking 2 to 30 m/s²',
  schools: SCHOOLS_OF_GRIP,
  example: { ...EXAMPLE_DRIVE_INPUT, corners: EXAMPLE_CORNERS.map((corner) => ({ ...corner })) },
  input: z.strictObject({ ...driveFields, ...courseFields }),
  output: z.strictObject({ fromRpm: z.number(), toRpm: z.number(), ...courseOutput }),
  isLong: true,
  run: ({ corners, isClosed, brakingMps2, ...car }) => {
    const motion = driveMotion(car)
    const course = driveCourse({ motion, leaveRpm: leaveSpeeds(motion), corners, isClosed, brakingMps2 })
    const { timeS, upshiftsInto, atEndS, bandShare, cornersOutsideBand } = course
    return { value: { ...usedBand(motion, course), timeS, upshiftsInto: [...upshiftsInto], atEndS, bandShare, cornersOutsideBand: [...cornersOutsideBand] } }
  },
})

const MOST_FINALS = 30

const finalsCalculation = defineCalculation({
  name: 'drivetrain.final-drive',
  title: 'Finals on a course, best first',
  formula: 'time of a lap with each; within the larger of 0.05 s and two spreads it does not matter, then fewer shifts',
  sources: ['Room’s page; runs of drivetrain.accelerate between corners'],
  assumptions: ['Corner speeds stay as they are', 'Gears are left anew with each final'],
  validRange: 'up to 30 finals from 0.5 to 12; 1 to 60 corners',
  schools: SCHOOLS_OF_GRIP,
  example: { ...EXAMPLE_DRIVE_INPUT, corners: EXAMPLE_CORNERS.map((corner) => ({ ...corner })), finals: [3.73, 4.1] },
  input: z.strictObject({ ...driveFields, ...courseFields, finals: z.array(z.number()).max(MOST_FINALS) }),
  output: z.strictObject({
    ranked: z.array(z.strictObject({ finalRatio: z.number(), behindS: z.number(), doesNotMatter: z.boolean(), ...courseOutput })),
    refused: z.array(z.strictObject({ id: z.string(), reason: z.string() })),
  }),
  isLong: true,
  run: ({ corners, isClosed, brakingMps2, finals, ...car }) => {
    const choices = finals.map((finalRatio) => ({ id: String(finalRatio), finalRatio }))
    const { ranked, refused } = rankFinals(car, { corners, isClosed, brakingMps2 }, choices)
    const rows = ranked.map(({ id, timeS, behindS, doesNotMatter, course: { upshiftsInto, atEndS, bandShare, cornersOutsideBand } }) => ({
      finalRatio: Number(id),
      timeS,
      behindS,
      doesNotMatter,
      upshiftsInto: [...upshiftsInto],
      atEndS,
      bandShare,
      cornersOutsideBand: [...cornersOutsideBand],
    }))
    return { value: { ranked: rows, refused: [...refused] } }
  },
})

export const DRIVETRAIN_RUN_CALCULATIONS = [accelerateCalculation, torquePathCalculation, bandCalculation, finalsCalculation]
