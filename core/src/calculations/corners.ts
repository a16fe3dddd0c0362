import { CalculationError } from '../errors.ts'
import { addAt } from '../mass/add-at.ts'
import { planBallast } from '../mass/ballast.ts'
import { BALLAST_OBJECTIVES } from '../mass/ballast-types.ts'
import { cornerBalance } from '../mass/corner-balance.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const four = z.strictObject({ LF: z.number(), RF: z.number(), LR: z.number(), RR: z.number() })
const load = z.number().nonnegative()
/** What stands on each wheel. */
const fourLoads = z.strictObject({ LF: load, RF: load, LR: load, RR: load })
const ratesFields = {
  wheelRateNPerM: four,
  tyreRateNPerM: four.optional(),
  barFrontNPerM: z.number().nonnegative().optional(),
  barRearNPerM: z.number().nonnegative().optional(),
}
const placesFields = { wheelbaseM: z.number(), trackFrontM: z.number(), trackRearM: z.number() }
const EXAMPLE_PLACES = { wheelbaseM: 2.57, trackFrontM: 1.5, trackRearM: 1.52 }
const EXAMPLE_CORNERS = { LF: 312, RF: 298, LR: 276, RR: 294 }
const EXAMPLE_RATES = { LF: 38_000, RF: 38_000, LR: 46_000, RR: 46_000 }

const addAtCalculation = defineCalculation({
  name: 'mass.add-at',
  title: 'Corner loads from a mass put at a place',
  formula: 'F = K B (BᵀKB)⁻¹ m [1, x, y]ᵀ; K = (K_susp⁻¹ + K_tyre⁻¹)⁻¹, B a row [1, x, y] a corner',
  sources: ['Statics of a rigid body on four springs, closed form'],
  assumptions: [
    'Rigid chassis, linear rates: bump rubbers and droop limits do not engage',
    'x rearward of the front axle, y to the left; bars count where their rates are given',
  ],
  validRange: 'Rates, lengths and corners above zero; no wheel lifts off its pad',
  schools: ['Split by position alone (right only with equal rates, or on the middle line), or by the springs: the springs are used'],
  example: { corners: EXAMPLE_CORNERS, ...EXAMPLE_PLACES, wheelRateNPerM: EXAMPLE_RATES, loads: [{ massKg: 20, xM: 2.3, yM: -0.4 }] },
  input: z.strictObject({
    corners: fourLoads,
    ...placesFields,
    ...ratesFields,
    loads: z
      .array(z.strictObject({ massKg: z.number(), xM: z.number(), yM: z.number() }))
      .min(1)
      .max(1000),
  }),
  output: z.strictObject({ changeKg: four, cornersKg: four, frontShare: z.number(), leftShare: z.number(), crossShareRfLr: z.number() }),
  run: (input) => ({ value: addAt(input) }),
})

const perchPlan = z.strictObject({ turns: four, cornersKg: four, crossShareRfLr: z.number(), riseM: four })

const cornerBalanceCalculation = defineCalculation({
  name: 'mass.corner-balance',
  title: 'Perch turns to a wanted cross share',
  formula:
    'λ = −(C_t − C_0) W g/(1/t_f + 1/t_r); w = (1/t_f, −1/t_f, −1/t_r, 1/t_r); u = λ w/k at the wheel, perch = motion ratio × u; ΔF = [K − KB(BᵀKB)⁻¹BᵀK] u',
  sources: ['Statics of a rigid body on four springs, closed form: perches can load nothing but warp'],
  assumptions: [
    'Bars disconnected: they resist warp, so what is set with them on changes when they are touched',
    'Front, rear, left and right totals cannot be changed by perches; the centre of mass fixes them',
    'A turn above zero compresses the spring and raises the corner',
  ],
  validRange: 'Wanted cross from 0.40 to 0.60; motion ratio over 0 and up to 2',
  schools: [
    'Turns by rate and motion ratio that leave every ride height where it is, or equal and opposite turns at all four corners: both are given, with what they do to heights',
    'Cross as right front and left rear, or as left front and right rear: one is one less the other',
  ],
  example: {
    corners: EXAMPLE_CORNERS,
    ...EXAMPLE_PLACES,
    wheelRateNPerM: EXAMPLE_RATES,
    wantedCrossRfLr: 0.5,
    motionRatio: { LF: 0.95, RF: 0.95, LR: 0.9, RR: 0.9 },
    threadPitchM: { LF: 0.0015, RF: 0.0015, LR: 0.0015, RR: 0.0015 },
  },
  input: z.strictObject({
    corners: fourLoads,
    ...placesFields,
    ...ratesFields,
    wantedCrossRfLr: z.number(),
    motionRatio: four,
    threadPitchM: four,
    turnStep: z.number().optional(),
  }),
  output: z.strictObject({
    before: z.strictObject({ frontShare: z.number(), leftShare: z.number(), crossShareRfLr: z.number() }),
    exactTurns: four,
    heightKept: perchPlan,
    equalTurns: perchPlan,
  }),
  run: (input) => ({
    value: cornerBalance(input),
    warnings:
      (input.barFrontNPerM ?? 0) + (input.barRearNPerM ?? 0) > 0
        ? ['A bar is connected. Disconnect both before turning a perch, and connect them again without preload afterwards.']
        : [],
  }),
})

