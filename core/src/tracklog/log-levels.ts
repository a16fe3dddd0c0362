import { requirePositive } from '../errors.ts'

/** Over so many samples least and most are kept beside a channel, so that a long one is drawn without reading it. */
export const LOG_LEVELS = { fine: 64, coarse: 4096 } as const

/**
 * Least and most of each run of samples, one pair behind the other; NaN where nothing was sampled. Rejects runs of no length.
 * @example levelsOf(Float32Array.of(1, 3, 2, 5), 2)[3] // 5
 */
export function levelsOf(samples: Float32Array, per: number): Float32Array {
  requirePositive(per, 'per')
  const runs = Math.ceil(samples.length / per)
  const levels = new Float32Array(2 * runs)
  for (let run = 0; run < runs; run++) {
    let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
    for (let i = run * per; i < Math.min(samples.length, (run + 1) * per); i++) {
      const value = samples[i] as number
      if (value < least) least = value
      if (value > most) most = value
    }
    levels[2 * run] = least === Number.POSITIVE_INFINITY ? Number.NaN : least
    levels[2 * run + 1] = most === Number.NEGATIVE_INFINITY ? Number.NaN : most
  }
  return levels
}
