import { CATALOGUE_SHARE, costWorth, forecastCost } from '../../jobs/cost.ts'
import { decide } from '../../jobs/decide.ts'
import { USUAL_OPTIMISM } from '../../jobs/optimism.ts'
import { z } from '../../zod.ts'
import { defineCalculation } from '../registry.ts'
import { ASSUMED, biasSchema, key, nullable, RULES, SHARED } from './jobs.ts'

const price = z.number().max(1e9)

const stageCostCalculation = defineCalculation({
  name: 'cost.stage',
  title: 'What a stage comes to, and the chance of keeping a budget',
  formula: 'paid + Σ catalogue + Σ g e^(mu + s²/2 + v/2); one log-normal over what is not paid',
  sources: ['E.9', RULES],
  assumptions: [ASSUMED, SHARED, `A catalogue's price moves by ${CATALOGUE_SHARE * 100} % (assumed)`],
  validRange: 'Prices of zero and above',
  schools: [],
  example: { paid: 1640, catalogue: [1180, 260], guesses: [900, 380], budget: 4800 },
  input: z.strictObject({
    paid: z.number().min(-1e9).max(1e9),
    catalogue: z.array(price).max(5000).default([]),
    guesses: z.array(price).max(5000).default([]),
    bias: biasSchema.default({ ...USUAL_OPTIMISM.money }),
    budget: price.nullable().default(null),
  }),
  output: z.strictObject({ mean: z.number(), sd: z.number(), lowValue: z.number(), highValue: z.number(), guessShare: z.number(), chance: nullable }),
  run: (input) => {
    const { mean, sd, lowValue, highValue, guessShare, chance } = forecastCost(input)
    return { value: { mean, sd, lowValue, highValue, guessShare, chance } }
  },
})

const worthCalculation = defineCalculation({
  name: 'cost.worth',
  title: 'Price of a kilogram, of a kilowatt of equal worth, of a second',
  formula: 'whole = cost + hours × worth; per kg whole/(−Δm); per kW whole/((ΔP − (P/m) Δm)/1000); per second whole/(−Δt)',
  sources: [RULES],
  assumptions: ['A kilogram less is worth P/m watts', 'Nothing is bought where it grows heavier, weaker or slower'],
  validRange: 'Any price of zero and above',
  schools: ['Hours count nothing (default), or at what an hour is worth'],
  example: { cost: 620, massKg: -14.6, powerToMassWPerKg: 231.7 },
  input: z.strictObject({
    cost: z.number().min(0).max(1e9),
    hours: z.number().min(0).max(1e5).default(0),
    hourWorth: z.number().min(0).max(1e5).default(0),
    massKg: z.number().min(-5000).max(5000).default(0),
    powerW: z.number().min(-3e6).max(3e6).default(0),
    powerToMassWPerKg: z.number().min(0).max(5000).default(0),
    lapS: z.number().min(-600).max(600).nullable().default(null),
  }),
  output: z.strictObject({ whole: z.number(), perKg: nullable, perKw: nullable, perSecond: nullable }),
  run: (input) => ({ value: costWorth(input) }),
})

const weighed = z.strictObject({ value: z.number().min(-1e9).max(1e9), sd: z.number().min(0).max(1e9).default(0) }).nullable()

const decisionCalculation = defineCalculation({
  name: 'decision.compare',
  title: 'Options by their musts, who stands behind whom, and the price at which it turns',
  formula: 'S = Σ price × x (less +, more −), spreads in quadrature; turns at p − (S_b − S_a)/d, d = b less a, sign turned where more is better',
  sources: [RULES],
  assumptions: ['Prices hold for each unit alike', 'Numbers are apart'],
  validRange: 'To 20 criteria and 20 options',
  schools: ['By musts and who stands behind whom (no price), or priced'],
  example: {
    criteria: [
      { name: 'cost', price: 1 },
      { name: 'mass', price: 42 },
      { name: 'air share', better: 'more', price: 4000, must: 0.15 },
    ],
    options: [
      {
        name: 'thicker core',
        values: [
          { value: 620, sd: 30 },
          { value: 11.5, sd: 0.6 },
          { value: 0.28, sd: 0.04 },
        ],
      },
      {
        name: 'laid back',
        values: [
          { value: 840, sd: 40 },
          { value: 13.2, sd: 0.8 },
          { value: 0.36, sd: 0.05 },
        ],
      },
    ],
  },
  input: z.strictObject({
    criteria: z
      .array(
        z.strictObject({
          name: key,
          better: z.enum(['less', 'more']).default('less'),
          price: z.number().min(0).max(1e8).nullable().default(null),
          must: z.number().min(-1e9).max(1e9).nullable().default(null),
        }),
      )
      .min(1)
      .max(20),
    options: z
      .array(z.strictObject({ name: key, values: z.array(weighed).max(20) }))
      .min(1)
      .max(20),
  }),
  output: z.strictObject({
    best: z.string().nullable(),
    options: z.array(
      z.strictObject({
        name: z.string(),
        missesMust: z.string().nullable(),
        dominatedBy: z.string().nullable(),
        total: nullable,
        sd: nullable,
        missing: z.array(z.string()),
      }),
    ),
    beats: z.array(z.strictObject({ name: z.string(), chance: z.number() })),
    turnsAt: z.array(z.strictObject({ criterion: z.string(), name: z.string(), price: z.number() })),
  }),
  run: ({ criteria, options }) => {
    const { best, options: verdicts, beats, turnsAt } = decide(criteria, options)
    return { value: { best, options: verdicts.map((verdict) => ({ ...verdict, missing: [...verdict.missing] })), beats: [...beats], turnsAt: [...turnsAt] } }
  },
})

export const COST_CALCULATIONS = [stageCostCalculation, worthCalculation, decisionCalculation]
