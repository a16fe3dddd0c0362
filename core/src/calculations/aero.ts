import {
  aeroBalance,
  airPressurePa,
  BALANCE_SCHOOL_WORDS,
  BALANCE_SCHOOLS,
  type DeviceForce,
  deviceLoads,
  sizeForBalance,
  sumLoads,
  totalSdM2,
} from '../aero/device-loads.ts'
import { dragTopSpeed, USUAL_ROLLING, USUAL_ROLLING_SD } from '../aero/drag-top-speed.ts'
import { RULE_METRICS, ruleBox } from '../aero/rule-box.ts'
import { splitterEstimate, USUAL_PRESSURE, USUAL_PRESSURE_SD } from '../aero/splitter.ts'
import { SLOPE_SCHOOL_WORDS, SLOPE_SCHOOLS, USUAL_WING, WING_PLACES, wingEstimate } from '../aero/wing.ts'
import { attempt } from '../attempt.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_DEVICES, EXAMPLE_WHEELBASE_M, EXAMPLE_WING } from './examples/example-aero.ts'
import { defineCalculation } from './registry.ts'

const spread = z.number().min(0).default(0)
const place = z.strictObject({
  form: z.literal('place'),
  downforceM2: z.number(),
  downforceSdM2: spread,
  dragM2: z.number(),
  dragSdM2: spread,
  xM: z.number(),
  xSdM: spread,
  zM: z.number(),
})
const axles = z.strictObject({
  form: z.literal('axles'),
  frontM2: z.number(),
  frontSdM2: spread,
  rearM2: z.number(),
  rearSdM2: spread,
  dragM2: z.number(),
  dragSdM2: spread,
})
/** What a device does, at a place or at the axles. */
export const deviceForceField = z.discriminatedUnion('form', [place, axles])
const air = z.number().default(1.2)
const school = z.enum(BALANCE_SCHOOLS).default('contactPatches')
const schoolsOf = (words: Readonly<Record<string, string>>) => Object.values(words)

const downOf = (force: DeviceForce) => (force.form === 'place' ? Math.abs(force.downforceM2) : Math.abs(force.frontM2 + force.rearM2))

const forcesCalculation = defineCalculation({
  name: 'aero.forces',
  title: 'What devices do to the tyres of each axle, and where that balances',
  formula: 'N_f = F (1 − x/L) − D z/L; N_r = F x/L + D z/L; F, D = ρ v²/2 · area; B = N_f/(N_f + N_r)',
  sources: ['G.2, statics; spreads by derivatives'],
  assumptions: ['Devices do not feed each other', 'Drag is balanced by a drive force at the ground'],
  validRange: 'wheelbase 1.5 to 5 m, air 0.6 to 1.5 kg/m³, speed to 150 m/s; no share where downforce and lift nearly cancel',
  schools: schoolsOf(BALANCE_SCHOOL_WORDS),
  example: { devices: Object.values(EXAMPLE_DEVICES), wheelbaseM: EXAMPLE_WHEELBASE_M, speedMps: 50 },
  input: z.strictObject({ devices: z.array(deviceForceField).max(60), wheelbaseM: z.number(), speedMps: z.number(), airDensityKgM3: air, school }),
  output: z.strictObject({
    frontN: z.number(),
    frontSdN: z.number(),
    rearN: z.number(),
    rearSdN: z.number(),
    downforceN: z.number(),
    downforceSdN: z.number(),
    dragN: z.number(),
    dragSdN: z.number(),
    powerW: z.number(),
    balance: z.strictObject({ frontShare: z.number(), sd: z.number() }).nullable(),
  }),
  run: ({ devices, wheelbaseM, speedMps, airDensityKgM3, school: own }) => {
    const q = airPressurePa(airDensityKgM3, speedMps)
    const sum = sumLoads(devices.map((force) => deviceLoads(force, wheelbaseM, own)))
    const balance = attempt(() =>
      aeroBalance(
        sum,
        devices.reduce((all, force) => all + downOf(force), 0),
      ),
    )
    const isShare = !(balance instanceof CalculationError)
    return {
      value: {
        frontN: q * sum.frontM2,
        frontSdN: q * Math.sqrt(sum.frontVariance),
        rearN: q * sum.rearM2,
        rearSdN: q * Math.sqrt(sum.rearVariance),
        downforceN: q * (sum.frontM2 + sum.rearM2),
        downforceSdN: q * totalSdM2(sum),
        dragN: q * sum.dragM2,
        dragSdN: q * Math.sqrt(sum.dragVariance),
        powerW: q * sum.dragM2 * speedMps,
        balance: isShare ? balance : null,
      },
      warnings: isShare ? [] : [balance.message],
    }
  },
})

