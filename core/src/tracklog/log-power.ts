import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 as G } from '../mass/suspension.ts'

/** What a car was while it accelerated. */
export interface LogPowerCar {
  readonly massKg: number
  readonly massSdKg: number
  /** Mass with all that turns in the gear that was in. */
  readonly effectiveMassKg: number
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  /** Of air and rolling together, N. */
  readonly resistanceSdN: number
  readonly airDensityKgM3: number
}

/** How much faster the driven tyres turn than the car goes where nobody measured it (common practice, no source). */
export const USUAL_SLIP = { share: 0.02, sd: 0.01 } as const

export interface LogPower {
  readonly powerW: number
  readonly sdW: number
  readonly forceN: number
}

/**
 * Power at the hubs from acceleration, W: (m_e a + q C + c m g + m g grade) v (1 + slip), its spread by mass, acceleration, speed and force (H.8) and by slip.
 * Source: H.8 and the room's page. Rejects a car that stands, and mass, air or slope that cannot be.
 * @example powerFromAcceleration({ car: LOG_CAR, speedMps: 33, accelerationMps2: 4.15, grade: 0.004, speedSdMps: 0.15, accelerationSdMps2: 0.06 }).forceN // 6134.68
 */
export function powerFromAcceleration({
  car,
  speedMps,
  accelerationMps2,
  grade,
  speedSdMps,
  accelerationSdMps2,
  slip = USUAL_SLIP,
}: {
  car: LogPowerCar
  speedMps: number
  accelerationMps2: number
  grade: number
  speedSdMps: number
  accelerationSdMps2: number
  slip?: { readonly share: number; readonly sd: number }
}): LogPower {
  requirePositive(speedMps, 'speedMps')
  requirePositive(car.massKg, 'massKg')
  requireWithin(car.effectiveMassKg, car.massKg, 5 * car.massKg, 'effectiveMassKg')
  requireWithin(grade, -0.3, 0.3, 'grade')
  requireWithin(slip.share, -0.02, 0.3, 'slip.share')
  const q = 0.5 * car.airDensityKgM3 * speedMps * speedMps
  const forceN = car.effectiveMassKg * accelerationMps2 + q * car.dragAreaM2 + car.rollingCoefficient * car.massKg * G + car.massKg * G * grade
  const roadW = forceN * speedMps
  const sdW = Math.hypot(
    car.effectiveMassKg * speedMps * accelerationSdMps2,
    accelerationMps2 * speedMps * car.massSdKg,
    forceN * speedSdMps,
    speedMps * car.resistanceSdN,
  )
  return { powerW: roadW * (1 + slip.share), sdW: Math.hypot(sdW, roadW * slip.sd), forceN }
}

/** The widest part of a log that one parabola is laid through, s. */
export const PARABOLA_S = 0.7
const LEAST_RATE_HZ = 10

/**
 * Acceleration by time, m/s²: the slope of a parabola through all speeds within 0.35 s to either side; null where fewer than four lie there, or none to one
 * side. Source: the room's page. Rejects clocks that go back and samples under 10 a second.
 * @example accelerationOf([0, 0.1, 0.2, 0.3, 0.4, 0.5], [10, 10.4, 10.8, 11.2, 11.6, 12])[2] // 4.00
 */
export function accelerationOf(timeS: readonly number[], speedMps: readonly number[]): readonly (number | null)[] {
  if (timeS.length < 4 || timeS.length !== speedMps.length) throw new CalculationError('missing', 'timeS', 'Four samples of speed or more are needed.')
  const span = itemAt(timeS, timeS.length - 1) - itemAt(timeS, 0)
  if (!((timeS.length - 1) / span >= LEAST_RATE_HZ - 1e-6)) throw new CalculationError('out-of-range', 'timeS', 'Too coarse to differentiate: 10 Hz or more.')
  let [from, to] = [0, 0]
  return timeS.map((t) => {
    while (itemAt(timeS, from) < t - PARABOLA_S / 2 - 1e-9) from++
    while (to < timeS.length && itemAt(timeS, to) <= t + PARABOLA_S / 2 + 1e-9) to++
    return slopeAt(timeS, speedMps, from, to, t)
  })
}

/** The slope at a moment of the parabola through samples from one to before another, by least squares. */
function slopeAt(timeS: readonly number[], values: readonly number[], from: number, to: number, t: number): number | null {
  if (to - from < 4 || itemAt(timeS, from) >= t || itemAt(timeS, to - 1) <= t) return null
  let [n, s1, s2, s3, s4, y0, y1, y2] = [0, 0, 0, 0, 0, 0, 0, 0]
  for (let i = from; i < to; i++) {
    const [u, y] = [itemAt(timeS, i) - t, itemAt(values, i)]
    n++
    s1 += u
    s2 += u * u
    s3 += u ** 3
    s4 += u ** 4
    y0 += y
    y1 += u * y
    y2 += u * u * y
  }
  // Cramer's rule for the middle one of y = c + b u + a u².
  const determinant = n * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s3 * s2) + s2 * (s1 * s3 - s2 * s2)
  if (!(Math.abs(determinant) > 0)) return null
  return (n * (y1 * s4 - y2 * s3) - y0 * (s1 * s4 - s3 * s2) + s2 * (s1 * y2 - s2 * y1)) / determinant
}
