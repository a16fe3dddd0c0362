import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import { finishedMassDistribution, type OpenPart, openMass } from '../../mass/open-mass.ts'
import { type CombinedMeasurements, combineMeasurements, measurementsAgree } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import { areLinked, type Car, type Holds, type Line, NOTHING_HELD, type UsableWeighing } from '../../stages/car.ts'
import { isUnknown, openPart } from '../../stages/line-mass.ts'
import { baselineReference } from '../../stages/reference-mass.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { type Distribution, normalDistribution } from '../../stats/distribution.ts'
import { waitsUpTo } from './ledger-score.ts'

/** Where the mass of a stage starts from: see `anchorOf`. */
export type Anchor =
  | { readonly kind: 'equal'; readonly weighings: readonly UsableWeighing[]; readonly combined: CombinedMeasurements }
  | { readonly kind: 'ownStage' | 'subset' | 'other'; readonly weighing: UsableWeighing }
  | { readonly kind: 'baseline'; readonly massKg: number; readonly sdKg: number; readonly proof: Proof }

export interface OpenLine {
  readonly line: Line
  readonly part: OpenPart
}

export interface MassAtStage {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
  readonly distribution: Distribution
  readonly anchor: Anchor
  /** Lines of the stage that the anchor did not hold, and (part sign turned) lines it held that the stage does not. */
  readonly openLines: readonly OpenLine[]
  readonly anchorMassKg: number
  readonly anchorSdKg: number
  /** The stage whose mass stands here because this one lists nothing; null where this one says for itself. */
  readonly carriedFromPosition: number | null
}

/** Two car weighings confirm each other only with spreads of 0.5 % of the car or less (common practice, no source). */
const largestUsefulCarSd = (massKg: number) => 0.005 * massKg

const asMeasurement = ({ reference, weighing }: UsableWeighing) => ({
  value: reference.massKg,
  sd: reference.sdKg,
  instrument: weighing.scales ?? undefined,
})

/**
 * The weighings that stand for a stage: their content is the stage's, and every stage between lists what was done. Those entered at the stage first, then
 * the latest; one entered elsewhere only if it agrees with the first, for a difference is something that happened between the two.
 */
function weighingsOf(car: Car, position: number, holdsNothingElse: (entry: UsableWeighing) => boolean): UsableWeighing[] {
  const standing = car.weighings.filter(
    (entry) => holdsNothingElse(entry) && entry.holdsCount === car.lineCountUpTo[position] && areLinked(car, entry.context, position),
  )
  const [head, ...rest] = standing.toReversed().sort((a, b) => Number(b.context === position) - Number(a.context === position))
  if (!head) return []
  const limit = largestUsefulCarSd(head.reference.massKg)
  return [head, ...rest.filter((entry) => entry.context === head.context || measurementsAgree(asMeasurement(head), asMeasurement(entry), limit))]
}

/** The latest weighing of the highest run of linked stages. */
function latestOfHighestRun(car: Car, weighings: readonly UsableWeighing[]): UsableWeighing | undefined {
  const run = (entry: UsableWeighing) => car.runs[entry.context] ?? 0
  const highest = Math.max(...weighings.map(run))
  return weighings.findLast((entry) => run(entry) === highest)
}

function anchorOf(car: Car, position: number): Anchor | undefined {
  const isSubset = (entry: UsableWeighing) => entry.inCarUpTo[position] === entry.holdsCount
  const [head, ...rest] = weighingsOf(car, position, isSubset)
  if (head)
    return { kind: 'equal', weighings: [head, ...rest], combined: combineMeasurements([asMeasurement(head), ...rest.map(asMeasurement)], largestUsefulCarSd) }
  const ofStage = car.weighings.findLast(({ context }) => context === position)
  if (ofStage) return { kind: 'ownStage', weighing: ofStage }
  const reachable = car.weighings.filter(({ context }) => context <= position || areLinked(car, context, position))
  const subset = latestOfHighestRun(car, reachable.filter(isSubset))
  if (subset) return { kind: 'subset', weighing: subset }
  const earliest = reachable[0]
  if (earliest) return { kind: 'other', weighing: earliest }
  const baseline = baselineReference(car.records.build)
  return baseline && { kind: 'baseline', ...baseline }
}

/** The stage where an anchor was entered; papers are those of the car as bought. */
function contextOf(anchor: Anchor): number {
  if (anchor.kind === 'baseline') return 0
  return anchor.kind === 'equal' ? itemAt(anchor.weighings, 0).context : anchor.weighing.context
}

/**
 * The mass of the car at a stage, ready to drive at the reference condition.
 * Anchor: (a) weighings that stand for the stage; else (b) the latest entered at it, what it held beyond the stage taken off again; else the latest that held
 * some of the stage and nothing else; else (c) the earliest of the others; else (d) the baseline mass. A weighing of a later stage serves only where every stage
 * between lists what was done. Value: the anchor plus what it lacks, minus what it held too much. A stage after its anchor that lists nothing is carried: the
 * stage before it, at most calculated. Undefined when there is no anchor at all. Rejects a stage where more comes off than the car weighs.
 */
