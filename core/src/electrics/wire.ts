import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

/** Cross sections and what they carry in free air, A (catalogue values, from memory). */
export const WIRE_SIZES = [
  { areaMm2: 0.35, amps: 7 },
  { areaMm2: 0.5, amps: 11 },
  { areaMm2: 0.75, amps: 14 },
  { areaMm2: 1, amps: 16.5 },
  { areaMm2: 1.5, amps: 21 },
  { areaMm2: 2.5, amps: 29 },
  { areaMm2: 4, amps: 39 },
  { areaMm2: 6, amps: 50 },
  { areaMm2: 10, amps: 70 },
  { areaMm2: 16, amps: 110 },
  { areaMm2: 25, amps: 170 },
] as const
/** In a bundle a wire carries this share of it (common practice, no source). */
const BUNDLE_SHARE = 0.7
/** Annealed copper at 20 °C, Ω m, and how it rises with temperature, 1/K (IEC 60028, from memory). */
const COPPER_OHM_M = 1.7241e-8
const COPPER_PER_K = 0.00393
const ZERO_C_K = 273.15

/**
 * What a wire carries in a bundle, A; between two sizes of the table the smaller one's, under the least nothing. Source: the table, from memory.
 * @example wireCarries(2.5) // 20.3
 */
export const wireCarries = (areaMm2: number): number => BUNDLE_SHARE * (WIRE_SIZES.findLast((size) => size.areaMm2 <= areaMm2 + 1e-9)?.amps ?? 0)

export interface WireRun {
  readonly currentA: number
  /** One way, m. */
  readonly lengthM: number
  readonly returnsBy: 'wire' | 'chassis'
  readonly jointOhm?: number
  readonly temperatureK?: number
}

/**
 * Volts lost along a run: I (ρ20 (1 + 0.00393 (T − 20 °C)) ways l/A + joints); back by a wire two ways, by the chassis one. Area in mm². Rejects areas and lengths
 * of zero or less. Source: formulas I.3.
 * @example voltageDrop({ currentA: 14.8, lengthM: 3.6, returnsBy: 'wire', temperatureK: 333.15 }, 2.5) // 0.8504
 */
export function voltageDrop({ currentA, lengthM, returnsBy, jointOhm = 0, temperatureK = 333.15 }: WireRun, areaMm2: number): number {
  requireWithin(currentA, 0, 2000, 'currentA')
  requirePositive(lengthM, 'lengthM')
  requirePositive(areaMm2, 'areaMm2')
  requireWithin(jointOhm, 0, 10, 'jointOhm')
  requireWithin(temperatureK, 200, 500, 'temperatureK')
  const ohmM = COPPER_OHM_M * (1 + COPPER_PER_K * (temperatureK - ZERO_C_K - 20))
  return currentA * ((ohmM * (returnsBy === 'wire' ? 2 : 1) * lengthM) / (areaMm2 * 1e-6) + jointOhm)
}

/**
 * The thinnest wire of the table that loses no more than `dropShare` of the system's volts and carries what its output trips at, in a bundle; with the drop of
 * every size. Rejects a run that no size of the table does. Sources: formulas I.3; the table from memory.
 * @example wireFor({ currentA: 14.8, lengthM: 3.6, returnsBy: 'wire', temperatureK: 333.15 }, { tripA: 19 }).areaMm2 // 6
 */
export function wireFor(
  run: WireRun,
  { tripA, systemV = 13.8, dropShare = 0.03 }: { tripA: number; systemV?: number; dropShare?: number },
): { areaMm2: number; dropV: number; allowedV: number; drops: readonly { areaMm2: number; dropV: number; carriesTrip: boolean }[] } {
  requirePositive(tripA, 'tripA')
  requireWithin(systemV, 4, 60, 'systemV')
  requireWithin(dropShare, 0.001, 0.2, 'dropShare')
  const allowedV = dropShare * systemV
  const drops = WIRE_SIZES.map(({ areaMm2, amps }) => ({ areaMm2, dropV: voltageDrop(run, areaMm2), carriesTrip: amps * BUNDLE_SHARE >= tripA }))
  const found = drops.find(({ dropV, carriesTrip }) => dropV <= allowedV && carriesTrip)
  if (!found)
    throw new CalculationError(
      'out-of-range',
      'lengthM',
      'No wire of the table does: shorten the run, allow more drop, lower the trip, or lay two wires side by side.',
    )
  return { areaMm2: found.areaMm2, dropV: found.dropV, allowedV, drops }
}

const COPPER_KG_M3 = 8960
/** Sleeves and connectors on top of the copper, and a connector's own, kg (common practice, no source). */
const SLEEVE_FACTOR = 1.3
const CONNECTOR_KG = 0.012
/** How well a loom's mass is known so (common practice, no source). */
export const LOOM_SHARE = 0.15

/**
 * What a loom weighs: copper of each run, two ways or one by the chassis, times 1.30, and 12 g a circuit; ± 15 % (d). Rejects areas and lengths of zero or less.
 * @example loomMass([{ areaMm2: 4, lengthM: 3.6, returnsBy: 'wire' }]).massKg // 0.3475
 */
export function loomMass(runs: readonly { areaMm2: number; lengthM: number; returnsBy: 'wire' | 'chassis' }[]): { massKg: number; sdKg: number } {
  const copper = runs.reduce(
    (sum, { areaMm2, lengthM, returnsBy }) =>
      sum + COPPER_KG_M3 * requirePositive(areaMm2, 'areaMm2') * 1e-6 * requirePositive(lengthM, 'lengthM') * (returnsBy === 'wire' ? 2 : 1),
    0,
  )
  const massKg = copper * SLEEVE_FACTOR + runs.length * CONNECTOR_KG
  return { massKg, sdKg: LOOM_SHARE * massKg }
}
