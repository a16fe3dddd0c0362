import type { RecordsAnswer, StoredRecords } from '@bold-ballast/contract'
import {
  type BrokenRecord,
  type BuildRecords,
  CalculationError,
  type Car,
  type CarOptions,
  joinedPairs,
  openCar,
  type RealPairs,
  readBuildRecords,
  realPairsOf,
  type SidedPair,
} from '@bold-ballast/core'
import type { Knex } from 'knex'
import { lastEntryId } from '../records/history.ts'
import { listsAt } from '../records/log-lines.ts'
import { BuildModel } from '../records/models.ts'
import type { RecordService } from '../records/service.ts'
import type { LateValues } from './late-values.ts'

/** A build as it stands after one line of its log: what is stored, and what calculations take of it. */
export interface OpenBuild {
  readonly revision: number
  readonly stored: StoredRecords
  readonly records: BuildRecords
  readonly broken: readonly BrokenRecord[]
  readonly leftOut: ReadonlySet<string>
  /** The car of these records, opened when it is first asked for; it throws what its records make impossible. */
  readonly car: () => Car
  /** What the other builds teach its guesses, where it learns from them. */
  readonly learns?: Pick<CarOptions, 'garagePairs' | 'garageRealPairs'>
  /** Answers worked out of it, as JSON text by name. */
  readonly answers: Map<string, string>
}

/** How much memory open builds may take, about; and what one record of one takes with all that is worked out of it, measured on a large build. */
const OPEN_BYTES = 256e6
const RECORD_BYTES = 2500
const LEAST_BYTES = 200_000
const MOST_LINES_BEHIND = 20

/** A thing made when it is first asked for. */
function once<Made>(make: () => Made): () => Made {
  let made: { readonly value: Made } | undefined
  return () => {
    made ??= { value: make() }
    return made.value
  }
}

/** The stored records without the broken ones, and those beside them. */
export function answerRecords({ stored, broken, leftOut }: OpenBuild): RecordsAnswer {
  if (leftOut.size === 0) return { ...stored, broken }
  const lists = Object.entries(stored).map(([key, value]) => [key, Array.isArray(value) ? value.filter((row: { id: string }) => !leftOut.has(row.id)) : value])
  return { ...(Object.fromEntries(lists) as StoredRecords), broken }
}

/** About how much memory a build takes that is open. */
const bytesOf = (stored: StoredRecords) =>
  LEAST_BYTES + RECORD_BYTES * Object.values(stored).reduce((sum, list) => sum + (Array.isArray(list) ? list.length : 0), 0)

/** Keeps the builds that are being looked at, read and worked out once for each line of their log. */
export class OpenBuilds {
  private readonly knex: Knex
  private readonly service: RecordService
  private readonly late: LateValues | undefined
  private readonly learned = new Map<string, { from: OpenBuild; revision: number; build: OpenBuild }>()
  private readonly open = new Map<string, { revision: number; build: Promise<OpenBuild>; bytes: number }>()

  constructor(knex: Knex, service: RecordService, late?: LateValues) {
    this.knex = knex
    this.service = service
    this.late = late
  }

  /** How a car of these records asks for what takes long; it waits for ever where there is no pool. */
  private lateOf(records: BuildRecords) {
    return this.late ? { later: this.late.of(records), laterRoad: this.late.roadOf(records.build.id) } : {}
  }

  /** The last line of a build's log, or of all logs: whoever read another one has something older. */
  revision(buildId?: string): Promise<number> {
    return lastEntryId(this.knex, buildId)
  }

  /** The build as it was read last, if it is open and the log has moved by a few lines at most since; it may lack what those lines changed. */
  async nearly(buildId: string): Promise<OpenBuild | undefined> {
    const known = this.open.get(buildId)
    if (!known) return undefined
    const moved = await this.knex('history').where({ buildId }).where('id', '>', known.revision).count('id as count').first()
    return Number(moved?.count ?? 0) <= MOST_LINES_BEHIND ? known.build : undefined
  }

  /** @param known the last line of its log, where whoever asks has just read it */
  async get(buildId: string, known?: number): Promise<OpenBuild> {
    const build = await this.getOwn(buildId, known)
    return build.records.build.guessPairsFrom === 'garage' ? this.withGaragePairs(build) : build
  }

