import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { CentreOfMass } from '../../mass/centre-of-mass.ts'
import { type CornerFigures, cornerFigures, knownWithOneDeadPad, missingPads, missingPadsSentence } from '../../mass/corners.ts'
import type { GuessBias } from '../../mass/estimate-bias.ts'
import { forecastMass, type MassForecast } from '../../mass/forecast.ts'
import { BLOCK_ADVICE, FLOOR_SENTENCE, type FloorFigures } from '../../mass/placements.ts'
import { isMeasured, type Proof } from '../../proof/quantity.ts'
import type { Change, Weighing } from '../../records/weight-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { changeSign, isUnknown } from '../../stages/line-mass.ts'
import { floorOf, isOnFloor, type ReferenceMass, readPads, referenceMass } from '../../stages/reference-mass.ts'
import { type BallastCar, ballastCar, type NoBallastCar } from './ballast-car.ts'
import { type WeighingCentre, weighingCentres } from './centres.ts'
import { type ConditionDifference, conditionDifferences, type Repeatability, repeatability } from './compare-weighings.ts'
import { type LedgerScore, ledgerScore, type SavingState, stageSavings } from './ledger-score.ts'
import { knownParts, massOf } from './mass-at-stage.ts'
import { type ScoreDetail, scoreDetail } from './score-detail.ts'
import { type Unexplained, unexplainedAt } from './unexplained.ts'
import { weighingCentre } from './weighing-shares.ts'

export interface LedgerLineFigures {
  readonly changeId: string
  /** Signed, all pieces together, as typed. */
  readonly massKg: number
  readonly sdKg: number
  readonly proof: Proof
  readonly saving: SavingState | null
  readonly disagrees: boolean
  /** Nobody weighed or guessed it: it stays in sight and counts for nothing. */
  readonly isUnknown: boolean
  /** The latest guess of all its pieces, beside what they weighed. */
  readonly guessedKg: number | null
}

export interface WeighingFigures {
  /** Total and front share of a weighing with the other axle on the floor. */
  readonly floor: FloorFigures | null
  /** What it was not taken alike in, against the weighing before it. */
  readonly differences: readonly ConditionDifference[]
  readonly weighingId: string
  readonly corners: CornerFigures | null
  readonly centre: CentreOfMass | null
  readonly reference: ReferenceMass | null
  readonly unexplained: Omit<Unexplained, 'lines'> | null
  readonly inCarCount: number
  /** What a dead pad leaves known, and the sentence that refuses the rest. */
  readonly known: readonly { label: string; massKg: number; sdKg: number }[]
  readonly refusal: string | null
  readonly warnings: readonly string[]
}

export interface WeightRoom {
  readonly scores: readonly LedgerScore[]
  readonly lines: readonly LedgerLineFigures[]
  readonly weighings: readonly WeighingFigures[]
  /** One a stage; null where the stage has no mass. */
  readonly forecasts: readonly (MassForecast | null)[]
  readonly bias: GuessBias
  /** Pairs of guess and weighing that this build gave of all that taught the bias. */
  readonly ownPairCount: number
  readonly details: readonly ScoreDetail[]
  readonly centres: readonly WeighingCentre[]
  readonly repeatability: readonly Repeatability[]
  /** What ballast starts from at each stage. */
  readonly ballastCars: readonly (BallastCar | NoBallastCar)[]
}

/**
 * Everything the Weight screen shows of a build.
 * @example makeWeightRoom(CAR).scores[1].netKg // 22.4
 */
export function makeWeightRoom(car: Car): WeightRoom {
  const { records } = car
  const savingOf = new Map<string, SavingState>()
  for (const [position] of car.stages.entries()) {
    for (const saving of stageSavings(car, position)) {
      for (const line of saving.off ? [saving.off, ...saving.transfers] : saving.transfers) savingOf.set(line.change.id, saving.state)
    }
  }
  return {
    scores: car.stages.map((_, position) => ledgerScore(car, position)),
    lines: car.lines.map(({ change, mass }) => ({
      changeId: change.id,
      massKg: changeSign(change) * mass.massKg,
      sdKg: mass.sdKg,
      proof: mass.proof,
      saving: savingOf.get(change.id) ?? null,
      disagrees: mass.disagreesWith !== undefined,
      isUnknown: isUnknown(mass),
      guessedKg: isMeasured(mass.proof) ? (guessOf(change) ?? null) : null,
    })),
    weighings: records.weighings.map((weighing) => weighingFigures(car, weighing)),
    forecasts: car.stages.map((_, position) => stageForecast(car, position)),
    bias: car.bias,
    ownPairCount: car.ownPairs.length,
    details: car.stages.map((_, position) => scoreDetail(car, position)),
    centres: weighingCentres(car),
    repeatability: repeatability(car),
    ballastCars: car.stages.map((_, position) => ballastCar(car, position)),
  }
}

const guessOf = (change: Change): number | undefined => {
  const guess = change.values.findLast((value) => value.proof === 'guess')
  return guess && guess.massKg * change.count
}

export function stageForecast(car: Car, position: number, limitKg?: number): MassForecast | null {
  const mass = massOf(car, position)
  if (!mass) return null
  return forecastMass({
    knownKg: mass.anchorMassKg,
    knownSdKg: mass.anchorSdKg,
    parts: knownParts(mass.openLines),
    bias: car.bias,
    limitKg,
  })
}

export function weighingFigures(car: Car, weighing: Weighing): WeighingFigures {
  const { build } = car.records
  const pads = readPads(weighing, build)
  const missing = missingPads(pads)
  const found = unexplainedAt(car, weighing.id)
  const at = car.weighings.findIndex((entry) => entry.weighing.id === weighing.id)
  const before = car.weighings[at - 1]
  const floor = floorOf(weighing, build) ?? null
  const onOnePlane = missing.length === 0 && !isOnFloor(weighing)
  const corners = onOnePlane ? attempt(() => cornerFigures(pads)) : null
  const good = corners instanceof CalculationError ? null : corners
  const refusal = missing.length > 0 ? missingPadsSentence(missing) : corners instanceof CalculationError ? corners.message : floor ? FLOOR_SENTENCE : null
  return {
    weighingId: weighing.id,
    corners: good,
    floor,
    centre: good && weighingCentre(build, weighing),
    reference: referenceMass(weighing, build) ?? null,
    unexplained: found ? (({ lines: _, ...rest }) => rest)(found) : null,
    differences: before ? conditionDifferences(before.weighing, weighing) : [],
    inCarCount: car.weighings[at]?.inCar.size ?? 0,
    known: missing.length === 1 ? knownWithOneDeadPad(pads) : [],
    refusal,
    warnings: good ? [...cornerWarnings(good), ...(weighing.secondPlacement ? [BLOCK_ADVICE] : [])] : [],
  }
}

/** Readings that can be, but are likelier a slip of the hand: shares outside 0.2 to 0.8, a car outside 300 to 3,000 kg. */
export function cornerWarnings(corners: CornerFigures): string[] {
  const warnings: string[] = []
  const { totalKg, frontShare, leftShare } = corners
  if (totalKg.value < 300 || totalKg.value > 3000) warnings.push('The total lies outside 300 to 3 000 kg. It is kept; check the unit of the pads.')
  if (frontShare.value < 0.2 || frontShare.value > 0.8) warnings.push('The front share lies outside 20 to 80 %. Check which pad is which.')
  if (leftShare.value < 0.2 || leftShare.value > 0.8) warnings.push('The left share lies outside 20 to 80 %. Check which pad is which.')
  return warnings
}
