import { orElse } from '../../attempt.ts'
import {
  CARRIER_J_PER_M3_K,
  type CoolingPoint,
  coolingPerK,
  coverFor,
  type RadiatorRating,
  type Settled,
  settledCoolant,
  warmUp,
} from '../../cooling/radiator.ts'
import { CalculationError } from '../../errors.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { CoolingKind, CoolingPlan } from '../../records/systems-kinds.ts'
import { normalCdf } from '../../stats/normal.ts'

/** Mean of full heat over a lap (common practice, no source). */
const USUAL_LOAD: Readonly<Record<BuildRecord['discipline'], number>> = { timeAttack: 0.55, track: 0.5, drift: 0.7 }
/** Air in the core over road speed, by where it sits (common practice, no source, ± 20 %). */
const USUAL_FACE: Readonly<Record<CoolingPlan['mount'], number>> = { ductedNose: 0.28, bareNose: 0.18, ductedBoot: 0.16, other: 0.18 }
const SEA_LEVEL_PA = 101_325
const GAS_CONSTANT = 287.05
/** Three logged points that lie so near each other's factor stand for what is doubted of air and rating. */
const LEAST_POINTS = 3
const NEAR = 0.1

/** A plan of cooling as it is worked out: everything that was left out put in, with where it comes from. */
export interface CoolingSetup {
  readonly plan: CoolingPlan
  readonly heatW: number
  readonly heatFrom: 'typed' | 'enginePlan'
  readonly isLoadUsual: boolean
  readonly loadShare: number
  readonly faceShare: number
  readonly isFaceUsual: boolean
  readonly rating: RadiatorRating
  readonly ratingFrom: 'rating' | 'logged'
  /** What logged laps say of the sum: k times this. */
  readonly factor: number
  /** Spread of the logged factors where they stand for air and rating, as a share; null: they do not. */
  readonly loggedShare: number | null
}

/** Density of dry air at sea level's pressure, kg/m³. */
const dryDensity = (airK: number) => SEA_LEVEL_PA / (GAS_CONSTANT * airK)

const pointOf = (setup: Pick<CoolingSetup, 'plan' | 'faceShare'>, at: { speedMps: number; airK: number; airDensityKgM3?: number | null }): CoolingPoint => ({
  speedMps: at.speedMps,
  airK: at.airK,
  airDensityKgM3: at.airDensityKgM3 ?? dryDensity(at.airK),
  flowM3PerS: setup.plan.flowM3PerS,
  faceShare: setup.faceShare,
})

/** What a steady lap says of a core where nobody typed its rating: it carried so much at so much. */
function ratingOfLog(plan: CoolingPlan, faceShare: number): RadiatorRating {
  const [log] = plan.logged
  if (!log) throw new CalculationError('missing', 'rating', 'A radiator cannot be judged by its size. Log one steady lap or type its rating.')
  const { areaM2, flowM3PerS, kind } = plan
  // The air of the lap counted at the density that ratings are given at.
  const faceMps = (faceShare * log.speedMps * dryDensity(log.airK)) / 1.2
  return {
    areaM2,
    ratedW: log.heatW,
    ratedItdK: log.coolantK - log.airK,
    ratedFaceMps: faceMps,
    ratedFlowM3PerS: flowM3PerS,
    carrierJPerM3K: CARRIER_J_PER_M3_K[kind],
  }
}

/**
 * A plan with what was left out put in. `planHeatW` is the engine plan's heat at full power. Rejects a core of which neither rating nor a logged lap is known, and heat
 * that neither was typed nor can be planned.
 * @example coolingSetup(COOLING, { discipline: 'drift', planHeatW: null }).heatFrom // 'typed'
 */
