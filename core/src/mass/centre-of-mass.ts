import { CalculationError, requirePositive } from '../errors.ts'
import { cornerFigures, type PadName, type PadReading, type Pads } from './corners.ts'

export interface CentreOfMass {
  /** Behind the front axle. */
  readonly behindFrontAxleM: { value: number; sd: number }
  /** Left of the middle positive. */
  readonly leftOfMiddleM: { value: number; sd: number }
}

/**
 * Where the centre of mass lies in plan: a = L W_rear/W, y = (t_f (LF − RF) + t_r (LR − RR))/(2W).
 * Source: moments, closed form. Tracks are between contact centres. Rejects lengths of zero or less and what cornerFigures rejects.
 */
export function centreOfMass(input: { pads: Pads; wheelbaseM: number; trackFrontM: number; trackRearM: number }): CentreOfMass {
  const { pads, wheelbaseM, trackFrontM, trackRearM } = input
  requirePositive(wheelbaseM, 'wheelbaseM')
  requirePositive(trackFrontM, 'trackFrontM')
  requirePositive(trackRearM, 'trackRearM')
  const figures = cornerFigures(pads)
  const read = pads as Record<PadName, PadReading>
  const total = figures.totalKg.value
  const arms: [PadName, number][] = [
    ['LF', trackFrontM / 2],
    ['RF', -trackFrontM / 2],
    ['LR', trackRearM / 2],
    ['RR', -trackRearM / 2],
  ]
  const across = arms.reduce((sum, [name, arm]) => sum + read[name].massKg * arm, 0) / total
  const acrossVariance = arms.reduce((sum, [name, arm]) => sum + (((arm - across) / total) * read[name].sdKg) ** 2, 0)
  return {
    behindFrontAxleM: { value: wheelbaseM * (1 - figures.frontShare.value), sd: wheelbaseM * figures.frontShare.sd },
    leftOfMiddleM: { value: across, sd: Math.sqrt(acrossVariance) },
  }
}

export interface PlacedMass {
  /** Negative for a part that comes off. */
  readonly massKg: number
  /** Rearward of the front axle, left, up; undefined where nobody knows. */
  readonly xM?: number | undefined
  readonly yM?: number | undefined
  readonly zM?: number | undefined
  /** About its own vertical axis. */
  readonly yawInertiaKgM2?: number | undefined
}

export interface CombinedMass {
  readonly massKg: number
  readonly xM: number
  readonly yM: number
  readonly zM: number
  readonly yawInertiaKgM2: number
  /** The share of the mass that has no place and is left out of centre and inertia. */
  readonly unplacedShare: number
}

/**
 * Mass, centre and yaw inertia of parts put together (or taken off, with a negative mass, and their own inertia with it).
 * x̄ = Σmx/Σm; I = Σ(I_k + m_k((x_k − x̄)² + (y_k − ȳ)²)). Source: parallel axis theorem, closed form.
 * Rejects a total of zero or less, no placed part, and an inertia of zero or less after removal.
 */
export function combineMasses(parts: readonly PlacedMass[]): CombinedMass {
  if (parts.length === 0) throw new CalculationError('missing', 'parts', 'There is no part to combine. Give at least one.')
  const massKg = parts.reduce((sum, part) => sum + part.massKg, 0)
  if (!(massKg > 0)) throw new CalculationError('out-of-range', 'parts', `The parts add up to ${massKg} kg; the total must be more than zero.`)
  const placed = parts.filter((part) => part.xM !== undefined && part.yM !== undefined && part.zM !== undefined) as Required<PlacedMass>[]
  const placedKg = placed.reduce((sum, part) => sum + part.massKg, 0)
  if (!(placedKg > 0)) throw new CalculationError('missing', 'parts', 'No mass has a place. Give x, y and z of at least one part.')
  const weighted = (pick: (part: Required<PlacedMass>) => number) => placed.reduce((sum, part) => sum + part.massKg * pick(part), 0) / placedKg
  const [xM, yM, zM] = [weighted((part) => part.xM), weighted((part) => part.yM), weighted((part) => part.zM)]
  const yawInertiaKgM2 = placed.reduce(
    (sum, part) => sum + Math.sign(part.massKg) * (part.yawInertiaKgM2 ?? 0) + part.massKg * ((part.xM - xM) ** 2 + (part.yM - yM) ** 2),
    0,
  )
  if (yawInertiaKgM2 < 0) throw new CalculationError('inconsistent', 'parts', 'What comes off has more inertia than what it comes off.')
  return { massKg, xM, yM, zM, yawInertiaKgM2, unplacedShare: (massKg - placedKg) / massKg }
}
