import { createHash } from 'node:crypto'
import type { BuildRecords, LaterRoad, LaterValues, RoadSummary, StageValue } from '@bold-ballast/core'
import { WAITING } from '@bold-ballast/core'
import { SEARCH_LIMIT_MS, type WorkPool } from '../workers/pool.ts'

/** How often a metric is tried that the pool could not finish, because it was busy or ran out of time. */
const MOST_TRIES = 3
/** How many roads are kept. */
const MOST_ROADS = 200

/**
 * Values that take too long to be waited for: a metric is asked once for each state of a build, worked out for all its stages on a thread of the pool, and
 * there when it is asked for again. One that cannot be worked out is none, so that nobody waits for ever.
 */
export class LateValues {
  private readonly pool: WorkPool
  /** Roads by what they are worked out of, the latest last: a write that alters none asks for none again. */
  private readonly roads = new Map<string, RoadSummary | undefined>()
  private readonly roadsAsked = new Set<string>()

  constructor(pool: WorkPool) {
    this.pool = pool
  }

  /** How a car of these records asks for its late values. */
  of(records: BuildRecords): LaterValues {
    const known = new Map<string, readonly (StageValue | undefined)[]>()
    const running = new Set<string>()
    const tries = new Map<string, number>()
    const work = (metric: string) => {
      running.add(metric)
      tries.set(metric, (tries.get(metric) ?? 0) + 1)
      this.pool
        .run('lateValues', { records, metric }, { limitMs: SEARCH_LIMIT_MS })
        .then((values) => known.set(metric, values))
        .catch(() => (tries.get(metric) ?? 0) >= MOST_TRIES && known.set(metric, []))
        .finally(() => running.delete(metric))
    }
    return (metric, position) => {
      const found = known.get(metric)
      if (found) return found[position]
      if (!running.has(metric)) work(metric)
      return WAITING
    }
  }

  /** How a car asks for its road; one that cannot be worked out is none. */
  readonly road: LaterRoad = (asked) => {
    const key = createHash('sha256').update(JSON.stringify(asked)).digest('base64')
    if (this.roads.has(key)) return this.roads.get(key)
    if (!this.roadsAsked.has(key)) {
      this.roadsAsked.add(key)
      this.pool
        .run('road', asked, { limitMs: SEARCH_LIMIT_MS })
        .then(
          (found) => this.keepRoad(key, found),
          () => this.keepRoad(key, undefined),
        )
        .finally(() => this.roadsAsked.delete(key))
    }
    return WAITING
  }

  private keepRoad(key: string, found: RoadSummary | undefined): void {
    this.roads.set(key, found)
    for (const [oldest] of this.roads) if (this.roads.size > MOST_ROADS) this.roads.delete(oldest)
  }
}
