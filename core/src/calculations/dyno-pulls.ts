import { bandMean, curveFromTorque, type SpeedCurve } from '../dyno/band-mean.ts'
import { BETWEEN_SESSIONS_RELATIVE_SD, comparePulls, smallestGainFound } from '../dyno/compare-pulls.ts'
import { BOOST_SCHOOLS, correctionFactor, STANDARDS } from '../dyno/correction.ts'
import { driftOf } from '../dyno/drift.ts'
import { powerband } from '../dyno/powerband.ts'
import { rollerPowerW } from '../dyno/roller-inertia.ts'
import { SMOOTHERS, smoothSeries } from '../dyno/smooth.ts'
import { LOSS_SCHOOL_WORDS, LOSS_SCHOOLS, wheelToCrank } from '../dyno/wheel-to-crank.ts'
import { CalculationError } from '../errors.ts'
import { mean, sampleSd } from '../stats/moments.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const series = z.array(z.number()).min(1).max(100_000)
const airFields = { pressurePa: z.number(), temperatureK: z.number(), relativeHumidity: z.number() }
const EXAMPLE_RPM = [2000, 3000, 4000, 5000, 6000, 7000]
const EXAMPLE_NM = [250, 320, 380, 400, 370, 310]

/** A curve given by power or by torque. */
function readCurve({ speedRpm, powerW, torqueNm }: { speedRpm: number[]; powerW?: number[] | undefined; torqueNm?: number[] | undefined }): SpeedCurve {
  if ((powerW === undefined) === (torqueNm === undefined))
    throw new CalculationError('inconsistent', 'powerW', 'Give either powerW or torqueNm, and only one of them.')
  const given = powerW ?? torqueNm ?? []
  if (given.length !== speedRpm.length) throw new CalculationError('inconsistent', 'speedRpm', 'There are not as many values as speeds. Give one for each.')
  return powerW ? { speedRpm, powerW } : curveFromTorque(speedRpm, torqueNm as number[])
}

const restateCalculation = defineCalculation({
  name: 'dyno.restate',
  title: 'Power under another standard',
  formula: 'P_B = P_A · CF_B/CF_A, both factors from the air of that pull',
  sources: ['Definition of correction factors; the standards themselves are from memory, see dyno.correction'],
  assumptions: [
    'The air record is that of the pull itself; without one there is only a range, not a number',
    'One school for boosted engines on both sides: schools are never mixed',
  ],
  validRange: 'Power above zero; air as dyno.correction takes it',
  schools: [`Standards: ${STANDARDS.join(', ')}`],
  example: { powerW: 250_000, from: 'STD J607', to: 'SAE J1349', pressurePa: 97_500, temperatureK: 303.15, relativeHumidity: 0.45 },
  input: z.strictObject({
    powerW: z.number().positive(),
    from: z.enum(STANDARDS),
    to: z.enum(STANDARDS),
    boostSchool: z.enum(BOOST_SCHOOLS).optional(),
    ...airFields,
  }),
  output: z.strictObject({ powerW: z.number(), observedPowerW: z.number(), fromFactor: z.number(), toFactor: z.number() }),
  run: ({ powerW, from, to, boostSchool, ...air }) => {
    const factor = (standard: (typeof STANDARDS)[number]) => correctionFactor({ standard, air, boostSchool })
    const [was, is] = [factor(from), factor(to)]
    const observedPowerW = powerW / was.factor
    return {
      value: { powerW: observedPowerW * is.factor, observedPowerW, fromFactor: was.factor, toFactor: is.factor },
      warnings: [...was.warnings, ...is.warnings],
    }
  },
})

const rollerInertiaCalculation = defineCalculation({
  name: 'dyno.roller-inertia',
  title: 'Power from a roller that speeds up',
  formula: 'P = I (ω²(t + Δt) − ω²(t − Δt))/(4 Δt)',
  sources: ['Kinetic energy over time, closed form; central differences of ω² are exact for constant power on even steps'],
  assumptions: [
    'Inertia of roller and of what turns with it, referred to the roller',
    'One fixed gear; tyre slip is in the engine speed, not in this power',
    'Bearings, belts and the air at the rollers take power that this leaves out: it reads low by their loss',
  ],
  validRange: 'Inertia and speeds above zero; times that rise; three samples or more',
  schools: [],
  example: {
    inertiaKgM2: 25,
    samples: [
      { timeS: 0, speedRadPerS: 129.6148 },
      { timeS: 0.05, speedRadPerS: 132.6649 },
      { timeS: 0.1, speedRadPerS: 135.6466 },
    ],
  },
  input: z.strictObject({ inertiaKgM2: z.number(), samples: z.array(z.strictObject({ timeS: z.number(), speedRadPerS: z.number() })).max(100_000) }),
  output: z.strictObject({ samples: z.array(z.strictObject({ timeS: z.number(), speedRadPerS: z.number(), powerW: z.number() })) }),
  run: ({ inertiaKgM2, samples }) => ({ value: { samples: rollerPowerW(inertiaKgM2, samples) } }),
})

