import { CalculationError, requirePositive } from '../errors.ts'
import { missingPads, PAD_NAMES, PAD_WORDS, type PadName, type PadReading, type Pads, type ShareWithSpread } from './corners.ts'
import { STANDARD_GRAVITY_MPS2 } from './suspension.ts'

/** Where nobody knows better (common practice, no source): rate of a corner with its tyre, height of a block off the pads', centre above the axles. */
export const RIDE_RATE_N_PER_M = 40_000
export const BLOCK_ERROR_M = 0.002
const CENTRE_ABOVE_AXLES_M = 0.25

/** What a block that stands h off the pads' height adds to each corner: ±k h/4, in kg. Source: warp of four springs, closed form. */
export const blockSpreadKg = (rideRateNPerM: number, blockErrorM: number): number => (rideRateNPerM * blockErrorM) / 4 / STANDARD_GRAVITY_MPS2

/**
 * Two placements of the car in which every corner was read on a good pad at least once; a corner read twice counts by its mean.
 * A height error h of a block adds ±k h/4 to each corner, so its spread goes into each reading's sd.
 */
export function joinPlacements(first: Pads, second: Pads, spreadKg: number): Pads {
  const joined = {} as Record<PadName, PadReading | null>
  for (const name of PAD_NAMES) {
    const [a, b] = [first[name], second[name]]
    const one = a && b ? { massKg: (a.massKg + b.massKg) / 2, sdKg: Math.hypot(a.sdKg, b.sdKg) / 2 } : (a ?? b)
    joined[name] = one && { massKg: one.massKg, sdKg: Math.hypot(one.sdKg, spreadKg) }
  }
  return joined
}

export interface FloorFigures {
  readonly totalKg: ShareWithSpread
  readonly frontShare: ShareWithSpread
  /** What the tilt may take off either axle, kg. */
  readonly tiltKg: number
}

export const FLOOR_SENTENCE =
  'With the other axle on the bare floor only total and front share are known; left share and cross need all four wheels on one plane.'
export const BLOCK_ADVICE = 'A block a millimetre off changes cross more than the pads do: do not set cross by this weighing.'

/**
 * One axle on the pads, the other on the bare floor, then the other way round: total and front share, with the tilt in the spread.
 * An axle raised by the pads' height H reads W q tan θ/D too little, tan θ ≈ H/D, q the centre's height above the axles; both do.
 * Source: moments, closed form. Rejects a missing reading and lengths of zero or less.
 */
export function floorFigures(input: { pads: Pads; padHeightM: number; wheelbaseM: number; centreAboveAxlesM?: number | undefined }): FloorFigures {
  const { pads, padHeightM, wheelbaseM, centreAboveAxlesM = CENTRE_ABOVE_AXLES_M } = input
  requirePositive(padHeightM, 'padHeightM')
  requirePositive(wheelbaseM, 'wheelbaseM')
  const [missing] = missingPads(pads)
  if (missing) throw new CalculationError('missing', `pads.${missing}`, `No reading of the ${PAD_WORDS[missing]} wheel. Read each axle on two good pads.`)
  const read = pads as Record<PadName, PadReading>
  const totalKg = PAD_NAMES.reduce((sum, name) => sum + read[name].massKg, 0)
  requirePositive(totalKg, 'pads')
  const front = (read.LF.massKg + read.RF.massKg) / totalKg
  const tiltKg = (totalKg * centreAboveAxlesM * Math.tan(Math.asin(padHeightM / wheelbaseM))) / wheelbaseM
  const [frontSd, rearSd] = [Math.hypot(read.LF.sdKg, read.RF.sdKg), Math.hypot(read.LR.sdKg, read.RR.sdKg)]
  // Both axles are off by the tilt in one direction, so in the total it counts twice.
  const totalSd = Math.hypot(frontSd, rearSd, 2 * tiltKg)
  const shareSd = Math.hypot((1 - front) * frontSd, front * rearSd, (1 - 2 * front) * tiltKg) / totalKg
  return { totalKg: { value: totalKg, sd: totalSd }, frontShare: { value: front, sd: shareSd }, tiltKg }
}
