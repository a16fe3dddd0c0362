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

/**
 * Grip that corners showed: of each lap the 95th share of m √(a_x² + a_y²)/(m g + q (A_f + A_r)) where it turns with over half a g, the median over laps.
 * Source: the room's page. Rejects laps with fewer than 20 such samples.
 * @example cornerGrip([CORNERING_LAP], { massKg: 1180, downforceM2: 0.6, airDensityKgM3: 1.19 }) // 1.18
 */
export function cornerGrip(
  laps: readonly LapGripTrace[],
  { massKg, downforceM2, airDensityKgM3 }: { massKg: number; downforceM2: number; airDensityKgM3: number },
): number {
  const found = laps.map((lap, number) => {
    const used: number[] = []
    for (let i = 0; i < lap.speedMps.length; i++) {
      const across = itemAt(lap.acrossMps2, i)
      if (Math.abs(across) < TURNING_G * G) continue
      const q = 0.5 * airDensityKgM3 * itemAt(lap.speedMps, i) ** 2
      used.push((massKg * Math.hypot(itemAt(lap.alongMps2, i), across)) / (massKg * G + q * downforceM2))
    }
    if (used.length < FEWEST_SAMPLES)
      throw new CalculationError(
        'missing',
        `laps.${number}`,
        `Lap ${number + 1} turns with over half a g in ${used.length} samples; ${FEWEST_SAMPLES} are the least.`,
      )
    used.sort((a, b) => a - b)
    return itemAt(used, Math.min(used.length - 1, Math.floor(SHARE * used.length)))
  })
  if (found.length === 0) throw new CalculationError('missing', 'laps', 'No clean lap with accelerations.')
  return median(found)
}
