import { estimateBias, type GuessBias, type GuessPair } from '../mass/estimate-bias.ts'
import { type LineMass, lineMass } from './line-mass.ts'
import type { BuildRecords, Change, Stage, Weighing } from './records.ts'
import { type ReferenceMass, referenceMass } from './reference-mass.ts'

/** A change that is not dropped, with what it weighs and where its stage stands. */
export interface Line {
  readonly change: Change
  readonly mass: LineMass
  readonly stagePosition: number
}

/** A weighing that has a total and is not set aside, with the changes that were in the car that day. */
export interface UsableWeighing {
  readonly weighing: Weighing
  readonly reference: ReferenceMass
  readonly inCar: ReadonlySet<string>
}

/** The records of a build made ready for questions; worked out once and handed to every calculation. */
export interface Car {
  readonly records: BuildRecords
  readonly stages: readonly Stage[]
  readonly lines: readonly Line[]
  readonly lineById: ReadonlyMap<string, Line>
  /** By time, earliest first. */
  readonly weighings: readonly UsableWeighing[]
  readonly bias: GuessBias
}

/** Index of a stage in the build's order; −1 when the build has no such stage. */
export const stageIndex = (car: Car, stageId: string): number => car.stages.findIndex((stage) => stage.id === stageId)

export function makeCar(records: BuildRecords): Car {
  const stages = [...records.stages].sort((a, b) => a.position - b.position)
  const positions = new Map(stages.map((stage, i) => [stage.id, i]))
  const lines = records.changes.flatMap((change): Line[] => {
    const stagePosition = positions.get(change.stageId)
    if (change.state === 'dropped' || stagePosition === undefined) return []
    return [{ change, mass: lineMass(change), stagePosition }]
  })
  return {
    records,
    stages,
    lines,
    lineById: new Map(lines.map((line) => [line.change.id, line])),
    weighings: usableWeighings(records, lines),
    bias: estimateBias(lines.flatMap(guessPair)),
  }
}

/** The latest guess of a line beside what it weighed afterwards. */
function guessPair(line: Line): GuessPair[] {
  if (line.mass.proof !== 'measured' && line.mass.proof !== 'confirmed') return []
  const guess = line.change.values.findLast((value) => value.proof === 'guess')
  return guess ? [{ guessKg: guess.massKg * line.change.count, measuredKg: line.mass.massKg }] : []
}

function usableWeighings(records: BuildRecords, lines: readonly Line[]): UsableWeighing[] {
  const corrections = new Map(records.inCars.map((entry) => [`${entry.weighingId} ${entry.changeId}`, entry.inCar]))
  return records.weighings
    .flatMap((weighing): UsableWeighing[] => {
      const reference = weighing.setAside === null ? referenceMass(weighing, records.build) : undefined
      if (!reference) return []
      const at = Date.parse(weighing.at)
      const inCar = lines.filter(({ change }) => {
        const corrected = corrections.get(`${weighing.id} ${change.id}`)
        return corrected ?? (change.state === 'done' && change.doneAt !== null && Date.parse(change.doneAt) <= at)
      })
      return [{ weighing, reference, inCar: new Set(inCar.map(({ change }) => change.id)) }]
    })
    .sort((a, b) => Date.parse(a.weighing.at) - Date.parse(b.weighing.at))
}
