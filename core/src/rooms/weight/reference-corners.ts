import { addAt, type PlacedLoad, sharesOf } from '../../mass/add-at.ts'
import { centreOfMass } from '../../mass/centre-of-mass.ts'
import { missingPads, PAD_NAMES } from '../../mass/corners.ts'
import { type PerCorner, perCorner } from '../../mass/suspension.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { placesOf, ratesOf } from '../../stages/corner-springs.ts'
import { isOnFloor, readPads } from '../../stages/reference-mass.ts'

export interface ReferenceCorners {
  readonly massKg: number
  /** Centre of mass in plan with the reference driver and fuel. */
  readonly xM: number
  readonly yM: number
  readonly frontShare: number
  readonly leftShare: number
  /** Corner loads with the reference driver and fuel; null where wheel rates are needed and not there. */
  readonly cornersKg: PerCorner<number> | null
  readonly crossShareRfLr: number | null
  /** What was put in or taken out to come to the reference, kg. */
  readonly loads: readonly (PlacedLoad & { readonly what: string })[]
}

/** Why corners cannot be brought to the reference: what has no place yet. */
export interface NoReferenceCorners {
  readonly missing: readonly string[]
}

const LEAST_LOAD_KG = 0.05

/**
 * The corners of a weighing as they would read with the reference driver and fuel: each difference is put at its place, and splits over the
 * corners by the wheel rates. Undefined without four readings on one plane. Says which place is missing, where one is.
 */
export function referenceCorners(weighing: Weighing, build: BuildRecord): ReferenceCorners | NoReferenceCorners | undefined {
  const pads = readPads(weighing, build)
  if (isOnFloor(weighing) || missingPads(pads).length > 0) return undefined
  const corners = perCorner((name) => pads[name]?.massKg ?? 0)
  const { reference, driverPlace, fuelPlace } = build
  const wanted = [
    { what: 'driver', place: driverPlace, massKg: reference.driverKg - weighing.driverInKg },
    { what: 'fuel', place: fuelPlace, massKg: (reference.fuelL - weighing.fuelL) * reference.fuelKgPerL },
  ].filter(({ massKg }) => Math.abs(massKg) > LEAST_LOAD_KG)
  const missing = wanted.filter(({ place }) => place === null).map(({ what }) => what)
  if (missing.length > 0) return { missing }
  const { behindFrontAxleM, leftOfMiddleM } = centreOfMass({ pads, ...placesOf(build) })
  const readKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const loads = [
    ...wanted.map(({ what, place, massKg }) => ({ what, massKg, xM: place?.xM ?? 0, yM: place?.yM ?? 0 })),
    // Nobody notes where a tool bag lay: it is taken off in the middle of the mass, which moves no share.
    ...weighing.extras.map((extra) => ({ what: extra.name, massKg: -extra.massKg, xM: behindFrontAxleM.value, yM: leftOfMiddleM.value })),
  ]
  const massKg = readKg + loads.reduce((sum, load) => sum + load.massKg, 0)
  const xM = (readKg * behindFrontAxleM.value + loads.reduce((sum, load) => sum + load.massKg * load.xM, 0)) / massKg
  const yM = (readKg * leftOfMiddleM.value + loads.reduce((sum, load) => sum + load.massKg * load.yM, 0)) / massKg
  const rates = ratesOf(build)
  const moved = loads.length === 0 ? corners : rates ? addAt({ corners, loads, ...rates, ...placesOf(build) }).cornersKg : null
  const frontShare = 1 - xM / build.wheelbaseM
  const trackM = build.trackFrontM * frontShare + build.trackRearM * (1 - frontShare)
  return {
    massKg,
    xM,
    yM,
    frontShare,
    leftShare: moved ? sharesOf(moved).leftShare : 0.5 + yM / trackM,
    cornersKg: moved,
    crossShareRfLr: moved ? sharesOf(moved).crossShareRfLr : null,
    loads,
  }
}

export const isReferenceCorners = (found: ReferenceCorners | NoReferenceCorners | undefined): found is ReferenceCorners =>
  found !== undefined && 'massKg' in found
