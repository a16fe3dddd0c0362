import { CalculationError, requirePositive } from '../errors.ts'
import { powerFromTorqueW } from './power-torque.ts'

/** A curve by speed, rising; power between two points follows a straight line of torque. */
export interface SpeedCurve {
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

const torqueAt = (curve: SpeedCurve, i: number) => (curve.powerW[i] as number) / (curve.speedRpm[i] as number)

function requireCurve({ speedRpm, powerW }: SpeedCurve): void {
  if (speedRpm.length < 2 || speedRpm.length !== powerW.length)
    throw new CalculationError('inconsistent', 'curve', 'A curve needs at least two speeds and a power for each.')
  for (let i = 0; i < speedRpm.length; i++) {
    requirePositive(speedRpm[i] as number, `speedRpm[${i}]`)
    if (i > 0 && !((speedRpm[i] as number) > (speedRpm[i - 1] as number)))
      throw new CalculationError('inconsistent', `speedRpm[${i}]`, 'The speeds of a curve must rise. Sort them and leave out doubles.')
  }
}

/** Power at a speed inside the curve, by a straight line of torque; refuses a speed outside. */
export function powerAtSpeedW(curve: SpeedCurve, speedRpm: number): number {
  const { speedRpm: speeds } = curve
  const last = speeds.length - 1
  if (speedRpm < (speeds[0] as number) - 1e-9 || speedRpm > (speeds[last] as number) + 1e-9)
    throw new CalculationError(
      'out-of-range',
      'band',
      `The curve runs from ${Math.round(speeds[0] as number)} to ${Math.round(speeds[last] as number)} rpm; ${Math.round(speedRpm)} rpm lies outside it.`,
    )
  let at = 0
  while (at < last - 1 && (speeds[at + 1] as number) < speedRpm) at++
  const share = (speedRpm - (speeds[at] as number)) / ((speeds[at + 1] as number) - (speeds[at] as number))
  return speedRpm * ((1 - share) * torqueAt(curve, at) + share * torqueAt(curve, at + 1))
}

/** Sums f over a band, in even steps small enough that a finer grid changes nothing that is shown (Simpson). */
function integrate(from: number, to: number, f: (rpm: number) => number): number {
  const steps = 2 * Math.max(50, Math.ceil((to - from) / 10))
  const width = (to - from) / steps
  let sum = f(from) + f(to)
  for (let i = 1; i < steps; i++) sum += (i % 2 ? 4 : 2) * f(from + i * width)
  return (sum * width) / 3
}

/** The knots of a curve inside a band, so that each piece is integrated on its own. */
function pieces(curve: SpeedCurve, from: number, to: number): [number, number][] {
  const knots = [from, ...curve.speedRpm.filter((speed) => speed > from && speed < to), to]
  return knots.slice(1).map((knot, i) => [knots[i] as number, knot])
}

const over = (curve: SpeedCurve, from: number, to: number, f: (rpm: number) => number) =>
  pieces(curve, from, to).reduce((sum, [low, high]) => sum + integrate(low, high, f), 0)

export interface BandMean {
  /** (1/(n2 − n1)) ∫ P dn. */
  readonly bySpeedW: number
  /** Energy over time while accelerating through the band in one gear; resistance left out. */
  readonly byTimeW: number
  /** The same through the given gears, from the lower speed in the first to the upper in the last. */
  readonly throughGearsW: number | null
}

/**
 * Mean power of a band of speed: by speed, by time in one gear ((n2² − n1²)/2 over ∫ n/P dn), and through gears that are shifted at the upper
 * speed (Σ(n2² − n1²)/(2G²) over Σ(1/G²)∫ n/P dn). All agree for constant torque. Source: kinetic energy over time, closed form of straight
 * torque lines, integrated numerically (Simpson, to 1e-9). Rejects a band outside the curve or empty, power of zero or less in it, and gears that do not fall.
 */
export function bandMean(input: { curve: SpeedCurve; fromRpm: number; toRpm: number; gearRatios?: readonly number[] | undefined }): BandMean {
  const { curve, fromRpm, toRpm, gearRatios } = input
  requireCurve(curve)
  if (!(toRpm > fromRpm)) throw new CalculationError('out-of-range', 'toRpm', 'The upper end of the band must lie above the lower.')
  const power = (rpm: number) => powerAtSpeedW(curve, rpm)
  for (const end of [fromRpm, toRpm, ...curve.speedRpm.filter((speed) => speed > fromRpm && speed < toRpm)])
    if (!(power(end) > 0))
      throw new CalculationError('out-of-range', 'curve', `The power at ${Math.round(end)} rpm is zero or less; a mean by time has no meaning there.`)
  const time = (low: number, high: number) => over(curve, low, high, (rpm) => rpm / power(rpm))
  const bySpeedW = over(curve, fromRpm, toRpm, power) / (toRpm - fromRpm)
  const byTimeW = (toRpm ** 2 - fromRpm ** 2) / 2 / time(fromRpm, toRpm)
  return { bySpeedW, byTimeW, throughGearsW: gearRatios && gearRatios.length > 0 ? throughGears(gearRatios, fromRpm, toRpm, time) : null }
}

function throughGears(ratios: readonly number[], fromRpm: number, toRpm: number, time: (low: number, high: number) => number): number {
  let [energy, seconds] = [0, 0]
  ratios.forEach((ratio, i) => {
    requirePositive(ratio, `gearRatios[${i}]`)
    const before = ratios[i - 1]
    if (before !== undefined && ratio >= before)
      throw new CalculationError('inconsistent', `gearRatios[${i}]`, 'Gear ratios fall from one gear to the next. Give them in order.')
    const start = before === undefined ? fromRpm : (toRpm * ratio) / before
    energy += (toRpm ** 2 - start ** 2) / (2 * ratio ** 2)
    seconds += time(start, toRpm) / ratio ** 2
  })
  return energy / seconds
}

/** A curve of torque as one of power. */
export const curveFromTorque = (speedRpm: readonly number[], torqueNm: readonly number[]): SpeedCurve => ({
  speedRpm,
  powerW: speedRpm.map((speed, i) => powerFromTorqueW(torqueNm[i] as number, speed)),
})
