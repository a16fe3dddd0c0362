import { isMeasured } from '../../proof/quantity.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, type MetricWork } from '../../stages/define-metric.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { POWER_READS } from '../power/metrics.ts'
import { costItems, moneyToStage } from './money.ts'
import { ratioAtStage, ratioRuleAt } from './rule-books.ts'

/** What money rests on beside the car's own lists. */
export const JOBS_READS = ['tasks', 'events'] as const

export const JOBS_METRICS = [
  defineMetric({
    key: 'moneyToStage',
    word: 'Money to the stage',
    kind: 'money',
    sense: 'atMost',
    calculation: 'cost.stage',
    provedBy: ['paid'],
    basis: [],
    room: 'jobs',
    reads: JOBS_READS,
    working: 'moneyToStage',
  }),
  defineMetric({
    key: 'ruleRatio',
    word: 'Mass over power by the book',
    kind: 'massToPower',
    sense: 'atLeast',
    calculation: 'rules.ratio',
    provedBy: ['mass', 'power'],
    basis: ['mass', 'power'],
    room: 'plan',
    reads: [...POWER_READS, 'ruleBooks'],
    working: 'ruleRatio',
  }),
]

/** From this share of its variance on a number is called a guess. */
const MOSTLY_GUESSED = 0.5

/** What the car has cost and will have cost by a stage; nothing where nothing is priced. */
export function moneyValue(car: Car, position: number): StageValue | undefined {
  if (!costItems(car).some((item) => item.position <= position)) return undefined
  const { mean, sd, distribution, guessShare } = moneyToStage(car, position)
  const proof = sd === 0 ? 'measured' : guessShare >= MOSTLY_GUESSED ? 'guess' : 'calculated'
  return { value: mean, sd, proof, distribution, fromPosition: null }
}

/** Mass over power as the stage's own book counts it; nothing where it has no such rule. */
export function ratioValue(car: Car, position: number): StageValue | undefined {
  const rule = ratioRuleAt(car, position)
  const found = rule && ratioAtStage(car, position, rule)
  if (!found) return undefined
  const { ratio, sd, proof } = found
  return { value: ratio, sd, proof, distribution: normalDistribution(ratio, sd), fromPosition: null }
}

export const JOBS_VALUES: Readonly<Record<'moneyToStage' | 'ruleRatio', MetricWork>> = { moneyToStage: { at: moneyValue }, ruleRatio: { at: ratioValue } }

export const JOBS_MEASUREMENTS = [
  defineMeasurement({
    key: 'paid',
    metric: 'moneyToStage',
    cure: ({ position }, { stage, at }) => ({
      head: `Note what was paid for ${stage(position)}`,
      text: 'Parts, lines, jobs and events that are done and of which only a guess is known.',
      to: at('jobs', position, '&tab=money'),
    }),
  }),
]

/** Money is asked for only where somebody set a goal of it. */
export const JOBS_PROOFS: Readonly<Record<string, MeasurementWork>> = {
  paid: {
    touches: (car, position) =>
      car.records.targets.some(({ metric }) => metric === 'moneyToStage') && costItems(car).some((item) => item.position === position),
    isMeasuredAt: (car, position) => {
      const value = moneyValue(car, position)
      return value !== undefined && isMeasured(value.proof)
    },
    isEnteredAt: (car, stageId) => {
      const position = stageIndex(car, stageId)
      return costItems(car).some((item) => item.position === position && item.list === 'tasks' && item.known === 'paid')
    },
  },
}
