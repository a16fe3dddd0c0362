import { itemAt } from '../item-at.ts'
import { DAY_H } from './free-time.ts'
import { type Lengths, layRoad, lengthsAt, type Otherwise, type ReadyRoad, readyH } from './road.ts'

/** Ends that lie closer than this are one, in hours. */
const SAME_H = 1e-6
/** How far a search for room goes: two months. */
const MOST_DAYS = 60
const MOST_HALF_HOURS = 120
/** What one job more of an evening's work costs: hours of work, days of a wait. */
export const MORE_WORK_H = 8
export const MORE_WAIT_DAYS = 7

/** What a road is asked about: the middle pass, and the last stage that counts. */
export interface Question {
  readonly ready: ReadyRoad
  readonly stage: number
}

const readyWith = ({ ready, stage }: Question, lengths: Lengths, otherwise: Otherwise): number => readyH(ready.road, layRoad(ready, lengths, otherwise), stage)

/** The most steps, of 1 to `most`, that leave the ready time where it is; each step before it does too, as far as it was tried. Gallops, then halves. */
function mostSteps(most: number, leaves: (steps: number) => boolean): number {
  let [good, step] = [0, 1]
  while (good + step <= most && leaves(good + step)) {
    good += step
    step *= 2
  }
  for (let bad = Math.min(good + step, most + 1); bad - good > 1; ) {
    const middle = Math.floor((good + bad) / 2)
    if (leaves(middle)) good = middle
    else bad = middle
  }
  return good
}

/** How late a part may come, and what a job has to spare. */
export interface Slack {
  readonly parts: readonly { readonly id: string; readonly mayBeLateDays: number }[]
  readonly jobs: readonly {
    readonly id: string
    /** Half hours of work as hours, days of a wait, that leave the ready time where it is; 0: it is on the line. */
    readonly room: number
    /** Days that the middle of the ready time moves by when it takes 8 h more, a wait 7 days more. */
    readonly moreCostsDays: number
  }[]
}

/**
 * For each part how many whole days late it may come, for each job its room and what an evening's work more costs, by the middle pass of the road
 * up to a stage. Half an hour is the step of work, a day that of a wait; 60 days and 60 h are the most that is looked at.
 * @example findSlack({ ready: READY, stage: 3 }).parts[0].mayBeLateDays // 6
 */
export function findSlack(question: Question): Slack {
  const { road } = question.ready
  const lengths = lengthsAt(road)
  const nowH = readyWith(question, lengths, {})
  const leaves = (otherwise: Otherwise) => readyWith(question, lengths, otherwise) - nowH < SAME_H
  return {
    parts: road.parts.map(({ id }) => ({ id, mayBeLateDays: mostSteps(MOST_DAYS, (days) => leaves({ partLaterDays: new Map([[id, days]]) })) })),
    jobs: road.jobs.map(({ id, kind }) => {
      const [step, most, more] = kind === 'wait' ? [1, MOST_DAYS, MORE_WAIT_DAYS] : [0.5, MOST_HALF_HOURS, MORE_WORK_H]
      const longer = (amount: number): Otherwise => ({ longer: new Map([[id, amount]]) })
      return {
        id,
        room: step * mostSteps(most, (steps) => leaves(longer(steps * step))),
        moreCostsDays: (readyWith(question, lengths, longer(more)) - nowH) / DAY_H,
      }
    }),
  }
}

/**
 * What is otherwise when a part comes, or a job begins, so many days later (or sooner, with fewer than none) than the middle of the road says.
 * @example slipOf(READY, 'drives', 7).partLaterDays.get('drives') // 7
 */
export function slipOf(ready: ReadyRoad, id: string, days: number): Otherwise {
  if (ready.road.parts.some((part) => part.id === id)) return { partLaterDays: new Map([[id, days]]) }
  const at = ready.road.jobs.findIndex((job) => job.id === id)
  if (at < 0) return {}
  const { startH } = itemAt(layRoad(ready, lengthsAt(ready.road)), at)
  return Number.isFinite(startH) ? { notBeforeDay: new Map([[id, Math.floor(startH / DAY_H) + days]]) } : {}
}
