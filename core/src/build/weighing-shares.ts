import { centreOfMass } from '../mass/centre-of-mass.ts'
import { cornerFigures } from '../mass/corners.ts'
import { placesOf } from './rates.ts'
import type { BuildRecord, Weighing } from './records.ts'
import { floorOf, readPads } from './reference-mass.ts'

/** Centre of mass in plan of a weighing under its own conditions. */
export const weighingCentre = (build: BuildRecord, weighing: Weighing) => centreOfMass({ pads: readPads(weighing, build), ...placesOf(build) })

/** Front share of a weighing that has four readings, under its own conditions. */
export const frontShareOf = (weighing: Weighing, build: BuildRecord) => (floorOf(weighing, build) ?? cornerFigures(readPads(weighing, build))).frontShare
