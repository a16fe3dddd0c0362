import pLimit, { type LimitFunction } from 'p-limit'
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { AppError } from '../http/problem.ts'

const AT_ONCE = 2
const MOST_WAITING = 4
const A_MINUTE = 60

/** One person's sums do not keep the others' waiting: two at once, four wait, sixty a minute, of each server. */
export class PersonTurns {
  private readonly turns = new Map<string, LimitFunction>()
  private readonly minutes = new RateLimiterMemory({ points: A_MINUTE, duration: 60 })

  async run<Answer>(personId: string, work: () => Promise<Answer>): Promise<Answer> {
    const turn = this.turns.get(personId) ?? pLimit(AT_ONCE)
    if (turn.pendingCount >= MOST_WAITING)
      throw new AppError('too-many', `${AT_ONCE} of your sums run and ${MOST_WAITING} wait. Let them end, or stop one.`, { retryAfterS: 2 })
    this.turns.set(personId, turn)
    try {
      return await turn(() => this.minutes.consume(personId).then(work, refuse))
    } finally {
      // Whoever asks for nothing is not remembered.
      if (turn.activeCount + turn.pendingCount === 0) this.turns.delete(personId)
    }
  }
}

function refuse(over: RateLimiterRes): never {
  const retryAfterS = Math.ceil(over.msBeforeNext / 1000)
  throw new AppError('too-many', `That were ${A_MINUTE} sums in a minute. Again in ${retryAfterS} s.`, { retryAfterS })
}
