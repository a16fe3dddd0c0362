import { z } from '../zod.ts'
import { id, name } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { METRICS } from './metric-keys.ts'

export const RULE_SENSES = ['atMost', 'atLeast', 'between', 'must', 'mustNot'] as const
export const PULL_CHOICES = ['best', 'mean', 'median'] as const
export const AVERAGE_AROUND = ['peak', 'speed'] as const

const rpm = z.number().min(-25_000).max(25_000)

/** How a book averages power: at points about the peak or a given speed, with weights, or over a range by trapezoids. */
export const averageSchema = z.strictObject({
  around: z.enum(AVERAGE_AROUND).default('peak'),
  /** The speed the points lie about, where that is not the peak. */
  speedRpm: rpm.nullable().default(null),
  offsetsRpm: z.array(rpm).max(60).default([]),
  /** As many as there are points; none: all alike. */
  weights: z.array(z.number().min(0).max(1e6)).max(60).default([]),
  /** In place of points. */
  fromRpm: rpm.nullable().default(null),
  toRpm: rpm.nullable().default(null),
  pulls: z.enum(PULL_CHOICES).default('mean'),
})
export type RuleAverage = z.output<typeof averageSchema>

/** One rule of a book. */
export const ruleFields = {
  /** The same in two books where they speak of the same thing. */
  key: z.string().trim().min(1).max(60),
  text: z.string().trim().min(1).max(400),
  /** Where it stands, as it was typed: "4.2, p. 11". */
  from: z.string().trim().max(80).default(''),
  metric: z.enum(METRICS).nullable().default(null),
  sense: z.enum(RULE_SENSES),
  value: z.number().min(-1e9).max(1e9).nullable().default(null),
  highValue: z.number().min(-1e9).max(1e9).nullable().default(null),
  basis: z
    .strictObject({
      driverIn: z.boolean().default(true),
      /** Null: with what is in it as it comes in. */
      fuelL: z.number().min(0).max(500).nullable().default(null),
      /** How far off noise is measured. */
      atM: z.number().positive().max(200).nullable().default(null),
    })
    .nullable()
    .default(null),
  average: averageSchema.nullable().default(null),
  modifiers: z
    .array(z.strictObject({ name: z.string().trim().min(1).max(80), kgPerW: z.number().min(-1).max(1), applies: z.boolean().default(true) }))
    .max(40)
    .default([]),
  /** What the result is rounded to, against the car. */
  roundStep: z.number().positive().max(1000).nullable().default(null),
  /** Ledger lines and parts that it forbids. */
  blocks: z.array(id).max(200).default([]),
  /** What of a rule could not be read when it came out of a file; nobody judges it. */
  unread: z.string().max(2000).nullable().default(null),
}
export const ruleSchema = z.strictObject(ruleFields)
export type BookRule = z.output<typeof ruleSchema>

/** Why a rule cannot be held against a car; null where it can. */
function faultOf({ metric, sense, value, highValue, average }: BookRule): { field: string; sentence: string } | null {
  const isWord = sense === 'must' || sense === 'mustNot'
  if (metric === null && !isWord)
    return { field: 'metric', sentence: 'A rule with a number names what is measured. Pick it, or make the rule one that must be kept.' }
  if (metric !== null && (isWord || value === null))
    return { field: 'value', sentence: 'A rule about a number says at most, at least or between, and how much.' }
  if (sense === 'between' && !(highValue !== null && value !== null && highValue > value))
    return { field: 'highValue', sentence: 'A range needs an upper value above the lower one.' }
  return average ? averageFault(average) : null
}

function averageFault({ offsetsRpm, weights, fromRpm, toRpm, around, speedRpm }: RuleAverage): { field: string; sentence: string } | null {
  const isRange = fromRpm !== null || toRpm !== null
  if (isRange)
    return fromRpm !== null && toRpm !== null && toRpm > fromRpm
      ? null
      : { field: 'average.toRpm', sentence: 'The range of the average needs a lower and a higher speed.' }
  if (offsetsRpm.length === 0) return { field: 'average.offsetsRpm', sentence: 'The average names no points. Type them, such as -500 0 500.' }
  if (around === 'speed' && speedRpm === null) return { field: 'average.speedRpm', sentence: 'Say which engine speed the points lie about, or take the peak.' }
  if (weights.length > 0 && weights.length !== offsetsRpm.length)
    return { field: 'average.weights', sentence: `There are ${offsetsRpm.length} points and ${weights.length} weights. Give one for each, or none.` }
  if (weights.length > 0 && weights.every((weight) => weight === 0))
    return { field: 'average.weights', sentence: 'The weights sum to nothing. Give at least one more than 0.' }
  return null
}

const canBeHeld: RecordRule = (next) => {
  const rules = next.rules as readonly BookRule[]
  const seen = new Set<string>()
  for (const [i, rule] of rules.entries()) {
    const fault = faultOf(rule)
    if (fault) throw new RecordRefusal(`rules.${i}.${fault.field}`, fault.sentence)
    if (seen.has(rule.key.toLowerCase())) throw new RecordRefusal(`rules.${i}.key`, `Two rules of this book are called ${rule.key}. Give one another key.`)
    seen.add(rule.key.toLowerCase())
  }
  return next
}

/** The numbers of a class with the page they stand on. */
export const ruleBookKind = defineRecord({
  list: 'ruleBooks',
  word: 'a rule book',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name', 'edition'],
  rules: [canBeHeld],
  mostInFile: 100,
  fields: {
    id,
    name,
    edition: z.string().trim().max(60).default(''),
    /** Other builds of the garage take a copy. */
    isShared: z.boolean().default(false),
    rules: z.array(ruleSchema).max(200).default([]),
  },
})
export type RuleBook = RecordOfKind<typeof ruleBookKind>
