import { planPulls } from '../dyno/pull-planner.ts'
import { LOSS_SCHOOL_WORDS, LOSS_SCHOOLS } from '../dyno/wheel-to-crank.ts'
import { RATING_KINDS, ratingChain } from '../engine/rating-chain.ts'
import { enginePlanKind } from '../records/engine-plan-kind.ts'
import { PLAN_STEPS } from '../rooms/power/engine-plan-steps.ts'
import { workEnginePlan } from '../rooms/power/work-engine-plan.ts'
import { z } from '../zod.ts'
import { EXAMPLE_PLAN } from './examples/example-plan.ts'
import { defineCalculation } from './registry.ts'

const rating = z.strictObject({ id: z.string().max(120), kind: z.enum(RATING_KINDS), limit: z.number(), from: z.number().optional() })

/** Limits beyond so many times the target are none of a plan's. */
const MOST_TIMES_TARGET = 4

const ratingChainCalculation = defineCalculation({
  name: 'engine.rating-chain',
  title: 'Headroom of each part, weakest first',
  formula:
    'headroom = 1 − (demand − from)/(limit − from), from = 0 unless given; a demand that grows with power as (P/P_target)^e reaches its limit at P_target (limit/demand)^(1/e)',
  sources: ['Ratios; exponents: 1 for power, torque, flow, current and duty at one speed (common practice, no source)'],
  assumptions: [
    'Demands are those at the target; each grows with power by its exponent, 1 where none is given, and not at all with 0',
    'Temperatures mean most when they are counted from the air outside',
  ],
  validRange: 'Demands above zero, limits above what they are counted from',
  schools: [],
  example: {
    targetPowerW: 300_000,
    demands: [
      { kind: 'power', value: 300_000 },
      { kind: 'torque', value: 450 },
      { kind: 'speed', value: 7500, exponent: 0 },
    ],
    ratings: [
      { id: 'turbo', kind: 'power', limit: 330_000 },
      { id: 'gearbox', kind: 'torque', limit: 420 },
      { id: 'valve springs', kind: 'speed', limit: 8000 },
    ],
  },
  input: z.strictObject({
    targetPowerW: z.number().positive().max(1e7),
    demands: z
      .array(z.strictObject({ kind: z.enum(RATING_KINDS), value: z.number().positive(), exponent: z.number().min(0).max(3).default(1) }))
      .max(RATING_KINDS.length),
    ratings: z.array(rating).min(1).max(500),
  }),
  output: z.strictObject({
    headrooms: z.array(
      z.strictObject({
        id: z.string(),
        kind: z.enum(RATING_KINDS),
        demand: z.number(),
        limit: z.number(),
        headroom: z.number(),
        limitPowerW: z.number().nullable(),
      }),
    ),
    firstLimitId: z.string().nullable(),
    withoutDemand: z.array(z.string()),
  }),
  run: ({ targetPowerW, demands, ratings }) => {
    const demandsAt = (powerW: number) => Object.fromEntries(demands.map(({ kind, value, exponent }) => [kind, value * (powerW / targetPowerW) ** exponent]))
    const chain = ratingChain({ targetPowerW, fromPowerW: targetPowerW / 10, toPowerW: MOST_TIMES_TARGET * targetPowerW, ratings, demandsAt })
    const exponents = new Map(demands.map(({ kind, exponent }) => [kind, exponent]))
    const headrooms = chain.headrooms.map((entry) => {
      const exponent = exponents.get(entry.kind) ?? 0
      const limitPowerW = exponent === 0 ? null : targetPowerW * (entry.limit / entry.demand) ** (1 / exponent)
      return { ...entry, limitPowerW: limitPowerW !== null && limitPowerW <= MOST_TIMES_TARGET * targetPowerW ? limitPowerW : null }
    })
    const { withoutDemand } = chain
    const first = [...headrooms].filter((entry) => entry.limitPowerW !== null).sort((a, b) => (a.limitPowerW as number) - (b.limitPowerW as number))[0]
    return { value: { headrooms, firstLimitId: first?.id ?? null, withoutDemand } }
  },
})

const { id: _id, stageId: _stageId, ...planFields } = enginePlanKind.fields

