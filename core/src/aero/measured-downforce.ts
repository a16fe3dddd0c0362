import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { quadrature } from '../stats/moments.ts'
import { bisect } from '../stats/normal.ts'
import { type AxleSprings, axleDropM, wheelForceN } from './axle-springs.ts'
import type { SteadyReading } from './steady-readings.ts'

export interface SteadyAxle {
  readonly springs: AxleSprings
  readonly reading: SteadyReading
  /** Mean of left and right at each speed, m, growing as the car sinks; its zero may be anywhere where no rubber is met, else it is the car at rest. */
  readonly travelM: readonly number[]
  /** Of one reading. */
  readonly readingSdM: number
  /** Over the rate of the spring; with that of the tyre where a height is read. */
  readonly rateRelativeSd: number
}

export interface SteadyInput {
  readonly speedMps: readonly number[]
  readonly airDensityKgM3: number
  readonly front: SteadyAxle
  readonly rear: SteadyAxle
  /** Where the car slowed while it was read: deceleration at each speed, m/s², with mass and height of its centre. */
  readonly decelerationMps2: readonly number[] | null
  readonly massKg: number
  readonly centreHeightM: number
  readonly wheelbaseM: number
}

/** Load on an axle for what was read there, N: two wheels of springs and rubber, the tyre too where a height is read. */
function loadN({ springs, reading }: SteadyAxle, travelM: number): number {
  if (reading === 'wheel') return 2 * wheelForceN(springs, travelM)
  if (reading === 'damper') return 2 * wheelForceN(springs, travelM / (springs.damperMotionRatio ?? springs.motionRatio))
  const most = 4 * (springs.tyreRateNPerM + springs.springRateNPerM) * (Math.abs(travelM) + 0.01)
  return bisect((axleN) => axleDropM(springs, axleN) - travelM, -most, most)
}

/** A line through points, with a free intercept, and the spread of its slope for points that are known alike. */
function slopeOf(x: readonly number[], y: readonly number[], ySd: number): { slope: number; sd: number; intercept: number } {
  const n = x.length
  const [mx, my] = [x.reduce((sum, each) => sum + each, 0) / n, y.reduce((sum, each) => sum + each, 0) / n]
  const [sxx, sxy] = x.reduce(([xx, xy], each, i) => [xx + (each - mx) ** 2, xy + (each - mx) * (itemAt(y, i) - my)], [0, 0] as [number, number])
  const slope = sxy / sxx
  const left = n > 2 ? Math.sqrt(x.reduce((sum, each, i) => sum + (itemAt(y, i) - my - slope * (each - mx)) ** 2, 0) / (n - 2)) : 0
  return { slope, sd: Math.max(ySd, left) / Math.sqrt(sxx), intercept: my - slope * mx }
}

export interface MeasuredDownforce {
  readonly frontM2: number
  readonly frontSdM2: number
  readonly rearM2: number
  readonly rearSdM2: number
}

/**
 * Downforce of each axle from steady runs: load by springs and rubber (by the tyre too, where a height is read), on v² with a free intercept, area =
 * 2 slope/ρ. Coasting shifts load: the front's falls by m a h/L, the rear's grows. Source: G.10 and the room's page, 2.10.
 * Refuses fewer than 3 speeds and a span under 1.5 to 1. What hubs carry, friction of dampers and pitch by drive stay unseen.
 * @example measuredDownforce(STEADY).frontM2 // 0.9
 */
export function measuredDownforce(input: SteadyInput): MeasuredDownforce {
  const { speedMps, airDensityKgM3, decelerationMps2, massKg, centreHeightM, wheelbaseM } = input
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  if (speedMps.length < 3)
    throw new CalculationError('out-of-range', 'speedMps', 'A line needs three speeds at least, with a slow one among them. Drive more of them.')
  for (const speed of speedMps) requireWithin(speed, 0, 150, 'speedMps')
  if (!(Math.max(...speedMps) >= 1.5 * Math.min(...speedMps)))
    throw new CalculationError('out-of-range', 'speedMps', 'The speeds lie too close together: the fastest must be 1.5 times the slowest.')
  const squares = speedMps.map((speed) => speed * speed)
  const axle = (own: SteadyAxle, name: string, sign: 1 | -1) => {
    if (own.travelM.length !== speedMps.length)
      throw new CalculationError(
        'bad-input',
        `${name}.travelM`,
        `${name}.travelM has ${own.travelM.length} values for ${speedMps.length} speeds. Give one each.`,
      )
    requireWithin(own.rateRelativeSd, 0, 1, `${name}.rateRelativeSd`)
    requireWithin(own.readingSdM, 0, 0.05, `${name}.readingSdM`)
    const loads = own.travelM.map((travel, i) => loadN(own, travel) - (sign * massKg * (decelerationMps2?.[i] ?? 0) * centreHeightM) / wheelbaseM)
    const steepest = (loadN(own, 0.001) - loadN(own, 0)) / 0.001
    const { slope, sd } = slopeOf(squares, loads, own.readingSdM * steepest)
    const areaM2 = (2 * slope) / airDensityKgM3
    return { areaM2, sdM2: quadrature((2 * sd) / airDensityKgM3, own.rateRelativeSd * areaM2) }
  }
  const [front, rear] = [axle(input.front, 'front', 1), axle(input.rear, 'rear', -1)]
  return { frontM2: front.areaM2, frontSdM2: front.sdM2, rearM2: rear.areaM2, rearSdM2: rear.sdM2 }
}

/**
 * Downforce of the whole car from that of its axles, as an area, m²: their readings are apart, so that their spreads add in quadrature.
 * @example wholeDownforce({ frontM2: 0.9, frontSdM2: 0.03, rearM2: 0.75, rearSdM2: 0.04 }) // { areaM2: 1.65, sdM2: 0.05 }
 */
export const wholeDownforce = ({ frontM2, frontSdM2, rearM2, rearSdM2 }: MeasuredDownforce): { areaM2: number; sdM2: number } => ({
  areaM2: frontM2 + rearM2,
  sdM2: quadrature(frontSdM2, rearSdM2),
})

/**
 * What a pitot tube reads over what stands ahead of the car, and the wind, from two directions at one speed over the ground:
 * √f = (√q1 + √q2)/(2v √(ρ/2)), head wind on the first v(√q1 − √q2)/(√q1 + √q2). Pa, m/s. Pressures over 0; speed 5 to 150 m/s.
 * @example pitotFactor({ firstPa: 1600, secondPa: 1400, speedMps: 50, airDensityKgM3: 1.2 }).headWindMps // 1.669
 */
export function pitotFactor({
  firstPa,
  secondPa,
  speedMps,
  airDensityKgM3,
}: {
  readonly firstPa: number
  readonly secondPa: number
  readonly speedMps: number
  readonly airDensityKgM3: number
}): { factor: number; headWindMps: number } {
  requirePositive(firstPa, 'firstPa')
  requirePositive(secondPa, 'secondPa')
  requireWithin(speedMps, 5, 150, 'speedMps')
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  const [a, b] = [Math.sqrt(firstPa), Math.sqrt(secondPa)]
  const root = (a + b) / (2 * speedMps * Math.sqrt(airDensityKgM3 / 2))
  return { factor: root * root, headWindMps: (speedMps * (a - b)) / (a + b) }
}
