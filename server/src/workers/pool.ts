import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { AppError } from '../http/problem.ts'
import type { JobAnswer, JobInput, JobName } from './jobs.ts'
import { PersonTurns } from './person-turns.ts'

/** How long a sum may take, and a search; what runs longer is ended and refused. */
export const SUM_LIMIT_MS = 5000
export const SEARCH_LIMIT_MS = 30_000
/** How long reading a file may take. */
export const READ_LIMIT_MS = 120_000
/** What one thread may keep; past it the thread ends, and the server goes on. */
const THREAD_MB = 512
/** Small, so that what is read and let go does not pile up. */
const YOUNG_MB = 8
const MOST_WAITING = 200

interface JobOptions {
  readonly limitMs: number
  /** Ended early when this is: nobody waits for the answer any more. */
  readonly signal?: AbortSignal
  /** Who asked, where people sign in: nobody's sums keep the others' waiting. */
  readonly personId?: string | null
}

/** The built worker beside the built server; the source of it, read through tsx, where the source itself runs. */
export function workerFile(): { filename: string; isSource: boolean } {
  const isSource = import.meta.url.endsWith('.ts')
  return { filename: fileURLToPath(new URL(isSource ? './worker.ts' : './workers/worker.js', import.meta.url)), isSource }
}

const isEnded = (error: unknown) => error instanceof Error && (error.name === 'AbortError' || error.name === 'TimeoutError')
const isOutOfMemory = (error: unknown) => (error as { code?: string } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY'

/** Threads for sums, searches and imports: the serving thread is never kept waiting by one, and none outlives its limit. */
export class WorkPool {
  private made: Piscina | undefined
  private boot: Promise<void> | undefined
  private readonly turns = new PersonTurns()

  /** Made when it is first needed. */
  private threads(): Piscina {
    const { filename, isSource } = workerFile()
    this.made ??= new Piscina({
      filename,
      execArgv: isSource ? ['--import', 'tsx'] : [],
      // Two from the start: while one drives laps that nobody waits for, a sum that somebody asked for finds the other up.
      minThreads: 2,
      maxThreads: Math.max(2, Math.min(4, availableParallelism())),
      maxQueue: MOST_WAITING,
      idleTimeout: 30_000,
      resourceLimits: { maxOldGenerationSizeMb: THREAD_MB, maxYoungGenerationSizeMb: YOUNG_MB },
    })
    return this.made
  }

  /** Runs one job. Rejects with a refusal where it takes longer than its limit, needs too much memory, or too many wait, of all or of one person. */
  run<Name extends JobName>(job: Name, input: JobInput<Name>, options: JobOptions): Promise<JobAnswer<Name>> {
    const work = () => this.runNow(job, input, options)
    return options.personId ? this.turns.run(options.personId, work) : work()
  }

  private async runNow<Name extends JobName>(job: Name, input: JobInput<Name>, { limitMs, signal }: JobOptions): Promise<JobAnswer<Name>> {
    // Whoever left while others of his sums ran wants this one no more.
    signal?.throwIfAborted()
    await this.ready()
    const limit = AbortSignal.timeout(limitMs)
    const ended = signal ? AbortSignal.any([limit, signal]) : limit
    try {
      return (await this.threads().run({ job, input }, { signal: ended })) as JobAnswer<Name>
    } catch (error) {
      if (isEnded(error) || isOutOfMemory(error)) {
        const why = isOutOfMemory(error) ? 'needed more memory than one sum may have' : `took longer than ${limitMs / 1000} s`
        throw new AppError('calculation-refused', `This ${why} and was ended. Ask for less: a shorter range, a larger step, fewer parts.`)
      }
      if (error instanceof Error && /queue/i.test(error.message)) throw new AppError('too-busy', 'Too many sums wait already. Try again in a moment.')
      throw error
    }
  }

  /** How many jobs wait for a thread. */
  get waiting(): number {
    return this.made?.queueSize ?? 0
  }

  /** The first thread, up and ready: what it takes to start counts against no job’s limit. */
  ready(): Promise<void> {
    this.boot ??= this.threads()
      .run({ job: 'nothing', input: null })
      .then(
        () => undefined,
        (error: unknown) => {
          this.boot = undefined
          throw error
        },
      )
    return this.boot
  }

  async close(): Promise<void> {
    await this.made?.destroy()
  }
}
