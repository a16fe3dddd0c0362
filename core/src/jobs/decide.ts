import { CalculationError, requireFinite } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { normalCdf } from '../stats/normal.ts'

/** What options are weighed by. */
export interface Criterion {
  readonly name: string
  readonly better: 'less' | 'more'
  /** What one unit is worth; null: it is shown and not priced. */
  readonly price: number | null
  /** The most it may be, or the least where more is better; null: none. */
  readonly must: number | null
}

/** A number with its spread; null: nobody knows it. */
export type Weighed = { readonly value: number; readonly sd: number } | null

export interface Option {
  readonly name: string
  /** One for each criterion, in their order. */
  readonly values: readonly Weighed[]
}

export interface OptionVerdict {
  readonly name: string
  /** The criterion whose must it misses; null: it misses none. */
  readonly missesMust: string | null
  /** An option that is no worse anywhere and better somewhere; null: none. */
  readonly dominatedBy: string | null
  /** In money, less what more of is better; null where a priced number is missing, or nothing is priced. */
  readonly total: number | null
  readonly sd: number | null
  /** Priced criteria of which nobody knows the number. */
  readonly missing: readonly string[]
}

export interface Decided {
  readonly options: readonly OptionVerdict[]
  /** The least total among those that keep every must and are not dominated; null: nothing is priced. */
  readonly best: string | null
  /** That the best is really cheaper than each other that is left. */
  readonly beats: readonly { readonly name: string; readonly chance: number }[]
  /** The price of a criterion at which another option comes level with the best. */
  readonly turnsAt: readonly { readonly criterion: string; readonly name: string; readonly price: number }[]
}

const sign = ({ better }: Criterion): 1 | -1 => (better === 'less' ? 1 : -1)

function missedMust(criteria: readonly Criterion[], { values }: Option): string | null {
  return (
    criteria.find(({ must, better }, i) => {
      const own = values[i]
      return must !== null && own && (better === 'less' ? own.value > must : own.value < must)
    })?.name ?? null
  )
}

/** No better anywhere and worse somewhere; what nobody knows of one of them decides nothing, and leaves neither dominated. */
function isDominated(criteria: readonly Criterion[], one: Option, by: Option): boolean {
  let isWorse = false
  for (const [i, criterion] of criteria.entries()) {
    const [own, other] = [one.values[i], by.values[i]]
    if (!own || !other) return false
    const behind = sign(criterion) * (own.value - other.value)
    if (behind < 0) return false
    if (behind > 0) isWorse = true
  }
  return isWorse
}

function totalOf(criteria: readonly Criterion[], { values }: Option): Pick<OptionVerdict, 'total' | 'sd' | 'missing'> {
  const priced = criteria.map((criterion, i) => ({ criterion, own: values[i] ?? null })).filter(({ criterion }) => criterion.price !== null)
  const missing = priced.filter(({ own }) => own === null).map(({ criterion }) => criterion.name)
  if (priced.length === 0 || missing.length > 0) return { total: null, sd: null, missing }
  const total = priced.reduce((sum, { criterion, own }) => sum + sign(criterion) * (criterion.price ?? 0) * (own?.value ?? 0), 0)
  return { total, sd: Math.hypot(...priced.map(({ criterion, own }) => (criterion.price ?? 0) * (own?.sd ?? 0))), missing }
}

/**
 * Weighs options: musts first, then who is no better anywhere and worse somewhere, by whom; where prices are typed the total of each, how sure it is that the
 * best is really cheaper, and the price at which it would turn. No marks and no scales: a new option never turns the others round.
 * Rejects numbers that are not finite, and options with another count of numbers than there are criteria.
 * Source: totals in money, spreads in quadrature; p − (S_b − S_a)/d ≥ 0.
 * @example decide([{ name: 'cost', better: 'less', price: 1, must: null }], [{ name: 'a', values: [{ value: 3, sd: 0 }] }]).best // 'a'
 */
export function decide(criteria: readonly Criterion[], options: readonly Option[]): Decided {
  for (const { name, values } of options) {
    if (values.length !== criteria.length)
      throw new CalculationError(
        'inconsistent',
        'options',
        `${name} has ${values.length} numbers for ${criteria.length} criteria. Give one for each, or nothing in its place.`,
      )
    for (const own of values) if (own) requireFinite(own.value, name)
  }
  const standing = options.filter((option) => missedMust(criteria, option) === null)
  const verdicts = options.map(
    (option): OptionVerdict => ({
      name: option.name,
      missesMust: missedMust(criteria, option),
      dominatedBy: standing.find((other) => other !== option && isDominated(criteria, option, other))?.name ?? null,
      ...totalOf(criteria, option),
    }),
  )
  const left = verdicts.filter(({ missesMust, dominatedBy, total }) => missesMust === null && dominatedBy === null && total !== null)
  const [best, ...others] = left.sort((a, b) => (a.total ?? 0) - (b.total ?? 0))
  if (!best) return { options: verdicts, best: null, beats: [], turnsAt: [] }
  return {
    options: verdicts,
    best: best.name,
    beats: others.map((other) => ({ name: other.name, chance: chanceCheaper(best, other) })),
    turnsAt: turnsOf(criteria, options, best, others),
  }
}

function chanceCheaper(best: OptionVerdict, other: OptionVerdict): number {
  const sd = Math.hypot(best.sd ?? 0, other.sd ?? 0)
  const ahead = (other.total ?? 0) - (best.total ?? 0)
  return sd > 0 ? normalCdf(ahead / sd) : ahead > 0 ? 1 : 0.5
}

/** For each price the nearest at which another comes level, where there is one of nothing or more. */
function turnsOf(criteria: readonly Criterion[], options: readonly Option[], best: OptionVerdict, others: readonly OptionVerdict[]): Decided['turnsAt'] {
  const valuesOf = (name: string) => (options.find((option) => option.name === name) as Option).values
  return criteria.flatMap((criterion, i) => {
    if (criterion.price === null) return []
    const price = criterion.price
    const found = others.flatMap((other) => {
      const [own, theirs] = [itemAt(valuesOf(best.name), i), itemAt(valuesOf(other.name), i)]
      const d = sign(criterion) * ((theirs?.value ?? 0) - (own?.value ?? 0))
      const at = price - ((other.total ?? 0) - (best.total ?? 0)) / d
      return d !== 0 && at >= 0 ? [{ criterion: criterion.name, name: other.name, price: at }] : []
    })
    return found.sort((a, b) => Math.abs(a.price - price) - Math.abs(b.price - price)).slice(0, 1)
  })
}
