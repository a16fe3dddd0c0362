import { Matrix, pseudoInverse } from 'ml-matrix'
import { smallestGainFound } from '../dyno/compare-pulls.ts'
import { requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { coastRoadM, coastTimeS, speedAfter } from './coast-down.ts'
import { USUAL_ROTATING_SD } from './coast-down-drag.ts'
import { coastSlopes } from './coast-model.ts'

const POINTS = 80
/** How long a gust lasts, and how finely speed is read ten times a second (common practice, no source). */
const GUST_S = 6
const READ_SD_MPS = 0.05
const READS_PER_S = 10

export interface CoastPlanInput {
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  readonly massKg: number
  /** Over the mass. */
  readonly rotatingShare: number
  readonly massSdKg: number
  readonly airDensityKgM3: number
  readonly airDensitySd: number
  readonly fromMps: number
  readonly toMps: number
  /** One spread of the wind along the road. */
  readonly gustMps: number
  readonly pairs: number
}

export interface CoastPlan {
  readonly roadM: number
  readonly timeS: number
  /** Of the drag area, over itself. */
  readonly onePairRelativeSd: number
  readonly meanRelativeSd: number
  /** Of the mean, with what more pairs do not take away. */
  readonly wholeRelativeSd: number
  /** What more pairs do not take away. */
  readonly systematicRelativeSd: number
  /** The change of drag area that a test before and one after would tell, 8 times in 10; null with one pair each. */
  readonly smallestDifferenceRelative: number | null
}

/** Covariance of the speeds of one run: gusts through the car's own answer to them, and what the reading adds. */
function runCovariance(speeds: readonly number[], stepS: number, cNPerMps2: number, effectiveKg: number, gustMps: number): Matrix {
  const n = speeds.length
  const gust = Matrix.zeros(n, n)
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) gust.set(i, j, gustMps ** 2 * Math.exp((-Math.abs(i - j) * stepS) / GUST_S))
  // m δv' = −2 C v (δv + w): each step of wind dies away as the car answers it.
  const answer = Matrix.zeros(n, n)
  for (let i = 1; i < n; i++) {
    const v = (itemAt(speeds, i) + itemAt(speeds, i - 1)) / 2
    const rate = (2 * cNPerMps2 * v) / effectiveKg
    const kept = Math.exp(-rate * stepS)
    for (let j = 0; j < n; j++) {
      const own = j === i || j === i - 1 ? -(1 - kept) / 2 : 0
      answer.set(i, j, kept * answer.get(i - 1, j) + own)
    }
  }
  const covariance = answer.mmul(gust).mmul(answer.transpose())
  const read = READ_SD_MPS ** 2 / Math.max(1, READS_PER_S * stepS)
  for (let i = 0; i < n; i++) covariance.set(i, i, covariance.get(i, i) + read)
  return covariance
}

/**
 * What a coast-down can tell before it is driven: the road a run needs, and the doubt of one pair by linear propagation of gusts and reading noise through
 * the fit; of the mean of several; and the smallest change that would be found. Source: the room's page, 2.11. 5 to 100 m/s, span 1.5 to 1; gusts to 6 m/s.
 * @example planCoastDown({ ...COAST_PLAN, pairs: 1 }).roadM // 2410.297
 */
export function planCoastDown(input: CoastPlanInput): CoastPlan {
  const { dragAreaM2, rollingCoefficient, massKg, rotatingShare, airDensityKgM3, fromMps, toMps, gustMps, pairs } = input
  requireWithin(dragAreaM2, 0.1, 3, 'dragAreaM2')
  requireWithin(rollingCoefficient, 0.002, 0.1, 'rollingCoefficient')
  requireWithin(massKg, 100, 5000, 'massKg')
  requireWithin(rotatingShare, 0, 0.3, 'rotatingShare')
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(fromMps, 5, 100, 'fromMps')
  requirePositive(toMps, 'toMps')
  requireWithin(toMps, 1, fromMps / 1.5, 'toMps')
  requireWithin(gustMps, 0, 6, 'gustMps')
  requireWithin(pairs, 1, 50, 'pairs')
  const effectiveKg = massKg * (1 + rotatingShare)
  const force = { aN: rollingCoefficient * massKg * STANDARD_GRAVITY_MPS2, bNPerMps: 0, cNPerMps2: 0.5 * airDensityKgM3 * dragAreaM2, effectiveKg }
  const timeS = coastTimeS(force, fromMps, toMps)
  const stepS = timeS / (POINTS - 1)
  const times = Array.from({ length: POINTS }, (_, i) => i * stepS)
  const speeds = times.map((time) => speedAfter(force, fromMps, time))
  const samples = ([1, -1] as const).flatMap((sign) => times.map((time) => ({ sign, timeS: time })))
  const slopes = new Matrix(coastSlopes([force.aN, force.cNPerMps2, 0, 0, fromMps, fromMps], samples, massKg, effectiveKg)).transpose()
  const one = runCovariance(speeds, stepS, force.cNPerMps2, effectiveKg, gustMps)
  const back = pseudoInverse(slopes)
  // Of the fit's unknowns only C is asked for; both runs meet winds of their own.
  const row = back.getRow(1)
  const variance = [row.slice(0, POINTS), row.slice(POINTS)].reduce((sum, part) => {
    const vector = Matrix.rowVector(part)
    return sum + vector.mmul(one).mmul(vector.transpose()).get(0, 0)
  }, 0)
  const onePairRelativeSd = Math.sqrt(variance) / force.cNPerMps2
  const massRelative = Math.hypot((input.massSdKg * (1 + rotatingShare)) / effectiveKg, USUAL_ROTATING_SD / (1 + rotatingShare))
  const meanRelativeSd = onePairRelativeSd / Math.sqrt(pairs)
  const systematicRelativeSd = Math.hypot(massRelative, input.airDensitySd / airDensityKgM3)
  return {
    roadM: coastRoadM(force, fromMps, toMps),
    timeS,
    onePairRelativeSd,
    meanRelativeSd,
    wholeRelativeSd: Math.hypot(meanRelativeSd, systematicRelativeSd),
    systematicRelativeSd,
    smallestDifferenceRelative: pairs >= 2 ? smallestGainFound(onePairRelativeSd, pairs) : null,
  }
}
