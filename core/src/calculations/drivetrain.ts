import { requireGrounded, requireRatios } from '../drivetrain/drive-car.ts'
import { gripFromStart } from '../drivetrain/grip-from-start.ts'
import { LEAVE_SCHOOLS, leaveSpeeds } from '../drivetrain/leave-speeds.ts'
import { driveMotion } from '../drivetrain/motion.ts'
import { quarterMileRule } from '../drivetrain/quarter-mile-rule.ts'
import { shiftCosts } from '../drivetrain/shift-costs.ts'
import { topSpeed } from '../drivetrain/top-speed.ts'
import { gripLimitN, resistanceN } from '../drivetrain/traction.ts'
import { TYRE_CONSTRUCTIONS, tyreRolling, tyreSize } from '../drivetrain/tyre.ts'
import { requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { z } from '../zod.ts'
import { driveFields, groundedFields, PRACTICE, SCHOOLS_OF_GRIP } from './drive-fields.ts'
import { EXAMPLE_DRIVE, EXAMPLE_DRIVE_INPUT } from './examples/example-drive.ts'
import { defineCalculation } from './registry.ts'

const tyreCalculation = defineCalculation({
  name: 'drivetrain.tyre',
  title: 'Size of a tyre and how it rolls',
  formula: 'D = rim + 2 · width · aspect; r = roll-out/2π, or 3.05 D/2π (bias 3.02)',
  sources: ['Size designation rule (from memory)', 'Rolling factors of the tyre standard (from memory)'],
  assumptions: ['By the code: sd 1.5 %, because catalogue diameters differ and race tyres run 1 to 3 % off their code', 'One radius for speed and force'],
  validRange: 'codes as 245/40R17, 250/640R18 or 26x10-15; roll-out 0.9 to 3.2 m',
  schools: ['A measured roll-out takes the place of the code'],
  example: { code: '245/40R17' },
  input: z.strictObject({
    code: z.string().max(40).nullable().default(null),
    circumferenceM: z.number().nullable().default(null),
    construction: z.enum(TYRE_CONSTRUCTIONS).default('radial'),
  }),
  output: z.strictObject({ diameterM: z.number().nullable(), radiusM: z.number(), radiusSdM: z.number(), rollOutM: z.number(), turnsPerKm: z.number() }),
  run: (input) => {
    const { radiusM, radiusSdM, rollOutM, turnsPerKm } = tyreRolling(input)
    return { value: { diameterM: input.code === null ? null : tyreSize(input.code).diameterM, radiusM, radiusSdM, rollOutM, turnsPerKm } }
  },
})

const speedsCalculation = defineCalculation({
  name: 'drivetrain.speeds',
  title: 'Road speed in each gear and engine speed after a shift',
  formula: 'v = 2π r n/(60 i (1 + κ)), i = primary · ratio · final; n₂ = n₁ G₂/G₁',
  sources: ['Kinematics, closed form'],
  assumptions: ['Tyres roll at one radius; slip over road speed where it is given'],
  validRange: 'one to ten falling ratios; radius 0.15 to 0.5 m; slip −0.2 to 0.5',
  schools: [],
  example: { ratios: [...EXAMPLE_DRIVE.ratios], finalRatio: 3.73, radiusM: EXAMPLE_DRIVE.radiusM, topRpm: 7200 },
  input: z.strictObject({
    ratios: z.array(z.number()),
    primaryRatio: z.number().default(1),
    finalRatio: z.number(),
    radiusM: z.number(),
    topRpm: z.number(),
    slip: z.number().default(0),
  }),
  output: z.strictObject({
    gears: z.array(z.strictObject({ ratio: z.number(), topMps: z.number(), mpsPer1000Rpm: z.number(), rpmAfterShift: z.number().nullable() })),
  }),
  run: ({ ratios, primaryRatio, finalRatio, radiusM, topRpm, slip }) => {
    requireRatios(ratios)
    requireWithin(primaryRatio, 0.3, 4, 'primaryRatio')
    requireWithin(finalRatio, 0.5, 12, 'finalRatio')
    requireWithin(radiusM, 0.15, 0.5, 'radiusM')
    requireWithin(topRpm, 500, 25_000, 'topRpm')
    requireWithin(slip, -0.2, 0.5, 'slip')
    const gears = ratios.map((each, i) => {
      const ratio = primaryRatio * each * finalRatio
      const mpsPerRpm = (Math.PI * radiusM) / (30 * ratio * (1 + slip))
      const next = ratios[i + 1]
      return { ratio, topMps: mpsPerRpm * topRpm, mpsPer1000Rpm: 1000 * mpsPerRpm, rpmAfterShift: next === undefined ? null : (topRpm * next) / each }
    })
    return { value: { gears } }
  },
})

const effortCalculation = defineCalculation({
  name: 'drivetrain.tractive-effort',
  title: 'Drive force in each gear against what resists and what the tyres hold',
  formula: 'F = T i/r; R = c (m g + q (A_f + A_r)) + q C, q = ρ v²/2',
  sources: ['Statics; F.3, F.4'],
  assumptions: ['Torque is what is left at the wheels, times driveEfficiency'],
  validRange: 'speeds 0 to 150 m/s; engine speeds on the curve up to the top',
  schools: SCHOOLS_OF_GRIP,
  example: { ...EXAMPLE_DRIVE_INPUT, speedsMps: [10, 20, 30] },
  input: z.strictObject({ ...driveFields, speedsMps: z.array(z.number().min(0).max(150)).max(500) }),
  output: z.strictObject({
    points: z.array(
      z.strictObject({
        speedMps: z.number(),
        resistanceN: z.number(),
        gripN: z.number(),
        forcesN: z.array(z.number().nullable()),
        holder: z.enum(['engine', 'tyres']).nullable(),
      }),
    ),
  }),
  run: ({ speedsMps, ...car }) => {
    const motion = driveMotion(car)
    const points = speedsMps.map((speedMps) => {
      const forcesN = motion.gears.map((gear) => (speedMps >= gear.firstMps && speedMps <= gear.topMps ? motion.driveForceN(gear, speedMps) : null))
      const most = Math.max(...forcesN.map((force) => force ?? 0))
      const gripN = motion.gripN(speedMps)
      return {
        speedMps,
        resistanceN: motion.resistanceN(speedMps),
        gripN,
        forcesN,
        holder: most === 0 ? null : most > gripN ? ('tyres' as const) : ('engine' as const),
      }
    })
    return { value: { points } }
  },
})

const shiftCalculation = defineCalculation({
  name: 'drivetrain.shift-points',
  title: 'Where to leave each gear, and what early and late cost',
  formula: 'last n with (F₁ − R)/m₁ ≥ (F₂ − R)/m₂ at the same road speed (power: T₁ i₁ = T₂ i₂; force: T₁ i₁/m₁ = T₂ i₂/m₂)',
  sources: ['F.6 and the room’s page; costs by two runs'],
  assumptions: ['At the limit of the tyres in both gears the later is taken', 'A shift costs the same wherever it is made'],
  validRange: 'two to ten gears; costs for 1 to 3 000 rpm early or late',
  schools: ['acceleration (default), power, force: with less turning mass in higher gears low ones are left earlier'],
  example: EXAMPLE_DRIVE_INPUT,
  input: z.strictObject({ ...driveFields, school: z.enum(LEAVE_SCHOOLS).default('acceleration'), byRpm: z.number().min(1).max(3000).default(250) }),
  output: z.strictObject({
    leaveRpm: z.array(z.number()),
    costs: z.array(z.strictObject({ gear: z.int(), leaveRpm: z.number(), landsRpm: z.number(), earlyS: z.number(), lateS: z.number().nullable() })),
  }),
  run: ({ school, byRpm, ...car }) => {
    const motion = driveMotion(car)
    const leaveRpm = leaveSpeeds(motion, school)
    return { value: { leaveRpm, costs: shiftCosts(motion, leaveRpm, byRpm) } }
  },
})

const topSpeedCalculation = defineCalculation({
  name: 'drivetrain.top-speed',
  title: 'Top speed by drag and by gearing',
  formula: 'F(v) = R(v) on the falling branch, or 2π r n/(60 i) of the tallest gear; the lesser',
  sources: ['F.7, by halving'],
  assumptions: ['Level road, no wind, tyres do not grow'],
  validRange: 'as the car’s own fields',
  schools: SCHOOLS_OF_GRIP,
  example: EXAMPLE_DRIVE_INPUT,
  input: z.strictObject(driveFields),
  output: z.strictObject({ topMps: z.number(), gear: z.int(), heldBy: z.enum(['drag', 'gearing', 'tyres']), gearingMps: z.number() }),
  run: (car) => ({ value: topSpeed(driveMotion(car)) }),
})

const tractionCalculation = defineCalculation({
  name: 'drivetrain.traction-limit',
  title: 'The greatest drive force the tyres hold',
  formula: 'rear μ (W_r − R t)/(1 − μ t); front μ (W_f + R t)/(1 + μ t); all Σ μ N; fixed split s: the least of both axles; t = h/L',
  sources: ['Statics; F.5'],
  assumptions: ['Load transfer by the car’s own acceleration', 'Both tyres of an axle alike', 'μ = friction · gripUse · surfaceFactor'],
  validRange: 'friction over 0 and up to 3; a rear drive whose front lifts is held by that',
  schools: ['Friction is constant, or falls with load: μ (1 − k (N − N₀)/N₀)'],
  example: {
    massKg: 1240,
    wheelbaseM: 2.6,
    frontShare: 0.52,
    centreHeightM: 0.48,
    drivenAxles: 'rear',
    friction: 1.25,
    dragAreaM2: 0.68,
    rollingCoefficient: 0.015,
    speedMps: 0,
  },
  input: z.strictObject({ ...groundedFields, speedMps: z.number().min(0).max(150).default(0) }),
  output: z.strictObject({ gripN: z.number(), resistanceN: z.number(), accelerationMps2: z.number(), accelerationG: z.number() }),
  run: ({ speedMps, ...car }) => {
    requireGrounded(car)
    const [gripN, resisting] = [gripLimitN(car, speedMps, 1), resistanceN(car, speedMps, 1)]
    const accelerationMps2 = (gripN - resisting) / car.massKg
    return { value: { gripN, resistanceN: resisting, accelerationMps2, accelerationG: accelerationMps2 / STANDARD_GRAVITY_MPS2 } }
  },
})

const startCalculation = defineCalculation({
  name: 'drivetrain.grip-from-start',
  title: 'What a timed start says of grip',
  formula: 'friction with which the run of the car takes the timed seconds over 60 ft (or another way)',
  sources: ['The runs of drivetrain.accelerate, turned round by halving'],
  assumptions: ['The tyres limit the start', 'Clutch, surface and driver as that day'],
  validRange: '2 to 60 m from rest; friction 0.3 to 2.5',
  schools: SCHOOLS_OF_GRIP,
  example: { ...EXAMPLE_DRIVE_INPUT, timeS: 2.342 },
  input: z.strictObject({ ...driveFields, timeS: z.number(), distanceM: z.number().optional(), rollOutM: z.number().min(0).max(1).default(0) }),
  output: z.strictObject({ usedFriction: z.number(), friction: z.number() }),
  run: ({ timeS, distanceM, rollOutM, ...car }) => ({ value: gripFromStart(car, { timeS, distanceM, rollOutM }) }),
})

const ruleCalculation = defineCalculation({
  name: 'drivetrain.quarter-mile-rule',
  title: 'Rules of thumb for the quarter mile, and what no car can pass',
  formula: 't = c ∛(W/P), v = d ∛(P/W); floor t = ∛(9 m x²/8 P)',
  sources: [`F.9: three pairs of constants as they are told (from memory; ${PRACTICE})`, 'Floor: constant power without loss, closed form'],
  assumptions: ['Power at the flywheel, mass ready to race with driver', 'Grip for the whole way'],
  validRange: 'mass and power above zero',
  schools: ['5.825/234, 6.269/230, 6.290/224: shown as a range'],
  example: { massKg: 1270, crankPowerW: 223_710 },
  input: z.strictObject({ massKg: z.number(), crankPowerW: z.number() }),
  output: z.strictObject({ times: z.array(z.number()), speedsMps: z.array(z.number()), floorS: z.number(), ceilingMps: z.number() }),
  run: (input) => ({ value: quarterMileRule(input) }),
})

export const DRIVETRAIN_CALCULATIONS = [
  tyreCalculation,
  speedsCalculation,
  effortCalculation,
  shiftCalculation,
  topSpeedCalculation,
  tractionCalculation,
  startCalculation,
  ruleCalculation,
]