const wanted = z.strictObject({ value: z.number(), within: z.number().positive().optional(), weight: z.number().positive().optional() }).optional()
const placement = z.strictObject({
  sites: z.array(
    z.strictObject({
      id: z.string(),
      plates: z.array(z.strictObject({ massKg: z.number(), count: z.number() })),
      massKg: z.number(),
      mountLoadN: z.number().nullable(),
    }),
  ),
  ballastKg: z.number(),
  totalKg: z.number(),
  frontShare: z.number(),
  leftShare: z.number(),
  crossShareRfLr: z.number().nullable(),
  ballastHeightM: z.number().nullable(),
  centreHeightM: z.number().nullable(),
  objective: z.number(),
})

const ballastCalculation = defineCalculation({
  name: 'mass.ballast',
  title: 'Ballast on sites',
  formula:
    'least Σ weight |load − wanted share × mass|, or least Σ m z, Σ m r² or Σ m; m = plates × their mass, whole numbers; minimum ≤ Σ m + car ≤ minimum + band; each site up to its limit',
  sources: [
    'Mixed-integer linear programming, solved by branch and cut (HiGHS); runner-up: the best of the neighbouring problems, exact where each of them was proven',
  ],
  assumptions: [
    'Share errors are counted in kg of load, which is the share times the mass',
    'Cross share through the elastic corners; it needs wheel rates',
    'A ballast mount is a safety item: the load factor comes from your rule book, and qualified people make and inspect the mount',
  ],
  validRange: 'Up to some dozens of sites; plates, limits and lengths above zero',
  schools: ['Come as near as can be to the shares, or lowest ballast, or least turning inertia, or least mass with the shares inside bounds'],
  example: {
    corners: EXAMPLE_CORNERS,
    ...EXAMPLE_PLACES,
    minimumKg: 1250,
    front: { value: 0.515 },
    objective: 'nearestShares',
    loadFactorG: 25,
    sites: [
      { id: 'left front', xM: 0.2, yM: 0.35, zM: 0.25, limitKg: 25, plates: [{ massKg: 5, count: 5 }] },
      { id: 'right front', xM: 0.2, yM: -0.35, zM: 0.25, limitKg: 25, plates: [{ massKg: 5, count: 5 }] },
      { id: 'passenger floor', xM: 1.3, yM: -0.5, zM: 0.15, limitKg: 40, plates: [{ massKg: 5, count: 8 }] },
      { id: 'boot', xM: 2.4, yM: 0, zM: 0.2, limitKg: 30, plates: [{ massKg: 5, count: 6 }] },
    ],
  },
  input: z.strictObject({
    corners: fourLoads,
    ...placesFields,
    centreHeightM: z.number().optional(),
    rates: z.strictObject(ratesFields).optional(),
    sites: z
      .array(
        z.strictObject({
          id: z.string().max(80),
          xM: z.number(),
          yM: z.number(),
          zM: z.number(),
          limitKg: z.number(),
          plates: z
            .array(z.strictObject({ massKg: z.number(), count: z.int().positive() }))
            .min(1)
            .max(10),
        }),
      )
      .max(60),
    minimumKg: z.number(),
    mostOverKg: z.number().nonnegative().optional(),
    front: wanted,
    left: wanted,
    crossRfLr: wanted,
    objective: z.enum(BALLAST_OBJECTIVES),
    loadFactorG: z.number().optional(),
    timeLimitS: z.number().positive().max(30).optional(),
    runnersUp: z.int().nonnegative().max(5).optional(),
  }),
  output: z.strictObject({ best: placement, runnersUp: z.array(placement), isProven: z.boolean(), gap: z.number() }),
  needsSolver: true,
  run: (input, { solveMilp }) => {
    if (!solveMilp) throw new CalculationError('missing', 'solver', 'No solver was handed in. Use the command line, the API or the screen.')
    const value = planBallast(input, solveMilp)
    const plain = (entry: typeof value.best) => ({ ...entry, sites: entry.sites.map((site) => ({ ...site, plates: [...site.plates] })) })
    return { value: { ...value, best: plain(value.best), runnersUp: value.runnersUp.map(plain) } }
  },
})

export const CORNER_CALCULATIONS = [addAtCalculation, cornerBalanceCalculation, ballastCalculation]
