import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { finishedMassDistribution, type OpenPart, openMass } from '../../mass/open-mass.ts'
import { type CombinedMeasurements, combineMeasurements } from '../../proof/combine-measurements.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { Car, Line, UsableWeighing } from '../../stages/car.ts'
import { isUnknown, openPart } from '../../stages/line-mass.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { type Distribution, normalDistribution } from '../../stats/distribution.ts'

/** Where the mass of a stage starts from: see `anchorOf`. */
export type Anchor =
  | { readonly kind: 'equal'; readonly weighings: readonly UsableWeighing[]; readonly combined: CombinedMeasurements }
  | { readonly kind: 'subset' | 'other'; readonly weighing: UsableWeighing }
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
}

/** Two car weighings confirm each other only with spreads of 0.5 % of the car or less (common practice, no source). */
const largestUsefulCarSd = (massKg: number) => 0.005 * massKg
const BASELINE_RELATIVE_SD = { guess: 0.15, catalogue: 0.05, measured: 0.005 } as const

function anchorOf(car: Car, position: number): Anchor | undefined {
  const isSubset = (entry: UsableWeighing) => entry.inCarUpTo[position] === entry.inCar.size
  const equal = car.weighings.filter((entry) => isSubset(entry) && entry.inCar.size === car.lineCountUpTo[position])
  const [head, ...rest] = equal.toReversed()
  if (head) {
    const asMeasurement = ({ reference, weighing }: UsableWeighing) => ({
      value: reference.massKg,
      sd: reference.sdKg,
      instrument: weighing.scales ?? undefined,
    })
    return { kind: 'equal', weighings: [head, ...rest], combined: combineMeasurements([asMeasurement(head), ...rest.map(asMeasurement)], largestUsefulCarSd) }
  }
  const subset = car.weighings.findLast(isSubset)
  if (subset) return { kind: 'subset', weighing: subset }
  const earliest = car.weighings[0]
  if (earliest) return { kind: 'other', weighing: earliest }
  const baseline = car.records.build.baselineMass
  if (!baseline) return undefined
  return { kind: 'baseline', massKg: baseline.massKg, sdKg: baseline.sdKg ?? BASELINE_RELATIVE_SD[baseline.proof] * baseline.massKg, proof: baseline.proof }
}

/**
 * The mass of the car at a stage, ready to drive at the reference condition.
 * Anchor: (a) weighings that held exactly the stage's changes; else (b) the latest that held some of them and nothing else; else (c) the earliest of
 * the others; else (d) the baseline mass. Value: the anchor plus what it lacks, minus what it held too much. Undefined when there is no anchor at all.
 * Rejects a stage where more comes off than the car weighs.
 */
export const massAtStage = rememberByIndex((car: Car, position: number): MassAtStage | undefined => {
  const anchor = anchorOf(car, position)
  if (!anchor) return undefined
  if (anchor.kind === 'equal') {
    const { value, sd, proof } = anchor.combined
    return { value, sd, proof, distribution: normalDistribution(value, sd), anchor, openLines: [], anchorMassKg: value, anchorSdKg: sd }
  }
  const held = anchor.kind === 'baseline' ? new Set<string>() : anchor.weighing.inCar
  const known = anchor.kind === 'baseline' ? anchor : anchor.weighing.reference
  const openLines = linesBetween(car, held, (line) => line.stagePosition <= position)
  const parts = knownParts(openLines)
  const open = openMass(parts, car.bias)
  const distribution = finishedMassDistribution({ knownKg: known.massKg, knownVarianceKg2: known.sdKg ** 2, parts, bias: car.bias })
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
  }
})

function sumProof(hasOpen: boolean, baseline: Proof | undefined, anchorVariance: number, guessVariance: number, total: number): Proof {
  if (!hasOpen && baseline) return baseline
  const guessed = guessVariance + (baseline === 'guess' ? anchorVariance : 0)
  return guessed > total / 2 ? 'guess' : 'calculated'
}

/** The parts of lines that have a mass; an unknown one counts for nothing until somebody weighs or guesses it. */
export const knownParts = (lines: readonly OpenLine[]): OpenPart[] => lines.filter(({ line }) => !isUnknown(line.mass)).map(({ part }) => part)

/** What leads from one content of the car to another: lines that come in, and lines that go out again with their sign turned. */
export function linesBetween(car: Car, held: ReadonlySet<string>, isWanted: (line: Line) => boolean): OpenLine[] {
  return car.lines.flatMap((line): OpenLine[] => {
    const [was, is] = [held.has(line.change.id), isWanted(line)]
    if (was === is) return []
    return [{ line, part: openPart(line.change, line.mass, is ? 1 : -1) }]
  })
}

/** The mass at a stage, or the error that says which record makes it impossible. */
export const massOrProblem = rememberByIndex((car, position): MassAtStage | CalculationError | undefined => attempt(() => massAtStage(car, position)))

/** The mass at a stage; undefined where there is none, or where it is impossible. */
export function massOf(car: Car, position: number): MassAtStage | undefined {
  const found = massOrProblem(car, position)
  return found instanceof CalculationError ? undefined : found
}
