import { CalculationError } from '../errors.ts'
import { isMeasured, type Proof } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { BookRule, RuleBook } from '../records/rule-kinds.ts'
import { costOfOption, hoursOfOption, massOfOption } from '../rooms/jobs/decisions.ts'
import { ratioOrProblem } from '../rooms/jobs/rule-books.ts'
import { type BookChange, compareBooks } from '../ruling/class-change.ts'
import { bookAtStage, overRule, typedBeside } from '../stages/book-limits.ts'
import type { Car } from '../stages/car.ts'
import { chanceAtMost, type Distribution } from '../stats/distribution.ts'
import { ALL_METRICS, StageValues } from './stage-values.ts'

export type RuleWord = 'holds' | 'breaks' | 'would hold' | 'would break' | 'not shown' | 'to be kept'

/** One rule against the car of a stage; numbers are as the rule counts them. */
export interface RuleStanding {
  readonly key: string
  readonly metric: Metric | null
  readonly value: number | null
  readonly sd: number | null
  readonly proof: Proof | null
  readonly word: RuleWord
  /** That it is kept; null where nobody can say. */
  readonly chance: number | null
  /** How far inside it stands, in the unit of the number; less than nothing: outside. */
  readonly inHand: number | null
  readonly kgInHand: number | null
  readonly wInHand: number | null
  /** Of a rule on mass over power: the least mass at this power and the most power at this mass, as the rule counts both. */
  readonly leastMassKg: number | null
  readonly mostPowerW: number | null
  /** What a typed limit of the class says instead, as the rule counts it; null: nothing, or the same. The stricter holds. */
  readonly typedLimit: number | null
  /** Why it is not shown. */
  readonly problem: string | null
}

const NOTHING = {
  value: null,
  sd: null,
  proof: null,
  chance: null,
  inHand: null,
  kgInHand: null,
  wInHand: null,
  leastMassKg: null,
  mostPowerW: null,
  typedLimit: null,
  problem: null,
} as const

/** As it stands or as it would: what is measured holds or breaks. */
const wordOf = (isKept: boolean, proof: Proof): RuleWord => (isMeasured(proof) ? (isKept ? 'holds' : 'breaks') : isKept ? 'would hold' : 'would break')

/** How far a value stands inside of a rule: of a range, from its nearer end. */
function insideBy({ sense, value, highValue }: BookRule, of: number): number {
  const [low, high] = [value ?? 0, highValue ?? 0]
  if (sense === 'atMost') return low - of
  return sense === 'atLeast' ? of - low : Math.min(of - low, high - of)
}

function chanceOf(rule: BookRule, distribution: Distribution): number {
  const upTo = (limit: number) => chanceAtMost(distribution, limit)
  if (rule.sense === 'atMost') return upTo(rule.value ?? 0)
  if (rule.sense === 'atLeast') return 1 - upTo(rule.value ?? 0)
  return upTo(rule.highValue ?? 0) - upTo(rule.value ?? 0)
}

function ratioReading(car: Car, position: number, rule: BookRule): RuleStanding {
  const found = ratioOrProblem(car, position, rule)
  const base = { ...NOTHING, key: rule.key, metric: rule.metric }
  if (found instanceof CalculationError) return { ...base, word: 'not shown', problem: found.message }
  if (!found) return { ...base, word: 'not shown', problem: 'It takes a mass and a power of this stage.' }
  const { ratio, sd, proof, chance, kgToAdd, wToGiveUp, massKg, powerW } = found
  const [leastMassKg, mostPowerW] = [massKg + kgToAdd, powerW - wToGiveUp]
  const inHand = ratio - (rule.value ?? 0)
  return {
    ...base,
    value: ratio,
    sd,
    proof,
    chance,
    inHand,
    kgInHand: -kgToAdd,
    wInHand: -wToGiveUp,
    leastMassKg,
    mostPowerW,
    word: wordOf(inHand >= 0, proof),
  }
}

