import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { median, sampleSd } from './moments.ts'
import { normalCdf } from './normal.ts'

/**
 * How much the best of n draws scatters, as a share of how much one does: the spread of the least of n normal numbers.
 * Source: order statistics, by quadrature. Rejects n outside 1 to 2,000.
 * @example bestOfSpread(5) // 0.669
 */
export function bestOfSpread(n: number): number {
  if (!(Number.isInteger(n) && n >= 1 && n <= 2000)) throw new CalculationError('out-of-range', 'n', `n is ${n}; it must be a whole number from 1 to 2000.`)
  let [zero, one, two] = [0, 0, 0]
  const step = 0.01
  for (let x = -9; x <= 9; x += step) {
    const density = n * Math.exp(-0.5 * x * x) * normalCdf(x) ** (n - 1)
    zero += density
    one += density * x
    two += density * x * x
  }
  const centre = one / zero
  return Math.sqrt(two / zero - centre * centre)
}

export const LAP_SCHOOLS = ['best', 'median'] as const
/** What a session is quoted by: its best clean lap, as in a time attack, or the median of its clean laps. */
export type LapSchool = (typeof LAP_SCHOOLS)[number]
export const LAP_SCHOOL_WORDS: Record<LapSchool, string> = { best: 'best clean lap', median: 'median of the clean laps' }

/** What one lap scatters by where a session has no second, a share (common practice, no source). */
const LONE_LAP_SHARE = 0.005
/** √(π/2): how much more a median scatters than a mean. */
const MEDIAN_SPREAD = Math.sqrt(Math.PI / 2)

/**
 * What a session's clean laps come to by a school, with the spread of that number from the laps alone, s: median 1.253 s/√n, best s b(n); of one lap 0.5 %.
 * Source: the room's page. Rejects a session without a clean lap.
 * @example sessionLap([82.91, 82.6, 83.05, 82.74], 'median').lapS // 82.825
 */
export function sessionLap(lapsS: readonly number[], school: LapSchool): { lapS: number; sdS: number; lapSdS: number } {
  if (lapsS.length < 1) throw new CalculationError('missing', 'lapsS', 'No clean lap: the session says nothing of the car. Mark one clean, or drive another.')
  const lapS = school === 'best' ? Math.min(...lapsS) : median(lapsS)
  const lapSdS = lapsS.length > 1 ? sampleSd(lapsS) : LONE_LAP_SHARE * lapS
  const sdS = school === 'best' ? lapSdS * bestOfSpread(lapsS.length) : lapsS.length > 1 ? (MEDIAN_SPREAD * lapSdS) / Math.sqrt(lapsS.length) : lapSdS
  return { lapS, sdS, lapSdS }
}

export interface BestLaps {
  readonly bestS: number
  /** Sum of the best of each sector: falls with the number of sectors, and nobody drove it. */
  readonly theoreticalS: number | null
  /** The quickest run of consecutive sectors once round: somebody drove it. */
  readonly rollingS: number | null
  /** Spread of the laps; null of one. */
  readonly lapSdS: number | null
  /** How the laps fall within the session, s a lap, by Theil and Sen; null under four. */
  readonly trendSPerLap: number | null
}

function rolling(sectorsS: readonly (readonly number[])[]): number {
  const all = sectorsS.flat()
  const count = itemAt(sectorsS, 0).length
  let least = Number.POSITIVE_INFINITY
  for (let i = 0; i + count <= all.length; i++) {
    const sum = all.slice(i, i + count).reduce((total, value) => total + value, 0)
    least = Math.min(least, sum)
  }
  return least
}

/**
 * The best of a session's clean laps in their order: best lap, best of each sector added up, best lap begun at any mark, spread, and whether they still fall.
 * Sectors are counted only of laps that have all of them. Source: H.11. Rejects no laps.
 * @example bestLaps([92.5, 92.5, 92.3], [[28.1, 35.4, 29], [28.3, 35, 29.2], [27.9, 35.6, 28.8]]).theoreticalS // 91.7
 */
export function bestLaps(lapsS: readonly number[], sectorsS: readonly (readonly number[])[]): BestLaps {
  if (lapsS.length < 1) throw new CalculationError('missing', 'lapsS', 'No clean lap: there is no best. Mark one clean, or drive another.')
  if (lapsS.length > 2000) throw new CalculationError('too-long', 'lapsS', 'More than 2000 laps are no session. Choose fewer.')
  const count = Math.max(0, ...sectorsS.map((sectors) => sectors.length))
  const whole = sectorsS.filter((sectors) => sectors.length === count && count > 1)
  const least = Array.from({ length: count }, (_, k) => Math.min(...whole.map((sectors) => itemAt(sectors, k))))
  const slopes = lapsS.flatMap((lap, i) => lapsS.slice(i + 1).map((later, k) => (later - lap) / (k + 1)))
  return {
    bestS: Math.min(...lapsS),
    theoreticalS: whole.length > 0 ? least.reduce((sum, value) => sum + value, 0) : null,
    rollingS: whole.length > 0 ? rolling(whole) : null,
    lapSdS: lapsS.length > 1 ? sampleSd(lapsS) : null,
    trendSPerLap: lapsS.length >= 4 ? median(slopes) : null,
  }
}
