import { CalculationError } from '../errors.ts'
import type { CentreOfMass } from '../mass/centre-of-mass.ts'
import { type CornerFigures, cornerFigures, knownWithOneDeadPad, missingPads, missingPadsSentence } from '../mass/corners.ts'
import type { GuessBias } from '../mass/estimate-bias.ts'
import { forecastMass, type MassForecast } from '../mass/forecast.ts'
import type { Proof } from '../proof/quantity.ts'
import { makeCar } from './car.ts'
import { type LedgerScore, ledgerScore, type SavingState, stageSavings } from './ledger-score.ts'
import { changeSign } from './line-mass.ts'
import { StageValues, weighingCentre } from './metrics.ts'
import type { BuildRecords, Weighing } from './records.ts'
import { type ReferenceMass, readPads, referenceMass } from './reference-mass.ts'
import { type Unexplained, unexplainedAt } from './unexplained.ts'

export interface LedgerLineFigures {
  readonly changeId: string
  /** Signed, all pieces together, as typed. */
  readonly massKg: number
  readonly sdKg: number
  readonly proof: Proof
  readonly saving: SavingState | null
  readonly disagrees: boolean
}

export interface WeighingFigures {
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
}

/** Everything the Weight screen shows of a build. */
export function makeWeightRoom(records: BuildRecords): WeightRoom {
  const values = new StageValues(makeCar(records))
  const { car } = values
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
    })),
    weighings: records.weighings.map((weighing) => weighingFigures(values, weighing)),
    forecasts: car.stages.map((_, position) => stageForecast(values, position)),
    bias: car.bias,
  }
}

export function stageForecast(values: StageValues, position: number, limitKg?: number): MassForecast | null {
  const mass = values.mass(position)
  if (!mass) return null
  return forecastMass({
    knownKg: mass.anchorMassKg,
    knownSdKg: mass.anchorSdKg,
    parts: mass.openLines.map((open) => open.part),
    bias: values.car.bias,
    limitKg,
  })
}

export function weighingFigures(values: StageValues, weighing: Weighing): WeighingFigures {
  const { build } = values.car.records
  const pads = readPads(weighing)
  const missing = missingPads(pads)
  const found = unexplainedAt(values.car, weighing.id)
  const usable = values.car.weighings.find((entry) => entry.weighing.id === weighing.id)
  const corners = missing.length === 0 ? attemptCorners(() => cornerFigures(pads)) : null
  const known = missing.length === 1 ? knownWithOneDeadPad(pads) : []
  const unexplained = found ? (({ lines: _, ...rest }) => rest)(found) : null
  return {
    weighingId: weighing.id,
    corners: corners instanceof CalculationError ? null : corners,
    centre: corners && !(corners instanceof CalculationError) ? weighingCentre(build, weighing) : null,
    reference: referenceMass(weighing, build) ?? null,
    unexplained,
    inCarCount: usable?.inCar.size ?? 0,
    known,
    refusal: missing.length > 0 ? missingPadsSentence(missing) : corners instanceof CalculationError ? corners.message : null,
    warnings: corners && !(corners instanceof CalculationError) ? cornerWarnings(corners) : [],
  }
}

function attemptCorners(work: () => CornerFigures): CornerFigures | CalculationError {
  try {
    return work()
  } catch (error) {
    if (error instanceof CalculationError) return error
    throw error
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
