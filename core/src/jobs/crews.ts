import { DAY_H, firstHours } from './free-time.ts'
import type { ReadyRoad } from './road.ts'

/** A job whose hands never meet in time. */
export interface UnmetCrew {
  readonly jobId: string
  readonly handIds: readonly string[]
}

/** A meeting is no shorter than this, in hours. */
const LEAST_H = 0.25

/**
 * Jobs up to a stage that several hands do together who share no session before a day, whatever else they have to do: no order of the list helps there, only another week or
 * one hand less. Days run from today.
 * @example unmetCrews(READY, 3, 26) // []
 */
export function unmetCrews({ road, sessions }: ReadyRoad, stage: number, beforeDay: number): UnmetCrew[] {
  return road.jobs.flatMap(({ id, handIds, stage: own, kind }) => {
    if (kind === 'wait' || own > stage || handIds.length < 2) return []
    const lists = handIds.flatMap((hand) => sessions.get(hand) ?? [])
    const met = firstHours(lists, 0, LEAST_H)?.[0]
    return met && met.fromH < beforeDay * DAY_H ? [] : [{ jobId: id, handIds }]
  })
}
