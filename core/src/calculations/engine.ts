import { airAndFuel, GRAM_PER_KWH, USUAL_BSFC_G_PER_KWH } from '../engine/air-and-fuel.ts'
import { compressor, FLOW_REFERENCES, type FlowReference, intercooler } from '../engine/compressor.ts'
import { fuelPumps, injectors, pumpPowerW } from '../engine/fuel-supply.ts'
import { fuelBlend } from '../engine/fuels.ts'
import { coolantFlowM3PerS, HEAT_SCHOOLS, heatToCoolant, judgeBmep, pistonMotion } from '../engine/mechanics.ts'
import { airFlowKgPerS, manifoldPressurePa, pressureRatio } from '../engine/swallow.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const strokes = z.union([z.literal(2), z.literal(4)]).default(4)
const references = Object.keys(FLOW_REFERENCES) as [FlowReference, ...FlowReference[]]
export const bsfcFields = { bsfcKgPerJ: z.number(), lambda: z.number(), ethanolShare: z.number().default(0) }
export const EXAMPLE_BSFC = 330 * GRAM_PER_KWH

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

const injectorCalculation = defineCalculation({
  name: 'engine.injector',
  title: 'Injector duty and the power at its limit',
  formula: 'q = q_r √(Δp/Δp_r · ρ_r/ρ); duty = ṁ_f/(ρ N q) + t_dead n/120; P at the limit = ṁ_f,limit/b',
  sources: ['Flow through an orifice, closed form', 'Limits of 80 to 85 % are common practice, no source'],
  assumptions: [
    'Δp is rail less manifold, both absolute: a rail that does not follow boost loses flow',
    'Rated with a fluid of 780 kg/m³ unless given',
    'Sequential, four strokes',
  ],
  validRange: 'Δp above zero, within about 30 % of the rated one; duty limit 0.3 to 1',
  schools: ['Duty limit with or without dead time: dead time counts where it is given'],
  example: {
    powerW: 300_000,
    bsfcKgPerJ: EXAMPLE_BSFC,
    lambda: 0.82,
    injectorCount: 6,
    ratedFlowM3PerS: 1000e-6 / 60,
    ratedPressurePa: 300_000,
    pressureDifferencePa: 300_000,
    dutyLimit: 0.85,
  },
  input: z.strictObject({
    powerW: z.number(),
    ...bsfcFields,
    injectorCount: z.int(),
    ratedFlowM3PerS: z.number(),
    ratedPressurePa: z.number(),
    ratedDensityKgM3: z.number().optional(),
    pressureDifferencePa: z.number(),
    dutyLimit: z.number(),
    deadTimeS: z.number().nonnegative().optional(),
    speedRpm: z.number().optional(),
  }),
  output: z.strictObject({ duty: z.number(), powerAtLimitW: z.number(), flowM3PerS: z.number(), flowNeededM3PerS: z.number() }),
  run: ({ powerW, bsfcKgPerJ, lambda, ethanolShare, ...rest }) => {
    const fuel = fuelBlend(ethanolShare)
    const { fuelKgPerS } = airAndFuel({ powerW, bsfcKgPerJ, lambda, fuel })
    const { warnings, duty, flowM3PerS, flowNeededM3PerS, fuelAtLimitKgPerS } = injectors({ ...rest, fuelKgPerS, fuelDensityKgM3: fuel.densityKgM3 })
    return { value: { duty, powerAtLimitW: fuelAtLimitKgPerS / bsfcKgPerJ, flowM3PerS, flowNeededM3PerS }, warnings }
  },
})

const fuelPumpCalculation = defineCalculation({
  name: 'engine.fuel-pump',
  title: 'Fuel pumps and one that fails',
  formula:
    'demand = ṁ_f/ρ; margin = N Q(p)/demand − 1, with one failed (N − 1 + spare) Q(p)/demand − 1; electrical power N U I(p); Q and I by straight lines between measured points',
  sources: ['Continuity', 'Margins of 15 to 30 %, and planning with one pump failed in top classes: common practice, no source'],
  assumptions: ['Outlet pressure is base plus boost plus losses', 'The points were measured at the voltage the car has'],
  validRange: 'A pressure between the measured points',
  schools: [],
  example: {
    powerW: 300_000,
    bsfcKgPerJ: EXAMPLE_BSFC,
    lambda: 0.82,
    points: [
      { pressurePa: 300_000, flowM3PerS: 320 / 3.6e6 },
      { pressurePa: 400_000, flowM3PerS: 290 / 3.6e6 },
      { pressurePa: 500_000, flowM3PerS: 255 / 3.6e6 },
    ],
    outletPressurePa: 470_000,
    pumpCount: 2,
    margin: 0.2,
  },
  input: z.strictObject({
    powerW: z.number(),
    ...bsfcFields,
    points: z
      .array(z.strictObject({ pressurePa: z.number().positive(), flowM3PerS: z.number().positive(), currentA: z.number().positive().optional() }))
      .min(1)
      .max(100),
    outletPressurePa: z.number(),
    voltageV: z.number().positive().max(60).optional(),
    pumpCount: z.int(),
    spareCount: z.int().nonnegative().max(100).default(0),
    margin: z.number(),
  }),
  output: z.strictObject({
    flowPerPumpM3PerS: z.number(),
    demandM3PerS: z.number(),
    returnM3PerS: z.number(),
    marginReached: z.number(),
    marginOneFailed: z.number(),
    isEnough: z.boolean(),
    oneMayFail: z.boolean(),
    electricalPowerW: z.number().nullable(),
  }),
  run: ({ powerW, bsfcKgPerJ, lambda, ethanolShare, voltageV, ...rest }) => {
    const fuel = fuelBlend(ethanolShare)
    const { fuelKgPerS } = airAndFuel({ powerW, bsfcKgPerJ, lambda, fuel })
    const electricalPowerW = voltageV === undefined ? null : pumpPowerW({ ...rest, voltageV })
    return { value: { ...fuelPumps({ ...rest, fuelKgPerS, fuelDensityKgM3: fuel.densityKgM3 }), electricalPowerW } }
  },
})

const fuelBlendCalculation = defineCalculation({
  name: 'engine.fuel-blend',
  title: 'Petrol with ethanol or methanol',
  formula: 'ρ = Σ φ ρ_i; w = φ ρ_i/ρ; AFR and LHV by mass with w',
  sources: ['Mixing by volume; properties from engine handbooks and chemistry, from memory'],
  assumptions: ['Excess volume under 0.3 % is left out', 'What a pump sells as E85 holds 51 to 85 % of ethanol: measure it'],
  validRange: 'Shares by volume from 0 to 1, and at most 1 together',
  schools: [],
  example: { ethanolShare: 0.85 },
  input: z.strictObject({ ethanolShare: z.number(), methanolShare: z.number().default(0) }),
  output: z.strictObject({
    stoichiometricRatio: z.number(),
    densityKgM3: z.number(),
    heatingValueJPerKg: z.number(),
    ethanolMassShare: z.number(),
    methanolMassShare: z.number(),
    moreVolumeThanPetrol: z.number(),
  }),
  run: ({ ethanolShare, methanolShare }) => ({ value: fuelBlend(ethanolShare, methanolShare) }),
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
  injectorCalculation,
  fuelPumpCalculation,
  fuelBlendCalculation,
  bmepCalculation,
  pistonSpeedCalculation,
  heatCalculation,
]
