import { requireFinite, requirePositive } from '../errors.ts'
import { chanceAtMost, quantileOf } from '../stats/distribution.ts'
import type { GuessBiases } from './estimate-bias.ts'
import { finishedMassDistribution, guessMeansKg, type OpenPart, openPartMeanKg } from './open-mass.ts'

export interface MassForecast {
  readonly meanKg: number
  readonly sdKg: number
  readonly p10Kg: number
  readonly p50Kg: number
  readonly p90Kg: number
  readonly shape: 'normal' | 'lognormal'
  readonly chanceUnderLimit?: number
  /** Each part's share of the whole variance, greatest first: what weighing it would remove. */
  readonly doubt: readonly {
    id: string
    varianceShare: number
    meanKg: number
    /** What the spread of the whole would be once this part is weighed on a scale. */
    sdAfterWeighingKg: number
  }[]
}

/**
 * The finished mass from what is known and what is still to come (or go), in closed form.
 * Mean = known + Σ corrected parts; variance with the shared bias of guesses; quantiles from one matched log-normal, or a
 * normal when guesses come off. A part's share of doubt is what the variance loses when that part is known exactly; the shares
 * need not add to one, because guesses share a bias. Rejects a known mass or a part of zero or less.
 * Source: moment matching (Fenton and Wilkinson), closed form.
 */
export function forecastMass(input: {
  knownKg: number
  knownSdKg: number
  parts: readonly OpenPart[]
  biases: GuessBiases
  limitKg?: number | undefined
}): MassForecast {
  requirePositive(input.knownKg, 'knownKg')
  requireFinite(input.knownSdKg, 'knownSdKg')
  input.parts.forEach((part, i) => {
    requirePositive(part.massKg, `parts[${i}].massKg`)
  })
  const distribution = finishedMassDistribution({ ...input, knownVarianceKg2: input.knownSdKg ** 2 })
  const total = distribution.sd ** 2
  return {
    meanKg: distribution.mean,
    sdKg: distribution.sd,
    p10Kg: quantileOf(distribution, 0.1),
    p50Kg: quantileOf(distribution, 0.5),
    p90Kg: quantileOf(distribution, 0.9),
    shape: distribution.shape,
    ...(input.limitKg === undefined ? {} : { chanceUnderLimit: chanceAtMost(distribution, input.limitKg) }),
    doubt: doubtShares(input.parts, input.biases, total),
  }
}

/** Variance of a part on a scale: the greater of 0.1 kg and 0.5 % (common practice, no source). */
const weighedVariance = (massKg: number): number => Math.max(0.1, 0.005 * massKg) ** 2

function doubtShares(parts: readonly OpenPart[], biases: GuessBiases, totalVariance: number): MassForecast['doubt'] {
  const means = guessMeansKg(parts, biases)
  return parts
    .map((part) => {
      const meanKg = openPartMeanKg(part, biases)
      const { v, s } = biases[part.side]
      const shared = Math.expm1(v)
      const all = means[part.side]
      const own = part.isGuess ? meanKg ** 2 * (Math.expm1(v + (part.logSd ?? s) ** 2) - shared) + (all ** 2 - (all - meanKg) ** 2) * shared : part.sdKg ** 2
      const weighed = Math.min(own, weighedVariance(part.massKg))
      return {
        id: part.id,
        meanKg,
        varianceShare: totalVariance > 0 ? own / totalVariance : 0,
        sdAfterWeighingKg: Math.sqrt(Math.max(0, totalVariance - own + weighed)),
      }
    })
    .sort((a, b) => b.varianceShare - a.varianceShare)
}
