import { DEFAULT_BIAS, estimateBias, estimateBiases, logSpread, predictQuantileKg, ratioInterval } from '../mass/estimate-bias.ts'
import { forecastMass } from '../mass/forecast.ts'
import { powerToWeight } from '../mass/power-to-weight.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const pairsSchema = z.array(z.strictObject({ guessKg: z.number(), measuredKg: z.number() })).max(10_000)

const estimateBiasCalculation = defineCalculation({
  name: 'mass.estimate-bias',
  title: 'How guesses run',
  formula: 'r = ln(measured/guess); mu = mean r, s its spread, v = s²/n; new part: E exp(mu + t_{p,n−1} s √(1 + 1/n))',
  sources: ['Log-normal estimation error, closed form'],
  assumptions: [`Under five pairs: mu ${DEFAULT_BIAS.mu}, s ${DEFAULT_BIAS.s} (common practice, no source)`],
  validRange: 'Masses above zero; under five pairs a stated default is used',
  schools: [],
  example: {
    pairs: [
      { guessKg: 10, measuredKg: 11 },
      { guessKg: 4, measuredKg: 4.1 },
      { guessKg: 30, measuredKg: 33 },
      { guessKg: 2, measuredKg: 2.3 },
      { guessKg: 15, measuredKg: 15.2 },
    ],
    newGuessKg: 12,
  },
  input: z.strictObject({ pairs: pairsSchema, newGuessKg: z.number().optional(), probability: z.number().default(0.9) }),
  output: z.strictObject({
    mu: z.number(),
    s: z.number(),
    v: z.number(),
    pairCount: z.number(),
    isDefault: z.boolean(),
    ratio: z.number(),
    /** 8 times in 10 the ratio itself lies between these. */
    ratioLow: z.number(),
    ratioHigh: z.number(),
    newPartQuantileKg: z.number().nullable(),
  }),
  run: ({ pairs, newGuessKg, probability }) => {
    const bias = estimateBias(pairs)
    const newPartQuantileKg = newGuessKg === undefined ? null : predictQuantileKg(newGuessKg, bias, probability)
    const warnings = pairs.some((pair) => Math.abs(Math.log(pair.measuredKg / pair.guessKg)) > 0.7)
      ? ['A pair differs by more than a factor of 2: check its units.']
      : []
    const { low, high } = ratioInterval(bias)
    return { value: { ...bias, ratio: Math.exp(bias.mu), ratioLow: low, ratioHigh: high, newPartQuantileKg }, warnings }
  },
})

const forecastCalculation = defineCalculation({
  name: 'mass.forecast',
  title: 'Forecast of the finished mass',
  formula:
    'mean = M + ΣE_i exp(mu + s²/2 + v/2); cov_ij = m_i m_j (exp(v + s² [i = j]) − 1); one log-normal matched to the mass to come, or a normal where guesses come off',
  sources: ['Moment matching of a sum of log-normals (Fenton 1960, Wilkinson; from memory), closed form'],
  assumptions: [
    'Guesses of one side (what goes on, what comes off) share the doubt in its bias, so it does not average out',
    `Under five pairs of a side: on mu ${DEFAULT_BIAS.mu}, off mu 0, s ${DEFAULT_BIAS.s} (common practice, no source)`,
    'Where the mass to come does not outweigh its doubt twice over, a normal is used',
  ],
  validRange: 'Known mass and every part above zero; up to 10 000 parts',
  schools: ['One log-normal matched to the mass to come, or a normal where guesses come off or little is to come'],
  example: {
    knownKg: 1180,
    knownSdKg: 1.3,
    parts: [
      { id: 'wing', massKg: 9 },
      { id: 'seat', massKg: 7.5, proof: 'catalogue' },
    ],
    limitKg: 1200,
  },
  input: z.strictObject({
    knownKg: z.number(),
    knownSdKg: z.number().nonnegative().default(0),
    parts: z
      .array(
        z.strictObject({
          id: z.string().optional(),
          massKg: z.number(),
          comesOff: z.boolean().default(false),
          proof: z.enum(['guess', 'catalogue', 'measured']).default('guess'),
          sdKg: z.number().nonnegative().optional(),
        }),
      )
      .max(10_000),
    /** Pairs of what goes on, and of what comes off. */
    pairs: pairsSchema.default([]),
    offPairs: pairsSchema.default([]),
    limitKg: z.number().optional(),
  }),
  output: z.strictObject({
    meanKg: z.number(),
    sdKg: z.number(),
    p10Kg: z.number(),
    p50Kg: z.number(),
    p90Kg: z.number(),
    shape: z.enum(['normal', 'lognormal']),
    chanceUnderLimit: z.number().optional(),
    doubt: z.array(z.strictObject({ id: z.string(), varianceShare: z.number(), meanKg: z.number(), sdAfterWeighingKg: z.number() })),
  }),
  run: ({ parts, pairs, offPairs, ...known }) => {
    const value = forecastMass({
      ...known,
      biases: estimateBiases({ on: pairs, off: offPairs }),
      parts: parts.map((part, i) => ({
        id: part.id ?? String(i),
        sign: part.comesOff ? -1 : 1,
        side: part.comesOff ? 'off' : 'on',
        massKg: part.massKg,
        isGuess: part.proof === 'guess',
        sdKg: part.sdKg ?? (part.proof === 'catalogue' ? 0.05 * part.massKg : Math.max(0.1, 0.005 * part.massKg)),
        logSd: part.proof === 'guess' && part.sdKg !== undefined ? logSpread(part.sdKg / part.massKg) : undefined,
      })),
    })
    return { value: { ...value, doubt: [...value.doubt] } }
  },
})

const powerToWeightCalculation = defineCalculation({
  name: 'mass.power-to-weight',
  title: 'Power to weight',
  formula: 'P/m; spread: relative spreads in quadrature',
  sources: ['Definitions; 1 lb/hp = 0.608277 kg/kW'],
  assumptions: ['Say which power (hub, roller, engine; standard) and which mass (driver, fuel): figures on different bases do not compare'],
  validRange: 'Power and mass above zero',
  schools: ['Power at the wheel or at the engine, car with or without driver: named beside the number'],
  example: { powerW: 250_000, powerSdW: 2500, massKg: 1250, massSdKg: 2 },
  input: z.strictObject({
    powerW: z.number(),
    powerSdW: z.number().nonnegative().optional(),
    powerBasis: z.string().max(120).optional(),
    massKg: z.number(),
    massSdKg: z.number().nonnegative().optional(),
    massBasis: z.string().max(120).optional(),
    driverKg: z.number().nonnegative().optional(),
  }),
  output: z.strictObject({
    wattPerKg: z.number(),
    wattPerKgSd: z.number(),
    hpPerTonne: z.number(),
    kgPerKilowatt: z.number(),
    lbPerHp: z.number(),
    basis: z.string(),
  }),
  run: ({ powerBasis = 'not stated', massBasis = 'not stated', ...input }) => ({
    value: { ...powerToWeight(input), basis: `power: ${powerBasis}; mass: ${massBasis}` },
  }),
})

export const MASS_CALCULATIONS = [estimateBiasCalculation, forecastCalculation, powerToWeightCalculation]
