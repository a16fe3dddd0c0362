import type { BuildRecords, LaterValues } from '@bold-ballast/core'
import { WAITING } from '@bold-ballast/core'
import type { WorkPool } from '../workers/pool.ts'
import { SUM_LIMIT_MS } from '../workers/pool.ts'

/**
 * Values that take too long to be waited for: asked once for each state of a build, worked out on a thread of the pool, and there when they are asked for
 * again. One that cannot be worked out is none, so that nobody waits for ever.
 */
export class LateValues {
  private readonly pool: WorkPool

  constructor(pool: WorkPool) {
    this.pool = pool
  }

  /** How a car of these records asks for its late values. */
  of(records: BuildRecords): LaterValues {
    const known = new Map<string, unknown>()
    const asked = new Set<string>()
    return (metric, position) => {
      const key = `${metric} ${position}`
      if (known.has(key)) return known.get(key) as never
      if (!asked.has(key)) {
        asked.add(key)
        this.pool
          .run('lateValue', { records, metric, position }, { limitMs: SUM_LIMIT_MS })
          .then((value) => known.set(key, value))
          .catch(() => known.set(key, undefined))
      }
      return WAITING
    }
  }
}
