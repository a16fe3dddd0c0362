import { attempt, orElse } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { CentreOfMass } from '../../mass/centre-of-mass.ts'
import { type CornerFigures, cornerFigures, knownWithOneDeadPad, missingPads, missingPadsSentence } from '../../mass/corners.ts'
import type { GuessBiases, GuessSide } from '../../mass/estimate-bias.ts'
import { forecastMass, type MassForecast } from '../../mass/forecast.ts'
import { BLOCK_ADVICE, FLOOR_SENTENCE, type FloorFigures } from '../../mass/placements.ts'
import { isMeasured, type Proof } from '../../proof/quantity.ts'
import type { Change, Weighing } from '../../records/weight-kinds.ts'
import { buildOfWeighing, type Car, stageIndex } from '../../stages/car.ts'
import { changeSign, isUnknown } from '../../stages/line-mass.ts'
import { axleShareOf, floorOf, isOnFloor, type ReferenceMass, readPads, referenceMass } from '../../stages/reference-mass.ts'
import { guessFactor } from '../../stages/working-line.ts'
import { type BallastCar, ballastCar, type NoBallastCar } from './ballast-car.ts'
import { type WeighingCentre, weighingCentres } from './centres.ts'
import { type ConditionDifference, conditionDifferences, type Repeatability, repeatability } from './compare-weighings.ts'
import { type DriverEffect, driverEffects } from './drivers.ts'
import { type LedgerScore, ledgerScore, type SavingState, stageSavings } from './ledger-score.ts'
import { knownParts, massOf } from './mass-at-stage.ts'
import { type ScoreDetail, scoreDetail } from './score-detail.ts'
import { type Unexplained, type Unlisted, unexplainedAt, unlistedDifferences } from './unexplained.ts'
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
  /** Front share of two axle loads; null for pads, which say more, and for a total, which has no axles. */
  readonly axleShare: { readonly value: number; readonly sd: number } | null
}

/** How guesses of each side run, and what a guess is multiplied by for it. */
export type GuessFigures = Readonly<Record<GuessSide, GuessBiases[GuessSide] & { readonly factor: number; readonly ownPairCount: number }>>

export interface WeightRoom {
  readonly scores: readonly LedgerScore[]
  readonly lines: readonly LedgerLineFigures[]
  readonly weighings: readonly WeighingFigures[]
  /** One a stage; null where the stage has no mass. */
  readonly forecasts: readonly (MassForecast | null)[]
  readonly guesses: GuessFigures
  /** What stages 1 to n have found beyond what a goal on mass taken off wants, at each stage; null where no such goal is due there or later. */
  readonly goalPassed: readonly ({ readonly wantedKg: number; readonly foundKg: number } | null)[]
  readonly details: readonly ScoreDetail[]
  readonly centres: readonly WeighingCentre[]
  readonly repeatability: readonly Repeatability[]
  /** What the scales say of stages that list nothing. */
  readonly unlisted: readonly Unlisted[]
  /** What each driver makes of each stage. */
  readonly drivers: readonly (readonly DriverEffect[])[]
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
      for (const line of [...(saving.off ? [saving.off] : []), ...saving.transfers]) savingOf.set(line.change.id, saving.state)
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
    weighings: records.weighings.map((weighing) =>
      orElse(
        () => weighingFigures(car, weighing),
        (reason) => noFigures(weighing, reason),
      ),
    ),
    forecasts: car.stages.map((_, position) =>
      orElse(
        () => stageForecast(car, position),
        () => null,
      ),
    ),
    guesses: guessFigures(car),
    goalPassed: goalsPassed(car),
    details: car.stages.map((_, position) => scoreDetail(car, position)),
    centres: orElse(
      () => weighingCentres(car),
      () => [],
    ),
    repeatability: orElse(
      () => repeatability(car),
      () => [],
    ),
    unlisted: orElse(
      () => unlistedDifferences(car),
      () => [],
    ),
    drivers: car.stages.map((_, position) =>
      orElse(
        () => driverEffects(car, position),
        () => [],
      ),
    ),
    ballastCars: car.stages.map((_, position) =>
      orElse(
        () => ballastCar(car, position),
        (why) => ({ why }),
      ),
    ),
  }
}

