import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { AppError } from '../http/problem.ts'
import { normal } from './passwords.ts'

/** Argon2id with 19 MiB, two passes, one lane: the least that OWASP's cheat sheet on storing passwords names (from memory). */
const COST = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const
const AT_ONCE = 2
const MOST_WAITING = 20

/** Hashes and compares secrets, two at a time, so that a rush of sign-ins takes neither all memory nor all time. */
export class Hasher {
  private readonly limit = pLimit(AT_ONCE)
  private dummy: Promise<string> | undefined

  private run<Answer>(work: () => Promise<Answer>): Promise<Answer> {
    if (this.limit.pendingCount >= MOST_WAITING) throw new AppError('too-busy', 'Too many sign in at once. Try again in a moment.', { retryAfterS: 2 })
    return this.limit(work)
  }

  hash(secret: string): Promise<string> {
    return this.run(() => hash(normal(secret), COST))
  }

  /** Whether a secret is the one that was hashed; where there is none, it takes as long and is not. */
  async isRight(kept: string | null | undefined, secret: string): Promise<boolean> {
    this.dummy ??= hash('nobody has this', COST)
    const compared = kept ?? (await this.dummy)
    const isSame = await this.run(() => verify(compared, normal(secret)))
    return isSame && kept != null
  }
}
