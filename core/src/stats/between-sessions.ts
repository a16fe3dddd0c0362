import { mean } from './moments.ts'

/** One session of an unchanged car: what it came to, and how sure its own laps make that, s. */
export interface SessionOutcome {
  readonly lapS: number
  readonly sdS: number
}

/** No outing is ever known to be better repeated than this, a share of the lap (common practice, no source). */
const LEAST_SHARE = 0.0005
/** So many sessions of one car, tyre and driver say how outings differ. */
const LEAST_SESSIONS = 3

/**
 * How much one outing differs from the next beyond its own laps, a share of the lap: variance of what sessions of an unchanged car came to, less what their own
 * laps leave open, pooled over groups of three sessions or more (one-way components of variance); never under 0.05 %. Null where no group has three.
 * Source: the room's page. Lap times above 0.
 * @example betweenShare([[{ lapS: 100, sdS: 0 }, { lapS: 101, sdS: 0 }, { lapS: 102, sdS: 0 }]]) // 0.0099
 */
export function betweenShare(groups: readonly (readonly SessionOutcome[])[]): number | null {
  const used = groups.filter(({ length }) => length >= LEAST_SESSIONS)
  if (used.length === 0) return null
  let [excess, freedom] = [0, 0]
  for (const sessions of used) {
    const middle = mean(sessions.map(({ lapS }) => lapS))
    const own = mean(sessions.map(({ sdS }) => sdS ** 2)) / middle ** 2
    const squares = sessions.reduce((sum, { lapS }) => sum + (lapS / middle - 1) ** 2, 0)
    excess += squares - own * (sessions.length - 1)
    freedom += sessions.length - 1
  }
  return Math.max(LEAST_SHARE, Math.sqrt(Math.max(0, excess / freedom)))
}
