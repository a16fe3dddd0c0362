import { missingPads, PAD_NAMES, type Pads } from '../mass/corners.ts'
import { quadrature } from '../stats/moments.ts'
import type { BuildRecord, Weighing } from './records.ts'

/** Spreads where none was typed (common practice, no source). */
const PAD_SD_KG = 0.5
const FUEL_SD_L = 2
const EXTRA_SD_KG = 0.1

/** The pads of a weighing with the spread of each filled in. */
export function readPads(weighing: Weighing): Pads {
  const pads = {} as Pads
  for (const name of PAD_NAMES) {
    const reading = weighing.pads[name]
    pads[name] = reading && { massKg: reading.massKg, sdKg: reading.sdKg ?? PAD_SD_KG }
  }
  return pads
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
  const pads = readPads(weighing)
  if (missingPads(pads).length > 0) return undefined
  const readings = PAD_NAMES.map((name) => pads[name] as { massKg: number; sdKg: number })
  const { driverKg, fuelL, fuelKgPerL } = build.reference
  const terms = [
    { label: 'four pads', massKg: readings.reduce((sum, pad) => sum + pad.massKg, 0), sdKg: quadrature(...readings.map((pad) => pad.sdKg)) },
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
