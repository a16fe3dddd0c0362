import { CalculationError } from '../errors.ts'
import { openPartMeanKg } from '../mass/open-mass.ts'
import { buildRecordsSchema } from '../records/records.ts'
import { powerAtStage } from '../rooms/power/power-at-stage.ts'
import { massOrProblem } from '../rooms/weight/mass-at-stage.ts'
import { openCar, stageIndex } from '../stages/car.ts'
import { changeSign } from '../stages/line-mass.ts'
import { z } from '../zod.ts'
import { EXAMPLE_RECORDS } from './examples/example-records.ts'
import { defineCalculation } from './registry.ts'

export const stageInput = z.strictObject({ records: buildRecordsSchema, stageId: z.string() })
export const proofField = z.enum(['guess', 'catalogue', 'calculated', 'measured', 'confirmed'])

const LISTS_WITH_IDS = ['stages', 'changes', 'weighings', 'sessions', 'pulls'] as const

/** Records and a stage of them, opened. Rejects ids that stand twice, and a stage that is not there. */
export function openAt({ records, stageId }: z.output<typeof stageInput>) {
  for (const list of LISTS_WITH_IDS) {
    const ids = records[list].map(({ id }) => id)
    const seen = new Set<string>()
    const twice = ids.findIndex((id) => seen.size === seen.add(id).size)
    if (twice >= 0)
      throw new CalculationError(
        'inconsistent',
        `records.${list}.${twice}.id`,
        'This id stands twice in its list, so its record would count twice. Give each its own.',
      )
  }
  const car = openCar(records)
  const position = stageIndex(car, stageId)
  if (position < 0) throw new CalculationError('unknown', 'stageId', 'No stage of these records has this id.')
  return { car, position }
}

const massAtStageCalculation = defineCalculation({
  name: 'build.mass-at-stage',
  title: 'Mass of the car at a stage',
  formula: 'V(n) = W_ref + Σd over the stage’s changes that the anchor lacked − Σd over changes it held too much',
  sources: ['The rules of the build’s records: scales replace the ledger from then on'],
  assumptions: ['Reference driver and fuel', 'Guesses enter with the learned bias', 'A weighing with a missing pad is no anchor'],
  validRange: 'A build with a weighing or a baseline mass',
  schools: [],
  example: { records: EXAMPLE_RECORDS, stageId: 'strip' },
  input: stageInput,
  output: z.strictObject({
    massKg: z.number(),
    sdKg: z.number(),
    proof: proofField,
    anchor: z.enum(['equal', 'ownStage', 'subset', 'other', 'baseline']),
    carriedFromStageId: z.string().nullable(),
    anchorMassKg: z.number(),
    anchorSdKg: z.number(),
    anchorWeighingIds: z.array(z.string()),
    lines: z.array(
      z.strictObject({
        changeId: z.string(),
        name: z.string(),
        massKg: z.number(),
        sdKg: z.number(),
        proof: proofField,
        takenOutAgain: z.boolean(),
        comesBack: z.boolean(),
      }),
    ),
  }),
  run: (read) => {
    const { car, position } = openAt(read)
    const mass = massOrProblem(car, position)
    if (mass instanceof CalculationError) throw mass
    if (!mass)
      throw new CalculationError(
        'missing',
        'records.weighings',
        'There is no weighing and no baseline mass. Put the car on the scales, or give what it weighs.',
      )
    const { anchor } = mass
    return {
      value: {
        massKg: mass.value,
        sdKg: mass.sd,
        proof: mass.proof,
        anchor: anchor.kind,
        carriedFromStageId: mass.carriedFromPosition === null ? null : (car.stages[mass.carriedFromPosition]?.id ?? null),
        anchorMassKg: mass.anchorMassKg,
        anchorSdKg: mass.anchorSdKg,
        anchorWeighingIds:
          anchor.kind === 'baseline' ? [] : anchor.kind === 'equal' ? anchor.weighings.map((entry) => entry.weighing.id) : [anchor.weighing.weighing.id],
        lines: mass.openLines.map(({ line, part }) => ({
          changeId: line.change.id,
          name: line.change.name,
          massKg: openPartMeanKg(part, car.biases),
          sdKg: line.mass.sdKg,
          proof: line.mass.proof,
          takenOutAgain: !part.isComingBack && part.sign !== changeSign(line.change),
          comesBack: part.isComingBack === true,
        })),
      },
    }
  },
})

const powerAtStageCalculation = defineCalculation({
  name: 'build.power-at-stage',
  title: 'Power of the car at a stage',
  formula: 'Mean of the standing pulls’ peaks, sd = √(s²/n + (1 % P)²); then the expectations of later stages: to replaces, by adds, times scales',
  sources: ['The rules of the build’s records', '1 % from one visit to the next: common practice, no source'],
  assumptions: ['Hub, roller and engine are never mixed', 'A session counts only on the build’s basis, or where its own air record lets it be restated'],
  validRange: 'A build with a dyno session on its basis, or an expectation of a power to reach',
  schools: ['Hub, roller or engine; a standard; a school for boosted engines: the build’s basis names all three'],
  example: { records: EXAMPLE_RECORDS, stageId: 'strip' },
  input: stageInput,
  output: z.strictObject({
    powerW: z.number(),
    sdW: z.number(),
    proof: proofField,
    fromStageId: z.string().nullable(),
    isMeasuredHere: z.boolean(),
    steps: z.array(
      z.strictObject({
        kind: z.enum(['measured', 'start', 'expectation', 'unasked']),
        stageId: z.string(),
        recordIds: z.array(z.string()),
        powerW: z.number(),
        sdW: z.number(),
      }),
    ),
  }),
  run: (read) => {
    const { car, position } = openAt(read)
    const power = powerAtStage(car, position)
    if (!power)
      throw new CalculationError(
        'missing',
        'records.sessions',
        'There is no dyno session on the build’s basis and no expectation that says what power to reach.',
      )
    const stageId = (at: number) => car.stages[at]?.id ?? ''
    return {
      value: {
        powerW: power.value,
        sdW: power.sd,
        proof: power.proof,
        fromStageId: power.fromPosition === null ? null : stageId(power.fromPosition),
        isMeasuredHere: power.isMeasuredHere,
        steps: power.steps.map((step) => ({
          kind: step.kind,
          stageId: stageId(step.position),
          recordIds:
            step.kind === 'measured'
              ? step.runs.flatMap((run) => [...run.sessionIds])
              : step.kind === 'start'
                ? [...step.run.sessionIds]
                : step.kind === 'expectation'
                  ? [step.expectation.id]
                  : [],
          powerW: step.value,
          sdW: step.sd,
        })),
      },
    }
  },
})

export const BUILD_CALCULATIONS = [massAtStageCalculation, powerAtStageCalculation]