const wingCalculation = defineCalculation({
  name: 'aero.finite-wing',
  title: 'What a wing of one element gives and costs, and where it lets go',
  formula: 'a = a₀ A′/(k + √(A′² + k²)), k = a₀/π, A′ = A (1 + 1.9 h/b); CL = a (α + ε − α₀); CD = c_d0 + CL²/(π e A′)',
  sources: [
    'G.3; low aspect ratio and lifting line (from memory)',
    'End plates: empirical rule of drag handbooks (from memory)',
    `Pressure and downwash behind a roof, band of stall (${PRACTICE})`,
  ],
  assumptions: ['One element, not nearer the ground than a chord, no yaw', 'No estimate is surer than 15 %'],
  validRange: 'angle −30 to 30 degrees, plates up to 0.4 of the span, up to the band of stall',
  schools: schoolsOf(SLOPE_SCHOOL_WORDS),
  example: EXAMPLE_WING,
  input: z.strictObject({
    spanM: z.number(),
    chordM: z.number(),
    plateHeightM: z.number().default(USUAL_WING.plateHeightM),
    angleRad: z.number(),
    zeroLiftRad: z.number(),
    place: z.enum(WING_PLACES).default(USUAL_WING.place),
    slopeSchool: z.enum(SLOPE_SCHOOLS).default(USUAL_WING.slopeSchool),
    sectionShare: z.number().default(USUAL_WING.sectionShare),
    spanEfficiency: z.number().default(USUAL_WING.spanEfficiency),
    profileDrag: z.number().default(USUAL_WING.profileDrag),
    stall: z.strictObject({ from: z.number().min(0.5).max(4), to: z.number().min(0.6).max(4) }).default(USUAL_WING.stall),
  }),
  output: z.strictObject({
    effectiveAspect: z.number(),
    slopePerRad: z.number(),
    liftCoefficient: z.number(),
    dragCoefficient: z.number(),
    downforceM2: z.number(),
    downforceSdM2: z.number(),
    dragM2: z.number(),
    dragSdM2: z.number(),
    stallFromRad: z.number(),
    stallToRad: z.number(),
    stallChance: z.number(),
  }),
  run: (input) => {
    if (!(input.stall.to > input.stall.from))
      throw new CalculationError('out-of-range', 'stall', 'The band of stall ends under where it begins. Swap its ends.')
    const value = wingEstimate(input)
    return {
      value,
      warnings: value.stallChance > 0.5 ? ['It has likely let go already: take a smaller angle, or measure it.'] : [],
    }
  },
})

const splitterCalculation = defineCalculation({
  name: 'aero.splitter',
  title: 'What a splitter gives, as a pressure panel',
  formula: 'F/q = ΔCp · width · lip',
  sources: ['G.4', `ΔCp 0.30 to 1.00 (${PRACTICE})`],
  assumptions: ['The gap between lip and bumper is closed', 'What it feeds further back is not in it'],
  validRange: 'lip to 0.6 m, width to 2.5 m, ΔCp 0.05 to 2',
  schools: [],
  example: { widthM: 1.6, lipM: 0.2 },
  input: z.strictObject({
    widthM: z.number(),
    lipM: z.number(),
    pressure: z.number().default(USUAL_PRESSURE),
    pressureSd: z.number().default(USUAL_PRESSURE_SD),
  }),
  output: z.strictObject({ downforceM2: z.number(), downforceSdM2: z.number(), dragM2: z.number(), dragSdM2: z.number() }),
  run: (input) => ({ value: splitterEstimate(input) }),
})

