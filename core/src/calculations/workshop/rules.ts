import { averagePower } from '../../ruling/average-power.ts'
import { compareBooks } from '../../ruling/class-change.ts'
import { massOverRuleKg, ruleRatio, soundAt } from '../../ruling/rule-ratio.ts'
import { z } from '../../zod.ts'
import { defineCalculation } from '../registry.ts'

const RULES = 'The rules of the Jobs room'
const rpm = z.number().min(-25_000).max(25_000)
const CURVE = { speedRpm: [9000, 9500, 10_000, 10_500, 11_000, 11_500], powerW: [96_000, 101_500, 105_600, 108_200, 106_900, 101_000] }

const averageCalculation = defineCalculation({
  name: 'rules.average-power',
  title: 'Power as a class averages it',
  formula: 'P = Σ w_i P(n₀ + o_i)/Σ w_i about the peak or a speed, or the mean over a range by trapezoids',
  sources: ['I.5', RULES],
  assumptions: ['Straight lines between points of the curve', 'Each book has its own way: the way is data'],
  validRange: 'Speeds within the pulls',
  schools: ['About the peak (default), about a speed, or over a range'],
  example: { ...CURVE, offsetsRpm: [-500, 0, 500] },
  input: z.strictObject({
    speedRpm: z.array(rpm).max(2000),
    powerW: z.array(z.number().max(3e6)).max(2000),
    around: z.enum(['peak', 'speed']).default('peak'),
    atRpm: rpm.nullable().default(null),
    offsetsRpm: z.array(rpm).max(60).default([]),
    weights: z.array(z.number().min(0).max(1e6)).max(60).default([]),
    fromRpm: rpm.nullable().default(null),
    toRpm: rpm.nullable().default(null),
  }),
  output: z.strictObject({ powerW: z.number() }),
  run: ({ speedRpm, powerW, atRpm, ...rule }) => ({ value: { powerW: averagePower({ speedRpm, powerW }, { ...rule, speedRpm: atRpm }) } }),
})

const ratioFields = {
  massKg: z.number().max(20_000),
  massSdKg: z.number().min(0).max(2000).default(0),
  powerW: z.number().max(3e6),
  powerSdW: z.number().min(0).max(1e6).default(0),
  modifiersKgPerW: z.number().min(-1).max(1).default(0),
  limitKgPerW: z.number().min(0).max(1),
  roundStep: z.number().positive().max(1).nullable().default(null),
}
const RATIO = { massKg: 598.55, massSdKg: 2, powerW: 106_900, powerSdW: 1200, modifiersKgPerW: -0.0002, limitKgPerW: 0.0053 }

const ratioCalculation = defineCalculation({
  name: 'rules.ratio',
  title: 'Mass over power as a class counts it',
  formula: 'r = m/P + modifiers, rounded once, last, against the car',
  sources: ['I.4', 'I.5', RULES],
  assumptions: ['Mass and power are apart', 'Rounded once, last, against the car'],
  validRange: 'Mass and power above zero',
  schools: [],
  example: RATIO,
  input: z.strictObject(ratioFields),
  output: z.strictObject({ ratio: z.number(), sd: z.number(), chance: z.number() }),
  run: (input) => {
    const { ratio, sd, chance } = ruleRatio(input)
    return { value: { ratio, sd, chance } }
  },
})

const marginCalculation = defineCalculation({
  name: 'rules.margin',
  title: 'Kilograms to add, kilowatts to give up, and a mass rule at the reference',
  formula: 'kg = (limit − mods) P − m; W = P − m/(limit − mods); less than nothing: in hand. m_rule = m − driver − (F_ref − F_rule) ρ',
  sources: ['I.4', RULES],
  assumptions: ['A mass rule turned round is a limit at the reference'],
  validRange: 'Mass and power above zero',
  schools: [],
  example: { ...RATIO, massKg: 606, driverKg: 80, referenceFuelL: 15, ruleFuelL: 5 },
  input: z.strictObject({
    ...ratioFields,
    driverKg: z.number().min(0).max(300).default(80),
    driverIn: z.boolean().default(true),
    referenceFuelL: z.number().min(0).max(500).default(0),
    ruleFuelL: z.number().min(0).max(500).nullable().default(null),
    fuelKgPerL: z.number().min(0.5).max(1.2).default(0.745),
  }),
  output: z.strictObject({ ruleMassKg: z.number(), kgToAdd: z.number(), wToGiveUp: z.number() }),
  run: ({ driverKg, driverIn, referenceFuelL, ruleFuelL, fuelKgPerL, ...ratio }) => {
    const over = massOverRuleKg({ driverKg, fuelL: referenceFuelL, fuelKgPerL }, { driverIn, fuelL: ruleFuelL })
    const massKg = ratio.massKg - over
    const { kgToAdd, wToGiveUp } = ruleRatio({ ...ratio, massKg })
    return { value: { ruleMassKg: massKg, kgToAdd, wToGiveUp } }
  },
})

const comparedRule = z.strictObject({
  key: z.string().min(1).max(60),
  sense: z.enum(['atMost', 'atLeast', 'between', 'must', 'mustNot']),
  value: z.number().nullable().default(null),
  highValue: z.number().nullable().default(null),
  blocks: z.array(z.string().max(64)).max(200).default([]),
})

const changeCalculation = defineCalculation({
  name: 'rules.class-change',
  title: 'What another class frees, takes, tightens and loosens',
  formula: 'rule by rule by their keys; blocked now and not next: freed, the reverse: lost',
  sources: [RULES],
  assumptions: ['Rules of one key speak of the same thing'],
  validRange: 'To 200 rules a book',
  schools: [],
  example: {
    from: [
      { key: 'mass', sense: 'atLeast', value: 1100 },
      { key: 'diffuser', sense: 'mustNot', blocks: ['floor'] },
    ],
    to: [{ key: 'mass', sense: 'atLeast', value: 1000 }],
  },
  input: z.strictObject({ from: z.array(comparedRule).max(200), to: z.array(comparedRule).max(200) }),
  output: z.strictObject({
    rules: z.array(z.strictObject({ key: z.string(), change: z.enum(['freed', 'gone', 'new', 'tighter', 'looser', 'same', 'other']) })),
    freed: z.array(z.string()),
    lost: z.array(z.string()),
  }),
  run: ({ from, to }) => {
    const { rules, freed, lost } = compareBooks(from, to)
    return { value: { rules: [...rules], freed: [...freed], lost: [...lost] } }
  },
})

const noiseCalculation = defineCalculation({
  name: 'rules.noise',
  title: 'A sound level at the distance of the rule',
  formula: 'L₂ = L₁ − 20 lg(d₂/d₁)',
  sources: [RULES],
  assumptions: ['Free field: no walls, no ground'],
  validRange: 'Distances above zero',
  schools: [],
  example: { levelDb: 101.5, fromM: 0.5, toM: 7.5 },
  input: z.strictObject({ levelDb: z.number().min(0).max(200), fromM: z.number().max(200), toM: z.number().max(200) }),
  output: z.strictObject({ levelDb: z.number() }),
  run: (input) => ({ value: { levelDb: soundAt(input) } }),
})

export const RULE_CALCULATIONS = [averageCalculation, ratioCalculation, marginCalculation, changeCalculation, noiseCalculation]
