import type { Distribution } from '../stats/distribution.ts'
import { correctedGuessKg, type GuessBiases, type GuessSide } from './estimate-bias.ts'

/** A part that still has to go in or come out of the known mass. */
export interface OpenPart {
  readonly id: string
  readonly sign: 1 | -1
  /** Which guesses it runs like: those of parts that come off, whichever way it counts here, or of those that go on. */
  readonly side: GuessSide
  /** As typed, more than zero. */
  readonly massKg: number
  readonly isGuess: boolean
  /** One standard deviation in kg of a part that is not a guess. */
  readonly sdKg: number
  /** Log-space spread of a guess with a spread of its own; else the bias's. */
  readonly logSd?: number | undefined
  /** What waits and may come back in part: as doubtful as a guess, and corrected by none. */
  readonly isComingBack?: boolean
  /** Where it was weighed in a growing box: its mass is the reading at this place less the one before. */
  readonly box?: { readonly id: string; readonly position: number; readonly readingSdKg: number } | undefined
}

export interface OpenMass {
  readonly meanKg: number
  readonly varianceKg2: number
  /** The part of the variance that guesses carry, with the bias they share. */
  readonly guessVarianceKg2: number
}

/** Signed mean of a part: guesses corrected for the bias of their side, others as they are. */
export function openPartMeanKg(part: OpenPart, biases: GuessBiases): number {
  const bias = biases[part.side]
  return part.sign * (part.isGuess ? correctedGuessKg(part.massKg, bias, part.logSd ?? bias.s) : part.massKg)
}

/** Corrected means of the guesses of each side, which share the doubt in their side's bias. */
export function guessMeansKg(parts: readonly OpenPart[], biases: GuessBiases): Record<GuessSide, number> {
  const means = { off: 0, on: 0 }
  for (const part of parts) if (part.isGuess) means[part.side] += openPartMeanKg(part, biases)
  return means
}

/**
 * Mean and variance of a signed sum of parts. Guesses of one side share the doubt in its bias:
 * cov_ij = m_i m_j (exp(v + s_i² [i = j]) − 1) with m the corrected means; guesses of different sides, and other parts, are independent.
 * Source: sum of log-normals with a common term, closed form (checked against simulation).
 */
export function openMass(parts: readonly OpenPart[], biases: GuessBiases): OpenMass {
  let meanKg = 0
  let guessVarianceKg2 = 0
  let otherVariance = 0
  for (const part of parts) {
    const m = openPartMeanKg(part, biases)
    meanKg += m
    const { v, s } = biases[part.side]
    if (part.isGuess) guessVarianceKg2 += m * m * (Math.expm1(v + (part.logSd ?? s) ** 2) - Math.expm1(v))
    else if (part.isComingBack) guessVarianceKg2 += part.sdKg ** 2
    else if (!part.box) otherVariance += part.sdKg ** 2
  }
  otherVariance += boxVariance(parts)
  const means = guessMeansKg(parts, biases)
  guessVarianceKg2 += means.off ** 2 * Math.expm1(biases.off.v) + means.on ** 2 * Math.expm1(biases.on.v)
  return { meanKg, varianceKg2: guessVarianceKg2 + otherVariance, guessVarianceKg2 }
}

/**
 * Variance of what was weighed in growing boxes: part i is reading i less reading i − 1, so a reading between two parts of one sign cancels,
 * and a whole box carries √2 of one reading's spread, not the root of its count. Source: variance of a sum of differences, closed form.
 */
function boxVariance(parts: readonly OpenPart[]): number {
  const boxes = new Map<string, Map<number, { factor: number; sdKg: number }>>()
  for (const { box, sign } of parts) {
    if (!box) continue
    const readings = boxes.get(box.id) ?? new Map<number, { factor: number; sdKg: number }>()
    boxes.set(box.id, readings)
    for (const [at, change] of [
      [box.position, sign],
      [box.position - 1, -sign],
    ] as const)
      readings.set(at, { factor: (readings.get(at)?.factor ?? 0) + change, sdKg: box.readingSdKg })
  }
  let variance = 0
  for (const readings of boxes.values()) for (const { factor, sdKg } of readings.values()) variance += (factor * sdKg) ** 2
  return variance
}

/**
 * The shape that the finished mass is given: no guess comes off and the mass to come outweighs its doubt twice over: one
 * log-normal matched to the mass to come, the variance of what is known added. Otherwise a normal of the same mean and
 * variance, because a log-normal cannot take a negative sum, and one squeezed against its floor would claim that the
 * finished car cannot be lighter than scales that have a spread of their own.
 */
export function finishedMassDistribution(input: { knownKg: number; knownVarianceKg2: number; parts: readonly OpenPart[]; biases: GuessBiases }): Distribution {
  const { knownKg, knownVarianceKg2, parts, biases } = input
  const all = openMass(parts, biases)
  const meanKg = knownKg + all.meanKg
  const sdKg = Math.sqrt(knownVarianceKg2 + all.varianceKg2)
  const coming = parts.filter((part) => part.sign > 0)
  const comingMean = openMass(coming, biases).meanKg
  const guessComesOff = parts.some((part) => part.isGuess && part.sign < 0)
  const hasGuess = parts.some((part) => part.isGuess)
  if (!hasGuess || guessComesOff || comingMean < 2 * sdKg) return { shape: 'normal', floor: 0, mean: meanKg, sd: sdKg }
  return { shape: 'lognormal', floor: meanKg - comingMean, mean: meanKg, sd: sdKg }
}
