import { airAndFuel, USUAL_BSFC_G_PER_KWH } from '../engine/air-and-fuel.ts'
import { compressor, FLOW_REFERENCES, type FlowReference, intercooler } from '../engine/compressor.ts'
import { fuelBlend } from '../engine/fuels.ts'
import { coolantFlowM3PerS, HEAT_SCHOOLS, heatToCoolant, judgeBmep, pistonMotion } from '../engine/mechanics.ts'
import { airFlowKgPerS, manifoldPressurePa, pressureRatio } from '../engine/swallow.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { bsfcFields, EXAMPLE_BSFC, FUEL_CALCULATIONS } from './fuel.ts'
import { defineCalculation } from './registry.ts'

const strokes = z.union([z.literal(2), z.literal(4)]).default(4)
const references = Object.keys(FLOW_REFERENCES) as [FlowReference, ...FlowReference[]]

const airAndFuelCalculation = defineCalculation({
  name: 'engine.air-and-fuel',
  title: 'Air and fuel for a power',
  formula: 'ṁ_f = b P; ṁ_a = λ AFR_st ṁ_f; η = 1/(b LHV)',
  sources: ['Definitions; b and λ at full power are common practice, no source'],
  assumptions: Object.entries(USUAL_BSFC_G_PER_KWH).map(
    ([name, [low, high]]) => `Usual b, ${name.replace(/([A-Z])/g, ' $1').toLowerCase()}: ${low} to ${high} g/kWh (common practice, no source)`,
  ),
  validRange: 'b from 150 to 1 200 g/kWh, λ from 0.6 to 1.3, brake efficiency up to 0.45',
  schools: ['Fuel per power, or volumetric efficiency (engine.swallow): both should agree within about 10 %'],
  example: { powerW: 300_000, bsfcKgPerJ: EXAMPLE_BSFC, lambda: 0.82 },
  input: z.strictObject({ powerW: z.number(), ...bsfcFields }),
  output: z.strictObject({ fuelKgPerS: z.number(), airKgPerS: z.number(), brakeEfficiency: z.number(), fuelM3PerS: z.number() }),
  run: ({ ethanolShare, ...input }) => {
    const fuel = fuelBlend(ethanolShare)
    const found = airAndFuel({ ...input, fuel })
    return { value: { ...found, fuelM3PerS: found.fuelKgPerS / fuel.densityKgM3 } }
  },
})

const swallowCalculation = defineCalculation({
  name: 'engine.swallow',
  title: 'Air that an engine takes, and the pressure it needs',
  formula: 'ṁ_a = VE p_m V_d/(R T_m) · n/120 (four strokes; n/60 with two), and the reverse; PR = (p_m + Δp_after)/(p_ambient − Δp_before)',
  sources: ['Ideal gas, closed form'],
  assumptions: ['VE is referred to manifold density; referred to ambient density a boosted engine exceeds 1.5', 'Manifold pressure is absolute'],
  validRange: 'VE from 0.2 to 1.6; manifold of 230 K or more',
  schools: ['VE referred to the manifold (used here), or to the ambient'],
  example: { displacementM3: 0.002, speedRpm: 7000, volumetricEfficiency: 0.95, manifoldTemperatureK: 320, airKgPerS: 0.28, ambientPressurePa: 101_325 },
  input: z.strictObject({
    displacementM3: z.number(),
    strokes,
    speedRpm: z.number(),
    volumetricEfficiency: z.number(),
    manifoldTemperatureK: z.number(),
    manifoldPressurePa: z.number().optional(),
    airKgPerS: z.number().optional(),
    ambientPressurePa: z.number().optional(),
    afterLossPa: z.number().default(8000),
    beforeLossPa: z.number().default(2000),
  }),
  output: z.strictObject({ airKgPerS: z.number(), manifoldPressurePa: z.number(), pressureRatio: z.number().nullable() }),
  run: ({ manifoldPressurePa: given, airKgPerS, ambientPressurePa, afterLossPa, beforeLossPa, ...engine }) => {
    if ((given === undefined) === (airKgPerS === undefined))
      throw new CalculationError('inconsistent', 'airKgPerS', 'Give either manifoldPressurePa or airKgPerS, and only one of them.')
    const pressurePa = given ?? manifoldPressurePa({ ...engine, airKgPerS: airKgPerS as number })
    const ratio =
      ambientPressurePa === undefined || pressurePa <= ambientPressurePa
        ? null
        : pressureRatio({ manifoldPressurePa: pressurePa, afterLossPa, ambientPressurePa, beforeLossPa })
    const warnings = ratio !== null && ratio > 3.5 ? ['The pressure ratio is over 3.5: more than one stage of compression usually gives.'] : []
    return {
      value: { airKgPerS: airKgPerS ?? airFlowKgPerS({ ...engine, manifoldPressurePa: pressurePa }), manifoldPressurePa: pressurePa, pressureRatio: ratio },
      warnings,
    }
  },
})