const balanceCalculation = defineCalculation({
  name: 'aero.balance',
  title: 'How large one device must be for a wanted balance',
  formula: 'F = (B* T₀ − N₀)/((1 − x/L) − d z/L − B*)',
  sources: ['G.2 solved for one device'],
  assumptions: ['All others stay as they are', 'Its drag grows with its downforce'],
  validRange: 'wheelbase 1.5 to 5 m; a place from which it reaches that balance',
  schools: schoolsOf(BALANCE_SCHOOL_WORDS),
  example: { restFrontM2: -0.05287, restRearM2: 0.52312, frontShare: 0.4, xM: -0.99, zM: 0.1, dragPerDownforce: 0.028846, wheelbaseM: EXAMPLE_WHEELBASE_M },
  input: z.strictObject({
    restFrontM2: z.number(),
    restRearM2: z.number(),
    frontShare: z.number(),
    xM: z.number(),
    zM: z.number(),
    dragPerDownforce: z.number().default(0),
    wheelbaseM: z.number(),
  }),
  output: z.strictObject({ downforceM2: z.number() }),
  run: (input) => ({ value: sizeForBalance(input) }),
})

const topSpeedCalculation = defineCalculation({
  name: 'aero.top-speed',
  title: 'Speed at which air and rolling use up the power',
  formula: 'P = ρ CdA v³/2 + Crr m g v',
  sources: ['G.1; spread by derivatives', `Rolling 0.014 ± 0.003 where nobody measured it (${PRACTICE})`],
  assumptions: ['Level, no wind', 'If the gearing lets it'],
  validRange: 'power 1 kW to 3 MW, drag area 0.1 to 3 m², mass 100 to 5000 kg',
  schools: [],
  example: { wheelPowerW: 318_000, wheelPowerSdW: 9500, dragAreaM2: 0.7674, dragAreaSdM2: 0.035, massKg: 1335.9 },
  input: z.strictObject({
    wheelPowerW: z.number(),
    wheelPowerSdW: spread,
    dragAreaM2: z.number(),
    dragAreaSdM2: spread,
    rollingCoefficient: z.number().default(USUAL_ROLLING),
    rollingSd: z.number().min(0).default(USUAL_ROLLING_SD),
    massKg: z.number(),
    airDensityKgM3: air,
  }),
  output: z.strictObject({ speedMps: z.number(), sdMps: z.number() }),
  run: (input) => ({ value: dragTopSpeed(input) }),
})

const box = z.strictObject({ xFrontM: z.number(), xRearM: z.number(), yInnerM: z.number(), yOuterM: z.number(), zBottomM: z.number(), zTopM: z.number() })
const reading = z.strictObject({ value: z.number(), name: z.string().nullable() }).nullable()

const ruleBoxCalculation = defineCalculation({
  name: 'aero.rule-box',
  title: 'How far devices reach, as rule books ask it',
  formula: 'reach = edge − standard bodywork, 0 inside; over the roof and ground height signed',
  sources: ['Geometry of the boxes around devices'],
  assumptions: ['Boxes are the left half, mirrored', 'x behind the front axle, z up'],
  validRange: 'overhangs to 3 m, width 0.8 to 3 m, roof 0.4 to 3 m',
  schools: [],
  example: {
    outline: { frontOverhangM: 0.9, rearOverhangM: 1, bodyWidthM: 1.74, roofHeightM: 1.43, wheelbaseM: EXAMPLE_WHEELBASE_M },
    devices: [{ name: 'lip', box: { xFrontM: -1.1, xRearM: -0.6, yInnerM: 0, yOuterM: 0.8, zBottomM: 0.065, zTopM: 0.08 } }],
  },
  input: z.strictObject({
    outline: z.strictObject({ frontOverhangM: z.number(), rearOverhangM: z.number(), bodyWidthM: z.number(), roofHeightM: z.number(), wheelbaseM: z.number() }),
    devices: z
      .array(
        z.strictObject({
          name: z.string().max(120),
          box,
          wing: z.strictObject({ chordM: z.number(), spanM: z.number(), elements: z.int() }).nullable().default(null),
        }),
      )
      .max(60),
  }),
  output: z.strictObject(Object.fromEntries(RULE_METRICS.map((metric) => [metric, reading])) as Record<(typeof RULE_METRICS)[number], typeof reading>),
  run: ({ outline, devices }) => {
    const found = ruleBox(outline, devices)
    return { value: Object.fromEntries(RULE_METRICS.map((metric) => [metric, found[metric] ?? null])) as never }
  },
})

/** The calculations of this file, for the register. */
export const AERO_CALCULATIONS = [forcesCalculation, wingCalculation, splitterCalculation, balanceCalculation, topSpeedCalculation, ruleBoxCalculation]
