import { fuelBlend } from '../engine/fuels.ts'
import { bottleTime, nitrousPower } from '../engine/nitrous.ts'
import { requireWithin } from '../errors.ts'
import { z } from '../zod.ts'
import { bsfcFields, EXAMPLE_BSFC } from './engine.ts'
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
