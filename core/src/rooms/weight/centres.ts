import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import { type CentreHeight, centreOfMassHeight } from '../../mass/centre-of-mass-height.ts'
import { missingPads } from '../../mass/corners.ts'
import { openPartMeanKg } from '../../mass/open-mass.ts'
import type { Lift } from '../../records/balance-kinds.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { buildOfWeighing, type Car, type UsableWeighing } from '../../stages/car.ts'
import { readPads } from '../../stages/reference-mass.ts'
import { knownParts, linesBetween } from './mass-at-stage.ts'
import { isReferenceCorners, type ReferenceCorners, referenceCorners } from './reference-corners.ts'

/** What the ledger's places say of the centre at a weighing, going out from the weighing before. */
export interface PredictedCentre {
  readonly sinceWeighingId: string
  readonly xM: number
  readonly yM: number
  readonly massKg: number
  /** How much mass went in and out between the two without a place, kg. */
  readonly unplacedKg: number
}

export interface WeighingCentre {
  readonly weighingId: string
  readonly measured: ReferenceCorners | null
  readonly missingPlaces: readonly string[]
  readonly predicted: PredictedCentre | null
  readonly height: CentreHeight | null
  readonly heightRefusal: string | null
  readonly liftCount: number
}

/** Centres of mass of every usable weighing at the reference condition: by the scales, by the ledger's places, and in height by lifting. */
export function weighingCentres(car: Car): WeighingCentre[] {
  return car.weighings.map((entry, at) => {
    const { weighing } = entry
    const found = referenceCorners(weighing, buildOfWeighing(car, weighing))
    const before = car.weighings[at - 1]
    const { height, liftCount } = heightByLifting(car, weighing)
    return {
      weighingId: weighing.id,
      measured: isReferenceCorners(found) ? found : null,
      missingPlaces: found && !isReferenceCorners(found) ? found.missing : [],
      predicted: before ? predictCentre(car, before, entry) : null,
      height: height instanceof CalculationError ? null : height,
      heightRefusal: height instanceof CalculationError ? height.message : null,
      liftCount,
    }
  })
}

/** The height that the lifts of a weighing tell, or why they tell none; null where it was not lifted. */
function heightByLifting(car: Car, weighing: Weighing): { height: CentreHeight | CalculationError | null; liftCount: number } {
  const lifts = car.records.lifts.filter((lift) => lift.weighingId === weighing.id)
  return { height: lifts.length === 0 ? null : attempt(() => liftedHeight(car, weighing, lifts)), liftCount: lifts.length }
}

/** The latest height by lifting up to a stage, with the weighing that it is of; undefined without one. */
export function liftedHeightAt(car: Car, position: number): { readonly weighingId: string; readonly height: CentreHeight } | undefined {
  for (const { weighing, context } of [...car.weighings].reverse()) {
    const { height } = context <= position ? heightByLifting(car, weighing) : { height: null }
    if (height && !(height instanceof CalculationError)) return { weighingId: weighing.id, height }
  }
  return undefined
}

/** Moments of the weighing before, and of each placed line that came in or went out since. Source: mass-weighted mean, closed form. */
export function predictCentre(car: Car, before: UsableWeighing, after: UsableWeighing): PredictedCentre | null {
  const from = referenceCorners(before.weighing, buildOfWeighing(car, before.weighing))
  if (!isReferenceCorners(from)) return null
  const lines = linesBetween(car, before.holds, (_, i) => after.holds[i] === 1)
  const known = new Set(knownParts(lines).map(({ id }) => id))
  let [massKg, x, y, unplacedKg] = [from.massKg, from.massKg * from.xM, from.massKg * from.yM, 0]
  for (const { line, part } of lines) {
    if (!known.has(part.id)) continue
    const kg = openPartMeanKg(part, car.biases)
    if (!line.place) {
      unplacedKg += Math.abs(kg)
      continue
    }
    massKg += kg
    x += kg * line.place.xM
    y += kg * line.place.yM
  }
  return { sinceWeighingId: before.weighing.id, xM: x / massKg, yM: y / massKg, massKg, unplacedKg }
}

function liftedHeight(car: Car, weighing: Weighing, lifts: readonly Lift[]): CentreHeight {
  const build = buildOfWeighing(car, weighing)
  const pads = readPads(weighing, build)
  const [missing] = missingPads(pads)
  if (missing) throw new CalculationError('missing', `pads.${missing}`, 'The level weighing lacks a pad; a height needs all four. Weigh it level again.')
  const kg = (name: 'LF' | 'RF' | 'LR' | 'RR') => pads[name]?.massKg ?? 0
  const first = itemAt(lifts, 0)
  return centreOfMassHeight({
    totalKg: kg('LF') + kg('RF') + kg('LR') + kg('RR'),
    rearAxleKg: kg('LR') + kg('RR'),
    lifts: lifts.map(({ lifted, liftM, rearAxleKg }) => ({ lifted, liftM, rearAxleKg })),
    wheelbaseM: build.wheelbaseM,
    radiusFrontM: first.radiusFrontM,
    radiusRearM: first.radiusRearM,
    axleSdKg: first.axleSdKg ?? undefined,
    liftSdM: first.liftSdM ?? undefined,
  })
}
