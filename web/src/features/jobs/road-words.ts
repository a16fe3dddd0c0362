import { dayAfter, type Move, type MoveNames, moveText, type Road } from '@bold-ballast/core'
import { dayText } from '../../ui/words.ts'

/** "27 Mar": days of a road lie near, their year is told by the page. */
export const shortDay = (day: string): string => dayText(day).replace(/ \d{4}$/, '')

/** The day so many days from today, short; words for one that never comes. */
export const roadDay = (today: string, days: number): string => (Number.isFinite(days) ? shortDay(dayAfter(today, days)) : 'never')

/** Hours as people say them: 2.5 h. */
export const hoursText = (hours: number): string => `${Number(hours.toFixed(hours < 10 ? 1 : 0))} h`

/** What a job of hours or days comes to. */
export const lengthText = (kind: 'work' | 'wait', amount: number): string => (kind === 'work' ? hoursText(amount) : `${Number(amount.toFixed(1))} d`)

/** Names of what a road speaks of. */
export function namesOf({ hands, jobs, parts }: Road): MoveNames {
  const named = (list: readonly { readonly id: string; readonly name: string }[]) => (id: string) => list.find((entry) => entry.id === id)?.name ?? '?'
  return { hand: named(hands), job: named(jobs), part: named(parts) }
}

export const helpText = (road: Road, move: Move): string => moveText(move, namesOf(road))

/** The day so many days from today as a table holds it; nothing for one that never comes. */
export const dayOf = (today: string, days: number | undefined): string | null => (days !== undefined && Number.isFinite(days) ? dayAfter(today, days) : null)