export function coolingSetup(
  plan: CoolingPlan,
  { discipline, planHeatW }: { readonly discipline: BuildRecord['discipline']; readonly planHeatW: number | null },
): CoolingSetup {
  const loadShare = plan.loadShare ?? USUAL_LOAD[discipline]
  const faceShare = plan.faceShare ?? USUAL_FACE[plan.mount]
  const fullW = plan.kind === 'coolant' ? planHeatW : null
  const heatW = plan.heatW ?? (fullW === null ? null : fullW * loadShare)
  if (heatW === null)
    throw new CalculationError(
      'missing',
      'heatW',
      plan.kind === 'coolant'
        ? 'Nobody knows the heat yet. Type it, or make an engine plan with its heat.'
        : 'Type the heat it has to carry: no plan gives that of oil or charge.',
    )
  const { rating } = plan
  const own = rating
    ? {
        areaM2: plan.areaM2,
        ratedW: rating.ratedW,
        ratedItdK: rating.ratedItdK,
        ratedFaceMps: rating.ratedFaceMps,
        ratedFlowM3PerS: rating.ratedFlowM3PerS,
        carrierJPerM3K: CARRIER_J_PER_M3_K[plan.kind],
      }
    : ratingOfLog(plan, faceShare)
  const logs = plan.logged.map(({ speedMps, airK, coolantK, heatW: heat }) =>
    Math.log(heat / (coolantK - airK) / coolingPerK(own, pointOf({ plan, faceShare }, { speedMps, airK }))),
  )
  const mean = logs.reduce((sum, each) => sum + each, 0) / Math.max(1, logs.length)
  const spread = logs.length < 2 ? 0 : Math.sqrt(logs.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (logs.length - 1))
  const isNear = logs.length >= LEAST_POINTS && logs.every((each) => Math.abs(Math.exp(each - mean) - 1) <= NEAR)
  return {
    plan,
    heatW,
    heatFrom: plan.heatW === null ? 'enginePlan' : 'typed',
    loadShare,
    isLoadUsual: plan.loadShare === null,
    faceShare,
    isFaceUsual: plan.faceShare === null,
    rating: own,
    ratingFrom: rating ? 'rating' : 'logged',
    factor: Math.exp(mean),
    loggedShare: isNear ? spread : null,
  }
}

/**
 * Where it settles at a point of driving, with the spread and what it comes from, logged laps counted.
 * @example settledAt(coolingSetup(COOLING, { discipline: 'drift', planHeatW: null }), COOLING.hot, 126_500).settledK // 379.22
 */
export function settledAt(setup: CoolingSetup, at: { speedMps: number; airK: number; airDensityKgM3?: number | null }, heatW: number): Settled {
  const { factor, loggedShare } = setup
  const found = settledCoolant(setup.rating, pointOf(setup, at), heatW)
  const over = (found.settledK - at.airK) / factor
  const scaled = (kelvin: number) => kelvin / factor
  const [byFaceK, byRatingK] = loggedShare === null ? [scaled(found.byFaceK), scaled(found.byRatingK)] : [0, loggedShare * over]
  const byHeatK = scaled(found.byHeatK)
  return { kWPerK: found.kWPerK * factor, settledK: at.airK + over, sdK: Math.hypot(byHeatK, byFaceK, byRatingK), byHeatK, byFaceK, byRatingK }
}

/**
 * The chance that it settles under its limit.
 * @example chanceUnderStop({ settledK: 378, sdK: 0 }, 378.15) // 1
 */
export const chanceUnderStop = ({ settledK, sdK }: Pick<Settled, 'settledK' | 'sdK'>, stopK: number): number =>
  sdK > 0 ? normalCdf((stopK - settledK) / sdK) : Number(settledK <= stopK)

export interface ColdView {
  readonly settledK: number
  readonly sdK: number
  /** Under what the engine calls warm. */
  readonly isTooCold: boolean
  /** Share of the core to cover; null: none does it. */
  readonly cover: number | null
  /** A thermostat holds it at its own. */
  readonly isHeld: boolean
}

/** One cooler of a stage, hot and cold. */
export interface CoolingView {
  readonly setup: CoolingSetup
  /** Stage whose plan it is. */
  readonly position: number
  readonly hot: Settled
  /** What the engine sees: a thermostat holds it up. */
  readonly hotK: number
  readonly chanceUnder: number
  readonly tauS: number
  /** From warm to the limit; null: it never gets there. */
  readonly secondsToStop: number | null
  readonly mostDoubt: 'heat' | 'air' | 'rating' | 'logged'
  readonly cold: ColdView | null
  /** Settled over speed, hot air: low, middle, high at each speed. */
  readonly curve: readonly { readonly speedMps: number; readonly settledK: number; readonly sdK: number }[]
  readonly coldCurve: readonly { readonly speedMps: number; readonly settledK: number }[]
}

