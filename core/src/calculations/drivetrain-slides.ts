import { holdSlide } from '../drivetrain/slide.ts'
import { cornerSlideMps, slideGears, slideLevers, slideLink } from '../drivetrain/slide-gears.ts'
import { slipForces } from '../drivetrain/slip-forces.ts'
import { z } from '../zod.ts'
import { PRACTICE, trainFields } from './drive-fields.ts'
import { EXAMPLE_SLIDING, EXAMPLE_TRAIN } from './examples/example-drive.ts'
import { defineCalculation } from './registry.ts'

const slidingFields = {
  massKg: z.number(),
  wheelbaseM: z.number(),
  frontShare: z.number(),
  centreHeightM: z.number(),
  slidingFriction: z.number(),
  frontSlipRad: z.number().default((6 * Math.PI) / 180),
  dragAreaM2: z.number().default(0.75),
  rollingCoefficient: z.number().default(0.014),
  airDensityKgM3: z.number().default(1.2),
}
const cornerFields = { slideAngleRad: z.number(), cornerRadiusM: z.number().optional(), speedMps: z.number().min(1).max(120).optional() }
const gear = z.strictObject({ gear: z.int(), speedRpm: z.number(), inHand: z.number().nullable(), ends: z.enum(['over', 'under']).nullable() })
const train = {
  ...EXAMPLE_TRAIN,
  curve: { speedRpm: [...EXAMPLE_TRAIN.curve.speedRpm], torqueNm: [...EXAMPLE_TRAIN.curve.torqueNm] },
  ratios: [...EXAMPLE_TRAIN.ratios],
}

/** An input taken apart: the car that slides, and its engine and gears. */
function apart<Input extends z.output<z.ZodObject<typeof slidingFields & typeof trainFields>>>(input: Input) {
  const { massKg, wheelbaseM, frontShare, centreHeightM, slidingFriction, frontSlipRad, dragAreaM2, rollingCoefficient, airDensityKgM3 } = input
  const { curve, driveEfficiency, primaryRatio, ratios, finalRatio, radiusM, topRpm } = input
  return {
    car: { massKg, wheelbaseM, frontShare, centreHeightM, slidingFriction, frontSlipRad, dragAreaM2, rollingCoefficient, airDensityKgM3 },
    powertrain: { curve, driveEfficiency, primaryRatio, ratios, finalRatio, radiusM, topRpm },
  }
}

const ASSUMPTIONS = ['Rear drive, both rear wheels at one speed', 'Speed is kept and yaw is balanced', 'Friction opposes sliding']
const SOURCES = ['F.11 and the room’s page: statics of a steady slide', `A slide wants 15 to 25 % of power in hand (${PRACTICE})`]

const slideCalculation = defineCalculation({
  name: 'drivetrain.slide',
  title: 'What it takes to hold a slide, and what each gear holds',
  formula: 'ω by balance of yaw; v_s = V cos B + V sin B/tan θ; P = (μ N cos θ + c N) v_s',
  sources: SOURCES,
  assumptions: ASSUMPTIONS,
  validRange: '1 to 120 m/s, 2 to 80 degrees; rear drive with a locked or limited-slip differential',
  schools: ['By a corner’s radius, or by its speed'],
  example: { ...EXAMPLE_SLIDING, ...train, speedMps: 20, slideAngleRad: (36 * Math.PI) / 180 },
  input: z.strictObject({ ...slidingFields, ...trainFields, ...cornerFields }),
  output: z.strictObject({
    speedMps: z.number(),
    yawRateRadPerS: z.number(),
    rearLoadN: z.number(),
    forceAngleRad: z.number(),
    wheelSpeedMps: z.number(),
    powerW: z.number(),
    slidingW: z.number(),
    pathW: z.number(),
    rollingW: z.number(),
    radiusM: z.number(),
    frontNeeds: z.number(),
    steeringRad: z.number(),
    gears: z.array(gear),
  }),
  run: ({ slideAngleRad, cornerRadiusM, speedMps, ...rest }) => {
    const { car, powertrain } = apart(rest)
    const V = cornerSlideMps(car, { slideAngleRad, cornerRadiusM, speedMps })
    const state = holdSlide(car, V, slideAngleRad)
    return { value: { ...state, speedMps: V, gears: slideGears(powertrain, state.wheelSpeedMps, state.powerW) } }
  },
})