export const massAtStage = rememberByIndex((car: Car, position: number): MassAtStage | undefined => {
  const anchor = anchorOf(car, position)
  if (!anchor) return undefined
  if (!car.lists[position] && position > contextOf(anchor)) return carriedMass(car, position)
  if (anchor.kind === 'equal') {
    const { value, sd, proof } = anchor.combined
    const distribution = normalDistribution(value, sd)
    return { value, sd, proof, distribution, anchor, openLines: [], anchorMassKg: value, anchorSdKg: sd, carriedFromPosition: null }
  }
  const held = anchor.kind === 'baseline' ? NOTHING_HELD : anchor.weighing.holds
  const known = anchor.kind === 'baseline' ? anchor : anchor.weighing.reference
  const openLines = [...linesBetween(car, held, (line) => line.stagePosition <= position), ...comingBack(car, position)]
  const parts = knownParts(openLines)
  const open = openMass(parts, car.biases)
  const distribution = finishedMassDistribution({ knownKg: known.massKg, knownVarianceKg2: known.sdKg ** 2, parts, biases: car.biases })
  if (distribution.mean <= 0) {
    throw new CalculationError('inconsistent', 'changes', 'More comes off than the car weighs. Check the lines of this stage and the baseline mass.')
  }
  const baselineProof = anchor.kind === 'baseline' ? anchor.proof : undefined
  return {
    value: distribution.mean,
    sd: distribution.sd,
    proof: openLines.some(({ line }) => isUnknown(line.mass))
      ? 'guess'
      : sumProof(openLines.length > 0, baselineProof, known.sdKg ** 2, open.guessVarianceKg2, distribution.sd ** 2),
    distribution,
    anchor,
    openLines,
    anchorMassKg: known.massKg,
    anchorSdKg: known.sdKg,
    carriedFromPosition: null,
  }
})

/** The mass of the stage before, for one that lists nothing: nobody says that nothing was done. */
function carriedMass(car: Car, position: number): MassAtStage | undefined {
  const before = massAtStage(car, position - 1)
  return before && { ...before, proof: leastProof(before.proof, 'calculated'), carriedFromPosition: before.carriedFromPosition ?? position - 1 }
}

/** Spread of an even chance over a length, as a share of it. */
const EVEN_CHANCE_SD = 1 / Math.sqrt(12)

/**
 * What waits at the stages before, and at the finished car what waits at all: anything between nothing and all of it comes back, each as likely (common
 * practice, no source), until it is known.
 */
function comingBack(car: Car, position: number): OpenLine[] {
  const until = position === car.stages.length - 1 ? position : position - 1
  if (until < 0) return []
  return waitsUpTo(car, until).map(({ line, massKg }) => ({
    line,
    part: { id: `back:${line.change.id}`, sign: 1, side: 'on', massKg: massKg / 2, isGuess: false, sdKg: massKg * EVEN_CHANCE_SD, isComingBack: true },
  }))
}

function sumProof(hasOpen: boolean, baseline: Proof | undefined, anchorVariance: number, guessVariance: number, total: number): Proof {
  if (!hasOpen && baseline) return baseline
  const guessed = guessVariance + (baseline === 'guess' ? anchorVariance : 0)
  return guessed > total / 2 ? 'guess' : 'calculated'
}

/** The parts of lines that have a mass; an unknown one counts for nothing until somebody weighs or guesses it. */
export const knownParts = (lines: readonly OpenLine[]): OpenPart[] => lines.filter(({ line }) => !isUnknown(line.mass)).map(({ part }) => part)

/** What leads from one content of the car to another: lines that come in, and lines that go out again with their sign turned. */
export function linesBetween(car: Car, held: Holds, isWanted: (line: Line, at: number) => boolean): OpenLine[] {
  const found: OpenLine[] = []
  for (let at = 0; at < car.lines.length; at++) {
    const line = itemAt(car.lines, at)
    const is = isWanted(line, at)
    if ((held[at] === 1) !== is) found.push({ line, part: openPart(line.change, line.mass, is ? 1 : -1) })
  }
  return found
}

/** What the car has lost since it was bought, kg, with its spread: only the lines' doubt where both start from one anchor. */
export function massOffAt(car: Car, position: number): { value: number; sd: number; proof: Proof } | undefined {
  const [first, now] = [massOf(car, 0), massOf(car, position)]
  if (!first || !now) return undefined
  const value = first.value - now.value
  const proof = leastProof(first.proof, now.proof)
  if (!isOneAnchor(first.anchor, now.anchor)) return { value, sd: Math.hypot(first.sd, now.sd), proof }
  const upTo = now.carriedFromPosition ?? position
  const lines = [...linesBetween(car, NOTHING_HELD, (line) => line.stagePosition <= upTo), ...now.openLines.filter(({ part }) => part.isComingBack)]
  return { value, sd: Math.sqrt(openMass(knownParts(lines), car.biases).varianceKg2), proof }
}

function isOneAnchor(one: Anchor, other: Anchor): boolean {
  if (one.kind === 'baseline' || other.kind === 'baseline') return one.kind === other.kind
  const of = (anchor: Exclude<Anchor, { kind: 'baseline' }>) => (anchor.kind === 'equal' ? anchor.weighings : [anchor.weighing])
  const [a, b] = [of(one), of(other)]
  return a.length === b.length && a.every((entry, i) => entry === b[i])
}

/** The mass at a stage, or the error that says which record makes it impossible. */
export const massOrProblem = rememberByIndex((car, position): MassAtStage | CalculationError | undefined => attempt(() => massAtStage(car, position)))

/** The mass at a stage; undefined where there is none, or where it is impossible. */
export function massOf(car: Car, position: number): MassAtStage | undefined {
  const found = massOrProblem(car, position)
  return found instanceof CalculationError ? undefined : found
}