const compressorCalculation = defineCalculation({
  name: 'engine.compressor',
  title: 'What leaves a compressor',
  formula: 'T2 = T1 (1 + (PR^((γ − 1)/γ) − 1)/η); P = ṁ c_p (T2 − T1); ṁ_c = ṁ √(T1/T_ref)/(p1/p_ref)',
  sources: ['Compression with an isentropic efficiency, closed form; γ = 1.40, c_p = 1 005 J/(kg K)'],
  assumptions: ['Total temperatures and pressures', 'A map without its reference state may be 8 % off in flow'],
  validRange: 'Ratio of 1 or more, efficiency 0.3 to 1, absolute pressures',
  schools: [`Reference state of the map: ${references.join('; ')}; or its own temperature and pressure`],
  example: { temperatureK: 298.15, pressurePa: 99_000, pressureRatio: 2.4, efficiency: 0.73, airKgPerS: 0.25, reference: '298 K, 100 kPa' },
  input: z.strictObject({
    temperatureK: z.number(),
    pressurePa: z.number(),
    pressureRatio: z.number(),
    efficiency: z.number(),
    airKgPerS: z.number(),
    reference: z.union([z.enum(references), z.strictObject({ temperatureK: z.number(), pressurePa: z.number() })]),
  }),
  output: z.strictObject({ outletTemperatureK: z.number(), outletPressurePa: z.number(), shaftPowerW: z.number(), correctedFlowKgPerS: z.number() }),
  run: (input) => ({ value: compressor(input) }),
})

const intercoolerCalculation = defineCalculation({
  name: 'engine.intercooler',
  title: 'What leaves an intercooler',
  formula: 'T3 = T2 − ε (T2 − T_coolant); p3 = p2 − Δp; ρ3 = p3/(R T3); Q = ṁ c_p (T2 − T3)',
  sources: ['Definition of effectiveness, closed form'],
  assumptions: ['ε of 0.5 to 0.85 and a loss of 5 to 15 kPa are usual (common practice, no source)'],
  validRange: 'ε from 0 to 1; a coolant no warmer than the charge',
  schools: [],
  example: { temperatureK: 414.22, pressurePa: 240_000, coolantTemperatureK: 298.15, effectiveness: 0.75, pressureLossPa: 8000, airKgPerS: 0.25 },
  input: z.strictObject({
    temperatureK: z.number(),
    pressurePa: z.number(),
    coolantTemperatureK: z.number(),
    effectiveness: z.number(),
    pressureLossPa: z.number().nonnegative(),
    airKgPerS: z.number(),
  }),
  output: z.strictObject({ temperatureK: z.number(), pressurePa: z.number(), densityKgM3: z.number(), heatW: z.number() }),
  run: (input) => ({ value: intercooler(input) }),
})

