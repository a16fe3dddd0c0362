import { z } from '../zod.ts'
import { id, name, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const optional = (least: number, most: number) => within(least, most).nullable().default(null)
const words = (most: number) => z.string().trim().min(1).max(most).nullable().default(null)

const outputsTellApart: RecordRule = (next) => {
  const keys = (next.outputs as readonly { key: string }[]).map(({ key }) => key.toLowerCase())
  const twice = keys.find((key, i) => keys.indexOf(key) < i)
  if (twice !== undefined) throw new RecordRefusal('outputs', `Output ${twice} is named twice. Give one another name.`)
  return next
}

/** The module that switches and guards the car's circuits. */
export const powerBoxKind = defineRecord({
  list: 'powerBoxes',
  word: 'a power box',
  nameFrom: ['name'],
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' }, partId: { to: 'parts', whenGone: 'forgets' } },
  rules: [outputsTellApart],
  mostInFile: 200,
  fields: {
    id,
    /** From this stage on. */
    stageId: id,
    name,
    partId: id.nullable().default(null),
    outputs: z
      .array(z.strictObject({ key: z.string().trim().min(1).max(20), ratedA: within(0.1, 500), tripA: optional(0.1, 500) }))
      .min(1)
      .max(64),
    /** An output carries so much of its rating for good. */
    loadShare: within(0.1, 1).default(0.8),
    /** So much for a start, from its manual; null: starts are not checked. */
    peakShare: optional(1, 20),
    totalA: optional(1, 2000),
    systemV: within(4, 60).default(13.8),
    /** How many outputs of a rating stay free, by the rating in A. */
    keepFree: z
      .array(z.strictObject({ ratedA: within(0.1, 500), count: z.int().min(1).max(64) }))
      .max(20)
      .default([]),
    vitalAlone: z.boolean().default(true),
  },
})
export type PowerBox = RecordOfKind<typeof powerBoxKind>

export const CIRCUIT_KINDS = ['power', 'signal'] as const

const drawsSomething: RecordRule = (next) => {
  if (next.kind === 'power' && !((next.currentA as number) > 0)) throw new RecordRefusal('currentA', '0 A draws nothing. Type what it draws.')
  return next.output === null ? { ...next, isPinned: false } : next
}

/** What is fed or told through wires of its own. */
export const circuitKind = defineRecord({
  list: 'circuits',
  word: 'a circuit',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name'],
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'Circuits begin at this stage. Move or delete them first.' } } },
  rules: [drawsSomething],
  mostInFile: 500,
  fields: {
    id,
    /** From when; null: always. */
    stageId: id.nullable().default(null),
    name,
    kind: z.enum(CIRCUIT_KINDS).default('power'),
    currentA: within(0, 500),
    /** Null: as its kind of knowledge has it. */
    sdA: optional(0, 500),
    known: z.enum(['guess', 'catalogue', 'measured']).default('guess'),
    /** Share of the time it runs. */
    duty: within(0, 1).default(1),
    /** Times its current as it starts. */
    startFactor: within(1, 12).default(1),
    /** What is switched together may share an output; null: it is switched alone. */
    group: words(40),
    isVital: z.boolean().default(false),
    /** One way. */
    lengthM: optional(0.05, 30),
    return: z.enum(['wire', 'chassis']).default('wire'),
    jointOhm: within(0, 10).default(0),
    /** As laid; null: the least that does. */
    areaMm2: optional(0.1, 200),
    temperatureK: within(240, 500).default(333.15),
    dropShare: within(0.001, 0.2).default(0.03),
    output: words(20),
    /** It stays on its output whatever is placed. */
    isPinned: z.boolean().default(false),
    /** The main switch cuts it. */
    behindKill: z.boolean().default(true),
    ends: z
      .array(z.strictObject({ connector: z.string().trim().min(1).max(60), pin: words(20), colour: words(30), splice: words(60) }))
      .max(20)
      .default([]),
    note,
  },
})
export type Circuit = RecordOfKind<typeof circuitKind>

