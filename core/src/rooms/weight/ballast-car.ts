import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { addAt } from '../../mass/add-at.ts'
import { missingPads } from '../../mass/corners.ts'
import { openPartMeanKg } from '../../mass/open-mass.ts'
import { RIDE_RATE_N_PER_M } from '../../mass/placements.ts'
import { type PerCorner, perCorner } from '../../mass/suspension.ts'
import { buildOfWeighing, type Car } from '../../stages/car.ts'
import { placesOf, ratesOf } from '../../stages/corner-springs.ts'
import { isUnknown } from '../../stages/line-mass.ts'
import { readPads } from '../../stages/reference-mass.ts'
import { linesBetween, massOf } from './mass-at-stage.ts'
import { isReferenceCorners, referenceCorners } from './reference-corners.ts'

/** The car of a stage as ballast finds it: its corners with the reference driver and fuel, without the plates in it. */
export interface BallastCar {
  readonly weighingId: string
  readonly cornersKg: PerCorner<number>
  readonly massKg: number
  /** Lines to come that have no place: they count in the mass, in the middle of the car. */
  readonly unplaced: readonly string[]
}

/** Why there is no such car, in words. */
export interface NoBallastCar {
  readonly why: string
}

const GEOMETRY = ['wheelbaseM', 'trackFrontM', 'trackRearM'] as const

/**
 * Corners of the weighing that a stage starts from, at the reference, with each line to come put at its place and the lines of ballast sites
 * taken out. Without wheel rates all corners count as equally stiff, which leaves cross unknown. Source: statics, closed form.
 */
export function ballastCar(car: Car, position: number): BallastCar | NoBallastCar {
  const { sites } = car.records
  const build = car.builds[position] ?? car.records.build
  const anchor = massOf(car, position)?.anchor
  const start = anchor?.kind === 'equal' ? anchor.weighings[0] : anchor?.kind === 'baseline' ? undefined : anchor?.weighing
  if (!start) return { why: 'Put the car on the scales first: ballast starts from four corners.' }
  const weighed = buildOfWeighing(car, start.weighing)
  if (GEOMETRY.some((key) => weighed[key] !== build[key]))
    return { why: 'Wheelbase or track changed after the weighing that this stage starts from. Put the car on the scales as it stands now.' }
  const from = referenceCorners(start.weighing, build)
  if (!isReferenceCorners(from))
    return {
      why: from
        ? `Say where the ${from.missing.join(' and the ')} sits, in the plan under The car: the corners cannot be brought to the reference without.`
        : 'The weighing that this stage starts from has no four corners on one plane.',
    }
  const siteNames = new Set(sites.map(({ name }) => name.toLowerCase()))
  const isBallast = (zone: string | null) => zone !== null && siteNames.has(zone.toLowerCase())
  const lines = linesBetween(car, start.holds, (line) => line.stagePosition <= position && !isBallast(line.change.zone)).filter(
    ({ line }) => !isUnknown(line.mass),
  )
  const rates = ratesOf(build) ?? { wheelRateNPerM: perCorner(() => RIDE_RATE_N_PER_M) }
  const middle = { xM: from.xM, yM: 0 }
  const loads = [
    ...(from.cornersKg ? [] : from.loads),
    ...lines.map(({ line, part }) => ({ massKg: openPartMeanKg(part, car.biases), ...(line.place ?? middle) })),
  ].map(({ massKg, xM, yM }) => ({ massKg, xM, yM }))
  const corners = from.cornersKg ?? asRead(car, start.weighing.id)
  if (!corners) return { why: 'The weighing that this stage starts from has no four corners on one plane.' }
  const found = attempt(() => addAt({ corners, loads, ...rates, ...placesOf(build) }))
  if (found instanceof CalculationError) return { why: found.message }
  const { LF, RF, LR, RR } = found.cornersKg
  return {
    weighingId: start.weighing.id,
    cornersKg: found.cornersKg,
    massKg: LF + RF + LR + RR,
    unplaced: lines.filter(({ line }) => !line.place).map(({ line }) => line.change.name),
  }
}

function asRead(car: Car, weighingId: string): PerCorner<number> | undefined {
  const weighing = car.records.weighings.find(({ id }) => id === weighingId)
  if (!weighing) return undefined
  const pads = readPads(weighing, buildOfWeighing(car, weighing))
  return missingPads(pads).length > 0 ? undefined : perCorner((name) => pads[name]?.massKg ?? 0)
}
