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

/**
 * What a weighing says the car weighs with the reference driver and fuel:
 * pads − extras − driver in + reference driver + (reference fuel − fuel) × density; spreads in quadrature.
 * Undefined when a pad is missing: such a weighing has no total.
 */
export function referenceMass(weighing: Weighing, build: BuildRecord): ReferenceMass | undefined {
  const pads = readPads(weighing, build)
  if (missingPads(pads).length > 0) return undefined
  const readings = PAD_NAMES.map((name) => pads[name] as { massKg: number; sdKg: number })
  const { driverKg, fuelL, fuelKgPerL } = build.reference
  const floor = floorOf(weighing, build)
  const terms = [
    {
      label: weighing.secondPlacement ? 'four wheels, in two placements' : 'four pads',
      massKg: readings.reduce((sum, pad) => sum + pad.massKg, 0),
      sdKg: quadrature(...readings.map((pad) => pad.sdKg)),
    },
    ...(floor ? [{ label: 'tilt, with the other axle on the floor', massKg: 0, sdKg: 2 * floor.tiltKg }] : []),
    ...weighing.extras.map((extra) => ({ label: extra.name, massKg: -extra.massKg, sdKg: extra.sdKg ?? EXTRA_SD_KG })),
    ...(weighing.driverInKg > 0 ? [{ label: 'driver who was in', massKg: -weighing.driverInKg, sdKg: 0 }] : []),
    { label: 'reference driver', massKg: driverKg, sdKg: 0 },
    { label: `fuel, ${weighing.fuelL} L to ${fuelL} L`, massKg: (fuelL - weighing.fuelL) * fuelKgPerL, sdKg: (weighing.fuelSdL ?? FUEL_SD_L) * fuelKgPerL },
  ]
  return {
    massKg: terms.reduce((sum, term) => sum + term.massKg, 0),
    sdKg: quadrature(...terms.map((term) => term.sdKg)),
    terms,
  }
}
