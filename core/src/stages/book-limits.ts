import type { Limit } from '../records/plan-kinds.ts'
import type { BookRule, RuleBook } from '../records/rule-kinds.ts'
import { massOverRuleKg, NOISE_AT_M, soundAt } from '../ruling/rule-ratio.ts'
import type { Car } from './car.ts'

/** The book a stage races by: its own, else that of the stage before it. */
export function bookAtStage({ stages, records }: Car, position: number): RuleBook | undefined {
  const named = stages.slice(0, position + 1).findLast(({ ruleBookId }) => ruleBookId)?.ruleBookId
  return records.ruleBooks.find(({ id }) => id === named)
}

/**
 * How much more the build's own number is than what a rule counts: mass by the driver and the fuel that the build has in it, noise by how much nearer it is
 * quoted.
 */
export function overRule(car: Car, { metric, basis }: BookRule): number {
  if (metric === 'massReady') return massOverRuleKg(car.records.build.reference, basis)
  if (metric === 'noise' && basis?.atM) return -soundAt({ levelDb: 0, fromM: NOISE_AT_M, toM: basis.atM })
  return 0
}

/** A rule's number as a limit on the car at its reference. */
const atReference = (car: Car, rule: BookRule, value: number): number => value + overRule(car, rule)

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

/** Two numbers of one limit are the same within this, of themselves. */
const SAME = 1e-6

/**
 * The limit of the class that a person typed for a stage where the book says another number, as the rule counts it; null where both agree or nothing is typed.
 * The stricter of the two holds.
 */
export function typedBeside(car: Car, position: number, rule: BookRule): number | null {
  const over = overRule(car, rule)
  const last = car.stages.length - 1
  const at = (id: string | null, none: number) => (id === null ? none : car.stages.findIndex((stage) => stage.id === id))
  const typed = car.records.limits.find(
    ({ metric, sense, source, fromStageId, untilStageId }) =>
      source === 'classRule' && metric === rule.metric && sense === rule.sense && at(fromStageId, last) <= position && position <= at(untilStageId, last),
  )
  if (!typed || rule.value === null) return null
  const value = typed.value - over
  return Math.abs(value - rule.value) <= SAME * Math.abs(rule.value) ? null : value
}