const wheelToCrankCalculation = defineCalculation({
  name: 'dyno.wheel-to-crank',
  title: 'Crank power from wheel power',
  formula: 'Share: P_w/(1 − ℓ); fixed and proportional: (P_w + P_fix)/(1 − k); coast-down: P_w + P_coast',
  sources: ['Definitions; the numbers are common practice, no source'],
  assumptions: [
    'No crank figure made from a wheel figure is surer than 5 %',
    'Coasting down holds no mesh loss under load and reads low at high torque',
    'A roller’s figure is never turned into a hub’s',
  ],
  validRange: 'Wheel power above zero; shares from 0 to under 0.5',
  schools: LOSS_SCHOOLS.map((school) => LOSS_SCHOOL_WORDS[school]),
  example: { wheelPowerW: 250_000, school: 'fixedAndProportional', fixedLossW: 12_000, proportionalShare: 0.06, lossShare: 0.14 },
  input: z.strictObject({
    wheelPowerW: z.number(),
    school: z.enum(LOSS_SCHOOLS),
    lossShare: z.number().optional(),
    fixedLossW: z.number().optional(),
    proportionalShare: z.number().optional(),
    coastDownLossW: z.number().optional(),
  }),
  output: z.strictObject({
    crankPowerW: z.number(),
    sdW: z.number(),
    lossW: z.number(),
    others: z.array(z.strictObject({ school: z.enum(LOSS_SCHOOLS), crankPowerW: z.number() })),
  }),
  run: (input) => ({ value: wheelToCrank(input) }),
})

const smoothCalculation = defineCalculation({
  name: 'dyno.smooth',
  isLong: true,
  title: 'A series smoothed by speed',
  formula: 'Savitzky-Golay: the value of the least-squares polynomial in each window; moving average: (1/h) ∫ over [n − h/2, n + h/2]',
  sources: ['Savitzky and Golay 1964 (from memory), least squares on even steps; ends by the polynomial of the first and last window'],
  assumptions: ['Resampled to an even grid first', 'A moving average lowers a peak by about |P″|h²/24: say so wherever a smoothed peak is quoted'],
  validRange: 'A window wider than the order and narrower than the series',
  schools: ['Savitzky-Golay, or a moving average by speed'],
  example: {
    speedRpm: Array.from({ length: 31 }, (_, i) => 3000 + 100 * i),
    value: Array.from({ length: 31 }, (_, i) => 150 + 4 * i + (i % 3)),
    method: 'savitzkyGolay',
    windowRpm: 400,
  },
  input: z.strictObject({
    speedRpm: series,
    value: series,
    method: z.enum(SMOOTHERS),
    windowRpm: z.number(),
    order: z.int().min(0).max(6).optional(),
    stepRpm: z.number().optional(),
  }),
  output: z.strictObject({ speedRpm: series, value: series, points: z.number() }),
  run: (input) => ({ value: smoothSeries(input) }),
})

const bandMeanCalculation = defineCalculation({
  name: 'dyno.band-mean',
  title: 'Mean power of a band',
  formula: 'By speed: ∫P dn/(n2 − n1); by time: ((n2² − n1²)/2)/∫(n/P) dn; through gears: Σ(n2² − n1²)/(2G²) / Σ(1/G²)∫(n/P) dn',
  sources: ['Kinetic energy over time, closed form'],
  assumptions: [
    'Torque runs straight between the points',
    'Resistance is left out; the same effective mass in all gears',
    'Shifted at the upper speed, in no time',
  ],
  validRange: 'A band inside the curve with power above zero',
  schools: ['By speed (as class books count), or by time (what accelerates the car)'],
  example: { speedRpm: EXAMPLE_RPM, torqueNm: EXAMPLE_NM, fromRpm: 4000, toRpm: 7000, gearRatios: [2, 1.5, 1.2] },
  input: z.strictObject({
    speedRpm: series,
    powerW: series.optional(),
    torqueNm: series.optional(),
    fromRpm: z.number(),
    toRpm: z.number(),
    gearRatios: z.array(z.number()).max(12).optional(),
  }),
  output: z.strictObject({ bySpeedW: z.number(), byTimeW: z.number(), throughGearsW: z.number().nullable() }),
  run: ({ fromRpm, toRpm, gearRatios, ...curve }) => ({ value: bandMean({ curve: readCurve(curve), fromRpm, toRpm, gearRatios }) }),
})

