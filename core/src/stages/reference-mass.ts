import { missingPads, PAD_NAMES, type Pads } from '../mass/corners.ts'
import { BLOCK_ERROR_M, blockSpreadKg, type FloorFigures, floorFigures, joinPlacements, RIDE_RATE_N_PER_M } from '../mass/placements.ts'
import { meanRideRateNPerM } from '../mass/suspension.ts'
import type { BuildRecord } from '../records/plan-kinds.ts'
import type { Weighing } from '../records/weight-kinds.ts'
import { quadrature } from '../stats/moments.ts'
import { ratesOf } from './corner-springs.ts'

/** Spreads where none was typed (common practice, no source). */
const PAD_SD_KG = 0.5
const FUEL_SD_L = 2
const EXTRA_SD_KG = 0.1
/** A weighbridge, an axle on one, or a figure read aloud. */
const WHOLE_SD_KG = 5
const BASELINE_RELATIVE_SD = { guess: 0.15, catalogue: 0.05, measured: 0.005 } as const

const withSpreads = (pads: Weighing['pads']): Pads => {
  const filled = {} as Pads
  for (const name of PAD_NAMES) {
    const reading = pads[name]
    filled[name] = reading && { massKg: reading.massKg, sdKg: reading.sdKg ?? PAD_SD_KG }
  }
  return filled
}

/** The first placement alone, with the spread of each pad filled in. */
export const firstPlacement = (weighing: Weighing): Pads => withSpreads(weighing.pads)

/** Whether the four readings were not taken on one plane, so that left share and cross stay unknown. */
export const isOnFloor = (weighing: Weighing): boolean => weighing.secondPlacement?.method === 'otherAxleOnFloor'

/** The four loads of a weighing, of one placement or joined from two; null where no good pad ever read the corner. */
export function readPads(weighing: Weighing, build: BuildRecord): Pads {
  const first = firstPlacement(weighing)
  const second = weighing.secondPlacement
  if (!second) return first
  const rates = ratesOf(build)
  const spread = isOnFloor(weighing) ? 0 : blockSpreadKg(rates ? meanRideRateNPerM(rates) : RIDE_RATE_N_PER_M, second.blockErrorM ?? BLOCK_ERROR_M)
  return joinPlacements(first, withSpreads(second.pads), spread)
}

/** Total and front share of a weighing with the other axle on the floor; undefined for any other, or while a reading is missing. */
export function floorOf(weighing: Weighing, build: BuildRecord): FloorFigures | undefined {
  const pads = readPads(weighing, build)
  const padHeightM = weighing.secondPlacement?.padHeightM
  if (!isOnFloor(weighing) || !padHeightM || missingPads(pads).length > 0) return undefined
  return floorFigures({ pads, padHeightM, wheelbaseM: build.wheelbaseM })
}

export interface ReferenceMass {
  readonly massKg: number
  readonly sdKg: number
  readonly terms: readonly { label: string; massKg: number; sdKg: number }[]
}

/** How much more nitrous oxide the reference has in its bottle than a weighing had, kg; nothing where the weighing does not say. */
export const bottleDifferenceKg = ({ conditions }: Weighing, { reference }: BuildRecord): number =>
  typeof conditions?.nitrousKg === 'number' ? (reference.nitrousKg ?? 0) - conditions.nitrousKg : 0

/** Front share of a weighing of two axle loads; undefined for any other. */
export function axleShareOf({ axles }: Weighing): { readonly value: number; readonly sd: number } | undefined {
  if (!axles) return undefined
  const { front, rear } = axles
  const totalKg = front.massKg + rear.massKg
  // d(F/(F+R)): R/T² by the front load, −F/T² by the rear one.
  const sd = quadrature(rear.massKg * (front.sdKg ?? WHOLE_SD_KG), front.massKg * (rear.sdKg ?? WHOLE_SD_KG)) / totalKg ** 2
  return { value: front.massKg / totalKg, sd }
}

/** What was read of the whole car: a total, two axles, or four pads of one or two placements; undefined while a pad is missing. */
function wholeReading(weighing: Weighing, build: BuildRecord): { label: string; massKg: number; sdKg: number } | undefined {
  const { total, axles } = weighing
  if (total) return { label: 'total', massKg: total.massKg, sdKg: total.sdKg ?? WHOLE_SD_KG }
  if (axles) {
    const both = [axles.front, axles.rear]
    return { label: 'two axles', massKg: axles.front.massKg + axles.rear.massKg, sdKg: quadrature(...both.map(({ sdKg }) => sdKg ?? WHOLE_SD_KG)) }
  }
  const pads = readPads(weighing, build)
  if (missingPads(pads).length > 0) return undefined
  const readings = PAD_NAMES.flatMap((name) => pads[name] ?? [])
  return {
    label: weighing.secondPlacement ? 'four wheels, in two placements' : 'four pads',
    massKg: readings.reduce((sum, pad) => sum + pad.massKg, 0),
    sdKg: quadrature(...readings.map((pad) => pad.sdKg)),
  }
}

/**
 * What the papers say the car weighs with the reference driver and fuel, which are put in where they are not; undefined where nobody said.
 * @example baselineReference(EXAMPLE.build) // undefined
 */
export function baselineReference(build: BuildRecord): { massKg: number; sdKg: number; proof: 'guess' | 'catalogue' | 'measured' } | undefined {
  const { baselineMass, reference } = build
  if (!baselineMass) return undefined
  const { massKg, sdKg, proof, hasDriver, hasFuel } = baselineMass
  const added = (hasDriver ? 0 : reference.driverKg) + (hasFuel ? 0 : reference.fuelL * reference.fuelKgPerL)
  return { massKg: massKg + added, sdKg: sdKg ?? BASELINE_RELATIVE_SD[proof] * massKg, proof }
}

/**
 * What a weighing says the car weighs with the reference driver and fuel:
 * what was read − extras − driver in + reference driver + (reference fuel − fuel) × density + reference nitrous − nitrous; spreads in quadrature.
 * Undefined when a pad is missing: such a weighing has no total.
 */
export function referenceMass(weighing: Weighing, build: BuildRecord): ReferenceMass | undefined {
  const whole = wholeReading(weighing, build)
  if (!whole) return undefined
  const { driverKg, fuelL, fuelKgPerL } = build.reference
  const floor = floorOf(weighing, build)
  const bottle = bottleDifferenceKg(weighing, build)
  const terms = [
    whole,
    ...(floor ? [{ label: 'tilt, with the other axle on the floor', massKg: 0, sdKg: 2 * floor.tiltKg }] : []),
    ...weighing.extras.map((extra) => ({ label: extra.name, massKg: -extra.massKg, sdKg: extra.sdKg ?? EXTRA_SD_KG })),
    ...(weighing.driverInKg > 0 ? [{ label: 'driver who was in', massKg: -weighing.driverInKg, sdKg: 0 }] : []),
    { label: 'reference driver', massKg: driverKg, sdKg: 0 },
    { label: `fuel, ${weighing.fuelL} L to ${fuelL} L`, massKg: (fuelL - weighing.fuelL) * fuelKgPerL, sdKg: (weighing.fuelSdL ?? FUEL_SD_L) * fuelKgPerL },
    ...(bottle === 0 ? [] : [{ label: 'nitrous in the bottle, to the reference', massKg: bottle, sdKg: EXTRA_SD_KG }]),
  ]
  return {
    massKg: terms.reduce((sum, term) => sum + term.massKg, 0),
    sdKg: quadrature(...terms.map((term) => term.sdKg)),
    terms,
  }
}
