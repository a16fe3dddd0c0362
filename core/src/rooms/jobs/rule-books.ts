import { attempt } from '../../attempt.ts'
import { type GridCurve, gridSpeedRpm, meanCurve } from '../../dyno/curve.ts'
import { CalculationError } from '../../errors.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { BookRule } from '../../records/rule-kinds.ts'
import { averagePower } from '../../ruling/average-power.ts'
import { massOverRuleKg, type RatioVerdict, ruleRatio } from '../../ruling/rule-ratio.ts'
import { bookAtStage } from '../../stages/book-limits.ts'
import type { Car } from '../../stages/car.ts'
import { median } from '../../stats/moments.ts'
import { powerAtStage, pullCurvesAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'

const modifiersOf = ({ modifiers }: BookRule): number => modifiers.reduce((sum, { kgPerW, applies }) => sum + (applies ? kgPerW : 0), 0)

export interface RatioReading extends RatioVerdict {
  readonly massKg: number
  readonly powerW: number
  readonly proof: Proof
}

/**
 * Mass over power of a stage as a rule counts it: mass with the rule's driver and fuel, power averaged its way over the stage's curve (else the stage's power
 * where the rule names no average). Undefined without a mass or a power. Rejects what the average and the ratio reject, and an average where there is no curve.
 */
export function ratioAtStage(car: Car, position: number, rule: BookRule): RatioReading | undefined {
  const [mass, power] = [massOf(car, position), powerAtStage(car, position)]
  if (!mass || !power) return undefined
  const massKg = mass.value - massOverRuleKg(car.records.build.reference, rule.basis)
  const powerW = rule.average ? averageAtStage(car, position, rule.average) : power.value
  const found = ruleRatio({
    massKg,
    massSdKg: mass.sd,
    powerW,
    powerSdW: (power.sd / power.value) * powerW,
    modifiersKgPerW: modifiersOf(rule),
    limitKgPerW: rule.value ?? 0,
    roundStep: rule.roundStep,
  })
  return { ...found, massKg, powerW, proof: leastProof(mass.proof, power.proof) }
}

/** Power averaged a rule's way: over the mean of the stage's pulls, or of each pull and then the best or the middle of them. */
function averageAtStage(car: Car, position: number, average: NonNullable<BookRule['average']>): number {
  const { curves } = pullCurvesAtStage(car, position)
  const curve = meanCurve(curves)
  if (!curve) throw new CalculationError('missing', 'curve', 'The rule averages power over the pulls, and no pull with a curve stands for this stage.')
  const of = (own: GridCurve) => averagePower({ speedRpm: own.powerW.map((_, i) => gridSpeedRpm(own, i)), powerW: own.powerW }, average)
  if (average.pulls === 'mean') return of(curve)
  return average.pulls === 'best' ? Math.max(...curves.map(of)) : median(curves.map(of))
}

/** The rule of a stage's book on mass over power; undefined where it has none. */
export const ratioRuleAt = (car: Car, position: number): BookRule | undefined => bookAtStage(car, position)?.rules.find(({ metric }) => metric === 'ruleRatio')

/** The same, or why it cannot be worked out. */
export function ratioOrProblem(car: Car, position: number, rule: BookRule): RatioReading | CalculationError | undefined {
  const found = attempt(() => ratioAtStage(car, position, rule))
  return found as RatioReading | CalculationError | undefined
}
