import { spawn } from 'node:child_process'
import type { CopiesAnswer, CopyEntry } from '@bold-ballast/contract'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { AppError } from '../http/problem.ts'
import { COPY_LOCK } from './take.ts'

export interface KeepOptions {
  /** Where copies lie. */
  readonly folder: string
  /** The program that takes and checks them, apart from the serving one and behind it in line. */
  readonly script: string
}

interface KeeperParts extends KeepOptions {
  readonly knex: Knex
  /** Of the role that owns the tables. */
  readonly databaseUrl: string
  readonly logger: Logger
}

/** A server that has just started has other things to do. */
const FIRST_LOOK_MS = 60_000
const LOOK_MS = 3_600_000
const SHOWN = 60
const SAID_CHARACTERS = 2000

/** Looks after the copies of a database: one a day, and one whenever somebody asks for it. */
export class CopyKeeper {
  readonly folder: string
  private readonly parts: KeeperParts
  private readonly timers: NodeJS.Timeout[] = []
  private readonly ended = new AbortController()
  private running = 0

  constructor(parts: KeeperParts) {
    this.folder = parts.folder
    this.parts = parts
  }

  /** Looks by the hour whether the last day has a copy. */
  begin(): void {
    const look = () => void this.takeWhereDue().catch((error: unknown) => this.parts.logger.error({ err: error }, 'no copy was taken'))
    this.timers.push(setTimeout(look, FIRST_LOOK_MS).unref(), setInterval(look, LOOK_MS).unref())
  }

  private async takeWhereDue(): Promise<void> {
    const { rows } = await this.parts.knex.raw(`SELECT 1 FROM copies WHERE problem IS NULL AND taken_at > now() - interval '23 hours' LIMIT 1`)
    if (rows.length === 0 && !(await this.isRunning())) await this.take()
  }

  /** Runs the program of copies. Rejects with what it said last. */
  private run(args: readonly string[]): Promise<void> {
    const { script, databaseUrl, folder } = this.parts
    const env = { ...process.env, DATABASE_URL: databaseUrl, DATABASE_OWNER_URL: databaseUrl, COPIES_DIR: folder }
    this.running++
    const done = new Promise<void>((resolve, reject) => {
      const child = spawn(process.execPath, [script, ...args], { env, stdio: ['ignore', 'ignore', 'pipe'], signal: this.ended.signal })
      let said = ''
      child.stderr.on('data', (chunk: Buffer) => {
        said = (said + chunk.toString('utf8')).slice(-SAID_CHARACTERS)
      })
      child.once('error', reject)
      child.once('close', (code) => (code === 0 ? resolve() : reject(new Error(said.trim().split('\n').at(-1) || `the copy ended with ${code}`))))
    })
    return done.finally(() => this.running--)
  }

  /** Takes a copy and tries it out; others go on writing meanwhile. */
  take(): Promise<void> {
    return this.run(['--low'])
  }

  /** The copy that an upgrade rests on: one that is being taken meanwhile is waited for. */
  takeNext(): Promise<void> {
    return this.run(['--next'])
  }

  /** Refuses while a copy is being taken or tried out. */
  async requireFree(): Promise<void> {
    if (await this.isRunning()) throw new AppError('too-busy', 'A copy is being taken, or tried out. Wait until it is done.')
  }

  /** Tries out a copy that was taken before. */
  async check(id: string): Promise<void> {
    await this.requireFree()
    const found = (await this.parts.knex('copies').where({ id }).whereNull('removedAt').first('path')) as { path: string } | undefined
    if (!found) throw new AppError('not-found', 'There is no such copy any more.')
    void this.run(['--check', found.path]).catch((error: unknown) => this.parts.logger.warn({ err: error }, 'a copy is not whole'))
  }

  /** Whether a copy is being taken or tried out, by whatever server or terminal. */
  private async isRunning(): Promise<boolean> {
    if (this.running > 0) return true
    const { rows } = await this.parts.knex.raw(
      `SELECT 1 FROM pg_locks l JOIN pg_database d ON d.oid = l.database WHERE d.datname = current_database() AND l.locktype = 'advisory' AND l.objid = ${COPY_LOCK} LIMIT 1`,
    )
    return rows.length > 0
  }

  async list(): Promise<CopiesAnswer> {
    const copies = (await this.parts
      .knex('copies')
      .whereNull('removedAt')
      .orderBy('takenAt', 'desc')
      .limit(SHOWN)
      .select('id', 'takenAt', 'path', 'bytes', 'entryId', 'checkedAt', 'problem')) as CopyEntry[]
    return { folder: this.folder, isRunning: await this.isRunning(), copies }
  }

  /** Seconds since the last copy that was found whole; undefined: there is none. */
  async ageS(): Promise<number | undefined> {
    const { rows } = await this.parts.knex.raw(
      'SELECT CAST(extract(epoch FROM now() - max(taken_at)) AS float8) AS age FROM copies WHERE problem IS NULL AND removed_at IS NULL',
    )
    return (rows[0] as { age: number | null }).age ?? undefined
  }

  end(): void {
    for (const timer of this.timers) clearTimeout(timer)
    this.ended.abort()
  }
}
