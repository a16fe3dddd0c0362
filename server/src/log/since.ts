import type { SinceAnswer, sinceQuerySchema } from '@bold-ballast/contract'
import type { LiveLists, z } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { OpenBuilds } from '../builds/open-builds.ts'
import type { Asker } from '../http/asker.ts'
import { AppError } from '../http/problem.ts'
import { linesBehind } from '../records/log-lines.ts'
import { SEARCH_LIMIT_MS, type WorkPool } from '../workers/pool.ts'

/** As far back as a look goes that names no beginning. */
const USUAL_DAYS = 7
const DAY_MS = 86_400_000

interface Line {
  readonly id: number
  readonly at: string
}

/** What moved a number since a line of the log, worked out away from the serving thread. */
export class SinceService {
  private readonly knex: Knex
  private readonly open: OpenBuilds
  private readonly pool: WorkPool

  constructor(knex: Knex, open: OpenBuilds, pool: WorkPool) {
    this.knex = knex
    this.open = open
    this.pool = pool
  }

  private lineBefore(buildId: string, time: Date): Promise<Line | undefined> {
    return this.knex('history').where({ buildId }).where('at', '<', time).orderBy('id', 'desc').first('id', 'at')
  }

  /** The line that a look begins behind; a build that is younger is looked at from its making on. */
  private async beginning(buildId: string, from: number | string | undefined): Promise<Line | undefined> {
    if (from === 0) return undefined
    if (typeof from === 'number') {
      const found = (await this.knex('history').where({ buildId, id: from }).first('id', 'at')) as Line | undefined
      if (!found) throw new AppError('not-found', 'The log of this build has no such entry.')
      return found
    }
    const time = from === undefined ? new Date(Date.now() - USUAL_DAYS * DAY_MS) : new Date(`${from}T00:00:00`)
    return (await this.lineBefore(buildId, time)) ?? this.knex('history').where({ buildId }).orderBy('id').first('id', 'at')
  }

  async answer(buildId: string, { from, metric, stage, ends, day }: z.output<typeof sinceQuerySchema>, today: string, asker: Asker): Promise<SinceAnswer> {
    const build = await this.open.get(buildId)
    const begin = await this.beginning(buildId, from)
    const lines = await linesBehind(this.knex, buildId, begin?.id ?? 0, build.revision)
    const stages = [...build.records.stages].sort((a, b) => a.position - b.position)
    const stageId = stages.find(({ id }) => id === stage)?.id ?? stages.at(-1)?.id ?? ''
    const moved = await this.pool.run(
      'whatMoved',
      {
        lists: build.stored as unknown as LiveLists,
        lines,
        asked: { metric, stageId, today: day ?? today, ...(build.learns ? { learns: build.learns } : {}) },
        isWhole: ends === 'no',
      },
      { limitMs: SEARCH_LIMIT_MS, ...asker },
    )
    const last = (await this.knex('history').where({ buildId, id: build.revision }).first('at')) as { at: string } | undefined
    return {
      from: begin?.id ?? 0,
      fromAt: begin ? new Date(begin.at).toISOString() : null,
      revision: build.revision,
      revisionAt: new Date(last?.at ?? 0).toISOString(),
      lineCount: lines.length,
      stageId,
      moved,
    }
  }
}
