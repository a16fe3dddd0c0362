import type { GarageEntry, StoredBuild } from '@bold-ballast/contract'
import { CalculationError } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { AWAITED_ROW, brokenRow, type GarageRow } from '../garage-rows/garage-row.ts'
import type { Access } from '../http/access.ts'
import { BuildModel } from '../records/models.ts'
import { plain } from '../records/versioned.ts'
import type { OpenBuilds } from './open-builds.ts'
import type { RowMaker } from './row-maker.ts'

/** Raised by whoever changes what a row of the Garage says, or how it is worked out: rows of another number are made anew. */
const MADE_BY = 1
export const BUILDS_A_PAGE = 50
/** So long an answer works out rows that are missing; the others come a little later. */
const WORK_MS = 150
/** Of so many lines in the ledger a build takes longer than that by itself. */
const LONG_LINES = 300
/** So long after an answer the rows that it lacked are begun. */
const AFTER_MS = 50
/** So long nobody has written to a build before its row is made anew. */
const QUIET_MS = 2000

interface Row {
  readonly id: string
  readonly lastEntry: number
  readonly entryId: number | null
  readonly day: string | null
  readonly madeBy: number | null
  readonly entry: GarageRow | null
  /** Whether its ledger is so long that nobody should wait for it. */
  readonly isLong: boolean
}

interface Asked {
  readonly day: string
  /** A part of the name; empty: any. */
  readonly name: string
  /** From 1. */
  readonly page: number
}

export interface GaragePage {
  readonly entries: readonly GarageEntry[]
  /** How many builds there are, on all pages. */
  readonly total: number
}

const isFresh = (row: Row, day: string) => row.entryId === row.lastEntry && row.day === day && row.madeBy === MADE_BY
/** A text that LIKE takes as it stands. */
const asWritten = (text: string) => text.replaceAll(/[\\%_]/g, '\\$&')
const pause = () => new Promise((done) => setImmediate(done))

/** The Garage: a row for each build, made when nobody writes to it for a moment, so that many builds are shown without opening them. */
export class Garage {
  private readonly knex: Knex
  private readonly open: OpenBuilds
  private readonly maker: RowMaker
  private readonly waiting = new Map<string, string>()
  private readonly quiet = new Map<string, NodeJS.Timeout>()
  private working: Promise<void> | undefined

  constructor(knex: Knex, open: OpenBuilds, maker: RowMaker) {
    this.knex = knex
    this.open = open
    this.maker = maker
  }

  private found(seen: ReadonlySet<string> | null, name: string) {
    return this.knex('builds')
      .whereNull('deletedAt')
      .where((query) => {
        if (seen) void query.whereIn('builds.id', [...seen])
        if (name) void query.whereRaw("lower(name) LIKE '%' || lower(?) || '%'", [asWritten(name)])
      })
  }

  async page({ day, name, page }: Asked, access: Access): Promise<GaragePage> {
    const seen = await access.buildsSeen(this.knex)
    const [counted, rows] = await Promise.all([
      this.found(seen, name).count('id as count').first(),
      this.found(seen, name)
        .leftJoin('garageRows', 'garageRows.buildId', 'builds.id')
        .orderBy(['createdAt', 'builds.id'])
        .offset((page - 1) * BUILDS_A_PAGE)
        .limit(BUILDS_A_PAGE)
        .select(
          'builds.id',
          'entryId',
          'day',
          'madeBy',
          'entry',
          // What learns from other builds is true until any of them was written to.
          this.knex.raw(
            `COALESCE(CASE WHEN guess_pairs_from = 'garage' THEN (SELECT max(id) FROM history)
              ELSE (SELECT max(h.id) FROM history h WHERE h.build_id = builds.id) END, 0) AS "lastEntry"`,
          ),
          this.knex.raw(`EXISTS (SELECT 1 FROM changes c WHERE c.build_id = builds.id OFFSET ${LONG_LINES}) AS "isLong"`),
        ) as Promise<Row[]>,
    ])
    const builds = new Map(
      (await BuildModel.query(this.knex).findByIds(rows.map(({ id }) => id))).map((build) => [build.id, plain(build) as unknown as StoredBuild]),
    )
    const until = performance.now() + WORK_MS
    const entries: GarageEntry[] = []
    const late: string[] = []
    for (const row of rows) {
      const build = builds.get(row.id)
      // Deleted in between.
      if (!build) continue
      if (row.entry && isFresh(row, day)) entries.push({ ...row.entry, build })
      else {
        const before: GarageRow = row.entry && row.madeBy === MADE_BY ? { ...row.entry, isWaiting: true } : AWAITED_ROW
        const made = row.isLong || performance.now() >= until ? before : await this.make(build, row.lastEntry, day, 'now').catch(() => before)
        if (made.isWaiting) late.push(row.id)
        entries.push({ ...made, build })
      }
    }
    // Once this is answered: what takes long would keep it waiting.
    if (late.length > 0) setTimeout(() => late.forEach((id) => void this.later(id, day)), AFTER_MS).unref()
    return { entries, total: Number(counted?.count ?? 0) }
  }

  /** Works out a row and keeps it, unless a number of it is still being worked out. */
  private async make(build: StoredBuild, lastEntry: number, day: string, how: 'now' | 'whole'): Promise<GarageRow> {
    try {
      const opened = await this.open.get(build.id)
      const row = await this.maker[how](opened, day)
      const learns = opened.records.build.guessPairsFrom === 'garage'
      if (!row.isWaiting) await this.keep(build.id, learns ? lastEntry : opened.revision, day, row)
      return row
    } catch (error) {
      if (error instanceof CalculationError) return brokenRow(error.message)
      throw error
    }
  }

  private async keep(buildId: string, entryId: number, day: string, entry: GarageRow): Promise<void> {
    const row = { buildId, entryId, day, madeBy: MADE_BY, entry: JSON.stringify(entry) }
    // Another server may have kept a later one.
    await this.knex('garageRows')
      .insert(row)
      .onConflict('build_id')
      .merge()
      .where((query) => {
        void query.where('garage_rows.entry_id', '<=', entryId).orWhere('garage_rows.made_by', '<>', MADE_BY)
      })
  }

  /** Somebody wrote to a build: its row is made anew once nobody does for a moment. */
  written(buildId: string, day: string): void {
    clearTimeout(this.quiet.get(buildId))
    const timer = setTimeout(() => {
      this.quiet.delete(buildId)
      this.later(buildId, day)
    }, QUIET_MS)
    this.quiet.set(buildId, timer.unref())
  }

  private later(buildId: string, day: string): void {
    this.waiting.set(buildId, day)
    this.working ??= this.workOff().finally(() => {
      this.working = undefined
    })
  }

  /** One after the other, so that others are answered in between; what cannot be made now is made when it is asked for. */
  private async workOff(): Promise<void> {
    for (const [buildId, day] of this.waiting) {
      this.waiting.delete(buildId)
      await pause()
      const build = await BuildModel.query(this.knex)
        .findById(buildId)
        .whereNull('deletedAt')
        .catch(() => undefined)
      if (!build) continue
      const plainBuild = plain(build) as unknown as StoredBuild & { guessPairsFrom?: string }
      const last = plainBuild.guessPairsFrom === 'garage' ? await this.open.revision().catch(() => 0) : 0
      await this.make(plainBuild, last, day, 'whole').catch(() => undefined)
    }
  }
}