const CURVE_POINTS = 30
/** As much of the hot day's speed is the slowest that is drawn. */
const SLOWEST_SHARE = 0.5

function coldView(setup: CoolingSetup): ColdView | null {
  const { cold, warmK, thermostatK } = setup.plan
  if (!cold) return null
  const found = settledAt(setup, cold, cold.heatW)
  const isTooCold = found.settledK < warmK
  const isHeld = isTooCold && thermostatK !== null
  // Logged laps count in the cover as heat that is so much less.
  const cover = isTooCold
    ? orElse(
        () => coverFor(setup.rating, pointOf(setup, cold), cold.heatW / setup.factor, warmK),
        () => null,
      )
    : 0
  return { settledK: found.settledK, sdK: found.sdK, isTooCold, cover, isHeld }
}

/** Which of the doubts is the greatest. */
function mostDoubt({ byHeatK, byFaceK, byRatingK }: Settled, { loggedShare }: CoolingSetup): CoolingView['mostDoubt'] {
  if (byHeatK >= byFaceK && byHeatK >= byRatingK) return 'heat'
  if (loggedShare !== null) return 'logged'
  return byFaceK >= byRatingK ? 'air' : 'rating'
}

/**
 * A cooler worked out: where it settles hot, how sure it stays under its limit, how long it takes to get there, and what a cold day asks.
 * @example coolingView(coolingSetup(COOLING, { discipline: 'drift', planHeatW: null }), 1).chanceUnder // 0.4751
 */
export function coolingView(setup: CoolingSetup, position: number): CoolingView {
  const { hot: at, stopK, warmK, thermostatK, fluidL, metalKg, kind, cold } = setup.plan
  const hot = settledAt(setup, at, setup.heatW)
  const { tauS, seconds } = warmUp({
    kWPerK: hot.kWPerK,
    settledK: hot.settledK,
    coolantL: fluidL,
    metalKg,
    fromK: Math.min(stopK - 1, Math.max(warmK, thermostatK ?? warmK)),
    limitK: stopK,
    carrierJPerM3K: CARRIER_J_PER_M3_K[kind],
  })
  const fastest = Math.max(at.speedMps * 1.4, 40)
  const slowest = SLOWEST_SHARE * at.speedMps
  const speeds = Array.from({ length: CURVE_POINTS }, (_, i) => slowest + ((fastest - slowest) * i) / (CURVE_POINTS - 1))
  return {
    setup,
    position,
    hot,
    hotK: Math.max(hot.settledK, thermostatK ?? 0),
    chanceUnder: chanceUnderStop(hot, stopK),
    tauS,
    secondsToStop: seconds,
    mostDoubt: mostDoubt(hot, setup),
    cold: coldView(setup),
    curve: speeds.map((speedMps) => {
      const { settledK, sdK } = settledAt(setup, { ...at, speedMps }, setup.heatW)
      return { speedMps, settledK, sdK }
    }),
    coldCurve: cold ? speeds.map((speedMps) => ({ speedMps, settledK: settledAt(setup, { ...cold, speedMps }, cold.heatW).settledK })) : [],
  }
}

/**
 * The plan of a kind that holds at a stage: its own, else that of the latest stage before.
 * @example coolingPlanAt({ stages: EXAMPLE.stages, coolingPlans: [COOLING] }, 1, 'coolant').position // 1
 */
export function coolingPlanAt(
  { stages, coolingPlans }: Pick<BuildRecords, 'stages' | 'coolingPlans'>,
  position: number,
  kind: CoolingKind,
): { readonly plan: CoolingPlan; readonly position: number } | undefined {
  const order = [...stages].sort((a, b) => a.position - b.position)
  for (let at = position; at >= 0; at--) {
    const plan = coolingPlans.find((each) => each.kind === kind && each.stageId === order[at]?.id)
    if (plan) return { plan, position: at }
  }
  return undefined
}
