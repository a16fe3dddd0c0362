import { centreOfMass } from '../../mass/centre-of-mass.ts'
import { cornerFigures, missingPads } from '../../mass/corners.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { placesOf } from '../../stages/corner-springs.ts'
import { axleShareOf, floorOf, readPads } from '../../stages/reference-mass.ts'

/** Centre of mass in plan of a weighing under its own conditions. */
export const weighingCentre = (build: BuildRecord, weighing: Weighing) => centreOfMass({ pads: readPads(weighing, build), ...placesOf(build) })

/** Front share of a weighing under its own conditions: of its four readings, or its two axles; undefined for a total, which has no axles. */
export function frontShareOf(weighing: Weighing, build: BuildRecord): { readonly value: number; readonly sd: number } | undefined {
  const floor = floorOf(weighing, build)
  if (floor) return floor.frontShare
  const pads = readPads(weighing, build)
  return missingPads(pads).length > 0 ? axleShareOf(weighing) : cornerFigures(pads).frontShare
}
