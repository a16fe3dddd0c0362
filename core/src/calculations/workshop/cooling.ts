import { fitsIn } from '../../cooling/fits-in.ts'
import { coverFor, radiatorCore, settledCoolant, warmUp } from '../../cooling/radiator.ts'
import { z } from '../../zod.ts'
import { defineCalculation } from '../registry.ts'

const SOURCES = ['ε-NTU of a crossflow core, both streams unmixed (Mason 1955, from memory)', 'Handbook values of coolant and air, from memory']
const rating = {
  areaM2: z.number(),
  ratedW: z.number().max(1e6),
  ratedItdK: z.number().max(300),
  ratedFaceMps: z.number().max(200),
  ratedFlowM3PerS: z.number().max(10),
}
const point = {
  speedMps: z.number().max(150),
  airK: z.number(),
  airDensityKgM3: z.number(),
  flowM3PerS: z.number().max(0.1),
  faceShare: z.number(),
  heatW: z.number().max(2e6),
}
const RATING = { areaM2: 0.24, ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }
const HOT = { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15, flowM3PerS: 0.002, faceShare: 0.28, heatW: 126_500 }

/** The core's own numbers, and the rest. */
function apart({
  areaM2,
  ratedW,
  ratedItdK,
  ratedFaceMps,
  ratedFlowM3PerS,
  ...rest
}: z.output<z.ZodObject<typeof rating>> & z.output<z.ZodObject<typeof point>>) {
  const { heatW, ...where } = rest
  return { core: { areaM2, ratedW, ratedItdK, ratedFaceMps, ratedFlowM3PerS }, where, heatW }
}

const radiatorCalculation = defineCalculation({
  name: 'cooling.radiator',
  title: 'What a radiator’s rating says of its core',
  formula: 'ε = Q/(C_min ITD), N by root of ε = Σ P(n, N) P(n, Cr N)/(Cr N), UA = N C_min',
  sources: SOURCES,
  assumptions: ['Both streams unmixed', 'Half water, half glycol', 'A size alone is no rating: log one steady lap or type one'],
  validRange: 'A rating that asks less than the air carries',
  schools: [],
  example: RATING,
  input: z.strictObject(rating),
  output: z.strictObject({ effectiveness: z.number(), ratio: z.number(), uaWPerK: z.number() }),
  run: (input) => ({ value: radiatorCore(input) }),
})

const settleCalculation = defineCalculation({
  name: 'cooling.settle',
  title: 'Where the coolant settles, and how fast it gets there',
  formula: 'T = T_air + Q/k, k = ε C_min, UA = UA₀ (v/v₀)^0.6; −τ ln((T − T_lim)/(T − T₀))',
  sources: SOURCES,
  assumptions: ['Heat known to 15 %, air through the core to 20 %, rating to 10 % (no source)', 'UA rises with the 0.6th power of the air (no source)'],
  validRange: 'A car that rolls; a face share up to 1',
  schools: ['Heat by fuel, or by power'],
  example: { ...RATING, ...HOT, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 378.15 },
  input: z.strictObject({
    ...rating,
    ...point,
    coolantL: z.number().max(100),
    metalKg: z.number().max(500).default(60),
    fromK: z.number(),
    limitK: z.number(),
  }),
  output: z.strictObject({
    kWPerK: z.number(),
    settledK: z.number(),
    sdK: z.number(),
    byHeatK: z.number(),
    byFaceK: z.number(),
    byRatingK: z.number(),
    tauS: z.number(),
    secondsToLimit: z.number().nullable(),
  }),
  run: ({ coolantL, metalKg, fromK, limitK, ...rest }) => {
    const { core, where, heatW } = apart(rest)
    const settled = settledCoolant(core, where, heatW)
    const { tauS, seconds } = warmUp({ ...settled, coolantL, metalKg, fromK, limitK })
    return { value: { ...settled, tauS, secondsToLimit: seconds } }
  },
})

const coverCalculation = defineCalculation({
  name: 'cooling.cover',
  title: 'How much of a radiator to cover on a cold day',
  formula: 'c by root of T_air + Q/k(c) = T, with C_a and UA times (1 − c)',
  sources: SOURCES,
  assumptions: ['A cover takes its share of the core', 'A thermostat holds what no cover has to'],
  validRange: 'A warmth above the air',
  schools: [],
  example: { ...RATING, ...HOT, speedMps: 22, airK: 283.15, airDensityKgM3: 1.25, heatW: 18_000, wantedK: 348.15 },
  input: z.strictObject({ ...rating, ...point, wantedK: z.number() }),
  output: z.strictObject({ covered: z.number() }),
  run: ({ wantedK, ...rest }) => {
    const { core, where, heatW } = apart(rest)
    return { value: { covered: coverFor(core, where, heatW, wantedK) } }
  },
})

const size = z.strictObject({ lengthM: z.number(), widthM: z.number(), heightM: z.number() })

const fitCalculation = defineCalculation({
  name: 'cooling.fit',
  title: 'Whether a part goes into a space, and which way round',
  formula: 'the greatest of the least rooms over six ways round',
  sources: ['Geometry'],
  assumptions: ['Square on: nothing is turned by an angle', 'Outer sizes with tanks, fans and hoses'],
  validRange: 'Sizes up to 10 m',
  schools: [],
  example: { part: { lengthM: 0.6, widthM: 0.4, heightM: 0.06 }, space: { lengthM: 0.42, widthM: 0.07, heightM: 0.62 } },
  input: z.strictObject({ part: size, space: size }),
  output: z.strictObject({ fits: z.boolean(), leastRoomM: z.number(), along: z.array(z.string()) }),
  run: ({ part, space }) => {
    const found = fitsIn(part, space)
    return { value: { ...found, along: [...found.along] } }
  },
})

export const COOLING_CALCULATIONS = [fitCalculation, radiatorCalculation, settleCalculation, coverCalculation]
