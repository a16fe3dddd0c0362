import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

/** What a pitot tube read at a held speed, driven out or back on one road. */
export interface PitotPoint {
  /** Over the ground. */
  readonly speedMps: number
  readonly pitotPa: number
  readonly direction: 'out' | 'back'
}

export interface PitotSpeeds {
  /** Of the air over the car at each point, m/s. */
  readonly airSpeedMps: readonly number[]
  /** Over what stands ahead of the car, as a pressure: 1 reads true. */
  readonly factor: number
  /** On the way out; under 0 it pushed. */
  readonly headWindMps: number
}

/**
 * Speed of the air at held speeds, by a pitot tube that reads too much or too little and a steady wind: least squares of √(2q/ρ) = F (v ± w), out and back;
 * the tube's factor is F². Of two points at one speed it is the pair of `pitotFactor`. Source: the room's page, 2.10.
 * Refuses (`inconsistent`) one direction alone: it cannot tell the wind from the tube; speeds outside 5 to 150 m/s.
 * @example pitotSpeeds([{ speedMps: 50, pitotPa: 1600, direction: 'out' }, { speedMps: 50, pitotPa: 1400, direction: 'back' }], 1.2).headWindMps // 1.669
 */
export function pitotSpeeds(points: readonly PitotPoint[], airDensityKgM3: number): PitotSpeeds {
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  const signs = points.map(({ direction }) => (direction === 'out' ? 1 : -1))
  if (new Set(signs).size < 2)
    throw new CalculationError(
      'inconsistent',
      'direction',
      'One direction cannot tell the wind from what the tube reads too much. Hold the speeds on the way back as well.',
    )
  const read = points.map(({ speedMps, pitotPa }) => {
    requireWithin(speedMps, 5, 150, 'speedMps')
    return Math.sqrt((2 * requirePositive(pitotPa, 'pitotPa')) / airDensityKgM3)
  })
  const sum = (of: (i: number) => number) => points.reduce((total, _, i) => total + of(i), 0)
  const v = (i: number) => itemAt(points, i).speedMps
  const s = (i: number) => itemAt(read, i)
  const d = (i: number) => itemAt(signs, i)
  // Normal equations of F and F w.
  const [vv, vd, n] = [sum((i) => v(i) ** 2), sum((i) => v(i) * d(i)), points.length]
  const [vs, ds] = [sum((i) => v(i) * s(i)), sum((i) => d(i) * s(i))]
  const determinant = vv * n - vd * vd
  const root = (vs * n - ds * vd) / determinant
  const wind = (vv * ds - vd * vs) / determinant
  return { airSpeedMps: read.map((each) => each / root), factor: root * root, headWindMps: wind / root }
}
