import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { leftOf } from '../../jobs/begun.ts'
import { forecastCost } from '../../jobs/cost.ts'
import { type Decided, decide, type Weighed } from '../../jobs/decide.ts'
import { arrivalDay, MEDIAN_DRAW } from '../../jobs/road.ts'
import type { CriterionSource, Decision } from '../../records/decision-kind.ts'
import type { Car } from '../../stages/car.ts'
import { guessSide } from '../../stages/line-mass.ts'
import { guessFactor } from '../../stages/working-line.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { moneyToStage, priceOf } from './money.ts'
import { workedHours } from './real-pairs.ts'
import { isOnItsWay, openTasks, optimismOf, roadPart } from './road-of-car.ts'

/** What an option is made of. */
type OptionRecord = { readonly partIds: readonly string[]; readonly changeIds: readonly string[] }
type Found = Partial<Record<CriterionSource, Weighed>>

/** One standard deviation of a part's mass that says none: of a weighed one nothing, else 10 % (assumed). */
const MASS_SHARE = 0.1

/** What an option costs, as guesses run; null where nothing of it has a price. */
export function costOfOption(car: Car, { partIds, changeIds }: OptionRecord): Weighed {
  const parts = car.records.parts.filter(({ id }) => partIds.includes(id)).flatMap(priceOf)
  const lines = car.records.changes
    .filter(({ id, partId }) => changeIds.includes(id) && !partId)
    .flatMap(({ paid, cost }) => {
      const amount = paid ?? cost
      return amount === null || amount === undefined ? [] : [{ amount, known: paid === null || paid === undefined ? ('guess' as const) : ('paid' as const) }]
    })
  const all = [...parts, ...lines]
  if (all.length === 0) return null
  const of = (known: string) => all.filter((item) => item.known === known).map(({ amount }) => amount)
  const { mean, sd } = forecastCost({
    paid: of('paid').reduce((sum, amount) => sum + amount, 0),
    catalogue: of('catalogue'),
    guesses: of('guess'),
    bias: optimismOf(car).money,
  })
  return { value: mean, sd }
}

/** What the option adds to the car; a part that one of its lines puts in counts with the line. */
export function massOfOption(car: Car, { partIds, changeIds }: OptionRecord): Weighed {
  const lines = changeIds.flatMap((id) => car.lineById.get(id) ?? [])
  const inLines = new Set(lines.map(({ change }) => change.partId))
  const parts = car.records.parts.filter(({ id, mass }) => partIds.includes(id) && mass !== null && !inLines.has(id))
  const known = [
    ...lines
      .filter(({ mass }) => mass.massKg > 0)
      .map(({ change, mass }) => {
        const side = guessSide(change)
        const isGuess = mass.proof === 'guess'
        const kg = mass.massKg * (isGuess ? guessFactor(car, side, mass.logSd) : 1)
        return { value: change.kind === 'off' ? -kg : kg, sd: isGuess ? kg * (mass.logSd ?? car.biases[side].s) : mass.sdKg }
      }),
    ...parts.map(({ mass, count }) => {
      const kg = (mass?.massKg ?? 0) * count
      return { value: kg, sd: mass?.sdKg === null || mass?.sdKg === undefined ? (mass?.proof === 'measured' ? 0 : MASS_SHARE * kg) : mass.sdKg * count }
    }),
  ]
  return known.length === 0 ? null : { value: known.reduce((sum, { value }) => sum + value, 0), sd: Math.hypot(...known.map(({ sd }) => sd)) }
}

/** Hours of open jobs that do its lines or need its parts, and of lines that no job does, as guesses run. */
export function hoursOfOption(car: Car, { partIds, changeIds }: OptionRecord): Weighed {
  const bias = optimismOf(car).work
  const tasks = openTasks(car.records).filter(
    (task) => task.kind === 'work' && (task.changeIds.some((id) => changeIds.includes(id)) || task.partIds.some((id) => partIds.includes(id))),
  )
  const done = new Set(tasks.flatMap((task) => task.changeIds))
  const lines = car.records.changes.filter(({ id, hours, state }) => changeIds.includes(id) && state === 'planned' && !done.has(id) && (hours ?? 0) > 0)
  const left = [...tasks.map((task) => leftOf(task.guessH ?? 1, workedHours(task), bias)), ...lines.map(({ hours }) => leftOf(hours ?? 1, 0, bias))]
  return left.length === 0 ? null : { value: left.reduce((sum, { mean }) => sum + mean, 0), sd: Math.hypot(...left.map(({ sd }) => sd)) }
}

/** Days until the last of its parts is likely here. */
function arrivalOf(car: Car, { partIds }: OptionRecord, today: string): Weighed {
  const coming = car.records.parts.filter((part) => partIds.includes(part.id) && isOnItsWay(part))
  if (partIds.length === 0) return null
  return { value: Math.max(0, ...coming.map((part) => arrivalDay(roadPart(part, today), optimismOf(car).arrival, MEDIAN_DRAW))), sd: 0 }
}

/** A decision with the numbers of its options and what they come to. */
export interface DecisionView {
  readonly id: string
  /** For each option, in the order of the criteria; typed numbers stand before those of parts and lines. */
  readonly values: readonly (readonly { readonly number: Weighed; readonly isTyped: boolean }[])[]
  readonly decided: Decided | null
  readonly problem: string | null
}

export function decisionView(car: Car, decision: Decision, today: string): DecisionView {
  const values = decision.options.map((option) => {
    const found: Found = {
      cost: costOfOption(car, option),
      mass: massOfOption(car, option),
      hours: hoursOfOption(car, option),
      arrival: arrivalOf(car, option, today),
    }
    return decision.criteria.map(({ name, from }) => {
      const typed = option.values.find(({ of }) => of.toLowerCase() === name.toLowerCase())
      return typed ? { number: { value: typed.value, sd: typed.sd ?? 0 }, isTyped: true } : { number: found[from] ?? null, isTyped: false }
    })
  })
  const options = decision.options.map(({ name }, i) => ({ name, values: (values[i] ?? []).map(({ number }) => number) }))
  const decided = attempt(() => decide(decision.criteria, options))
  return decided instanceof CalculationError
    ? { id: decision.id, values, decided: null, problem: decided.message }
    : { id: decision.id, values, decided: decided as Decided, problem: null }
}

/** What this build has paid for a kilogram so far: offered as the price of one; null where nothing came off yet or nothing was paid. */
export function paidPerKg(car: Car): number | null {
  const reached = car.stages.findLastIndex((_, position) => (car.linesByStage[position] ?? []).some(({ doneAtMs }) => doneAtMs !== null))
  const [first, now] = [massOf(car, 0), massOf(car, Math.max(0, reached))]
  if (!first || !now || reached < 1) return null
  const { paid } = moneyToStage(car, reached)
  const off = first.value - now.value
  return off > 0 && paid > 0 ? paid / off : null
}
