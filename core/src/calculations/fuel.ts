import { airAndFuel, GRAM_PER_KWH } from '../engine/air-and-fuel.ts'
import { fuelPumps, injectors, pumpPowerW } from '../engine/fuel-supply.ts'
import { fuelBlend } from '../engine/fuels.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

export const bsfcFields = { bsfcKgPerJ: z.number(), lambda: z.number(), ethanolShare: z.number().default(0) }
export const EXAMPLE_BSFC = 330 * GRAM_PER_KWH

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

export const FUEL_CALCULATIONS = [injectorCalculation, fuelPumpCalculation, fuelBlendCalculation]
