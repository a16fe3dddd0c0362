import { placeCircuits } from '../../electrics/placing.ts'
import { firstToTrip, supply } from '../../electrics/supply.ts'
import { loomMass, wireFor } from '../../electrics/wire.ts'
import { CalculationError } from '../../errors.ts'
import { z } from '../../zod.ts'
import { defineCalculation } from '../registry.ts'

const key = z.string().min(1).max(80)
const amps = z.number().max(2000)
const returnsBy = z.enum(['wire', 'chassis']).default('wire')

const tripCalculation = defineCalculation({
  name: 'electrics.first-to-trip',
  title: 'Which output trips first as currents grow',
  formula: 'trip/ΣI, the least first; chance over now Φ((ΣI − trip)/s)',
  sources: ['I.1', 'Common practice, no source'],
  assumptions: ['All currents grow alike', 'A set trip is exact; a fuse is not', 'A setting lies over 1.25 times the load'],
  validRange: 'Trips and currents above zero',
  schools: ['The rating of an output, or its set trip'],
  example: {
    outputs: [
      { key: 'pump', tripA: 20, circuits: [{ currentA: 14.8, sdA: 1.48 }] },
      { key: 'fan', tripA: 30, circuits: [{ currentA: 22, sdA: 2.2 }] },
    ],
  },
  input: z.strictObject({
    outputs: z
      .array(z.strictObject({ key, tripA: amps, circuits: z.array(z.strictObject({ currentA: amps, sdA: z.number().min(0).max(500).default(0) })).max(40) }))
      .min(1)
      .max(100),
  }),
  output: z.strictObject({
    outputs: z.array(z.strictObject({ key, loadA: z.number(), factor: z.number().nullable(), chanceOver: z.number(), settingA: z.number() })),
  }),
  run: ({ outputs }) => ({
    value: { outputs: firstToTrip(outputs).map((found) => ({ ...found, factor: Number.isFinite(found.factor) ? found.factor : null })) },
  }),
})

const wireCalculation = defineCalculation({
  name: 'electrics.wire',
  title: 'How thick a wire has to be',
  formula: 'ΔV = I (ρ₂₀ (1 + 0.00393 (T − 20 °C)) n l/A + R) ≤ d V, and table × 0.7 ≥ trip',
  sources: ['I.3', 'IEC 60028, from memory', 'Table of sizes, catalogue values from memory'],
  assumptions: ['Copper', 'In a bundle a wire carries 0.7 of the table (no source)', 'Back by a wire two ways, by the chassis one and its joints'],
  validRange: 'Lengths above zero, 4 to 60 V',
  schools: ['By the output’s rating, or by its set trip'],
  example: { currentA: 14.8, lengthM: 3.6, temperatureK: 333.15, tripA: 19 },
  input: z.strictObject({
    currentA: amps,
    lengthM: z.number().max(100),
    returnsBy,
    jointOhm: z.number().default(0),
    temperatureK: z.number().default(333.15),
    tripA: amps,
    systemV: z.number().default(13.8),
    dropShare: z.number().default(0.03),
  }),
  output: z.strictObject({
    areaMm2: z.number(),
    dropV: z.number(),
    allowedV: z.number(),
    drops: z.array(z.strictObject({ areaMm2: z.number(), dropV: z.number(), carriesTrip: z.boolean() })),
  }),
  run: ({ tripA, systemV, dropShare, ...run }) => {
    const found = wireFor(run, { tripA, systemV, dropShare })
    return { value: { ...found, drops: found.drops.map((each) => ({ ...each })) } }
  },
})

const supplyCalculation = defineCalculation({
  name: 'electrics.supply',
  title: 'Whether the alternator carries the car',
  formula: 'Ī = Σ I d; margin = rated × share − Ī; shaft 14 V Ī/η; minutes 60 Q u/Ī',
  sources: ['I.1', 'I.2'],
  assumptions: ['Hot 0.75 and idle 0.5 of the rating, η 0.55, 0.8 of the battery usable (common practice, no source)'],
  validRange: 'Something has to draw current',
  schools: [],
  example: { circuits: [{ currentA: 62.4, duty: 1 }], alternatorA: 110, batteryAh: 18 },
  input: z.strictObject({
    circuits: z
      .array(z.strictObject({ currentA: amps, duty: z.number() }))
      .min(1)
      .max(200),
    alternatorA: amps,
    hotShare: z.number().default(0.75),
    idleShare: z.number().default(0.5),
    batteryAh: z.number().max(1000),
    usable: z.number().default(0.8),
    efficiency: z.number().default(0.55),
  }),
  output: z.strictObject({ meanA: z.number(), hotA: z.number(), idleA: z.number(), shaftW: z.number(), batteryMinutes: z.number() }),
  run: (input) => ({ value: supply(input) }),
})

