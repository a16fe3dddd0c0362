import { fuelBlend } from '../engine/fuels.ts'
import { bottleTime, nitrousPower } from '../engine/nitrous.ts'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { findUnit, fromSi, toSi } from '../units/units.ts'
import { z } from '../zod.ts'
import { bsfcFields, EXAMPLE_BSFC } from './fuel.ts'
import { defineCalculation } from './registry.ts'

export const nitrousCalculation = defineCalculation({
  name: 'engine.nitrous',
  title: 'Nitrous oxide',
  formula: 'ṁ_f = 1.571 ṁ/(λ AFR); P = ṁ_f/b; t = m/ṁ',
  sources: ['Oxygen balance: 1 kg of nitrous oxide carries 0.3635 kg of oxygen, that of 1.571 kg of air, closed form'],
  assumptions: [
    'What evaporation cools, the heat of decay (82 kJ/mol, from memory) and the bottle’s falling pressure are left out',
    'A shot is named by its maker: 20 % more or less is usual (common practice, no source)',
    'Follow your event’s rules; bottle, valves and lines are fixed and vented as they ask, by people who know how',
  ],
  validRange: 'λ from 0.6 to 1.3, fuel use from 150 to 1 200 g/kWh',
  schools: [],
  example: { nitrousKgPerS: 0.05, bsfcKgPerJ: EXAMPLE_BSFC, lambda: 0.82, ethanolShare: 0, bottleKg: 4.5 },
  input: z.strictObject({ nitrousKgPerS: z.number(), ...bsfcFields, bottleKg: z.number().nonnegative().optional() }),
  output: z.strictObject({
    addedPowerW: z.number(),
    fuelKgPerS: z.number(),
    nitrousToFuel: z.number(),
    lastsS: z.number().nullable(),
  }),
  run: ({ nitrousKgPerS, bsfcKgPerJ, lambda, ethanolShare, bottleKg }) => {
    requireWithin(bsfcKgPerJ * 3.6e9, 150, 1200, 'bsfcKgPerJ')
    const { stoichiometricRatio } = fuelBlend(ethanolShare)
    const lastsS = bottleKg === undefined ? null : bottleTime({ bottleKg, nitrousKgPerS })
    return { value: { ...nitrousPower({ nitrousKgPerS, lambda, stoichiometricRatio, bsfcKgPerJ }), lastsS } }
  },
})

export const flowCalculation = defineCalculation({
  name: 'engine.flow',
  title: 'Flow by mass and by volume',
  formula: 'ṁ = ρ V̇',
  sources: ['Definition; units by exact factors'],
  assumptions: [
    'An injector that is rated in lb/h was rated with a fluid of some density: 10.5 cc/min for each lb/h holds at 720 kg/m³ alone',
    'Air in ft³/min has the density of where it is counted: 1.18 kg/m³ at 25 °C and 100 kPa, dry',
  ],
  validRange: 'Flow and density above zero; a unit that is known as mass flow or as volume flow',
  schools: [],
  example: { value: 42, unit: 'lb/h', densityKgM3: 780 },
  input: z.strictObject({ value: z.number(), unit: z.string().max(20), densityKgM3: z.number() }),
  output: z.strictObject({
    kgPerS: z.number(),
    m3PerS: z.number(),
    lbPerH: z.number(),
    ccPerMin: z.number(),
    litresPerH: z.number(),
    ft3PerMin: z.number(),
  }),
  run: ({ value, unit, densityKgM3 }) => {
    requirePositive(value, 'value')
    requirePositive(densityKgM3, 'densityKgM3')
    const [asMass, asVolume] = [findUnit('massFlow', unit), findUnit('volumeFlow', unit)]
    if (!asMass && !asVolume)
      throw new CalculationError('unknown-unit', 'unit', `"${unit}" is no flow that is known here. Use lb/h, kg/h, lb/min, cc/min, L/h or ft³/min.`)
    const kgPerS = asMass ? toSi('massFlow', value, unit) : densityKgM3 * toSi('volumeFlow', value, unit)
    const m3PerS = kgPerS / densityKgM3
    const volume = (to: string) => fromSi('volumeFlow', m3PerS, to)
    return {
      value: {
        kgPerS,
        m3PerS,
        lbPerH: fromSi('massFlow', kgPerS, 'lb/h'),
        ccPerMin: volume('cm³/min'),
        litresPerH: volume('L/h'),
        ft3PerMin: volume('ft³/min'),
      },
    }
  },
})
