import { CalculationError, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { powerFromTorqueW } from './power-torque.ts'

/** A curve by speed, rising; power between two points follows a straight line of torque. */
export interface SpeedCurve {
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

const torqueAt = (curve: SpeedCurve, i: number) => itemAt(curve.powerW, i) / itemAt(curve.speedRpm, i)

function requireCurve({ speedRpm, powerW }: SpeedCurve): void {
  if (speedRpm.length < 2 || speedRpm.length !== powerW.length)
    throw new CalculationError('inconsistent', 'curve', 'A curve needs at least two speeds and a power for each.')
  for (let i = 0; i < speedRpm.length; i++) {
    requirePositive(itemAt(speedRpm, i), `speedRpm[${i}]`)
    if (i > 0 && !(itemAt(speedRpm, i) > itemAt(speedRpm, i - 1)))
      throw new CalculationError('inconsistent', `speedRpm[${i}]`, 'The speeds of a curve must rise. Sort them and leave out doubles.')
  }
}

/** Power at a speed inside the curve, by a straight line of torque; refuses a speed outside. */
export function powerAtSpeedW(curve: SpeedCurve, speedRpm: number): number {
  const { speedRpm: speeds } = curve
  const last = speeds.length - 1
  if (speedRpm < itemAt(speeds, 0) - 1e-9 || speedRpm > itemAt(speeds, last) + 1e-9)
    throw new CalculationError(
      'out-of-range',
      'band',
      `The curve runs from ${Math.round(itemAt(speeds, 0))} to ${Math.round(itemAt(speeds, last))} rpm; ${Math.round(speedRpm)} rpm lies outside it.`,
    )
  let at = 0
  while (at < last - 1 && itemAt(speeds, at + 1) < speedRpm) at++
  const share = (speedRpm - itemAt(speeds, at)) / (itemAt(speeds, at + 1) - itemAt(speeds, at))
  return speedRpm * ((1 - share) * torqueAt(curve, at) + share * torqueAt(curve, at + 1))
}

/** A straight line of torque (here power over speed, W/rpm) between two speeds. */
interface Piece {
  readonly fromRpm: number
  readonly toRpm: number
  readonly fromTorque: number
  readonly toTorque: number
}

/** The straight lines of a curve inside a band. */
function pieces(curve: SpeedCurve, from: number, to: number): Piece[] {
  const inside = curve.speedRpm.flatMap((speed, i) => (speed > from && speed < to ? [{ speed, torque: torqueAt(curve, i) }] : []))
  const end = (speed: number) => ({ speed, torque: powerAtSpeedW(curve, speed) / speed })
  const knots = [end(from), ...inside, end(to)]
  return knots.slice(1).map((knot, i) => {
    const before = itemAt(knots, i)
    return { fromRpm: before.speed, toRpm: knot.speed, fromTorque: before.torque, toTorque: knot.torque }
  })
}

/** ∫ P dn of a straight line of torque: P is a square of n, for which Simpson's three points are exact. */
const powerBySpeed = ({ fromRpm, toRpm, fromTorque, toTorque }: Piece) =>
  ((toRpm - fromRpm) / 6) * (fromRpm * fromTorque + (fromRpm + toRpm) * (fromTorque + toTorque) + toRpm * toTorque)

/** ∫ n/P dn of a straight line of torque: the width over the logarithmic mean of the torques. */
function timeBySpeed({ fromRpm, toRpm, fromTorque, toTorque }: Piece): number {
  const rise = (toTorque - fromTorque) / fromTorque
  const inverse = Math.abs(rise) < 1e-9 ? 1 - rise / 2 : Math.log1p(rise) / rise
  return ((toRpm - fromRpm) * inverse) / fromTorque
}

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
 * speed (Σ(n2² − n1²)/(2G²) over Σ(1/G²)∫ n/P dn). All agree for constant torque. Source: kinetic energy over time, closed forms of straight
 * torque lines. Rejects a band outside the curve or empty, power of zero or less in it, and gears that do not fall.
 */
export function bandMean(input: { curve: SpeedCurve; fromRpm: number; toRpm: number; gearRatios?: readonly number[] | undefined }): BandMean {
  const { curve, fromRpm, toRpm, gearRatios } = input
  requireCurve(curve)
  if (!(toRpm > fromRpm)) throw new CalculationError('out-of-range', 'toRpm', 'The upper end of the band must lie above the lower.')
  const band = pieces(curve, fromRpm, toRpm)
  const ends = [...band.map((piece) => ({ speed: piece.fromRpm, torque: piece.fromTorque })), { speed: toRpm, torque: band.at(-1)?.toTorque ?? 0 }]
  for (const { speed, torque } of ends)
    if (!(torque > 0))
      throw new CalculationError('out-of-range', 'curve', `The power at ${Math.round(speed)} rpm is zero or less; a mean by time has no meaning there.`)
  const time = (low: number, high: number) => pieces(curve, low, high).reduce((sum, piece) => sum + timeBySpeed(piece), 0)
  const bySpeedW = band.reduce((sum, piece) => sum + powerBySpeed(piece), 0) / (toRpm - fromRpm)
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
  powerW: speedRpm.map((speed, i) => powerFromTorqueW(itemAt(torqueNm, i), speed)),
})
