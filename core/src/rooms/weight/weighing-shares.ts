import { centreOfMass } from '../../mass/centre-of-mass.ts'
import { cornerFigures } from '../../mass/corners.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { placesOf } from '../../stages/corner-springs.ts'
import { floorOf, readPads } from '../../stages/reference-mass.ts'

/** Centre of mass in plan of a weighing under its own conditions. */
export const weighingCentre = (build: BuildRecord, weighing: Weighing) => centreOfMass({ pads: readPads(weighing, build), ...placesOf(build) })

/** Front share of a weighing that has four readings, under its own conditions. */
export const frontShareOf = (weighing: Weighing, build: BuildRecord) => (floorOf(weighing, build) ?? cornerFigures(readPads(weighing, build))).frontShare
