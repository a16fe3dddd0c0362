import { requireWithin } from '../errors.ts'

/** What one person does in a round, and how long it takes him. */
export interface RoundShare {
  readonly checks: readonly number[]
  readonly minutes: number
}

/**
 * A round of checks shared out among people: the longest first to whoever is free first; places of the checks in the list that was given. It ends when the last
 * is done. Rejects minutes under zero and people outside 1 to 20. Source: longest processing time first (Graham 1969), at most 4/3 − 1/(3p) of the best.
 * @example roundTime([2.5, 2, 2, 1.5, 1.5, 1.5, 1, 1, 1, 1, 1, 1, 0.5, 0.5], 2).minutes // 9
 */
export function roundTime(minutes: readonly number[], people: number): { minutes: number; shares: readonly RoundShare[] } {
  requireWithin(people, 1, 20, 'people')
  minutes.forEach((each, i) => {
    requireWithin(each, 0, 600, `minutes.${i}`)
  })
  const shares = Array.from({ length: Math.floor(people) }, () => ({ checks: [] as number[], minutes: 0 }))
  const longestFirst = minutes.map((each, i) => ({ each, i })).sort((a, b) => b.each - a.each || a.i - b.i)
  for (const { each, i } of longestFirst) {
    const free = shares.reduce((first, share) => (share.minutes < first.minutes ? share : first))
    free.checks.push(i)
    free.minutes += each
  }
  return { minutes: Math.max(...shares.map((share) => share.minutes)), shares }
}
