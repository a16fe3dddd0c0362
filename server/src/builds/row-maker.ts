import { type GarageRow, type LateKnown, NOTHING_KNOWN, type RowMade } from '../garage-rows/garage-row.ts'
import { SEARCH_LIMIT_MS, type WorkPool } from '../workers/pool.ts'
import type { LateValues } from './late-values.ts'
import type { OpenBuild } from './open-builds.ts'

/** Works out what the Garage says of a build on a thread of the pool, so that no answer waits for it. */
export class RowMaker {
  private readonly pool: WorkPool
  private readonly late: LateValues

  constructor(pool: WorkPool, late: LateValues) {
    this.pool = pool
    this.late = late
  }

  private run({ records, learns, broken }: OpenBuild, day: string, known: LateKnown): Promise<RowMade> {
    return this.pool.run('garageRow', { records, learns, day, brokenCount: broken.length, known }, { limitMs: SEARCH_LIMIT_MS })
  }

  /** Asks again as long as what it lacks is found. */
  private async make(build: OpenBuild, day: string, find: (lacks: RowMade['lacks']) => Promise<LateKnown> | LateKnown | undefined): Promise<GarageRow> {
    let known = NOTHING_KNOWN
    for (;;) {
      const { row, lacks } = await this.run(build, day, known)
      if (lacks.metrics.length + lacks.roads.length === 0) return row
      const more = await find(lacks)
      if (!more) return row
      known = { values: { ...known.values, ...more.values }, roads: [...known.roads, ...more.roads] }
    }
  }

  /** The row as far as it is known at once; `isWaiting` where it lacks something, which is begun. */
  now(build: OpenBuild, day: string): Promise<GarageRow> {
    return this.make(build, day, ({ metrics, roads }) => this.late.known(build.records, metrics, roads))
  }

  /** The whole row, however long it takes. */
  whole(build: OpenBuild, day: string): Promise<GarageRow> {
    return this.make(build, day, ({ metrics, roads }) => this.late.whenKnown(build.records, metrics, roads))
  }
}