const loomCalculation = defineCalculation({
  name: 'electrics.loom-mass',
  title: 'What a loom weighs',
  formula: 'm = 1.30 Σ 8960 A l n + 0.012 N, ± 15 %',
  sources: ['Density of copper, handbook', 'Common practice, no source'],
  assumptions: ['Sleeves and connectors 30 % on top, 12 g a circuit (no source)'],
  validRange: 'Up to 500 circuits',
  schools: [],
  example: {
    runs: [
      { lengthM: 3.6, areaMm2: 4 },
      { lengthM: 2.2, areaMm2: 2.5, returnsBy: 'chassis' },
      { lengthM: 1.4, areaMm2: 1 },
      { lengthM: 4.1, areaMm2: 0.5 },
    ],
  },
  input: z.strictObject({
    runs: z
      .array(z.strictObject({ lengthM: z.number().max(100), areaMm2: z.number().max(200), returnsBy }))
      .min(1)
      .max(500),
  }),
  output: z.strictObject({ massKg: z.number(), sdKg: z.number() }),
  run: ({ runs }) => ({ value: loomMass(runs) }),
})

const assignCalculation = defineCalculation({
  name: 'electrics.assign',
  title: 'Circuits placed on the outputs of a power box',
  formula: 'least Σ rating used, then the greatest least 1 − ΣI/rating, each circuit once',
  sources: ['Set partitioning by branch and cut (HiGHS)', 'Common practice, no source'],
  assumptions: [
    'What is switched together may share an output',
    'Vital circuits stand alone unless said otherwise',
    'Starts are checked where the box’s manual gives a peak',
  ],
  validRange: 'Up to 60 circuits on 80 outputs',
  schools: [],
  needsSolver: true,
  example: {
    outputs: [30, 20, 20, 10].map((ratedA, i) => ({ key: `${i + 1}`, ratedA })),
    circuits: [
      { name: 'pump', currentA: 14.8, startFactor: 3, group: 'run', isVital: true },
      { name: 'fan', currentA: 22, startFactor: 3, group: 'fan' },
      { name: 'dash', currentA: 2.2, group: 'key' },
      { name: 'radio', currentA: 1.5, group: 'key' },
    ],
    rules: { peakShare: 3 },
  },
  input: z.strictObject({
    outputs: z.array(z.strictObject({ key, ratedA: amps })).max(80),
    circuits: z
      .array(
        z.strictObject({
          name: key,
          currentA: amps,
          startFactor: z.number().default(1),
          group: key,
          isVital: z.boolean().default(false),
          pinned: key.nullable().default(null),
        }),
      )
      .max(60),
    rules: z
      .strictObject({
        loadShare: z.number().default(0.8),
        peakShare: z.number().positive().max(20).nullable().default(null),
        keepFree: z.record(z.string(), z.int().min(0).max(80)).default({}),
        vitalAlone: z.boolean().default(true),
      })
      .prefault({}),
  }),
  output: z.strictObject({
    outputs: z.array(z.strictObject({ key, ratedA: z.number(), circuits: z.array(key), loadA: z.number(), headroom: z.number() })),
    usedA: z.number(),
    leastHeadroom: z.number(),
    free: z.array(z.strictObject({ ratedA: z.number(), count: z.number() })),
    isProven: z.boolean(),
  }),
  run: (input, { solveMilp }) => {
    if (!solveMilp) throw new CalculationError('missing', 'solver', 'No solver was handed in. Use the command line, the API or the screen.')
    const found = placeCircuits(input, solveMilp)
    return {
      value: {
        ...found,
        outputs: found.outputs.map((output) => ({ ...output, circuits: [...output.circuits] })),
        free: found.free.map((each) => ({ ...each })),
      },
    }
  },
})

export const ELECTRIC_CALCULATIONS = [assignCalculation, tripCalculation, wireCalculation, supplyCalculation, loomCalculation]
