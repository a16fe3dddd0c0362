import type { BuildRecords, LaterRoad, LaterValues, RoadAsked, RoadSummary, StageValue } from '@bold-ballast/core'
import { WAITING } from '@bold-ballast/core'
import type { LateKnown } from '../garage-rows/garage-row.ts'
import { SEARCH_LIMIT_MS, type WorkPool } from '../workers/pool.ts'
import type { KeptResults } from './kept-results.ts'

/** How often a metric is tried that the pool could not finish, because it was busy or ran out of time. */
const MOST_TRIES = 3
/** How many roads are kept. */
const MOST_ROADS = 200

type Values = readonly (StageValue | undefined)[]

/** What is known of one state of a build, and what is being worked out. */
interface OfRecords {
  readonly known: Map<string, Values>
  readonly running: Map<string, Promise<void>>
  readonly tries: Map<string, number>
  hash?: Buffer
}

/**
 * Values that take too long to be waited for: a metric is asked once for each state of a build, worked out for all its stages on a thread of the pool, and
 * there when it is asked for again. One that cannot be worked out is none, so that nobody waits for ever.
 */
export class LateValues {
  private readonly pool: WorkPool
  private readonly kept: KeptResults
  private readonly states = new WeakMap<BuildRecords, OfRecords>()
  /** Roads by what they are worked out of, the latest last: a write that alters none asks for none again. */
  private readonly roads = new Map<string, RoadSummary | undefined>()
  private readonly roadsAsked = new Map<string, Promise<RoadSummary | undefined>>()

  constructor(pool: WorkPool, kept: KeptResults) {
    this.pool = pool
    this.kept = kept
  }

  private stateOf(records: BuildRecords): OfRecords {
    const state = this.states.get(records) ?? { known: new Map(), running: new Map(), tries: new Map() }
    this.states.set(records, state)
    return state
  }

  /** Begins what is neither known nor begun. */
  private work(records: BuildRecords, metric: string): Promise<void> {
    const state = this.stateOf(records)
    const begun = state.running.get(metric)
    if (begun) return begun
    const tries = (state.tries.get(metric) ?? 0) + 1
    state.tries.set(metric, tries)
    state.hash ??= this.kept.hashOf(records)
    const work = this.kept
      .of({ buildId: records.build.id, name: metric, hash: state.hash }, () => this.pool.run('lateValues', { records, metric }, { limitMs: SEARCH_LIMIT_MS }))
      .then(
        (values) => void state.known.set(metric, values),
        () => void (tries >= MOST_TRIES && state.known.set(metric, [])),
      )
      .finally(() => state.running.delete(metric))
    state.running.set(metric, work)
    return work
  }

  /** How a car of these records asks for its late values. */
  of(records: BuildRecords): LaterValues {
    const { known } = this.stateOf(records)
    return (metric, position) => {
      const found = known.get(metric)
      if (found) return found[position]
      void this.work(records, metric)
      return WAITING
    }
  }

  /** What is known of these metrics and roads; undefined where one of them is being worked out, which this begins. */
  known(records: BuildRecords, metrics: readonly string[], roads: readonly RoadAsked[]): LateKnown | undefined {
    const state = this.stateOf(records)
    const unknown = metrics.filter((metric) => !state.known.has(metric))
    for (const metric of unknown) void this.work(records, metric)
    const found = roads.map((asked) => ({ asked, found: this.roadOf(records.build.id)(asked) }))
    if (unknown.length > 0 || found.some((road) => road.found === WAITING)) return undefined
    return {
      values: Object.fromEntries(metrics.map((metric) => [metric, state.known.get(metric) ?? []])),
      roads: found as LateKnown['roads'],
    }
  }

  /** The same once all of it is there. */
  async whenKnown(records: BuildRecords, metrics: readonly string[], roads: readonly RoadAsked[]): Promise<LateKnown> {
    const [values, found] = await Promise.all([
      Promise.all(metrics.map(async (metric) => [metric, await this.values(records, metric)] as const)),
      Promise.all(roads.map(async (asked) => ({ asked, found: await this.road(records.build.id, asked) }))),
    ])
    return { values: Object.fromEntries(values), roads: found }
  }

  /** A metric at every stage, once it is there. */
  async values(records: BuildRecords, metric: string): Promise<Values> {
    const { known } = this.stateOf(records)
    for (;;) {
      const found = known.get(metric)
      if (found) return found
      await this.work(records, metric)
    }
  }

  /** Begins a road that is not begun. */
  private workRoad(buildId: string, asked: RoadAsked, hash: Buffer): Promise<RoadSummary | undefined> {
    const key = hash.toString('base64')
    const begun = this.roadsAsked.get(key)
    if (begun) return begun
    const work = this.kept
      .of({ buildId, name: 'road', hash }, () => this.pool.run('road', asked, { limitMs: SEARCH_LIMIT_MS }))
      .catch(() => undefined)
      .then((found) => {
        this.keepRoad(key, found)
        return found
      })
      .finally(() => this.roadsAsked.delete(key))
    this.roadsAsked.set(key, work)
    return work
  }

  /** How the car of a build asks for its road; one that cannot be worked out is none. Days count from the one that it is asked on. */
  roadOf(buildId: string): LaterRoad {
    return (asked) => {
      const hash = this.kept.hashOf(asked)
      const key = hash.toString('base64')
      if (this.roads.has(key)) return this.roads.get(key)
      void this.workRoad(buildId, asked, hash)
      return WAITING
    }
  }

  /** A road, once it is there. */
  async road(buildId: string, asked: RoadAsked): Promise<RoadSummary | undefined> {
    const hash = this.kept.hashOf(asked)
    const key = hash.toString('base64')
    return this.roads.has(key) ? this.roads.get(key) : this.workRoad(buildId, asked, hash)
  }

  private keepRoad(key: string, found: RoadSummary | undefined): void {
    this.roads.set(key, found)
    for (const [oldest] of this.roads) if (this.roads.size > MOST_ROADS) this.roads.delete(oldest)
  }
}
