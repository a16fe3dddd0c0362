import { CalculationError, requireFinite } from '../errors.ts'
import { chanceAtMost, type Distribution, quantileOf } from '../stats/distribution.ts'
import { guessSum, type LogBias } from '../stats/log-bias.ts'

/** A price out of a catalogue moves by so much (assumed): one standard deviation over the price. */
export const CATALOGUE_SHARE = 0.05

export interface CostInput {
  /** What is paid, with what came back taken off. */
  readonly paid: number
  readonly catalogue: readonly number[]
  readonly guesses: readonly number[]
  readonly bias: LogBias
  readonly budget?: number | null
}

export interface CostForecast {
  readonly mean: number
  readonly sd: number
  readonly distribution: Distribution
  readonly lowValue: number
  readonly highValue: number
  /** Variance that guesses carry, over all of it; 0 where nothing is open. */
  readonly guessShare: number
  /** Of staying within the budget; null: there is none. */
  readonly chance: number | null
}

/**
 * What something comes to: paid, prices of a catalogue within 5 %, and guesses with how guesses run, which they share; one log-normal over what is not paid.
 * Source: moment matching, closed form. Rejects prices under zero.
 * @example forecastCost({ paid: 100, catalogue: [], guesses: [], bias: USUAL_OPTIMISM.money }).mean // 100
 */
export function forecastCost({ paid, catalogue, guesses, bias, budget = null }: CostInput): CostForecast {
  requireFinite(paid, 'paid')
  const requirePrice = (price: number, field: string) => {
    if (!(requireFinite(price, field) >= 0)) throw new CalculationError('out-of-range', field, `${field} is under zero. Type what it costs.`)
  }
  for (const [i, price] of catalogue.entries()) requirePrice(price, `catalogue.${i}`)
  for (const [i, price] of guesses.entries()) requirePrice(price, `guesses.${i}`)
  const fromGuesses = guessSum(guesses, bias)
  const openMean = catalogue.reduce((sum, price) => sum + price, 0) + fromGuesses.mean
  const variance = catalogue.reduce((sum, price) => sum + (CATALOGUE_SHARE * price) ** 2, 0) + fromGuesses.variance
  const [mean, sd] = [paid + openMean, Math.sqrt(variance)]
  const distribution: Distribution = sd > 0 ? { shape: 'lognormal', floor: paid, mean, sd } : { shape: 'normal', floor: 0, mean, sd: 0 }
  return {
    mean,
    sd,
    distribution,
    lowValue: sd > 0 ? quantileOf(distribution, 0.1) : mean,
    highValue: sd > 0 ? quantileOf(distribution, 0.9) : mean,
    guessShare: variance > 0 ? fromGuesses.variance / variance : 0,
    chance: budget === null ? null : chanceAtMost(distribution, budget),
  }
}

/** What one unit of a better car costs; null where the change buys none of it. */
export interface CostWorth {
  readonly whole: number
  readonly perKg: number | null
  /** A kilowatt that would do as much: what the lost kilograms are worth in power counts too. */
  readonly perKw: number | null
  readonly perSecond: number | null
}

/**
 * What a change costs per kg it takes off, per kW of equal worth and per second: the whole is cost + hours hourWorth; kW of equal worth is (ΔP − (P/m) Δm)/1000.
 * A denominator of zero or less: it buys none. Rejects numbers that are not finite.
 * @example costWorth({ cost: 620, hours: 0, hourWorth: 0, massKg: -14.6, powerW: 0, powerToMassWPerKg: 231.7, lapS: null }).perKg // 42.47
 */
export function costWorth(input: {
  cost: number
  hours: number
  hourWorth: number
  /** What it changes the car's mass by; less than zero: lighter. */
  massKg: number
  powerW: number
  powerToMassWPerKg: number
  /** What it changes a lap by; less than zero: faster; null: nobody drove one. */
  lapS: number | null
}): CostWorth {
  for (const [field, value] of Object.entries(input)) if (value !== null) requireFinite(value, field)
  const whole = input.cost + input.hours * input.hourWorth
  const per = (bought: number) => (bought > 0 ? whole / bought : null)
  return {
    whole,
    perKg: per(-input.massKg),
    perKw: per((input.powerW - input.powerToMassWPerKg * input.massKg) / 1000),
    perSecond: input.lapS === null ? null : per(-input.lapS),
  }
}
