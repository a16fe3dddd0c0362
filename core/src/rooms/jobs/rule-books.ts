import { attempt } from '../../attempt.ts'
import { gridSpeedRpm } from '../../dyno/curve.ts'
import { CalculationError } from '../../errors.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Limit } from '../../records/plan-kinds.ts'
import type { BookRule, RuleBook } from '../../records/rule-kinds.ts'
import { averagePower } from '../../ruling/average-power.ts'
import { massOverRuleKg, type RatioVerdict, ruleRatio } from '../../ruling/rule-ratio.ts'
import type { Car } from '../../stages/car.ts'
import { curveAtStage, powerAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'

/** The book a stage races by: its own, else that of the stage before it. */
export function bookAtStage({ stages, records }: Car, position: number): RuleBook | undefined {
  const named = stages.slice(0, position + 1).findLast(({ ruleBookId }) => ruleBookId)?.ruleBookId
  return records.ruleBooks.find(({ id }) => id === named)
}

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

function averageAtStage(car: Car, position: number, average: NonNullable<BookRule['average']>): number {
  const curve = curveAtStage(car, position)?.curve
  if (!curve) throw new CalculationError('missing', 'curve', 'The rule averages power over the pulls, and no pull with a curve stands for this stage.')
  return averagePower({ speedRpm: curve.powerW.map((_, i) => gridSpeedRpm(curve, i)), powerW: curve.powerW }, average)
}

/** The rule of a stage's book on mass over power; undefined where it has none. */
export const ratioRuleAt = (car: Car, position: number): BookRule | undefined => bookAtStage(car, position)?.rules.find(({ metric }) => metric === 'ruleRatio')

/** The same, or why it cannot be worked out. */
export function ratioOrProblem(car: Car, position: number, rule: BookRule): RatioReading | CalculationError | undefined {
  const found = attempt(() => ratioAtStage(car, position, rule))
  return found as RatioReading | CalculationError | undefined
}

/** A rule's number as a limit on the car at its reference: mass with the driver and the fuel that the build counts. */
const atReference = (car: Car, rule: BookRule, value: number): number =>
  rule.metric === 'massReady' ? value + massOverRuleKg(car.records.build.reference, rule.basis) : value

type Side = { readonly sense: Limit['sense']; readonly value: number }

function sidesOf({ sense, value, highValue }: BookRule): Side[] {
  if (value === null) return []
  if (sense === 'between' && highValue !== null)
    return [
      { sense: 'atLeast', value },
      { sense: 'atMost', value: highValue },
    ]
  return sense === 'atMost' || sense === 'atLeast' ? [{ sense, value }] : []
}

/** Whether a person typed a limit that is at least as strict, for the same metric on the same side. */
const isCovered = ({ records }: Car, metric: Limit['metric'], { sense, value }: Side): boolean =>
  records.limits.some((limit) => limit.metric === metric && limit.sense === sense && (sense === 'atMost' ? limit.value <= value : limit.value >= value))

/** The rules of each stage's book about a number, as limits for the stages that race by it; beside a typed limit the stricter holds. */
export function bookLimits(car: Car): Limit[] {
  const last = car.stages.length - 1
  return car.stages.flatMap((stage, from) => {
    const book = bookAtStage(car, from)
    if (!book || (from > 0 && bookAtStage(car, from - 1) === book)) return []
    const next = car.stages.findIndex((_, position) => position > from && bookAtStage(car, position) !== book)
    const until = next < 0 ? last : next - 1
    return book.rules.flatMap((rule, i) =>
      rule.metric === null
        ? []
        : sidesOf(rule)
            .map(({ sense, value }) => ({ sense, value: atReference(car, rule, value) }))
            .filter((side) => !isCovered(car, rule.metric as Limit['metric'], side))
            .map(
              ({ sense, value }): Limit => ({
                id: `${book.id}.${i}.${from}.${sense}`,
                metric: rule.metric as Limit['metric'],
                sense,
                value,
                source: 'classRule',
                fromStageId: stage.id,
                untilStageId: car.stages[until]?.id ?? null,
                typed: null,
              }),
            ),
    )
  })
}