function readingOf(values: StageValues, position: number, rule: BookRule): RuleStanding {
  const base = { ...NOTHING, key: rule.key, metric: rule.metric }
  if (rule.metric === null || rule.value === null) return { ...base, word: 'to be kept' }
  if (rule.metric === 'ruleRatio') return ratioReading(values.car, position, rule)
  const found = values.value(rule.metric, position)
  if (!found)
    return {
      ...base,
      word: 'not shown',
      problem: values.isWaiting(rule.metric, position, position) ? 'It is being worked out.' : 'Nothing shows it at this stage.',
    }
  const over = overRule(values.car, rule)
  const [value, distribution] = [found.value - over, { ...found.distribution, mean: found.distribution.mean - over, floor: found.distribution.floor - over }]
  const inHand = insideBy(rule, value)
  const kgInHand = rule.metric === 'massReady' ? inHand : null
  return { ...base, value, sd: found.sd, proof: found.proof, chance: chanceOf(rule, distribution), inHand, kgInHand, word: wordOf(inHand >= 0, found.proof) }
}

export interface BookReading {
  readonly bookId: string
  readonly readings: readonly RuleStanding[]
}

/** Lines and parts that another book frees or forbids, together. */
export interface ChangedSum {
  readonly names: readonly string[]
  /** What they do to the car; null where nobody said. */
  readonly massKg: number | null
  readonly cost: number | null
  readonly hours: number | null
}

/** Another book against the one a stage races by. */
export interface ClassChange extends BookChange {
  readonly bookId: string
  readonly freedSum: ChangedSum
  readonly lostSum: ChangedSum
}

function sumOf(car: Car, ids: readonly string[]): ChangedSum {
  const { changes, parts } = car.records
  const nameOf = new Map([...changes, ...parts].map(({ id, name }) => [id, name]))
  const option = {
    changeIds: changes.map(({ id }) => id).filter((id) => ids.includes(id)),
    partIds: parts.map(({ id }) => id).filter((id) => ids.includes(id)),
  }
  const value = (found: { readonly value: number } | null) => found?.value ?? null
  return {
    names: ids.flatMap((id) => nameOf.get(id) ?? []),
    massKg: value(massOfOption(car, option)),
    cost: value(costOfOption(car, option)),
    hours: value(hoursOfOption(car, option)),
  }
}

function changeTo(car: Car, own: RuleBook, other: RuleBook): ClassChange {
  const change = compareBooks(own.rules, other.rules)
  return { bookId: other.id, ...change, freedSum: sumOf(car, change.freed), lostSum: sumOf(car, change.lost) }
}

export interface RulesAtStage {
  /** The book it races by; null: none. */
  readonly bookId: string | null
  /** Every book of the build held against the car of this stage. */
  readonly books: readonly BookReading[]
  readonly changes: readonly ClassChange[]
}

export interface RulesRoom {
  readonly stages: readonly RulesAtStage[]
  readonly isWaiting?: true
}

/**
 * Every rule book of a build against the car of each stage, and what another book would change.
 * @example makeRules(CAR).stages[0].bookId // null
 */
export function makeRules(car: Car): RulesRoom {
  const values = new StageValues(car, ALL_METRICS)
  const books = car.records.ruleBooks
  const metrics = new Set(books.flatMap(({ rules }) => rules.flatMap(({ metric }) => (metric && metric !== 'ruleRatio' ? [metric] : []))))
  const stages = car.stages.map((_, position): RulesAtStage => {
    const own: RuleBook | undefined = bookAtStage(car, position)
    return {
      bookId: own?.id ?? null,
      books: books.map(({ id, rules }) => ({
        bookId: id,
        readings: rules.map((rule) => ({ ...readingOf(values, position, rule), typedLimit: typedBeside(car, position, rule) })),
      })),
      changes: own ? books.filter(({ id }) => id !== own.id).map((other) => changeTo(car, own, other)) : [],
    }
  })
  const isWaiting = [...metrics].some((metric) => values.isWaiting(metric))
  return { stages, ...(isWaiting ? { isWaiting } : {}) }
}