function guessFigures(car: Car): GuessFigures {
  const figures = (side: GuessSide) => ({
    ...car.biases[side],
    factor: guessFactor(car, side),
    ownPairCount: car.ownPairs.filter((pair) => pair.side === side).length,
  })
  return { off: figures('off'), on: figures('on') }
}

/** At each stage the goal on mass taken off that is due there, else the next one, beside what the stages up to it have found. */
function goalsPassed(car: Car): WeightRoom['goalPassed'] {
  const last = car.stages.length - 1
  const goals = car.records.targets
    .filter(({ metric, sense }) => metric === 'massOff' && sense !== 'atMost')
    .map(({ value, dueStageId }) => ({ value, due: dueStageId === null ? last : stageIndex(car, dueStageId) }))
    .sort((a, b) => a.due - b.due)
  let foundKg = 0
  return car.stages.map((_, position) => {
    foundKg += ledgerScore(car, position).foundKg
    const goal = goals.find(({ due }) => due >= position)
    return goal && position > 0 ? { wantedKg: goal.value, foundKg: Math.round(foundKg * 1e6) / 1e6 } : null
  })
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
    biases: car.biases,
    limitKg,
  })
}

export function weighingFigures(car: Car, weighing: Weighing): WeighingFigures {
  const build = buildOfWeighing(car, weighing)
  const pads = readPads(weighing, build)
  const missing = missingPads(pads)
  const found = unexplainedAt(car, weighing.id)
  const at = car.weighings.findIndex((entry) => entry.weighing.id === weighing.id)
  const before = car.weighings[at - 1]
  const floor = floorOf(weighing, build) ?? null
  const onOnePlane = missing.length === 0 && !isOnFloor(weighing)
  const corners = onOnePlane ? attempt(() => cornerFigures(pads)) : null
  const good = corners instanceof CalculationError ? null : corners
  const isWhole = weighing.total !== null || weighing.axles !== null
  const refusal = isWhole
    ? null
    : missing.length > 0
      ? missingPadsSentence(missing)
      : corners instanceof CalculationError
        ? corners.message
        : floor
          ? FLOOR_SENTENCE
          : null
  return {
    weighingId: weighing.id,
    corners: good,
    floor,
    centre: good && weighingCentre(build, weighing),
    reference: referenceMass(weighing, build) ?? null,
    unexplained: found ? (({ lines: _, ...rest }) => rest)(found) : null,
    differences: before ? conditionDifferences(before.weighing, weighing) : [],
    inCarCount: car.weighings[at]?.holdsCount ?? 0,
    known: missing.length === 1 ? knownWithOneDeadPad(pads) : [],
    axleShare: axleShareOf(weighing) ?? null,
    refusal,
    warnings: good ? [...cornerWarnings(good), ...(weighing.secondPlacement ? [BLOCK_ADVICE] : [])] : [],
  }
}

/** A weighing of which nothing can be worked out, with the reason. */
const noFigures = (weighing: Weighing, refusal: string): WeighingFigures => ({
  weighingId: weighing.id,
  corners: null,
  floor: null,
  centre: null,
  reference: null,
  unexplained: null,
  differences: [],
  inCarCount: 0,
  known: [],
  axleShare: null,
  refusal,
  warnings: [],
})

/** Readings that can be, but are likelier a slip of the hand: shares outside 0.2 to 0.8, a car outside 300 to 3,000 kg. */
export function cornerWarnings(corners: CornerFigures): string[] {
  const warnings: string[] = []
  const { totalKg, frontShare, leftShare } = corners
  if (totalKg.value < 300 || totalKg.value > 3000) warnings.push('The total lies outside 300 to 3 000 kg. It is kept; check the unit of the pads.')
  if (frontShare.value < 0.2 || frontShare.value > 0.8) warnings.push('The front share lies outside 20 to 80 %. Check which pad is which.')
  if (leftShare.value < 0.2 || leftShare.value > 0.8) warnings.push('The left share lies outside 20 to 80 %. Check which pad is which.')
  return warnings
}
