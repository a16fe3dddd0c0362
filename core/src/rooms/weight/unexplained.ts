import { itemAt } from '../../item-at.ts'
import { openMass } from '../../mass/open-mass.ts'
import { areLinked, type Car, NOTHING_HELD, type UsableWeighing } from '../../stages/car.ts'
import { isWorkedBack } from '../../stages/line-mass.ts'
import { baselineReference } from '../../stages/reference-mass.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { knownParts, linesBetween, type OpenLine } from './mass-at-stage.ts'

/** What the scales say beyond what the ledger said, from the weighing before to this one. */
export interface Unexplained {
  readonly weighingId: string
  readonly sinceWeighingId: string
  readonly ledgerSaidKg: number
  readonly massKg: number
  readonly sdKg: number
  readonly isFlagged: boolean
  /** The stage that lists nothing between the two; null where every stage between lists what was done. */
  readonly unlistedPosition: number | null
  readonly lines: readonly OpenLine[]
}

/**
 * Ledger said = the weighing before + lines that came in − lines that went out; unexplained = this weighing − that.
 * Spread from both scales and those lines. Flagged when over 2 sd and over max(1 kg, 0.1 % of the car).
 * The first weighing has none, and neither has one that is not usable.
 */
export function unexplainedAt(car: Car, weighingId: string): Unexplained | undefined {
  const at = car.weighings.findIndex((entry) => entry.weighing.id === weighingId)
  return at < 1 ? undefined : unexplainedSinceLast(car, at)
}

const unexplainedSinceLast = rememberByIndex((car, at) => unexplainedBetween(car, itemAt(car.weighings, at - 1), itemAt(car.weighings, at)))

export function unexplainedBetween(car: Car, before: UsableWeighing, after: UsableWeighing): Unexplained {
  const lines = linesBetween(car, before.holds, (_, i) => after.holds[i] === 1)
  const open = openMass(knownParts(lines), car.biases)
  const ledgerSaidKg = before.reference.massKg + open.meanKg
  const massKg = after.reference.massKg - ledgerSaidKg
  const sdKg = Math.sqrt(before.reference.sdKg ** 2 + after.reference.sdKg ** 2 + open.varianceKg2)
  const unlistedPosition = unlistedBetween(car, before.context, after.context)
  const isFlagged = isOutside(massKg, sdKg, after.reference.massKg)
  return { weighingId: after.weighing.id, sinceWeighingId: before.weighing.id, ledgerSaidKg, massKg, sdKg, isFlagged, unlistedPosition, lines }
}

const isOutside = (massKg: number, sdKg: number, carKg: number) => Math.abs(massKg) > 2 * sdKg && Math.abs(massKg) > Math.max(1, 0.001 * carKg)

/** Of the stages after the earlier of two, up to the later, one that lists nothing: the later stage itself where it is one; null where each lists. */
function unlistedBetween(car: Car, one: number, other: number): number | null {
  if (areLinked(car, one, other)) return null
  const [low, high] = [Math.min(one, other), Math.max(one, other)]
  return car.lists.findLastIndex((lists, position) => !lists && position > low && position <= high)
}

/** A difference between two scales that a stage without lines lies between, or between the papers and the first scales. */
export interface Unlisted {
  readonly position: number
  /** What the later scales say beyond the ledger; below zero where mass went. */
  readonly massKg: number
  readonly sdKg: number
  readonly weighingId: string
  /** What a line for it is worked back from: two weighings, or the build for its baseline mass. */
  readonly derivedFrom: readonly string[]
}

/**
 * What happened at stages that list nothing, by the scales before and after: what one line would have to say. Only differences of more than twice their
 * spread, and of more than 1 kg and 0.1 % of the car. By time, earliest first.
 */
export function unlistedDifferences(car: Car): Unlisted[] {
  return car.weighings.flatMap((entry, at): Unlisted[] => {
    const { id } = entry.weighing
    if (at === 0) return unlistedSincePapers(car, entry)
    const found = unexplainedSinceLast(car, at)
    if (!found.isFlagged || found.unlistedPosition === null) return []
    const { massKg, sdKg, sinceWeighingId, unlistedPosition } = found
    return [{ position: unlistedPosition, massKg, sdKg, weighingId: id, derivedFrom: [sinceWeighingId, id] }]
  })
}

function unlistedSincePapers(car: Car, first: UsableWeighing): Unlisted[] {
  const papers = baselineReference(car.records.build)
  const position = unlistedBetween(car, 0, first.context)
  if (!papers || position === null) return []
  const open = openMass(knownParts(linesBetween(car, NOTHING_HELD, (_, i) => first.holds[i] === 1)), car.biases)
  const massKg = first.reference.massKg - papers.massKg - open.meanKg
  const sdKg = Math.sqrt(papers.sdKg ** 2 + first.reference.sdKg ** 2 + open.varianceKg2)
  if (!isOutside(massKg, sdKg, first.reference.massKg)) return []
  return [{ position, massKg, sdKg, weighingId: first.weighing.id, derivedFrom: [car.records.build.id, first.weighing.id] }]
}

/** What the ledger had said before a weighing, without lines that were worked back from it; null where nothing was said. */
export function saidBefore(car: Car, weighingId: string): number | null {
  const found = unexplainedAt(car, weighingId)
  if (!found || found.unlistedPosition !== null) return null
  const said = found.lines.filter(({ line }) => !isWorkedBack(line.mass))
  if (said.length === 0 && found.lines.length > 0) return null
  return found.ledgerSaidKg - openMass(knownParts(found.lines), car.biases).meanKg + openMass(knownParts(said), car.biases).meanKg
}