const enginePlanCalculation = defineCalculation({
  name: 'engine.plan',
  title: 'An engine from its target power to its parts',
  formula: 'P_w → P_c → ṁ_f → ṁ_a → p_m and T_m together (compressor and cooler) → duty, pump margin, BMEP, piston speed, heat',
  sources: ['The calculations that each step names; charge temperature and pressure by repetition until they stand still within 1e-7 K'],
  assumptions: [
    'At the speed of the target power; the greatest torque by the rise that is given',
    'VE is referred to manifold density',
    'Without boost the charge is warmer than the air by the rise that is given',
  ],
  validRange: 'As each step says; a step that physics refuses is named and those that need it wait',
  schools: LOSS_SCHOOLS.map((school) => LOSS_SCHOOL_WORDS[school]),
  example: EXAMPLE_PLAN,
  input: z.strictObject({
    ...planFields,
    loss: z.strictObject({
      school: z.enum(LOSS_SCHOOLS),
      lossShare: z.number().optional(),
      fixedLossW: z.number().optional(),
      proportionalShare: z.number().optional(),
      coastDownLossW: z.number().optional(),
    }),
  }),
  output: z.strictObject({
    steps: z.array(
      z.strictObject({
        step: z.enum(PLAN_STEPS),
        figures: z.array(z.strictObject({ word: z.string(), value: z.number() })),
        refusal: z.string().nullable(),
        notGiven: z.string().nullable(),
        waitsFor: z.enum(PLAN_STEPS).nullable(),
      }),
    ),
    refusedBy: z.enum(PLAN_STEPS).nullable(),
  }),
  run: ({ loss, ...plan }) => {
    const { steps, refusedBy } = workEnginePlan({ id: 'plan', stageId: 'stage', ...plan }, { ...loss, isUsual: false })
    return {
      value: {
        steps: steps.map(({ key, figures, refusal, notGiven, waitsFor }) => ({
          step: key,
          figures: figures.map(({ word, value }) => ({ word, value })),
          refusal,
          notGiven,
          waitsFor,
        })),
        refusedBy,
      },
      warnings: steps.flatMap(({ word, warnings }) => warnings.map((warning) => `${word}: ${warning}`)),
    }
  },
})

const seconds = z.number()

const pullPlanCalculation = defineCalculation({
  name: 'dyno.pull-plan',
  title: 'Pulls for the hours that are booked',
  formula: 'Set up, first pulls, baseline, one change at a time, baseline again; a pull takes its own time and its cooling',
  sources: ['The order is common practice, no source; the smallest gain found 8 times in 10 is (t_{α/2} + t_β) s √(2/n)'],
  assumptions: ['The return to the baseline is kept free before any change is taken', 'A change goes in whole or not at all'],
  validRange: 'Hours that hold at least set-up, first pulls and the baseline',
  schools: ['With or without a return to the baseline at the end'],
  example: {
    bookedS: 10_800,
    setUpS: 1800,
    pullS: 60,
    coolingS: 180,
    firstPulls: 2,
    basePulls: 3,
    changes: [{ name: 'cams advanced 2°', setUpS: 1200, pulls: 3 }],
    returnsToBase: true,
    pullSdW: 900,
  },
  input: z.strictObject({
    bookedS: seconds,
    setUpS: seconds,
    pullS: seconds,
    coolingS: seconds,
    firstPulls: z.int().nonnegative(),
    basePulls: z.int().positive(),
    changes: z.array(z.strictObject({ name: z.string().max(120), setUpS: seconds, pulls: z.int().positive() })).max(30),
    returnsToBase: z.boolean(),
    pullSdW: z.number().positive().optional(),
  }),
  output: z.strictObject({
    steps: z.array(z.strictObject({ kind: z.string(), name: z.string().optional(), fromS: seconds, toS: seconds, pulls: z.number() })),
    leftOut: z.array(z.string()),
    spareS: seconds,
    pulls: z.number(),
    smallestGainW: z.number().nullable(),
  }),
  run: (input) => {
    const { steps, leftOut, ...rest } = planPulls(input)
    return { value: { ...rest, steps: [...steps], leftOut: [...leftOut] } }
  },
})

export const PLAN_CALCULATIONS = [ratingChainCalculation, enginePlanCalculation, pullPlanCalculation]