const bmepCalculation = defineCalculation({
  name: 'engine.bmep',
  title: 'Brake mean effective pressure',
  formula: 'p = 4 π T/V_d (four strokes), 2 π T/V_d (two)',
  sources: ['Work of a cycle over displacement; usual ranges are common practice, no source'],
  assumptions: ['9 to 15 bar without boost and 15 to 35 with it are usual (common practice, no source)'],
  validRange: 'Torque and displacement above zero; over 40 bar is refused as a slip',
  schools: [],
  example: { torqueNm: 450, displacementM3: 0.002 },
  input: z.strictObject({ torqueNm: z.number(), displacementM3: z.number(), strokes }),
  output: z.strictObject({ bmepPa: z.number(), word: z.string() }),
  run: ({ torqueNm, displacementM3, strokes: count }) => ({ value: judgeBmep(torqueNm, displacementM3, count) }),
})

const pistonSpeedCalculation = defineCalculation({
  name: 'engine.piston-speed',
  title: 'Piston speed and acceleration',
  formula: 'v̄ = 2 S n/60; a_top = r ω² (1 + r/l); greatest speed of the exact slider crank',
  sources: ['Kinematics of the slider crank, closed form'],
  assumptions: ['Mean speeds of 20 m/s in production, 25 in racing; 20 to 50 km/s² at the top (common practice, no source)'],
  validRange: 'A rod longer than the crank radius',
  schools: [],
  example: { strokeM: 0.086, rodM: 0.139, speedRpm: 8000 },
  input: z.strictObject({ strokeM: z.number(), rodM: z.number(), speedRpm: z.number() }),
  output: z.strictObject({ meanSpeedMps: z.number(), peakSpeedMps: z.number(), topAccelerationMps2: z.number(), bottomAccelerationMps2: z.number() }),
  run: (input) => {
    const { warnings, ...value } = pistonMotion(input)
    return { value, warnings }
  },
})

const heatCalculation = defineCalculation({
  name: 'engine.heat',
  title: 'Heat to coolant and oil',
  formula: 'Q = share · ṁ_f LHV min(1, λ), or share · P; V̇ = Q/(ρ c ΔT)',
  sources: ['Heat balances of engine handbooks (from memory): 17 to 30 % of the fuel, or 50 to 60 % of the power; common practice, no source'],
  assumptions: [
    'A rich mixture does not burn all of its fuel',
    'Warms up by 7 K where nothing is given; coolant: water with half glycol, 1 030 kg/m³ and 3 560 J/(kg K) (handbook, from memory)',
  ],
  validRange: 'Shares from 0.05 to 1',
  schools: ['A share of the fuel’s energy, or a share of the brake power'],
  example: { powerW: 300_000, bsfcKgPerJ: EXAMPLE_BSFC, lambda: 0.82, school: 'shareOfFuel', coolantShare: 0.25, oilShare: 0.06, riseK: 7 },
  input: z.strictObject({
    powerW: z.number(),
    ...bsfcFields,
    school: z.enum(HEAT_SCHOOLS),
    coolantShare: z.number(),
    oilShare: z.number().optional(),
    riseK: z.number().default(7),
  }),
  output: z.strictObject({ coolantW: z.number(), oilW: z.number().nullable(), coolantFlowM3PerS: z.number() }),
  run: ({ powerW, bsfcKgPerJ, lambda, ethanolShare, school, coolantShare, oilShare, riseK }) => {
    const fuel = fuelBlend(ethanolShare)
    const { fuelKgPerS } = airAndFuel({ powerW, bsfcKgPerJ, lambda, fuel })
    const heat = (share: number) => heatToCoolant({ school, share, powerW, fuelKgPerS, heatingValueJPerKg: fuel.heatingValueJPerKg, lambda })
    const coolantW = heat(coolantShare)
    return { value: { coolantW, oilW: oilShare === undefined ? null : heat(oilShare), coolantFlowM3PerS: coolantFlowM3PerS(coolantW, riseK) } }
  },
})

export const ENGINE_CALCULATIONS = [
  airAndFuelCalculation,
  swallowCalculation,
  compressorCalculation,
  intercoolerCalculation,
  ...FUEL_CALCULATIONS,
  bmepCalculation,
  pistonSpeedCalculation,
  heatCalculation,
]
