import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { rootBetween } from '../stats/root.ts'
import { crossflowEffectiveness, crossflowUnits } from './crossflow.ts'

/** Air at constant pressure, J/(kg K); coolant, half water half glycol: kg/m³ and J/(kg K); metal, J/(kg K) (handbooks, from memory). */
const AIR_J_PER_KG_K = 1005
const COOLANT_KG_M3 = 1030
const COOLANT_J_PER_KG_K = 3560
/** What is in a cooler, kg/m³: coolant; engine oil when hot; charge air counted as it was drawn in (handbooks, from memory). */
export const FLUID_KG_M3 = { coolant: COOLANT_KG_M3, oil: 850, charge: 1.2 } as const
/** What carries the heat to a core, J/(m³ K) (handbooks, from memory). */
export const CARRIER_J_PER_M3_K = {
  coolant: FLUID_KG_M3.coolant * COOLANT_J_PER_KG_K,
  oil: FLUID_KG_M3.oil * 2200,
  charge: FLUID_KG_M3.charge * AIR_J_PER_KG_K,
} as const
const METAL_J_PER_KG_K = 700
const RATED_AIR_KG_M3 = 1.2
/** How the core's transfer rises with the air through it (common practice, no source). */
const UA_EXPONENT = 0.6

/** What a core's maker or a measured lap says it does. */
export interface RadiatorRating {
  readonly areaM2: number
  readonly ratedW: number
  /** Coolant in over air in, K. */
  readonly ratedItdK: number
  readonly ratedFaceMps: number
  readonly ratedFlowM3PerS: number
  /** Of what carries the heat, J/(m³ K); coolant where it is left out. */
  readonly carrierJPerM3K?: number
}

/** How it is driven. */
export interface CoolingPoint {
  readonly speedMps: number
  readonly airK: number
  readonly airDensityKgM3: number
  readonly flowM3PerS: number
  /** Air in the core over road speed. */
  readonly faceShare: number
  /** Share of the core that is covered. */
  readonly covered?: number
}

const airSide = (densityKgM3: number, areaM2: number, faceMps: number) => densityKgM3 * AIR_J_PER_KG_K * areaM2 * faceMps
const carrierSide = (flowM3PerS: number, carrierJPerM3K: number = CARRIER_J_PER_M3_K.coolant) => carrierJPerM3K * flowM3PerS

function capacities(airWPerK: number, coolantWPerK: number): { least: number; ratio: number } {
  const least = Math.min(airWPerK, coolantWPerK)
  return { least, ratio: least / Math.max(airWPerK, coolantWPerK) }
}

/**
 * What a rating says of a core: effectiveness, ratio of the streams, transfer UA at its rated air, W/K. Rejects zero or less in any of it, and a rating that asks
 * more than the air carries. Size alone is no rating. Source: ε-NTU, both unmixed.
 * @example radiatorCore({ areaM2: 0.24, ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }).uaWPerK // 2848.80
 */
export function radiatorCore({ areaM2, ratedW, ratedItdK, ratedFaceMps, ratedFlowM3PerS, carrierJPerM3K }: RadiatorRating): {
  effectiveness: number
  ratio: number
  uaWPerK: number
} {
  requireWithin(areaM2, 0.005, 3, 'areaM2')
  for (const [field, value] of Object.entries({ ratedW, ratedItdK, ratedFaceMps, ratedFlowM3PerS })) requirePositive(value, field)
  if (ratedFlowM3PerS > 0.02 && (carrierJPerM3K ?? CARRIER_J_PER_M3_K.coolant) > CARRIER_J_PER_M3_K.charge)
    throw new CalculationError('implausible', 'ratedFlowM3PerS', 'That is over 1 200 L/min of coolant. Flow is in m³/s: 100 L/min are 0.00167.')
  const { least, ratio } = capacities(airSide(RATED_AIR_KG_M3, areaM2, ratedFaceMps), carrierSide(ratedFlowM3PerS, carrierJPerM3K))
  const effectiveness = ratedW / (least * ratedItdK)
  return { effectiveness, ratio, uaWPerK: crossflowUnits(effectiveness, ratio) * least }
}

/** How well heat, air through the core and rating are known (common practice, no source). */
const SHARES = { heat: 0.15, face: 0.2, rated: 0.1 } as const
const STEP = 0.01

const cores = new WeakMap<RadiatorRating, ReturnType<typeof radiatorCore>>()

/** A rating's core, worked out once for each rating. */
function coreOf(rating: RadiatorRating): ReturnType<typeof radiatorCore> {
  const known = cores.get(rating) ?? radiatorCore(rating)
  cores.set(rating, known)
  return known
}

const rated = new WeakMap<RadiatorRating, readonly [RadiatorRating, RadiatorRating]>()

/** The same core rated a step lower and higher. */
function ratedBeside(rating: RadiatorRating): readonly [RadiatorRating, RadiatorRating] {
  const known = rated.get(rating) ?? [
    { ...rating, ratedW: rating.ratedW * (1 - STEP) },
    { ...rating, ratedW: rating.ratedW * (1 + STEP) },
  ]
  rated.set(rating, known)
  return known
}

