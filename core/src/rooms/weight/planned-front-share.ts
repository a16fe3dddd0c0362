import { openPartMeanKg } from '../../mass/open-mass.ts'
import type { Proof } from '../../proof/quantity.ts'
import { buildOfWeighing, type Car } from '../../stages/car.ts'
import { isUnknown } from '../../stages/line-mass.ts'
import type { MassAtStage } from './mass-at-stage.ts'
import { frontShareOf } from './weighing-shares.ts'

/** How well a typed place is known (common practice, no source). */
const PLACE_SD_M = 0.05
/** A line without a place may be anywhere between the axles: spread of an even chance over the wheelbase. */
const ANYWHERE = 1 / Math.sqrt(12)

/**
 * Front share of a stage that was not on the scales: the share of the weighing it starts from, with each line to come at its place.
 * F = Σ front loads/Σ masses; a line without a place is put in the middle and its spread is that of anywhere between the axles.
 * Undefined where the stage starts from no weighing that knows its axles. Source: moments, closed form.
 */
export function plannedFrontShare(car: Car, mass: MassAtStage, position: number): { value: number; sd: number; proof: Proof } | undefined {
  const build = car.builds[position] ?? car.records.build
  if (mass.anchor.kind === 'baseline' || mass.anchor.kind === 'equal') return undefined
  const { weighing } = mass.anchor.weighing
  const weighed = buildOfWeighing(car, weighing)
  const read = frontShareOf(weighing, weighed)
  if (!read) return undefined
  // The centre stays where it was behind the front axle; another wheelbase shares it otherwise.
  const longer = weighed.wheelbaseM / build.wheelbaseM
  const start = { value: 1 - (1 - read.value) * longer, sd: read.sd * longer }
  const total = mass.value
  let frontKg = mass.anchorMassKg * start.value
  let variance = (mass.anchorMassKg * start.sd) ** 2
  for (const { line, part } of mass.openLines) {
    if (isUnknown(line.mass)) continue
    const kg = openPartMeanKg(part, car.biases)
    const share = line.place ? 1 - line.place.xM / build.wheelbaseM : 0.5
    frontKg += kg * share
    const placeSd = line.place ? PLACE_SD_M / build.wheelbaseM : ANYWHERE
    const massSd = part.isGuess ? kg * (part.logSd ?? car.biases[part.side].s) : part.sdKg
    variance += (kg * placeSd) ** 2 + (massSd * (share - start.value)) ** 2
  }
  return { value: frontKg / total, sd: Math.sqrt(variance) / total, proof: mass.proof }
}