const powerbandCalculation = defineCalculation({
  name: 'dyno.powerband',
  title: 'Width of the power band',
  formula: 'The contiguous band around the peak in which the value is at least a share of it, by straight lines',
  sources: ['Definition'],
  assumptions: ['The first peak, where several are equal', 'A band that reaches an end of the data is open: it may be wider'],
  validRange: 'Speeds that rise; a share from 0.1 to 0.99',
  schools: [],
  example: { speedRpm: EXAMPLE_RPM, value: EXAMPLE_NM, share: 0.9 },
  input: z.strictObject({ speedRpm: series, value: series, share: z.number().optional() }),
  output: z.strictObject({ peak: z.number(), peakSpeedRpm: z.number(), fromRpm: z.number(), toRpm: z.number(), widthRpm: z.number(), isOpen: z.boolean() }),
  run: (input) => ({ value: powerband(input) }),
})

const pullSet = z.union([
  z.array(z.number()).max(1000),
  z.strictObject({ curves: z.array(z.strictObject({ speedRpm: series, powerW: series })).max(1000), fromRpm: z.number(), toRpm: z.number() }),
])

/** A set of pulls as numbers: as given, or each curve's mean power over the band. */
const numbersOf = (set: z.output<typeof pullSet>): number[] =>
  Array.isArray(set) ? set : set.curves.map((curve) => bandMean({ curve, fromRpm: set.fromRpm, toRpm: set.toRpm }).bySpeedW)

const compareCalculation = defineCalculation({
  name: 'dyno.compare',
  title: 'Two sets of pulls',
  formula: 'Δ = x̄_B − x̄_A; SE = √(s²_A/n_A + s²_B/n_B); ν by Welch and Satterthwaite; real where |Δ| > t SE',
  sources: ['Welch 1947 (from memory), closed form'],
  assumptions: [
    'Pulls of one session share strap-down, tyres and gear',
    'Sets of different sessions carry 1 % from one to the next (common practice, no source)',
    'Mean power over a band is compared rather than peaks, which noise lifts',
  ],
  validRange: 'Two pulls or more a set for a verdict; confidence 0.5 to 0.999, 0.95 where none is given',
  schools: ['Statistics, or the trade’s rule that 1 % is noise: the interval is shown'],
  example: { first: [301.2, 303.5, 302.1, 300.8, 302.9], second: [306, 304.9, 307.3, 305.5, 306.8] },
  input: z.strictObject({ first: pullSet, second: pullSet, confidence: z.number().optional(), isSameSession: z.boolean().optional() }),
  output: z.strictObject({
    difference: z.number(),
    low: z.number().nullable(),
    high: z.number().nullable(),
    smallestReal: z.number().nullable(),
    pValue: z.number().nullable(),
    degreesOfFreedom: z.number().nullable(),
    verdict: z.enum(['real', 'within noise', 'too few pulls']),
    /** What as many pulls again would find 8 times in 10. */
    smallestFound: z.number().nullable(),
  }),
  run: ({ first, second, ...rest }) => {
    const [a, b] = [numbersOf(first), numbersOf(second)]
    const value = comparePulls({ first: a, second: b, ...rest })
    const fewest = Math.min(a.length, b.length)
    const betweenSd = rest.isSameSession === false ? BETWEEN_SESSIONS_RELATIVE_SD * mean(a) : 0
    const smallestFound = fewest < 2 ? null : smallestGainFound(Math.max(sampleSd(a), sampleSd(b)), fewest, rest.confidence, { betweenSd })
    return { value: { ...value, smallestFound } }
  },
})

const driftCalculation = defineCalculation({
  name: 'dyno.drift',
  title: 'Whether successive pulls drift',
  formula: 'b = Σ(i − ī)(x − x̄)/Σ(i − ī)²; t = b/SE(b), ν = n − 2; S = pairs that rose − pairs that fell',
  sources: ['Least squares; Mann 1945 and Kendall (from memory): the exact chance of S among all orders of the pulls, where no two are equal'],
  assumptions: ['Pulls in their order, evenly cooled between', 'Where drift is real, compare by going back to the baseline in between'],
  validRange: 'Four pulls or more',
  schools: [],
  example: { values: [305.1, 304.2, 303.9, 302.8, 302.5, 301.6] },
  input: z.strictObject({ values: z.array(z.number()).max(1000) }),
  output: z.strictObject({
    slopePerPull: z.number(),
    slopeSd: z.number(),
    pValue: z.number(),
    mannKendallS: z.number(),
    mannKendallP: z.number().nullable(),
    isDrifting: z.boolean(),
  }),
  run: ({ values }) => ({ value: driftOf(values) }),
})

export const DYNO_PULL_CALCULATIONS = [
  restateCalculation,
  rollerInertiaCalculation,
  wheelToCrankCalculation,
  smoothCalculation,
  bandMeanCalculation,
  powerbandCalculation,
  compareCalculation,
  driftCalculation,
]
