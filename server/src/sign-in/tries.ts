import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { AppError } from '../http/problem.ts'
import { tryNetwork } from './addresses.ts'
import { folded } from './names.ts'

const MINUTE_S = 60
const HOUR_S = 3600

/** A key of tries that tells nobody which login it was. */
const keyOf = (...parts: readonly string[]) => createHash('sha256').update(parts.join('\0')).digest('base64url')

/** "in 14 minutes", "in a minute": when it is worth another try. */
const afterWords = (seconds: number) => (seconds <= MINUTE_S ? 'in a minute' : `in ${Math.ceil(seconds / MINUTE_S)} minutes`)

const tooMany = (waitMs: number) => {
  const retryAfterS = Math.max(1, Math.ceil(waitMs / 1000))
  return new AppError('too-many', `Too many tries. Again ${afterWords(retryAfterS)}.`, { retryAfterS })
}

/** Counts tries to sign in, in the database, so that several servers count together. */
export class Tries {
  private readonly byLoginAndAddress: RateLimiterPostgres
  private readonly byLogin: RateLimiterPostgres
  private readonly byAddress: RateLimiterPostgres
  private readonly bySeat: RateLimiterPostgres
  private readonly byLink: RateLimiterPostgres

  constructor(knex: Knex) {
    const limiter = (keyPrefix: string, points: number, duration: number) =>
      new RateLimiterPostgres({
        storeClient: knex,
        storeType: 'knex',
        tableName: 'tries',
        tableCreated: true,
        clearExpiredByTimeout: false,
        keyPrefix,
        points,
        duration,
      })
    this.byLoginAndAddress = limiter('la', 10, 15 * MINUTE_S)
    this.byLogin = limiter('l', 50, HOUR_S)
    this.byAddress = limiter('a', 100, HOUR_S)
    this.byLink = limiter('k', 60, MINUTE_S)
    this.bySeat = limiter('s', 5, 24 * HOUR_S)
  }

  private async take(limiter: RateLimiterPostgres, key: string): Promise<RateLimiterRes> {
    try {
      return await limiter.consume(key)
    } catch (spent) {
      if (spent instanceof RateLimiterRes) throw tooMany(spent.msBeforeNext)
      throw spent
    }
  }

  /**
   * Takes one try for a login from an address; refused with how long to wait. A browser that signed this person in before is counted
   * by its own address alone, so that strangers cannot lock its owner out. Answers how to give the try back, for one that was right.
   */
  async signIn({ login, address, isKnownBrowser }: { login: string; address: string; isKnownBrowser: boolean }): Promise<() => Promise<void>> {
    const from = tryNetwork(address)
    const taken: [RateLimiterPostgres, string][] = [[this.byAddress, from]]
    if (!isKnownBrowser) taken.push([this.byLogin, keyOf(folded(login))])
    taken.push([this.byLoginAndAddress, keyOf(folded(login), from, isKnownBrowser ? 'known' : '')])
    for (const [limiter, key] of taken) await this.take(limiter, key)
    return async () => {
      for (const [limiter, key] of taken) await limiter.reward(key)
    }
  }

  /** Takes one look at a shared sheet from an address: sixty a minute. */
  async link(address: string): Promise<void> {
    await this.take(this.byLink, tryNetwork(address))
  }

  /** Takes one of the five tries at a seat; answers how many are left and how to give them all back. */
  async atSeat(browser: string, personId: string): Promise<{ readonly left: number; readonly forget: () => Promise<void> }> {
    const key = keyOf(browser, personId)
    const forget = async () => void (await this.bySeat.delete(key))
    try {
      const { remainingPoints } = await this.bySeat.consume(key)
      return { left: remainingPoints, forget }
    } catch (spent) {
      if (spent instanceof RateLimiterRes) return { left: 0, forget }
      throw spent
    }
  }
}