export const COOLING_KINDS = ['coolant', 'oil', 'charge'] as const
export type CoolingKind = (typeof COOLING_KINDS)[number]
export const COOLER_MOUNTS = ['ductedNose', 'bareNose', 'ductedBoot', 'other'] as const

const ratingSchema = z
  .strictObject({
    ratedW: within(100, 1e6),
    /** Coolant in over air in. */
    ratedItdK: within(0.1, 300),
    ratedFaceMps: within(0.1, 100),
    ratedFlowM3PerS: within(1e-6, 1),
    known: z.enum(['guess', 'catalogue', 'measured']).default('catalogue'),
  })
  .nullable()
  .default(null)

/** A core in a place. */
const coreFields = {
  /** Mass, place and price are its part's. */
  partId: id.nullable().default(null),
  areaM2: within(0.005, 3),
  /** Null: nobody knows; a steady lap that was logged stands for it. */
  rating: ratingSchema,
  mount: z.enum(COOLER_MOUNTS).default('bareNose'),
  /** Air in the core over road speed; null: as is usual where it sits. */
  faceShare: optional(0.01, 1),
  fluidL: within(0.1, 100),
}

/** A core as it is thought of beside what is planned; its flow as in the plan where it is null. */
export const otherCoolerSchema = z.strictObject({ name, ...coreFields, flowM3PerS: optional(1e-6, 1) })
export type OtherCooler = z.output<typeof otherCoolerSchema>

const hotSchema = z.strictObject({ speedMps: within(1, 120), airK: within(220, 340), airDensityKgM3: optional(0.5, 2) })

const holdsTogether: RecordRule = (next) => {
  const { logged, stopK, warmK, hot } = next as unknown as z.output<z.ZodObject<(typeof coolingPlanKind)['fields']>>
  const cooler = logged.findIndex(({ coolantK, airK }) => coolantK <= airK)
  if (cooler >= 0) throw new RecordRefusal(`logged.${cooler}.coolantK`, 'The air is hotter than what it cools. Swap the two.')
  if (stopK <= warmK) throw new RecordRefusal('stopK', 'It would have to stop before it is warm. Check the two.')
  if (hot.airK >= stopK) throw new RecordRefusal('hot.airK', 'The air alone is over the limit. Check the unit.')
  return next
}

/** How a stage stays cool: one plan each for its coolant, its oil and its charge. */
export const coolingPlanKind = defineRecord({
  list: 'coolingPlans',
  word: 'a plan of cooling',
  nameFrom: ['kind'],
  onePer: ['stageId', 'kind'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' }, partId: { to: 'parts', whenGone: 'forgets' } },
  rules: [holdsTogether],
  mostInFile: 300,
  fields: {
    id,
    stageId: id,
    kind: z.enum(COOLING_KINDS).default('coolant'),
    /** At full pace as typed; null: the engine plan's, times its share. */
    heatW: optional(100, 1e6),
    /** A lap's mean of full heat; null: as is usual for the discipline. */
    loadShare: optional(0.05, 1),
    ...coreFields,
    flowM3PerS: within(1e-6, 1),
    /** That warms with it. */
    metalKg: within(0, 1000).default(60),
    hot: hotSchema,
    cold: z
      .strictObject({ speedMps: within(1, 120), airK: within(220, 340), airDensityKgM3: optional(0.5, 2), heatW: within(100, 1e6) })
      .nullable()
      .default(null),
    stopK: within(250, 600),
    /** Under it the engine is not warm. */
    warmK: within(250, 600).default(343.15),
    thermostatK: optional(250, 600),
    /** Other cores and places that are thought of, beside it. */
    others: z.array(otherCoolerSchema).max(8).default([]),
    logged: z
      .array(z.strictObject({ speedMps: within(1, 120), airK: within(220, 340), coolantK: within(250, 700), heatW: within(100, 1e6) }))
      .max(50)
      .default([]),
  },
})
export type CoolingPlan = RecordOfKind<typeof coolingPlanKind>
