import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 as G } from '../mass/suspension.ts'
import { median } from '../stats/moments.ts'

/** One lap's accelerations and speeds, sample by sample. */
export interface LapGripTrace {
  readonly speedMps: ArrayLike<number>
  readonly alongMps2: ArrayLike<number>
  readonly acrossMps2: ArrayLike<number>
}

/** Below it no corner is counted, g. */
const TURNING_G = 0.5
const SHARE = 0.95
const FEWEST_SAMPLES = 20

/** What the loads of a lap are reckoned with. */
export interface GripCar {
  readonly massKg: number
  readonly downforceM2: number
  readonly airDensityKgM3: number
}

/**
 * Grip that the corners of one lap used: the 95th share of m √(a_x² + a_y²)/(m g + q (A_f + A_r)) where it turns with over half a g.
 * Source: the room's page. Rejects a lap with fewer than 20 such samples.
 * @example lapGripUsed(CORNERING_LAP, { massKg: 1180, downforceM2: 0.6, airDensityKgM3: 1.19 }) // 1.18
 */
export function lapGripUsed(lap: LapGripTrace, { massKg, downforceM2, airDensityKgM3 }: GripCar): number {
  const used: number[] = []
  for (let i = 0; i < lap.speedMps.length; i++) {
    const across = itemAt(lap.acrossMps2, i)
    // A channel that was not sampled then is no number, and no corner.
    if (!(Math.abs(across) >= TURNING_G * G)) continue
    const q = 0.5 * airDensityKgM3 * itemAt(lap.speedMps, i) ** 2
    const grip = (massKg * Math.hypot(itemAt(lap.alongMps2, i), across)) / (massKg * G + q * downforceM2)
    if (!Number.isNaN(grip)) used.push(grip)
  }
  if (used.length < FEWEST_SAMPLES)
    throw new CalculationError('missing', 'samples', `It turns with over half a g in ${used.length} samples; ${FEWEST_SAMPLES} are the least.`)
  used.sort((a, b) => a - b)
  return itemAt(used, Math.min(used.length - 1, Math.floor(SHARE * used.length)))
}

/**
 * Grip that corners showed: the median over laps of what each used. Source: the room's page. Rejects laps with too few corners, by their number.
 * @example cornerGrip([CORNERING_LAP], { massKg: 1180, downforceM2: 0.6, airDensityKgM3: 1.19 }) // 1.18
 */
export function cornerGrip(laps: readonly LapGripTrace[], car: GripCar): number {
  const found = laps.map((lap, number) => {
    try {
      return lapGripUsed(lap, car)
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      throw new CalculationError('missing', `laps.${number}`, `Lap ${number + 1}: ${error.message}`)
    }
  })
  if (found.length === 0) throw new CalculationError('missing', 'laps', 'No clean lap with accelerations.')
  return median(found)
}
