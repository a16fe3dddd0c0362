import { FLOW_REFERENCES, type FlowReference } from '../engine/compressor.ts'
import { HEAT_SCHOOLS } from '../engine/mechanics.ts'
import { z } from '../zod.ts'
import { id, typed } from './common-fields.ts'
import { defineRecord, type RecordOfKind } from './define-record.ts'

const positive = (most: number) => z.number().positive().max(most)
const pressurePa = z.number().nonnegative().max(1e6)
const references = Object.keys(FLOW_REFERENCES) as [FlowReference, ...FlowReference[]]

export const engineSchema = z.strictObject({
  displacementM3: positive(0.03),
  cylinders: z.int().positive().max(24),
  strokes: z.union([z.literal(2), z.literal(4)]).default(4),
  boreM: positive(0.3).nullable().default(null),
  strokeM: positive(0.3).nullable().default(null),
  rodM: positive(0.6).nullable().default(null),
  valvesPerCylinder: z.int().positive().max(8).nullable().default(null),
  compressionRatio: z.number().min(4).max(25).nullable().default(null),
  redlineRpm: positive(25_000),
  /** Volumetric efficiency by speed, referred to manifold density. */
  veCurve: z
    .array(z.strictObject({ speedRpm: positive(25_000), volumetricEfficiency: z.number().min(0.2).max(1.6) }))
    .min(1)
    .max(60),
})

export const powerGoalSchema = z.strictObject({ powerW: positive(3e6), place: z.enum(['wheel', 'crank']), typed })

export const airPathSchema = z.strictObject({
  isBoosted: z.boolean(),
  ambientPressurePa: z.number().min(40_000).max(120_000),
  ambientTemperatureK: z.number().min(233.15).max(333.15),
  /** Lost before the compressor, and between it and the manifold. */
  beforeLossPa: pressurePa,
  afterLossPa: pressurePa,
  compressorEfficiency: z.number().min(0.3).max(1),
  flowReference: z.enum(references),
  /** Null: there is no cooler. */
  coolerEffectiveness: z.number().min(0).max(1).nullable().default(null),
  coolantTemperatureK: z.number().min(233.15).max(373.15).nullable().default(null),
  /** How much warmer than the air outside the charge is without boost. */
  intakeRiseK: z.number().min(0).max(80).default(10),
})

export const burnSchema = z.strictObject({
  bsfcKgPerJ: positive(1e-6),
  lambda: z.number().min(0.6).max(1.3),
  ethanolShare: z.number().min(0).max(1),
  /** Where the target power is made. */
  powerSpeedRpm: positive(25_000),
  /** Greatest torque over the torque at that speed. */
  torqueRise: z.number().min(1).max(3),
  heatSchool: z.enum(HEAT_SCHOOLS),
  coolantShare: z.number().min(0.05).max(1),
})

export const injectorPlanSchema = z.strictObject({
  count: z.int().positive().max(48),
  ratedFlowM3PerS: positive(1e-3),
  ratedPressurePa: positive(2e6),
  /** Rail less manifold. */
  pressureDifferencePa: positive(2e6),
  dutyLimit: z.number().min(0.3).max(1),
  deadTimeS: z.number().nonnegative().max(0.01).nullable().default(null),
})

export const pumpPlanSchema = z.strictObject({
  /** Those that feed the rail; spare ones stand by and run when one of them has failed. */
  count: z.int().positive().max(8),
  spareCount: z.int().nonnegative().max(8).default(0),
  points: z
    .array(z.strictObject({ pressurePa: positive(2e6), flowM3PerS: positive(1e-2), currentA: positive(200).nullable().default(null) }))
    .min(1)
    .max(30),
  /** What the regulator holds above the manifold, and what filter and lines take. */
  basePressurePa: positive(2e6),
  lineLossPa: pressurePa,
  margin: z.number().min(0).max(1),
})

/** How a stage's engine reaches its power: what is asked, the engine, and the number of each step. */
export const enginePlanKind = defineRecord({
  list: 'enginePlans',
  word: 'an engine plan',
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    engine: engineSchema,
    target: powerGoalSchema,
    air: airPathSchema,
    burn: burnSchema,
    injectors: injectorPlanSchema.nullable().default(null),
    pump: pumpPlanSchema.nullable().default(null),
  },
})
export type EnginePlan = RecordOfKind<typeof enginePlanKind>