/**
 * What a core carries away for each K of coolant in over air in, W/K: k = ε C_min, UA as the rated one times the 0.6th power of the air's speed; a cover takes its
 * share of the core and of its transfer. Rejects a share of the face over 1 and a car that stands.
 */
export function coolingPerK(rating: RadiatorRating, { speedMps, airDensityKgM3, flowM3PerS, faceShare, covered = 0 }: CoolingPoint): number {
  requirePositive(speedMps, 'speedMps')
  requireWithin(faceShare, 0.01, 1, 'faceShare')
  requireWithin(airDensityKgM3, 0.5, 2, 'airDensityKgM3')
  requirePositive(flowM3PerS, 'flowM3PerS')
  requireWithin(covered, 0, 0.999, 'covered')
  const faceMps = faceShare * speedMps
  const open = 1 - covered
  const ua = coreOf(rating).uaWPerK * (faceMps / rating.ratedFaceMps) ** UA_EXPONENT * open
  const { least, ratio } = capacities(airSide(airDensityKgM3, rating.areaM2 * open, faceMps), carrierSide(flowM3PerS, rating.carrierJPerM3K))
  return crossflowEffectiveness(ua / least, ratio) * least
}

/** The temperature the coolant settles at, and what its doubt comes from. */
export interface Settled {
  readonly kWPerK: number
  readonly settledK: number
  readonly sdK: number
  readonly byHeatK: number
  readonly byFaceK: number
  readonly byRatingK: number
}

/**
 * Where coolant settles: T_air + Q/k, with its spread by derivatives (steps of 1 % both ways): heat 15 %, air through the core 20 %, rating 10 % (d). Rejects heat of zero or less.
 * @example settledCoolant({ areaM2: 0.24, ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }, { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15, flowM3PerS: 120 / 60_000, faceShare: 0.28 }, 126_500).settledK // 379.22
 */
export function settledCoolant(rating: RadiatorRating, point: CoolingPoint, heatW: number): Settled {
  requirePositive(heatW, 'heatW')
  requireWithin(point.airK, 200, 340, 'airK')
  const at = (own: RadiatorRating, where: CoolingPoint, heat: number) => where.airK + heat / coolingPerK(own, where)
  const slope = (low: number, high: number, share: number) => (Math.abs(high - low) / (2 * STEP)) * share
  const [lower, higher] = ratedBeside(rating)
  const faced = (factor: number) => at(rating, { ...point, faceShare: point.faceShare * factor }, heatW)
  const byHeatK = slope(at(rating, point, heatW * (1 - STEP)), at(rating, point, heatW * (1 + STEP)), SHARES.heat)
  const byFaceK = slope(faced(1 - STEP), faced(1 + STEP), SHARES.face)
  const byRatingK = slope(at(lower, point, heatW), at(higher, point, heatW), SHARES.rated)
  const kWPerK = coolingPerK(rating, point)
  return { kWPerK, settledK: point.airK + heatW / kWPerK, sdK: Math.hypot(byHeatK, byFaceK, byRatingK), byHeatK, byFaceK, byRatingK }
}

/**
 * How long the coolant takes from one temperature to a limit on its way to where it settles: −τ ln((T − T_lim)/(T − T_0)), τ = (litres ρ c + metal)/k; null: it
 * never gets there. Temperatures in K, mass of metal that warms with it in kg. Rejects zero or less of either.
 * @example warmUp({ kWPerK: 1662.92, settledK: 379.22, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 378.15 }).tauS // 51.72
 */
export function warmUp(input: {
  kWPerK: number
  settledK: number
  coolantL: number
  metalKg: number
  fromK: number
  limitK: number
  carrierJPerM3K?: number
}): {
  tauS: number
  seconds: number | null
} {
  const { kWPerK, settledK, coolantL, metalKg, fromK, limitK, carrierJPerM3K = CARRIER_J_PER_M3_K.coolant } = input
  for (const [field, value] of Object.entries({ carrierJPerM3K, kWPerK, settledK, coolantL, metalKg, fromK, limitK })) requirePositive(value, field)
  const tauS = ((coolantL / 1000) * carrierJPerM3K + METAL_J_PER_KG_K * metalKg) / kWPerK
  if (limitK <= fromK) return { tauS, seconds: 0 }
  return { tauS, seconds: settledK <= limitK ? null : -tauS * Math.log((settledK - limitK) / (settledK - fromK)) }
}

/**
 * How much of the core to cover so that the coolant settles at a wanted warmth on a cold day: the share, 0 where it is warm enough as it is. Rejects a wanted
 * warmth at or under the air's, and one that even 99 % of cover does not give.
 */
export function coverFor(rating: RadiatorRating, point: CoolingPoint, heatW: number, wantedK: number): number {
  if (wantedK <= point.airK) throw new CalculationError('inconsistent', 'wantedK', 'The air is warmer than what is wanted. Check both.')
  const over = (covered: number) => point.airK + heatW / coolingPerK(rating, { ...point, covered }) - wantedK
  if (over(0) >= 0) return 0
  const most = 0.99
  if (over(most) < 0) throw new CalculationError('out-of-range', 'wantedK', 'No cover brings it there: the thermostat has to hold it.')
  return rootBetween(over, 0, most)
}