const driftHoldCalculation = defineCalculation({
  name: 'drivetrain.drift-hold',
  title: 'Forces and power of sliding tyres with a known slip',
  formula: 'F_x = μ N (v_s − V_x)/|s|, F_y = μ N V_y/|s|, P = (F_x + F_roll) v_s; s = κ/(1 + κ)',
  sources: SOURCES,
  assumptions: ['Slip is over road speed along the wheel', 'Forces and power only: nothing says that the car keeps its speed'],
  validRange: 'speed over 0 to 120 m/s, angle 0 to 85 degrees, slip −0.95 to 20',
  schools: ['slip, or what resists along the path', 'upperPowerW: all friction along the wheel, an upper bound'],
  example: { ...train, speedMps: 22, slideAngleRad: (35 * Math.PI) / 180, slip: 0.5, slidingFriction: 0.95, drivenLoadN: 7500 },
  input: z.strictObject({
    ...trainFields,
    speedMps: z.number(),
    slideAngleRad: z.number(),
    slidingFriction: z.number(),
    drivenLoadN: z.number(),
    slip: z.number().optional(),
    pathResistanceN: z.number().optional(),
    rollingForceN: z.number().default(0),
  }),
  output: z.strictObject({
    wheelSpeedMps: z.number(),
    slip: z.number(),
    slipOverWheel: z.number(),
    driveForceN: z.number(),
    sideForceN: z.number(),
    slidingSpeedMps: z.number(),
    powerW: z.number(),
    upperPowerW: z.number(),
    gears: z.array(gear),
    lowestGear: z.int().nullable(),
  }),
  run: ({ speedMps, slideAngleRad, slidingFriction, drivenLoadN, slip, pathResistanceN, rollingForceN, ...powertrain }) => {
    const forces = slipForces({ speedMps, slideAngleRad, slidingFriction, drivenLoadN, slip, pathResistanceN, rollingForceN })
    const gears = slideGears(powertrain, forces.wheelSpeedMps, forces.powerW)
    return { value: { ...forces, gears, lowestGear: gears.find(({ inHand }) => inHand !== null && inHand >= 0)?.gear ?? null } }
  },
})

const leversCalculation = defineCalculation({
  name: 'drivetrain.slide-levers',
  title: 'What each lever alone would have to become to hold a corner',
  formula: 'power · (1 + reserve)/(1 + in hand); final, friction, mass and angle by halving',
  sources: SOURCES,
  assumptions: [...ASSUMPTIONS, 'The corner stays: with less friction its speed falls'],
  validRange: 'reserve 0 to 1; power to 5 times, final 1.5 to 8, friction from 0.2, mass from a quarter, angle from 5 degrees',
  schools: ['No final adds power at a road speed: at best the engine works at its peak'],
  example: { ...EXAMPLE_SLIDING, ...train, cornerRadiusM: 58, slideAngleRad: (40 * Math.PI) / 180, reserve: 0.15 },
  input: z.strictObject({ ...slidingFields, ...trainFields, ...cornerFields, reserve: z.number().default(0.15) }),
  output: z.strictObject({
    powerFactor: z.number().nullable(),
    finalRatio: z.number().nullable(),
    bestFinal: z.strictObject({ finalRatio: z.number(), gear: z.int(), inHand: z.number() }).nullable(),
    slidingFriction: z.number().nullable(),
    speedAtFrictionMps: z.number().nullable(),
    massKg: z.number().nullable(),
    slideAngleRad: z.number().nullable(),
  }),
  isLong: true,
  run: ({ slideAngleRad, cornerRadiusM, speedMps, reserve, ...rest }) => {
    const { car, powertrain } = apart(rest)
    return { value: slideLevers(car, powertrain, { slideAngleRad, cornerRadiusM, speedMps }, reserve) }
  },
})

const linkCalculation = defineCalculation({
  name: 'drivetrain.slide-link',
  title: 'One gear for several corners: the finals that hold them all',
  formula: 'finals with which P(n)/P_needed − 1 ≥ reserve in every corner, by gear',
  sources: SOURCES,
  assumptions: ASSUMPTIONS,
  validRange: 'two corners or more; finals 1.5 to 8; reserve 0 to 1',
  schools: [],
  example: {
    ...EXAMPLE_SLIDING,
    ...train,
    corners: [
      { speedMps: 20, slideAngleRad: 0.6 },
      { speedMps: 16, slideAngleRad: 0.5 },
    ],
  },
  input: z.strictObject({
    ...slidingFields,
    ...trainFields,
    corners: z.array(z.strictObject(cornerFields)).max(60),
    reserve: z.number().min(0).max(1).default(0),
  }),
  output: z.strictObject({ gears: z.array(z.strictObject({ gear: z.int(), finals: z.array(z.strictObject({ from: z.number(), to: z.number() })) })) }),
  isLong: true,
  run: ({ corners, reserve, ...rest }) => {
    const { car, powertrain } = apart(rest)
    const gears = slideLink(car, powertrain, corners, reserve).map(({ gear: number, finals }) => ({ gear: number, finals: [...finals] }))
    return { value: { gears } }
  },
})

export const DRIVETRAIN_SLIDE_CALCULATIONS = [slideCalculation, driftHoldCalculation, leversCalculation, linkCalculation]