  /** The build learning from the guesses of every other build too; worked out anew when any of them was written to. */
  private async withGaragePairs(build: OpenBuild): Promise<OpenBuild> {
    const { id } = build.records.build
    const revision = await lastEntryId(this.knex)
    const known = this.learned.get(id)
    if (known?.from === build && known.revision === revision) return known.build
    // Guesses are compared within a garage: what stands in another one teaches nothing here.
    const own = this.knex('builds').where({ id }).select('garageId')
    const others = await BuildModel.query(this.knex).whereNull('deletedAt').whereNot({ id }).where('garageId', own).select('id')
    const pairs: SidedPair[] = []
    const realPairs: RealPairs[] = []
    for (const other of others) {
      try {
        const { car, records } = await this.getOwn(other.id)
        pairs.push(...car().ownPairs)
        realPairs.push(realPairsOf(records))
      } catch (error) {
        // A build that cannot be read teaches nothing.
        if (!(error instanceof CalculationError)) throw error
      }
    }
    const learns = { garagePairs: pairs, garageRealPairs: joinedPairs(realPairs) }
    const learned = {
      ...build,
      learns,
      car: once(() => openCar(build.records, { ...learns, ...this.lateOf(build.records) })),
      answers: new Map(),
    }
    this.learned.set(id, { from: build, revision, build: learned })
    return learned
  }

  /** The build as it stood behind a line of its log; worked out when it is asked for, and not kept. */
  async at(buildId: string, entryId: number): Promise<OpenBuild> {
    const now = await this.get(buildId)
    const stored = (await listsAt(this.knex, buildId, now, entryId)) as unknown as StoredRecords
    const read = readBuildRecords(stored)
    const car = once(() => openCar(read.records, { ...now.learns, ...this.lateOf(read.records) }))
    return { revision: entryId, stored, ...read, car, answers: new Map() }
  }

  private async getOwn(buildId: string, lastEntry?: number): Promise<OpenBuild> {
    const revision = lastEntry ?? (await lastEntryId(this.knex, buildId))
    const known = this.open.get(buildId)
    // A log only grows: what was read behind a later line is as good.
    if (known && known.revision >= revision) {
      // The one that was asked for last is let go last.
      this.open.delete(buildId)
      this.open.set(buildId, known)
      return known.build
    }
    // What was read before is a start; one that failed is none.
    const build = Promise.resolve(known?.build).then(
      (before) => this.read(buildId, before),
      () => this.read(buildId),
    )
    this.open.delete(buildId)
    this.open.set(buildId, { revision, build, bytes: known?.bytes ?? LEAST_BYTES })
    build.then(
      (read) => this.weigh(buildId, build, read),
      // A read that failed is not kept.
      () => this.open.get(buildId)?.build === build && this.open.delete(buildId),
    )
    return build
  }

  /** Notes how much a build takes, and lets those go that were longest not asked for, as far as memory asks for it. */
  private weigh(buildId: string, build: Promise<OpenBuild>, { stored }: OpenBuild): void {
    const known = this.open.get(buildId)
    if (known?.build !== build) return
    known.bytes = bytesOf(stored)
    let total = [...this.open.values()].reduce((sum, { bytes }) => sum + bytes, 0)
    for (const [oldest, { bytes }] of this.open) {
      if (total <= OPEN_BYTES || oldest === buildId) break
      this.open.delete(oldest)
      this.learned.delete(oldest)
      total -= bytes
    }
  }

  /** An answer about a build as JSON text, worked out once for each line of its log and each name; not kept while a part of it is being worked out. */
  async answer(buildId: string, name: string, work: (build: OpenBuild) => unknown, lastEntry?: number): Promise<string> {
    const build = await this.get(buildId, lastEntry)
    const known = build.answers.get(name)
    if (known !== undefined) return known
    const answer = work(build)
    const text = JSON.stringify(answer)
    if (!(answer as { isWaiting?: boolean }).isWaiting) build.answers.set(name, text)
    return text
  }

  private async read(buildId: string, before?: OpenBuild): Promise<OpenBuild> {
    const { revision, stored } = await this.service.all(buildId, before)
    const read = readBuildRecords(stored)
    return { revision, stored, ...read, car: once(() => openCar(read.records, this.lateOf(read.records))), answers: new Map() }
  }
}
